#pragma once

#include "gaze/level.hpp"
#include "gaze/world.hpp"

namespace gaze {

/// Metres from a point to a body; 0 inside of it.
[[nodiscard]] double distance_to(const Cylinder& body, const Vector3d& p);
/// Metres from a point to a block, from its base to its top; 0 inside of it.
[[nodiscard]] double distance_to(Plane plane, const Solid& block, const Vector3d& p);
/// The point of a block nearest to a point: the point itself inside of it.
[[nodiscard]] Vector3d nearest_point(Plane plane, const Solid& block, const Vector3d& p);

}  // namespace gaze
