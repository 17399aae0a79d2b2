#include "combat/stance.hpp"

#include <algorithm>
#include <cmath>

#include "combat/attempt.hpp"
#include "geometry/plan.hpp"
#include "geometry/rolling.hpp"
#include "geometry/signed_turn.hpp"

namespace gaze {
namespace {

// Turned to the victim, or as near to that as the limits allow.
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

// A shot that is fired straight ahead is fired whether it hits or not.
bool flies_into(const Attempt& attempt) {
  const Attack& attack = attempt.attack;
  const Plane plane = attempt.world.plane();
  const Vector3d still{0.0, 0.0, 0.0};
  const auto launch = launch_at(plane, attack, attempt.by, attempt.at, still, attempt.gravity);
  const Cylinder body{attempt.at.feet, attempt.at.radius, attempt.at.height};
  bool hits = false;
  along_flight(attack, muzzle_of(plane, attack, attempt.by), *launch, attempt.gravity,
               [&](const Segment& piece) {
                 const BallPath ball{piece, *attack.radius};
                 const auto touch = first_touch(ball, body, still);
                 const auto stop = attempt.world.first_touch(ball, Stops::shots);
                 hits = touch && (!stop || *touch < stop->share);
                 return !hits && !stop;
               });
  return hits;
}

}  // namespace

Stance stance_of(Plane plane, const Kind& kind, const Vector3d& feet, const Vector2d& facing) {
  Stance stance;
  stance.fighter = fighter_of(plane, kind, feet, facing);
  const bool can_turn = kind.move->turn_rate.degrees() > 0.0;
  stance.turn_limits = can_turn ? kind.move->turn_limits : std::array<double, 2>{0.0, 0.0};
  return stance;
}

bool can_hit(const World& world, const Attack& attack, const Stance& stance, const Fighter& victim,
             double gravity) {
  const Attempt attempt{world,  attack,          turned_to(world.plane(), stance, victim),
                        victim, {0.0, 0.0, 0.0}, gravity};
  if (!is_far_enough(attempt) || !can_reach(attempt)) return false;
  return attack.aim != Attack::Aim::ahead || flies_into(attempt);
}

}  // namespace gaze
