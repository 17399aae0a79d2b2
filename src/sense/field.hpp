#pragma once

#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {

/// How a vector lies to a facing: so far along it, so far off it to any side.
struct Bearing {
  double along = 0.0;
  double off = 0.0;  ///< >= 0
};

inline Bearing bearing_of(const Vector2d& facing, const Vector2d& v) {
  return {dot(facing, v), std::abs(cross(facing, v))};
}

/// In three dimensions, for a facing that lies level.
inline Bearing bearing_of(const Vector2d& facing, const Vector2d& v, double across) {
  const double off = cross(facing, v);
  return {dot(facing, v), std::sqrt(off * off + across * across)};
}

/// Whether the angle to the facing is at most a limit in (0, 180] degrees, given by its sine and
/// cosine. sin(limit - angle) >= 0, without any angle: exact on the limit where the products are.
/// A vector without length is within every limit.
inline bool is_within(const Bearing& bearing, const SineCosine& limit) {
  return bearing.along * limit.sine - bearing.off * limit.cosine >= 0.0;
}

}  // namespace gaze
