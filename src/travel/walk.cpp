#include "travel/walk.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "geometry/plan.hpp"
#include "travel/body_sweep.hpp"

namespace gaze {
namespace {

constexpr int kMostSlides = 4;  // more than three contacts in one step is a corner

// Only the part of a contact that points sideways can turn a walker aside.
Vector3d level_normal(Plane plane, const Vector3d& normal, bool flies) {
  Vector3d level{normal.x(), plane == Plane::upright ? 0.0 : normal.y(), flies ? normal.z() : 0.0};
  const double length = length_of(level);
  return length > 0.0 ? Vector3d(level / length) : Vector3d{0.0, 0.0, 0.0};
}

/// Keeps the directions that earlier contacts of the same step forbid.
class Contacts {
 public:
  bool forbid(const Vector3d& motion) const {
    return std::any_of(normals_.begin(), normals_.begin() + count_,
                       [&](const Vector3d& normal) { return dot3(motion, normal) < -1e-12; });
  }
  void add(const Vector3d& normal) { normals_[static_cast<std::size_t>(count_++)] = normal; }

 private:
  std::array<Vector3d, kMostSlides> normals_;
  int count_ = 0;
};

Vector3d level_way(Plane plane, const Vector3d& from, const Vector3d& to, bool flies) {
  return {to.x() - from.x(), plane == Plane::upright ? 0.0 : to.y() - from.y(),
          flies ? to.z() - from.z() : 0.0};
}

/// What turns a body aside.
struct WayContact {
  double share = 0.0;  ///< Of the way to where it comes to rest.
  Vector3d normal{0.0, 0.0, 0.0};
};

// Sweeps the core of a body, so that solids which it only touches do not stop it. The core lies
// `kContactGap` inside the body, and the body comes to rest `kContactGap` before a solid.
std::optional<WayContact> first_contact(const World& world, const Cylinder& body,
                                        const Vector3d& way, bool flies,
                                        std::span<const Cylinder> others) {
  std::optional<WayContact> first;
  if (const auto solid = world.sweep(core_of(body), way, Stops::bodies)) {
    const Vector3d normal = level_normal(world.plane(), solid->normal, flies);
    const double approach = -dot3(way, normal);
    const double gap = approach > 0.0 ? 2.0 * kContactGap / approach : 0.0;
    first = {std::max(0.0, solid->share - gap), normal};
  }
  const auto other = first_body_met(world.plane(), body, way, flies, others);
  if (other && (!first || other->share < first->share)) first = {other->share, other->normal};
  return first;
}

Moment time_for(double metres, double speed, int ticks_per_second) {
  const double moments = metres / speed * 1e9 * ticks_per_second;
  return moments < 1e18 ? static_cast<Moment>(std::llround(moments)) : Moment{1} << 60;
}

// A goal at which the body touches a solid lies up to `kContactGap` beyond its rest position.
bool is_as_good_as_there(const World& world, const Cylinder& rest, const Vector3d& there,
                         bool flies, std::span<const Cylinder> others) {
  const Vector3d left = there - rest.feet;
  if (left.cwiseAbs().maxCoeff() > 2.0 * kContactGap) return false;
  return !first_body_met(world.plane(), rest, left, flies, others) &&
         !world.overlaps(core_of({there, rest.radius, rest.height}), Stops::bodies);
}

}  // namespace

Vector3d slide(const World& world, const Cylinder& body, const Vector3d& wish, bool flies,
               std::span<const Cylinder> others) {
  Cylinder moving = body;
  Vector3d rest = wish;
  Contacts contacts;
  for (int round = 0; round < kMostSlides; ++round) {
    const auto touch = first_contact(world, moving, rest, flies, others);
    if (!touch) {
      moving.feet += rest;
      break;
    }
    if (!(dot3(rest, touch->normal) < 0.0)) break;
    moving.feet += rest * touch->share;
    rest *= 1.0 - touch->share;
    rest -= touch->normal * dot3(rest, touch->normal);
    if (contacts.forbid(rest)) break;
    contacts.add(touch->normal);
  }
  return moving.feet;
}

LegResult walk(const World& world, const WalkingBody& body, const Leg& leg, Moment budget,
               int ticks_per_second, std::span<const Cylinder> others) {
  const Vector3d way = level_way(world.plane(), body.feet, leg.goal, body.flies);
  const double distance = length_of(way);
  const double to_go = distance - leg.stop;
  if (to_go <= 0.0) return {body.feet, 0, true};
  if (!(leg.speed > 0.0)) return {body.feet, budget, false};
  const Moment needed = time_for(to_go, leg.speed, ticks_per_second);
  const bool in_time = needed <= budget;
  const double seconds = static_cast<double>(budget) / 1e9 / ticks_per_second;
  const double reach = in_time ? to_go : leg.speed * seconds;
  const Vector3d wish = reach == distance ? way : Vector3d(way * (reach / distance));
  const Vector3d lift{0.0, 0.0, body.step_height};
  const Cylinder solid_part{body.feet + lift, body.radius, body.height - body.step_height};
  const Vector3d lifted = slide(world, solid_part, wish, body.flies, others);
  const Vector3d there = solid_part.feet + wish;
  const bool is_there =
      in_time &&
      (lifted == there || is_as_good_as_there(world, {lifted, solid_part.radius, solid_part.height},
                                              there, body.flies, others));
  const Vector3d& end = is_there ? there : lifted;
  Vector3d feet{end.x(), end.y(), body.flies ? end.z() : body.feet.z()};
  if (!is_there) return {feet, budget, false};
  if (reach == distance) {
    feet = {leg.goal.x(), leg.goal.y(), body.flies ? leg.goal.z() : body.feet.z()};
  }
  if (world.plane() == Plane::upright) feet.y() = body.feet.y();
  return {feet, needed, true};
}

}  // namespace gaze
