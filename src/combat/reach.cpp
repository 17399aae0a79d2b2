#include "combat/reach.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
#include "geometry/rolling.hpp"
#include "geometry/signed_turn.hpp"

namespace gaze {
namespace {

// To the victim, or as near to that as its limits let it.
Fighter turned_to(Plane plane, const Stance& stance, const Fighter& victim) {
  Fighter fighter = stance.fighter;
  const Vector2d way = plan_part(plane, victim.middle() - fighter.middle());
  if (dot(way, way) == 0.0) return fighter;
  if (fighter.flips) {
    if (way.x() != 0.0) fighter.facing = {way.x() > 0.0 ? 1.0 : -1.0, 0.0};
    return fighter;
  }
  const double wanted = signed_turn(fighter.facing, way);
  const auto [low, high] = stance.turn_limits;
  if (wanted >= low && wanted <= high) {
    fighter.facing = way / length_of(way);
  } else {
    fighter.facing =
        turned(fighter.facing, sine_cosine(Angle::from_degrees(std::clamp(wanted, low, high))));
  }
  return fighter;
}

bool flies_into(const World& world, const Attack& attack, const Fighter& fighter,
                const Fighter& victim, const Launch& launch, double gravity) {
  const Vector3d still{0.0, 0.0, 0.0};
  const Vector3d muzzle = muzzle_of(world.plane(), attack, fighter);
  const Cylinder body{victim.feet, victim.radius, victim.height};
  bool hits = false;
  along_flight(attack, muzzle, launch, gravity, [&](const Segment& piece) {
    const BallPath ball{piece, attack.radius};
    const auto touch = first_touch(ball, body, still);
    const auto stop = world.first_touch(ball, Stops::shots);
    hits = touch && (!stop || *touch < stop->share);
    return !hits && !stop;
  });
  return hits;
}

bool can_shoot_it(const World& world, const Attack& attack, const Fighter& fighter,
                  const Fighter& victim, double gravity) {
  const Plane plane = world.plane();
  if (attack.aim == Attack::Aim::mirror) return false;
  if (attack.aim != Attack::Aim::ahead) {
    return can_shoot(world, attack, fighter, victim, {0.0, 0.0, 0.0}, gravity).has_value();
  }
  const auto launch = launch_at(plane, attack, fighter, victim, {0.0, 0.0, 0.0}, gravity);
  return is_aimed_at(plane, attack, fighter, victim) && launch &&
         flies_into(world, attack, fighter, victim, *launch, gravity);
}

bool can_burst_over(const World& world, const Attack& attack, const Fighter& fighter,
                    const Fighter& victim) {
  return plane_distance(world.plane(), fighter.feet, victim.feet) <= attack.range &&
         world.is_clear(Segment{fighter.middle(), victim.middle()}, Stops::shots);
}

// As near as its range says, else side by side.
bool can_take(const World& world, const Attack& attack, const Fighter& fighter,
              const Fighter& victim) {
  const double reach = attack.range > 0.0 ? attack.range : fighter.radius + victim.radius;
  return plane_distance(world.plane(), fighter.feet, victim.feet) <= reach &&
         world.is_clear(Segment{fighter.middle(), victim.middle()}, Stops::bodies);
}

}  // namespace

Stance stance_of(Plane plane, const Kind& kind, const Vector3d& feet, const Vector2d& facing) {
  Stance stance;
  stance.fighter = {
      feet, facing, kind.radius, kind.height, kind.move.tilt_limits, flips(plane, kind)};
  const bool can_turn = kind.move.turn_rate.degrees() > 0.0;
  stance.turn_limits = can_turn ? kind.move.turn_limits : std::array<double, 2>{0.0, 0.0};
  return stance;
}

bool can_hit(const World& world, const Attack& attack, const Stance& stance, const Fighter& victim,
             double gravity) {
  const Plane plane = world.plane();
  const Fighter fighter = turned_to(plane, stance, victim);
  if (plane_distance(plane, fighter.feet, victim.feet) < attack.min_range) return false;
  switch (attack.how) {
    case Attack::How::strike:
      return can_strike(world, attack, fighter, victim);
    case Attack::How::shot:
      return can_shoot_it(world, attack, fighter, victim, gravity);
    case Attack::How::beam:
      return can_shine(world, attack, fighter, victim);
    case Attack::How::burst:
      return can_burst_over(world, attack, fighter, victim);
    default:
      return can_take(world, attack, fighter, victim);
  }
}

}  // namespace gaze
