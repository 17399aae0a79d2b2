#pragma once

#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {

/// Degrees in (-180, 180].
inline double signed_degrees(double degrees) {
  const double turn = std::fmod(degrees, 360.0);
  if (turn > 180.0) return turn - 360.0;
  return turn <= -180.0 ? turn + 360.0 : turn;
}

/// Degrees from one direction to another, anticlockwise, in (-180, 180].
inline double signed_turn(const Vector2d& from, const Vector2d& to) {
  return signed_degrees(angle_of({dot(from, to), cross(from, to)}).degrees());
}

}  // namespace gaze
