#include "travel/turn.hpp"

#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

Vector2d unit(const Vector2d& v) {
  return v / length_of(v);
}

}  // namespace

Vector2d turn_toward(const Vector2d& facing, const Vector2d& wanted, const SineCosine& most) {
  if (dot(wanted, wanted) == 0.0 || most.cosine == 1.0) return facing;
  const double along = dot(facing, wanted);
  const double left = cross(facing, wanted);
  const bool within_reach = along * most.sine - std::abs(left) * most.cosine >= 0.0 &&
                            (most.sine > 0.0 || most.cosine < 0);
  if (within_reach) return unit(wanted);
  // Half a turn goes to the left wherever the level lies: rounding does not decide.
  constexpr double kHalfTurn = 1e-9;  // radians off it
  const bool goes_right = left < 0.0 && !(along < 0.0 && -left <= -along * kHalfTurn);
  const double sine = goes_right ? -most.sine : most.sine;
  return unit(
      {facing.x() * most.cosine - facing.y() * sine, facing.y() * most.cosine + facing.x() * sine});
}

Vector2d flip_toward(const Vector2d& facing, const Vector2d& wanted) {
  if (wanted.x() == 0.0) return facing;
  return {wanted.x() > 0.0 ? 1.0 : -1.0, 0.0};
}

}  // namespace gaze
