#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "combat/decay.hpp"
#include "gaze/aim.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"

/// Shots that do not get where they are fired at.
namespace gaze {
namespace {

using Severity = Finding::Severity;

/// Lowest and highest position of the feet of a kind's agents, metres.
struct Heights {
  double low = std::numeric_limits<double>::infinity();
  double high = -std::numeric_limits<double>::infinity();

  void add(double height) {
    low = std::min(low, height);
    high = std::max(high, height);
  }
};

// Returns whether agents of a kind can stand on a solid.
bool gets_onto(const Kind& kind, const Solid& solid) {
  using Form = Solid::Form;
  const bool is_made_for_it =
      solid.form != Form::wall && solid.form != Form::block && solid.form != Form::door;
  return is_made_for_it ||
         solid.height <= std::max(*kind.move->step_height, *kind.move->hop_height);
}

// A kind with the gait fixed stays where the level places it. Other kinds may stand on solids and
// on the ground.
Heights heights_of(const Level& level, const Kind& kind) {
  Heights heights;
  for (const Agent& agent : level.agents) {
    if (&level.kind_of(agent) == &kind) heights.add(altitude_of(level, kind, agent.position));
  }
  if (!travels(kind.move->gait)) return heights;
  for (const Solid& solid : level.solids) {
    if (!gets_onto(kind, solid)) continue;
    heights.add(*solid.base);
    heights.add(*solid.base + solid.height);
  }
  if (level.ground_height) heights.add(*level.ground_height);
  return heights;
}

// Returns the greatest distance between the centres at which a lob hits, from the highest position
// of its kind to the lowest position of an enemy. The muzzle may be ahead of the centre and beside
// it.
double farthest_lob(const Level& level, const Kind& kind, const Attack& attack, const Kind& foe) {
  const double gravity = level.gravity * *attack.gravity_share;
  const double drop = heights_of(level, kind).high - heights_of(level, foe).low;
  const Vector3d& muzzle = *attack.muzzle;
  const double reach = lob_reach(attack.speed, gravity, foe.height / 2.0 - muzzle.z() - drop);
  const double level_reach =
      muzzle.x() + std::sqrt(std::max(0.0, reach * reach - muzzle.y() * muzzle.y()));
  return level.plane == Plane::ground ? level_reach : std::hypot(level_reach, drop);
}

void judge_lob(Bench& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  if (attack.how != Attack::How::shot || !is_lobbed(attack)) return;
  const double gravity = bench.level().gravity * *attack.gravity_share;
  const Place place = bench.place_of(kind, "attack." + attack.name + ".range");
  if (!(gravity > 0.0)) {
    return bench.say(Severity::error, "lob-without-gravity", place,
                     worded("'{}' of {} is lobbed, but the level has no gravity: it is never fired",
                            attack.name, kind.name));
  }
  const double reach = farthest_lob(bench.level(), kind, attack, foe);
  if (reach >= attack.range) return;
  bench.say(Severity::warning, "lob-out-of-reach", place,
            worded("'{}' of {} comes down within {} m at {} m/s: {} at its range of {} m is out "
                   "of reach by {} m",
                   attack.name, kind.name, reach, attack.speed, foe.name, attack.range,
                   attack.range - reach));
}

void judge_flight(Bench& bench, const Kind& kind, const Attack& attack) {
  const bool is_straight = attack.aim == Attack::Aim::direct || attack.aim == Attack::Aim::lead;
  if (attack.how != Attack::How::shot || !is_straight) return;
  const double seconds = attack.lifetime->seconds();
  const double drag = attack.drag;
  const double way =
      drag > 0.0 ? attack.speed / drag * (1.0 - decay(drag * seconds)) : attack.speed * seconds;
  const double rounding = 1e-6;  // metres: lifetimes are whole nanoseconds
  if (way >= attack.range - rounding) return;
  bench.say(Severity::warning, "shot-falls-short",
            bench.place_of(kind, "attack." + attack.name + ".range"),
            worded("'{}' of {} flies {} m and is gone: what it is fired at within its range of {} "
                   "m is out of reach by up to {} m",
                   attack.name, kind.name, way, attack.range, attack.range - way));
}

void judge_speed(Bench& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  const bool can_miss = attack.how == Attack::How::shot && attack.homing_rate.degrees() == 0.0 &&
                        foe.move->gait == Gait::walk && attack.speed <= foe.move->speed;
  if (!can_miss) return;
  bench.say(
      Severity::warning, "shot-too-slow", bench.place_of(kind, "attack." + attack.name + ".speed"),
      worded("'{}' of {} flies at {} m/s: it never reaches {}, who runs straight away at {} m/s",
             attack.name, kind.name, attack.speed, foe.name, foe.move->speed));
}

// Returns how often something that takes place every `interval` seconds can do so within a time.
double most_times(double seconds, const Duration& interval) {
  return interval.seconds() > 0.0 ? std::floor(seconds / interval.seconds()) + 1.0
                                  : std::numeric_limits<double>::infinity();
}

// Returns an upper bound of the projectiles of an attack that one agent has in flight during a run:
// those fired within a lifetime, and no more than those fired within the run.
double most_in_flight(const Attack& attack, double run_seconds) {
  const double burst = attack.burst;
  const double by_lifetime = most_times(attack.lifetime->seconds(), *attack.cooldown) * burst;
  const double by_run = most_times(run_seconds, *attack.cooldown) *
                        std::min(burst, most_times(run_seconds, attack.burst_interval));
  return std::min(by_lifetime, by_run);
}

void judge_count(Bench& bench, const Kind& kind, const Attack& attack) {
  if (attack.how != Attack::How::shot) return;
  const Level& level = bench.level();
  const auto agents = std::count_if(level.agents.begin(), level.agents.end(),
                                    [&](const Agent& one) { return &level.kind_of(one) == &kind; });
  const double all = most_in_flight(attack, level.seconds) * static_cast<double>(agents);
  if (all <= static_cast<double>(LevelLimits::projectiles)) return;
  bench.say(
      Severity::warning, "too-many-projectiles",
      bench.place_of(kind, "attack." + attack.name + ".cooldown"),
      worded("'{}' of {} can have {} projectiles in flight: a cooldown of {} s, a burst of {}, "
             "a lifetime of {} s and {} {}; beyond {} no more are fired",
             attack.name, kind.name, all, attack.cooldown->seconds(), attack.burst,
             attack.lifetime->seconds(), agents, agents == 1 ? "agent" : "agents",
             LevelLimits::projectiles));
}

}  // namespace

void judge_shots(Bench& bench) {
  const Level& level = bench.level();
  const auto& in_play = bench.kinds_in_play();
  for (const std::uint32_t index : in_play) {
    const Kind& kind = level.kinds[index];
    for (const Attack& attack : kind.attacks) {
      judge_flight(bench, kind, attack);
      judge_count(bench, kind, attack);
      for (const std::uint32_t other : in_play) {
        const Kind& foe = level.kinds[other];
        if (!is_hostile(level, kind.team, foe.team)) continue;
        judge_lob(bench, kind, attack, foe);
        judge_speed(bench, kind, attack, foe);
      }
    }
  }
}

}  // namespace gaze
