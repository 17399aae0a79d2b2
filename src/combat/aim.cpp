#include "combat/aim.hpp"

#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

bool is_turned_to(Plane plane, const Fighter& fighter, const Fighter& target, Angle limit) {
  const Vector2d way = plan_part(plane, target.middle() - fighter.middle());
  const SineCosine most = sine_cosine(limit);
  const double along = dot(fighter.facing, way);
  if (most.sine == 0.0 && most.cosine > 0.0) return along >= 0.0 && cross(fighter.facing, way) == 0;
  return along * most.sine - std::abs(cross(fighter.facing, way)) * most.cosine >= 0.0;
}

}  // namespace

double fight_distance(Plane plane, const Fighter& one, const Fighter& other) {
  const PlanPoint a = to_plan(plane, one.feet);
  const PlanPoint b = to_plan(plane, other.feet);
  const Vector2d way = b.plan - a.plan;
  const double across = plane == Plane::space ? b.across - a.across : 0.0;
  return std::sqrt(dot(way, way) + across * across);
}

Vector3d muzzle_place(Plane plane, const Fighter& shooter, const Vector3d& offset) {
  const Vector2d& f = shooter.facing;
  if (plane == Plane::upright) {
    // Seen from the side, left of the facing is depth: toward y for who faces right.
    const double depth = f.x() < 0.0 ? -offset.y() : offset.y();
    return shooter.feet + Vector3d{f.x() * offset.x(), depth, f.y() * offset.x() + offset.z()};
  }
  return shooter.feet + Vector3d{f.x() * offset.x() - f.y() * offset.y(),
                                 f.y() * offset.x() + f.x() * offset.y(), offset.z()};
}

bool can_strike(const World& world, const Attack& attack, const Fighter& fighter,
                const Fighter& target) {
  return fight_distance(world.plane(), fighter, target) <= attack.range &&
         is_turned_to(world.plane(), fighter, target, attack.arc.half()) &&
         world.is_clear(Segment{fighter.middle(), target.middle()}, Stops::bodies);
}

bool can_shoot(const World& world, const Attack& attack, const Fighter& fighter,
               const Fighter& target) {
  if (fight_distance(world.plane(), fighter, target) > attack.range) return false;
  if (!is_turned_to(world.plane(), fighter, target, attack.aim_tolerance)) return false;
  const Vector3d muzzle = muzzle_place(world.plane(), fighter, attack.muzzle);
  return world.is_clear(BallPath{{muzzle, target.middle()}, attack.radius}, Stops::shots);
}

Vector3d launch_velocity(Plane plane, const Attack& attack, const Fighter& shooter,
                         const Fighter& target) {
  Vector3d way = target.middle() - muzzle_place(plane, shooter, attack.muzzle);
  double length = std::sqrt(way.x() * way.x() + way.y() * way.y() + way.z() * way.z());
  if (length == 0.0) {
    way = from_plan(plane, {shooter.facing, 0.0});
    length = 1.0;
  }
  return way * (attack.speed / length);
}

}  // namespace gaze
