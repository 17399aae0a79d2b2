#pragma once

#include <optional>

#include "gaze/geometry.hpp"

namespace gaze {

/// Where in [0, 1) of its way a ball first touches an upright cylinder that itself moves by
/// `motion` meanwhile; 0 if it begins in touch. Exact for straight, even motion of both, whatever
/// the speed. A rolling ball needs no margin: distance to a cylinder is convex along a line.
[[nodiscard]] std::optional<double> first_touch(const BallPath& ball, const Cylinder& body,
                                                const Vector3d& motion);

/// Where in [0, 1) of its way a ball first touches a level floor from above.
[[nodiscard]] std::optional<double> first_touch_of_floor(const BallPath& ball, double height);

}  // namespace gaze
