#pragma once

#include <cmath>

#include "gaze/sight.hpp"
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

/// How it lies to a unit vector in space.
inline Bearing bearing_of(const Vector3d& axis, const Vector3d& v) {
  const Vector3d off{axis.y() * v.z() - axis.z() * v.y(), axis.z() * v.x() - axis.x() * v.z(),
                     axis.x() * v.y() - axis.y() * v.x()};
  return {dot3(axis, v), length_of(off)};
}

/// Up and down alone: how a way that goes so far level and so far up lies to a tilt.
inline Bearing bearing_above(Angle tilt, double level, double rise) {
  if (tilt.degrees() == 0.0) return {level, std::abs(rise)};
  const SineCosine up = sine_cosine(tilt);
  return {level * up.cosine + rise * up.sine, std::abs(rise * up.cosine - level * up.sine)};
}

/// Whether the angle to the facing is at most a limit in (0, 180] degrees, given by its sine and
/// cosine. sin(limit - angle) >= 0, without any angle: exact on the limit where the products are.
/// A vector without length is within every limit.
inline bool is_within(const Bearing& bearing, const SineCosine& limit) {
  return bearing.along * limit.sine - bearing.off * limit.cosine >= 0.0;
}

/// The part of a view that lies in the plan through its eye.
struct PlanField {
  Vector2d middle{1.0, 0.0};
  std::optional<Angle> half;  ///< To each side; nothing: all of the view lies above or below.
};

/// Up and down are left aside where they have a field of their own.
[[nodiscard]] PlanField plan_field(Plane plane, const Looker& looker);

/// With which facing the middle of its view is at a way in the plan, a unit vector.
[[nodiscard]] Vector2d facing_for(Plane plane, const Looker& looker, const Vector2d& way);

}  // namespace gaze
