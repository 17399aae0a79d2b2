#pragma once

#include <compare>
#include <cstdint>

#include "gaze/public.hpp"

/// Time in Gaze is exact: durations are whole nanoseconds, and a run counts in moments.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// A span of time that a designer wrote, in whole nanoseconds.
struct Duration {
  std::int64_t nanoseconds = 0;

  /// Rounded to the nearest nanosecond; for |seconds| <= 1e9.
  static Duration from_seconds(double seconds);
  constexpr double seconds() const { return static_cast<double>(nanoseconds) / 1e9; }
  constexpr auto operator<=>(const Duration&) const = default;
};

/// A moment is a nanosecond divided by the ticks of a second, so that both tick k (k times
/// `kMomentsPerTick`) and every duration are whole numbers of moments and compare exactly.
using Moment = std::int64_t;
constexpr Moment kMomentsPerTick = 1'000'000'000;

constexpr Moment moments_of(Duration duration, int ticks_per_second) {
  return duration.nanoseconds * ticks_per_second;
}

/// The tick nearest to a time, halves upward; 0 for what lies before the start.
[[nodiscard]] std::int64_t nearest_tick(double seconds, int ticks_per_second);

}  // namespace gaze
GAZE_PUBLIC_END
