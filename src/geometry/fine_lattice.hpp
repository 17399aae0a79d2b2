#pragma once

#include <cstdint>

#include "gaze/geometry.hpp"

/// A lattice so fine that rounding to it does not count, for what is to be as exact as coordinates
/// in double are. Left and right are whole-number arithmetic here too.
namespace gaze {

/// Steps of 1e-12 m; coordinates up to 4,000 km fit.
constexpr double kFinePerMetre = 1099511627776.0;

struct FinePoint {
  static constexpr bool kCirclesAreExact = false;
  std::int64_t x = 0;
  std::int64_t y = 0;
  bool operator==(const FinePoint&) const = default;
};

__extension__ using WideInteger = __int128;

/// The nearest point of it.
[[nodiscard]] FinePoint to_fine(const Vector2d& p);

[[nodiscard]] inline Vector2d from_lattice(const FinePoint& p) {
  return {static_cast<double>(p.x) / kFinePerMetre, static_cast<double>(p.y) / kFinePerMetre};
}

/// Twice the area of a triangle, in square steps: positive if c lies to the left of a to b. Exact.
inline WideInteger side_of(const FinePoint& a, const FinePoint& b, const FinePoint& c) {
  return WideInteger{b.x - a.x} * (c.y - a.y) - WideInteger{b.y - a.y} * (c.x - a.x);
}

/// True if d lies inside the circle through a, b and c, which run anticlockwise, by more than
/// rounding in double.
[[nodiscard]] bool is_in_circle(const FinePoint& a, const FinePoint& b, const FinePoint& c,
                                const FinePoint& d);

/// The point of the lattice nearest to where the lines through a, b and c, d cross, but for
/// rounding in double; they do cross.
[[nodiscard]] FinePoint crossing(const FinePoint& a, const FinePoint& b, const FinePoint& c,
                                 const FinePoint& d);

}  // namespace gaze
