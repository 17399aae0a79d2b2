#include "combat/attempt.hpp"

#include <algorithm>
#include <cmath>

#include "gaze/sides.hpp"
#include "geometry/plan.hpp"
#include "geometry/rolling.hpp"
#include "geometry/signed_turn.hpp"
#include "world/distances.hpp"

namespace gaze {
namespace {

using How = Attack::How;
using MaybeShortfall = std::optional<Shortfall>;

Shortfall because(Shortfall::What what, double found = 0.0, double limit = 0.0) {
  return {what, found, limit, std::nullopt};
}

Cylinder body_of(const Fighter& fighter) {
  return {fighter.feet, fighter.radius, fighter.height};
}

double distance_of(const Attempt& attempt) {
  return plane_distance(attempt.world.plane(), attempt.by.feet, attempt.at.feet);
}

Vector3d muzzle_of(const Attempt& attempt) {
  return gaze::muzzle_of(attempt.world.plane(), attempt.attack, attempt.by);
}

bool is_within_range(const Attempt& attempt) {
  return distance_of(attempt) <= attempt.attack.range;
}

// How far the target may be from the facing: half the arc of a strike, the tolerance of what is
// fired.
Angle turn_limit(const Attempt& attempt) {
  return attempt.attack.how == How::strike ? attempt.attack.arc.half()
                                           : aim_limit(attempt.attack, attempt.by);
}

bool is_turned(const Attempt& attempt) {
  return is_facing(attempt.world.plane(), attempt.by, attempt.at, turn_limit(attempt));
}

// The straight way of a blow from middle to middle, or of a beam from its muzzle.
BallPath straight_way(const Attempt& attempt) {
  const bool is_beam = attempt.attack.how == How::beam;
  const Vector3d from = is_beam ? muzzle_of(attempt) : attempt.by.middle();
  return {{from, attempt.at.middle()}, is_beam ? *attempt.attack.radius : 0.0};
}

Stops stopped_by(const Attempt& attempt) {
  return attempt.attack.how == How::beam ? Stops::shots : Stops::bodies;
}

Shortfall blocked(const Attempt& attempt, const BallPath& way, Stops stops) {
  Shortfall solid = because(Shortfall::What::solid);
  solid.touch = way.radius > 0.0 ? attempt.world.first_touch(way, stops)
                                 : attempt.world.first_touch(way.path, stops);
  return solid;
}

// Returns the ray ahead of a beam up to the target; nothing if the ray misses the target.
std::optional<BallPath> ray_to_target(const Attempt& attempt) {
  const Vector3d muzzle = muzzle_of(attempt);
  const Vector3d way =
      ahead_of(attempt.world.plane(), attempt.attack, attempt.by) * attempt.attack.range;
  const BallPath ray{{muzzle, muzzle + way}, *attempt.attack.radius};
  const auto share = first_touch(ray, body_of(attempt.at), {0.0, 0.0, 0.0});
  if (!share) return std::nullopt;
  return BallPath{{muzzle, muzzle + way * *share}, ray.radius};
}

MaybeShortfall ray_fails(const Attempt& attempt) {
  const auto ray = ray_to_target(attempt);
  if (!ray) {
    const Vector2d way =
        plan_part(attempt.world.plane(), attempt.at.middle() - attempt.by.middle());
    return because(Shortfall::What::ray, std::abs(signed_turn(attempt.by.facing, way)));
  }
  const bool is_clear = ray->radius > 0.0 ? attempt.world.is_clear(*ray, Stops::shots)
                                          : attempt.world.is_clear(ray->path, Stops::shots);
  if (is_clear) return std::nullopt;
  return blocked(attempt, *ray, Stops::shots);
}

bool is_straight_way_clear(const Attempt& attempt) {
  const BallPath way = straight_way(attempt);
  return way.radius > 0.0 ? attempt.world.is_clear(way, stopped_by(attempt))
                          : attempt.world.is_clear(way.path, stopped_by(attempt));
}

std::optional<Side> side_touched(const Attempt& attempt) {
  return touched_side(attempt.world.plane(), body_of(attempt.by), attempt.by.facing,
                      body_of(attempt.at));
}

bool is_touched_where_it_hurts(const Attempt& attempt) {
  const auto side = side_touched(attempt);
  return side && attempt.attack.sides.test(static_cast<std::size_t>(*side));
}

bool can_blast(const Attempt& attempt) {
  return blast_share(attempt.world, attempt.attack, attempt.by.middle(), attempt.attack.range,
                     body_of(attempt.at), attempt.at.body_points) > 0.0;
}

bool is_near_enough_to_catch(const Attempt& attempt) {
  return attempt.attack.range > 0.0 ? is_within_range(attempt) : side_touched(attempt).has_value();
}

std::optional<Launch> launch_of(const Attempt& attempt) {
  return launch_at(attempt.world.plane(), attempt.attack, attempt.by, attempt.at, attempt.motion,
                   attempt.gravity);
}

bool can_tilt_to(const Attempt& attempt, const Vector3d& way) {
  return can_tilt(attempt.world.plane(), attempt.by, way);
}

bool is_flight_clear(const Attempt& attempt, const Launch& launch) {
  if (attempt.attack.aim == Attack::Aim::ahead) return true;
  return gaze::is_flight_clear(attempt.world, attempt.attack, muzzle_of(attempt), launch,
                               attempt.gravity);
}

bool can_shoot(const Attempt& attempt) {
  if (attempt.attack.aim == Attack::Aim::mirror) return false;
  if (!is_within_range(attempt) || !is_turned(attempt)) return false;
  const auto launch = launch_of(attempt);
  return launch && can_tilt_to(attempt, launch->velocity) && is_flight_clear(attempt, *launch);
}

// A lob that would get to where the target is now may still not catch up with one that runs.
Shortfall falls_short(const Attempt& attempt) {
  if (!is_lobbed(attempt.attack)) return because(Shortfall::What::getaway);
  const Vector3d way = attempt.at.middle() - muzzle_of(attempt);
  const double fall = attempt.gravity * *attempt.attack.gravity_share;
  const double distance = level_length(way);
  const double reach = lob_reach(attempt.attack.speed, fall, way.z());
  return distance > reach ? because(Shortfall::What::arc, distance, reach)
                          : because(Shortfall::What::getaway);
}

MaybeShortfall too_far(const Attempt& attempt) {
  if (is_within_range(attempt)) return std::nullopt;
  return because(Shortfall::What::far, distance_of(attempt), attempt.attack.range);
}

MaybeShortfall turned_away(const Attempt& attempt) {
  if (is_turned(attempt)) return std::nullopt;
  const Vector2d way = plan_part(attempt.world.plane(), attempt.at.middle() - attempt.by.middle());
  return because(Shortfall::What::turn, std::abs(signed_turn(attempt.by.facing, way)),
                 turn_limit(attempt).degrees());
}

MaybeShortfall tilted_too_far(const Attempt& attempt, const Vector3d& way) {
  if (can_tilt_to(attempt, way)) return std::nullopt;
  const double rise = signed_degrees(angle_of({level_length(way), way.z()}).degrees());
  const auto [low, high] = attempt.by.tilt_limits;
  return because(Shortfall::What::tilt, rise, rise < low ? low : high);
}

MaybeShortfall straight_way_blocked(const Attempt& attempt) {
  if (is_straight_way_clear(attempt)) return std::nullopt;
  return blocked(attempt, straight_way(attempt), stopped_by(attempt));
}

MaybeShortfall flight_fails(const Attempt& attempt) {
  const auto launch = launch_of(attempt);
  if (!launch) return falls_short(attempt);
  if (auto tilt = tilted_too_far(attempt, launch->velocity)) return tilt;
  if (is_flight_clear(attempt, *launch)) return std::nullopt;
  if (is_lobbed(attempt.attack)) return because(Shortfall::What::solid);
  return blocked(attempt, {{muzzle_of(attempt), launch->meets}, *attempt.attack.radius},
                 Stops::shots);
}

MaybeShortfall aimed_fails(const Attempt& attempt) {
  if (auto away = turned_away(attempt)) return away;
  if (attempt.attack.how == How::shot) return flight_fails(attempt);
  if (attempt.attack.how == How::beam) {
    if (auto tilt = tilted_too_far(attempt, attempt.at.middle() - muzzle_of(attempt))) return tilt;
  }
  return straight_way_blocked(attempt);
}

MaybeShortfall blast_fails(const Attempt& attempt) {
  if (can_blast(attempt)) return std::nullopt;
  const double range = attempt.attack.range;
  const double distance = distance_to(body_of(attempt.at), attempt.by.middle());
  const bool is_within = blast_share(attempt.attack, range, distance) > 0.0;
  if (!is_within) return because(Shortfall::What::blast, distance, range);
  Shortfall shield = because(Shortfall::What::shielded);
  shield.touch =
      attempt.world.first_touch(Segment{attempt.by.middle(), attempt.at.middle()}, Stops::shots);
  return shield;
}

}  // namespace

bool is_far_enough(const Attempt& attempt) {
  return attempt.attack.min_range == 0.0 || distance_of(attempt) >= attempt.attack.min_range;
}

bool can_reach(const Attempt& attempt) {
  switch (attempt.attack.how) {
    case How::strike:
      return is_within_range(attempt) && is_turned(attempt) && is_straight_way_clear(attempt);
    case How::shot:
      return can_shoot(attempt);
    case How::beam:
      if (attempt.attack.aim == Attack::Aim::mirror) return false;
      if (attempt.attack.locks_on) return !ray_fails(attempt);
      return is_within_range(attempt) && is_turned(attempt) &&
             can_tilt_to(attempt, attempt.at.middle() - muzzle_of(attempt)) &&
             is_straight_way_clear(attempt);
    case How::burst:
      return is_within_range(attempt) && can_blast(attempt);
    case How::catch_:
      return is_near_enough_to_catch(attempt) && is_straight_way_clear(attempt);
    default:
      return is_touched_where_it_hurts(attempt);
  }
}

std::optional<Shortfall> shortfall(const Attempt& attempt) {
  const Attack& attack = attempt.attack;
  if (attack.aim == Attack::Aim::mirror) return because(Shortfall::What::mirror);
  if (attack.how == How::touch) {
    return is_touched_where_it_hurts(attempt) ? std::nullopt
                                              : MaybeShortfall(because(Shortfall::What::apart));
  }
  if (attack.locks_on) {
    if (auto off = ray_fails(attempt)) return off;
    if (is_far_enough(attempt)) return std::nullopt;
    return because(Shortfall::What::near, distance_of(attempt), attack.min_range);
  }
  if (attack.how == How::catch_ && attack.range == 0.0) {
    if (!side_touched(attempt)) return because(Shortfall::What::apart);
  } else if (auto far = too_far(attempt)) {
    return far;
  }
  if (!is_far_enough(attempt)) {
    return because(Shortfall::What::near, distance_of(attempt), attack.min_range);
  }
  if (attack.how == How::burst) return blast_fails(attempt);
  if (attack.how == How::catch_) return straight_way_blocked(attempt);
  return aimed_fails(attempt);
}

std::optional<Launch> way_of(const Attempt& attempt) {
  if (attempt.attack.how == How::shot) return launch_of(attempt);
  if (attempt.attack.how != How::beam) return std::nullopt;
  const Vector3d middle = attempt.at.middle();
  return Launch{middle - muzzle_of(attempt), 1.0, middle};
}

double blast_share(const Attack& attack, double radius, double distance) {
  if (distance > radius) return 0.0;
  return 1.0 - attack.blast_fall_off * distance / radius;
}

double blast_share(const World& world, const Attack& attack, const Vector3d& place, double radius,
                   const Cylinder& body, std::span<const double> body_points) {
  const double share = blast_share(attack, radius, distance_to(body, place));
  if (!(share > 0.0)) return 0.0;
  const bool is_open = std::any_of(body_points.begin(), body_points.end(), [&](double height) {
    const Vector3d point = body.feet + Vector3d{0.0, 0.0, body.height * height};
    return world.is_clear(Segment{place, point}, Stops::shots);
  });
  return is_open ? share : 0.0;
}

}  // namespace gaze
