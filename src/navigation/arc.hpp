#pragma once

#include <optional>

#include "gaze/geometry.hpp"

namespace gaze {

/// The arc of a hop. It goes up to `rise` above its start and comes down to its end under gravity
/// alone, while it moves sideways at constant speed.
struct Arc {
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};
  double up = 0.0;  ///< Speed at the start, metres a second.
  double gravity = 0.0;
  double seconds = 0.0;  ///< How long it takes.
};

/// The arc between two places. There is none if the end lies higher than the hop goes up, or if
/// there is no gravity.
[[nodiscard]] std::optional<Arc> arc_between(const Vector3d& from, const Vector3d& to, double rise,
                                             double gravity);

/// Where the body is after so many seconds. Once the arc is over it stays at its end.
[[nodiscard]] Vector3d place_on(const Arc& arc, double seconds);

/// How many seconds pass until the body is so far above its start for the first time. The height
/// lies in [0, rise].
[[nodiscard]] double time_to_height(const Arc& arc, double height);

}  // namespace gaze
