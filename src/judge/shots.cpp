#include <fmt/format.h>

#include <cmath>

#include "combat/decay.hpp"
#include "gaze/aim.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"

/// Shots that do not get where they are fired at.
namespace gaze {
namespace {

using Severity = Finding::Severity;

// From the muzzle to the middle of a foe on the same ground.
void judge_lob(Bench& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  if (attack.how != Attack::How::shot || !is_lobbed(attack)) return;
  const double gravity = bench.level().gravity * *attack.gravity_share;
  const Place place = bench.place_of(kind, "attack." + attack.name + ".range");
  if (!(gravity > 0.0)) {
    return bench.say(Severity::error, "lob-without-gravity", place,
                     worded("'{}' of {} is lobbed, but the level has no gravity: it is never fired",
                            attack.name, kind.name));
  }
  const double reach = lob_reach(attack.speed, gravity, foe.height / 2.0 - attack.muzzle->z());
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

}  // namespace

void judge_shots(Bench& bench) {
  const Level& level = bench.level();
  const auto& in_play = bench.kinds_in_play();
  for (const std::uint32_t index : in_play) {
    const Kind& kind = level.kinds[index];
    for (const Attack& attack : kind.attacks) {
      judge_flight(bench, kind, attack);
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
