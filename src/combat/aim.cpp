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

bool can_strike(const World& world, const Attack& attack, const Fighter& fighter,
                const Fighter& target) {
  return plane_distance(world.plane(), fighter.feet, target.feet) <= attack.range &&
         is_turned_to(world.plane(), fighter, target, attack.arc.half()) &&
         world.is_clear(Segment{fighter.middle(), target.middle()}, Stops::bodies);
}

bool can_shoot(const World& world, const Attack& attack, const Fighter& fighter,
               const Fighter& target) {
  if (plane_distance(world.plane(), fighter.feet, target.feet) > attack.range) return false;
  if (!is_turned_to(world.plane(), fighter, target, attack.aim_tolerance)) return false;
  const Vector3d muzzle = offset_place(world.plane(), fighter.feet, fighter.facing, attack.muzzle);
  return world.is_clear(BallPath{{muzzle, target.middle()}, attack.radius}, Stops::shots);
}

Vector3d launch_velocity(Plane plane, const Attack& attack, const Fighter& shooter,
                         const Fighter& target) {
  Vector3d way = target.middle() - offset_place(plane, shooter.feet, shooter.facing, attack.muzzle);
  double length = std::sqrt(way.x() * way.x() + way.y() * way.y() + way.z() * way.z());
  if (length == 0.0) {
    way = from_plan(plane, {shooter.facing, 0.0});
    length = 1.0;
  }
  return way * (attack.speed / length);
}

}  // namespace gaze
