#pragma once

#include <cmath>

#include "gaze/solid.hpp"

namespace gaze {

/// Square metres: what has no more than that has no area.
inline constexpr double kLeastArea = 1e-10;

/// Square metres.
[[nodiscard]] inline double area_of(const Triangle& t) {
  const Vector3d u = t[1] - t[0];
  const Vector3d v = t[2] - t[0];
  const double x = u.y() * v.z() - u.z() * v.y();
  const double y = u.z() * v.x() - u.x() * v.z();
  const double z = u.x() * v.y() - u.y() * v.x();
  return std::sqrt(x * x + y * y + z * z) / 2.0;
}

}  // namespace gaze
