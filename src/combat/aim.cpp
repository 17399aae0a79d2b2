#include "combat/aim.hpp"

#include <algorithm>
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

bool is_aimed_at(Plane plane, const Attack& attack, const Fighter& fighter, const Fighter& target) {
  return plane_distance(plane, fighter.feet, target.feet) <= attack.range &&
         is_turned_to(plane, fighter, target, attack.aim_tolerance);
}

Vector3d muzzle_of(Plane plane, const Attack& attack, const Fighter& fighter) {
  return offset_place(plane, fighter.feet, fighter.facing, attack.muzzle);
}

Vector3d ahead_of(Plane plane, const Fighter& fighter) {
  return from_plan(plane, {fighter.facing, 0.0});
}

std::optional<Launch> launch_at(Plane plane, const Attack& attack, const Fighter& shooter,
                                const Fighter& target, const Vector3d& motion, double gravity) {
  const Vector3d muzzle = muzzle_of(plane, attack, shooter);
  const Vector3d middle = target.middle();
  const Vector3d ahead = ahead_of(plane, shooter);
  const Vector3d standing{0.0, 0.0, 0.0};
  switch (attack.aim) {
    case Attack::Aim::direct:
      if (muzzle == middle) break;
      return aim_lead(muzzle, middle, standing, attack.speed);
    case Attack::Aim::lead:
      if (muzzle == middle) break;
      return aim_lead(muzzle, middle, motion, attack.speed);
    case Attack::Aim::ahead:
      break;
    default:
      return aim_lob(muzzle, middle, motion, attack.speed, gravity * attack.gravity_share,
                     attack.aim == Attack::Aim::high_lob);
  }
  return Launch{ahead * attack.speed, attack.range / attack.speed, muzzle + ahead * attack.range};
}

bool is_flight_clear(const World& world, const Attack& attack, const Vector3d& muzzle,
                     const Launch& launch, double gravity) {
  if (!is_lobbed(attack)) {
    return world.is_clear(BallPath{{muzzle, launch.meets}, attack.radius}, Stops::shots);
  }
  constexpr double kSag = 0.005;  // metres: that of a chord of s seconds is g s^2 / 8
  constexpr double kMostChords = 1000.0;
  const double fall = gravity * attack.gravity_share;
  const double chords =
      std::clamp(std::ceil(launch.seconds / std::sqrt(8.0 * kSag / fall)), 1.0, kMostChords);
  const auto at = [&](double share) {
    const double t = launch.seconds * share;
    return Vector3d(muzzle + launch.velocity * t - Vector3d{0.0, 0.0, fall * t * t / 2.0});
  };
  for (double i = 0.0; i < chords; i += 1.0) {
    const BallPath chord{{at(i / chords), at((i + 1.0) / chords)}, attack.radius};
    if (!world.is_clear(chord, Stops::shots)) return false;
  }
  return true;
}

std::optional<Launch> can_shoot(const World& world, const Attack& attack, const Fighter& fighter,
                                const Fighter& target, const Vector3d& motion, double gravity) {
  const Plane plane = world.plane();
  if (!is_aimed_at(plane, attack, fighter, target)) return std::nullopt;
  const auto launch = launch_at(plane, attack, fighter, target, motion, gravity);
  if (!launch || attack.aim == Attack::Aim::ahead) return launch;
  const Vector3d muzzle = muzzle_of(plane, attack, fighter);
  return is_flight_clear(world, attack, muzzle, *launch, gravity) ? launch : std::nullopt;
}

}  // namespace gaze
