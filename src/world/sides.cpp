#include "gaze/sides.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

// The side by quarters about the facing. On a border, front and back come before left and right.
Side quarter_of(Plane plane, const Vector2d& facing, const Vector3d& way) {
  const Vector2d level{way.x(), plane == Plane::upright ? 0.0 : way.y()};
  const double ahead = dot(facing, level);
  const double left = cross(facing, level);
  if (std::abs(left) <= std::abs(ahead)) return ahead >= 0.0 ? Side::front : Side::back;
  return left > 0.0 ? Side::left : Side::right;
}

// On which side of the body the other one is, whether they touch or not.
Side side_of_body(Plane plane, const Cylinder& body, const Vector2d& facing,
                  const Cylinder& other) {
  if (body.feet.z() + body.height - other.feet.z() <= body.height / 2.0) return Side::top;
  if (other.feet.z() + other.height - body.feet.z() <= other.height / 2.0) return Side::bottom;
  return quarter_of(plane, facing, other.feet - body.feet);
}

bool do_touch(const Cylinder& body, const Cylinder& other) {
  const double x = other.feet.x() - body.feet.x();
  const double y = other.feet.y() - body.feet.y();
  const double sideways = body.radius + other.radius - std::sqrt(x * x + y * y);
  const double upward = std::min(body.feet.z() + body.height - other.feet.z(),
                                 other.feet.z() + other.height - body.feet.z());
  return sideways >= -kTouchGap && upward >= -kTouchGap;
}

// The share of a step from which on they touch, given that they do at its end and not at its start:
// `way` leads from the one to the other at the start, and `change` is how that has changed since.
double share_of_touch(const Cylinder& body, const Cylinder& other, const Vector3d& way,
                      const Vector3d& change) {
  double share = 0.0;
  const double reach = body.radius + other.radius;
  const double a = change.x() * change.x() + change.y() * change.y();
  const double b = way.x() * change.x() + way.y() * change.y();
  const double c = way.x() * way.x() + way.y() * way.y() - reach * reach;
  const double root2 = b * b - a * c;
  if (c > 0.0 && a > 0.0 && root2 >= 0.0) share = std::max(share, (-b - std::sqrt(root2)) / a);
  const double above = way.z() - body.height;
  const double below = -way.z() - other.height;
  if (above > 0.0 && change.z() < 0.0) share = std::max(share, above / -change.z());
  if (below > 0.0 && change.z() > 0.0) share = std::max(share, below / change.z());
  return std::min(share, 1.0);
}

}  // namespace

std::optional<Side> touched_side(Plane plane, const Cylinder& body, const Vector2d& facing,
                                 const Cylinder& other) noexcept {
  if (!do_touch(body, other)) return std::nullopt;
  return side_of_body(plane, body, facing, other);
}

std::optional<Side> touched_side(Plane plane, const Cylinder& body, const Vector2d& facing,
                                 const Cylinder& other, const Vector3d& body_from,
                                 const Vector3d& other_from) noexcept {
  if (!do_touch(body, other)) return std::nullopt;
  Cylinder own = body;
  Cylinder its = other;
  own.feet = body_from;
  its.feet = other_from;
  if (do_touch(own, its)) return side_of_body(plane, body, facing, other);
  const Vector3d way = other_from - body_from;
  const double share = share_of_touch(body, other, way, (other.feet - body.feet) - way);
  own.feet = body_from + (body.feet - body_from) * share;
  its.feet = other_from + (other.feet - other_from) * share;
  return side_of_body(plane, own, facing, its);
}

Side side_towards(Plane plane, const Cylinder& body, const Vector2d& facing,
                  const Vector3d& point) noexcept {
  const Vector3d way = point - (body.feet + Vector3d{0.0, 0.0, body.height / 2.0});
  if (way.x() * way.x() + way.y() * way.y() < body.radius * body.radius) {
    return way.z() >= 0.0 ? Side::top : Side::bottom;
  }
  return quarter_of(plane, facing, way);
}

}  // namespace gaze
