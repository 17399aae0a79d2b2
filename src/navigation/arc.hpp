#pragma once

#include <optional>

#include "gaze/geometry.hpp"

namespace gaze {

/// A hop: up to `rise` above where it begins and down to where it ends, under gravity alone; level
/// with constant speed.
struct Arc {
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};
  double up = 0.0;  ///< Speed at the start, metres a second.
  double gravity = 0.0;
  double seconds = 0.0;  ///< How long it takes.
};

/// Nothing if the end lies higher than the hop goes, or without gravity.
[[nodiscard]] std::optional<Arc> arc_between(const Vector3d& from, const Vector3d& to, double rise,
                                             double gravity);

/// Where it is after so many seconds; at its end from then on.
[[nodiscard]] Vector3d place_on(const Arc& arc, double seconds);

/// Seconds after which it first is so far above its start, of those in [0, rise].
[[nodiscard]] double time_to_height(const Arc& arc, double height);

}  // namespace gaze
