#include "gaze/feeling.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
#include "geometry/rolling.hpp"

namespace gaze {
namespace {

void keep_nearer(Felt& felt, double& best, double share, std::optional<std::uint32_t> body,
                 std::optional<SolidId> solid) {
  if (!(share < best)) return;
  best = share;
  felt.body = body;
  felt.solid = solid;
}

}  // namespace

BallPath feeler_path(Plane plane, const Feeler& feeler, const Vector3d& feet,
                     const Vector2d& facing) {
  const Vector3d start = offset_place(plane, feet, facing, feeler.from);
  const Vector3d end =
      start + direction_along(plane, facing, feeler.toward, feeler.tilt) * feeler.length;
  return {{start, end}, feeler.thickness / 2.0};
}

Felt feel(const World& world, std::optional<double> ground, const Feeler& feeler,
          const Vector3d& feet, const Vector2d& facing, std::span<const Cylinder> bodies) noexcept {
  const BallPath path = feeler_path(world.plane(), feeler, feet, facing);
  Felt felt;
  double best = 1.0;
  if (const auto touch = world.first_touch(path, feeler.stopped_by)) {
    keep_nearer(felt, best, touch->share, std::nullopt, touch->solid);
  }
  if (ground) {
    if (const auto share = first_touch_of_floor(path, *ground)) {
      keep_nearer(felt, best, *share, std::nullopt, std::nullopt);
    }
  }
  for (std::uint32_t i = 0; i < bodies.size(); ++i) {
    if (const auto share = first_touch(path, bodies[i], Vector3d{0.0, 0.0, 0.0})) {
      keep_nearer(felt, best, *share, i, std::nullopt);
    }
  }
  felt.place = path.path.from + (path.path.to - path.path.from) * best;
  if (best < 1.0) felt.distance = best * feeler.length;
  return felt;
}

void feel(const World& world, std::optional<double> ground,
          std::span<const FeelerQuestion> questions, std::span<const Cylinder> bodies,
          std::span<Felt> felt) noexcept {
  for (std::size_t i = 0; i < questions.size(); ++i) {
    const FeelerQuestion& question = questions[i];
    felt[i] = feel(world, ground, question.feeler, question.feet, question.facing, bodies);
  }
}

double distance_along(const std::array<bool, 3>& axes, const Vector3d& a,
                      const Vector3d& b) noexcept {
  const Vector3d way = b - a;
  const double x = axes[0] ? way.x() : 0.0;
  const double y = axes[1] ? way.y() : 0.0;
  const double z = axes[2] ? way.z() : 0.0;
  return std::sqrt(x * x + y * y + z * z);
}

namespace {

// Which side of the body the other is on, whether it touches it or not.
Side side_of(Plane plane, const Cylinder& body, const Vector2d& facing, const Cylinder& other) {
  if (body.feet.z() + body.height - other.feet.z() <= body.height / 2.0) return Side::top;
  if (other.feet.z() + other.height - body.feet.z() <= other.height / 2.0) return Side::bottom;
  const double x = other.feet.x() - body.feet.x();
  const double y = other.feet.y() - body.feet.y();
  const Vector2d way{x, plane == Plane::upright ? 0.0 : y};
  const double ahead = dot(facing, way);
  const double left = cross(facing, way);
  if (std::abs(left) <= std::abs(ahead)) return ahead >= 0.0 ? Side::front : Side::back;
  return left > 0.0 ? Side::left : Side::right;
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
  return side_of(plane, body, facing, other);
}

std::optional<Side> touched_side(Plane plane, const Cylinder& body, const Vector2d& facing,
                                 const Cylinder& other, const Vector3d& body_from,
                                 const Vector3d& other_from) noexcept {
  if (!do_touch(body, other)) return std::nullopt;
  Cylinder own = body;
  Cylinder its = other;
  own.feet = body_from;
  its.feet = other_from;
  if (do_touch(own, its)) return side_of(plane, body, facing, other);
  const Vector3d way = other_from - body_from;
  const double share = share_of_touch(body, other, way, (other.feet - body.feet) - way);
  own.feet = body_from + (body.feet - body_from) * share;
  its.feet = other_from + (other.feet - other_from) * share;
  return side_of(plane, own, facing, its);
}

}  // namespace gaze
