#include "combat/aim.hpp"

#include <algorithm>

#include "geometry/plan.hpp"

namespace gaze {

bool is_facing(Plane plane, const Fighter& fighter, const Fighter& target, Angle limit) {
  const Vector2d way = plan_part(plane, target.middle() - fighter.middle());
  const SineCosine most = sine_cosine(limit);
  const double along = dot(fighter.facing, way);
  if (most.sine == 0.0 && most.cosine > 0.0) return along >= 0.0 && cross(fighter.facing, way) == 0;
  return along * most.sine - std::abs(cross(fighter.facing, way)) * most.cosine >= 0.0;
}

bool can_tilt(Plane plane, const Fighter& fighter, const Vector3d& way) {
  const auto [low, high] = fighter.tilt_limits;
  if (plane == Plane::upright || (low <= -90.0 && high >= 90.0)) return true;
  const double level = level_length(way);
  const SineCosine least = sine_cosine(Angle::from_degrees(low));
  const SineCosine most = sine_cosine(Angle::from_degrees(high));
  return way.z() * least.cosine - level * least.sine >= 0.0 &&
         way.z() * most.cosine - level * most.sine <= 0.0;
}

bool is_aimed_at(Plane plane, const Attack& attack, const Fighter& fighter, const Fighter& target) {
  return plane_distance(plane, fighter.feet, target.feet) <= attack.range &&
         is_facing(plane, fighter, target, aim_limit(attack, fighter));
}

Angle aim_limit(const Attack& attack, const Fighter& fighter) {
  constexpr double kOneSide = 90.0;
  const double own = attack.aim_tolerance.degrees();
  return Angle::from_degrees(fighter.flips ? std::max(own, kOneSide) : own);
}

bool flips(Plane plane, const Kind& kind) {
  return plane == Plane::upright && kind.move->gait != Gait::fixed;
}

Fighter fighter_of(Plane plane, const Kind& kind, const Vector3d& feet, const Vector2d& facing) {
  return {feet,
          facing,
          kind.radius,
          kind.height,
          kind.move->tilt_limits,
          flips(plane, kind),
          kind.body_points};
}

Vector3d muzzle_of(Plane plane, const Attack& attack, const Fighter& fighter) {
  return offset_place(plane, fighter.feet, fighter.facing, *attack.muzzle);
}

Vector3d ahead_of(Plane plane, const Attack& attack, const Fighter& fighter) {
  return direction_along(plane, fighter.facing, attack.toward, attack.tilt);
}

std::optional<Launch> launch_at(Plane plane, const Attack& attack, const Fighter& shooter,
                                const Fighter& target, const Vector3d& motion, double gravity) {
  const Vector3d muzzle = muzzle_of(plane, attack, shooter);
  const Vector3d middle = target.middle();
  const Vector3d ahead = ahead_of(plane, attack, shooter);
  const Vector3d standing{0.0, 0.0, 0.0};
  switch (attack.aim) {
    case Attack::Aim::direct:
    case Attack::Aim::mirror:
      if (muzzle == middle) break;
      return aim_lead(muzzle, middle, standing, attack.speed);
    case Attack::Aim::lead:
      if (muzzle == middle) break;
      return aim_lead(muzzle, middle, motion, attack.speed);
    case Attack::Aim::ahead:
      break;
    default:
      return aim_lob(muzzle, middle, motion, attack.speed, gravity * *attack.gravity_share,
                     attack.aim == Attack::Aim::high_lob);
  }
  return Launch{ahead * attack.speed, attack.range / attack.speed, muzzle + ahead * attack.range};
}

bool is_flight_clear(const World& world, const Attack& attack, const Vector3d& muzzle,
                     const Launch& launch, double gravity) {
  return along_flight(attack, muzzle, launch, gravity, [&](const Segment& piece) {
    return world.is_clear(BallPath{piece, *attack.radius}, Stops::shots);
  });
}

}  // namespace gaze
