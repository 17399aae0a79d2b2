#include "geometry/rolling.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/first_within.hpp"
#include "geometry/plan.hpp"

namespace gaze {
namespace {

// From the nearest point of an upright cylinder that stands at the origin; zero inside.
Vector3d offset_from_cylinder(double radius, double height, const Vector3d& p) {
  const double out = level_length(p);
  const double beyond = out > radius ? 1.0 - radius / out : 0.0;
  const double above = p.z() > height ? p.z() - height : std::min(p.z(), 0.0);
  return {p.x() * beyond, p.y() * beyond, above};
}

bool may_touch(const Vector3d& from, const Vector3d& motion, double radius, double height) {
  for (int axis = 0; axis < 2; ++axis) {
    if (std::max(from[axis], from[axis] + motion[axis]) < -radius) return false;
    if (std::min(from[axis], from[axis] + motion[axis]) > radius) return false;
  }
  return std::max(from.z(), from.z() + motion.z()) >= -radius &&
         std::min(from.z(), from.z() + motion.z()) <= height + radius;
}

// A ball without size is a point: where it enters the cylinder, from the disc's quadratic and the
// slab between its ends.
std::optional<double> first_touch_of_point(const Vector3d& from, const Vector3d& way, double radius,
                                           double height) {
  double enter = 0.0;
  double leave = 1.0;
  if (way.z() == 0.0) {
    if (from.z() < 0.0 || from.z() > height) return std::nullopt;
  } else {
    const auto [first, last] = std::minmax({-from.z() / way.z(), (height - from.z()) / way.z()});
    enter = std::max(enter, first);
    leave = std::min(leave, last);
  }
  const double a = way.x() * way.x() + way.y() * way.y();
  const double b = from.x() * way.x() + from.y() * way.y();
  const double c = from.x() * from.x() + from.y() * from.y() - radius * radius;
  if (a == 0.0) {
    if (c > 0.0) return std::nullopt;
  } else {
    const double root = b * b - a * c;
    if (root < 0.0) return std::nullopt;
    enter = std::max(enter, (-b - std::sqrt(root)) / a);
    leave = std::min(leave, (-b + std::sqrt(root)) / a);
  }
  return enter <= leave && enter < 1.0 ? std::optional(enter) : std::nullopt;
}

}  // namespace

std::optional<double> first_touch(const BallPath& ball, const Cylinder& body,
                                  const Vector3d& motion) {
  const Vector3d from = ball.path.from - body.feet;
  const Vector3d way = ball.path.to - ball.path.from - motion;
  if (!may_touch(from, way, body.radius + ball.radius, body.height)) return std::nullopt;
  if (ball.radius == 0.0) return first_touch_of_point(from, way, body.radius, body.height);
  return first_within(ball.radius, [&](double share) {
    const Vector3d offset = offset_from_cylinder(body.radius, body.height, from + way * share);
    const double distance = length_of(offset);
    const double gain = offset.x() * way.x() + offset.y() * way.y() + offset.z() * way.z();
    return Approach{distance, distance > 0.0 ? gain / distance : 0.0};
  });
}

std::optional<double> first_touch_of_floor(const BallPath& ball, double height) {
  const double start = ball.path.from.z() - ball.radius - height;
  const double end = ball.path.to.z() - ball.radius - height;
  if (!(end < 0.0 && end < start)) return std::nullopt;
  return start <= 0.0 ? 0.0 : start / (start - end);
}

}  // namespace gaze
