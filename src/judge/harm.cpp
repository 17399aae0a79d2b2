#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>
#include <utility>

#include "gaze/aim.hpp"
#include "judge/judges.hpp"

/// What attacks can do before anybody plays: how fast they defeat, and which fall short.
namespace gaze {
namespace {

using Severity = Finding::Severity;

/// Says each thing once: agents with values of their own share most of them with their kind.
class Reports {
 public:
  explicit Reports(Bench& bench) : bench_(bench) {}

  const Level& level() const { return bench_.level(); }
  Place place_of(const Kind& kind, const std::string& key) const {
    return bench_.place_of(kind, key);
  }
  void say(Severity severity, const std::string& code, const Place& place,
           const std::string& message) {
    if (said_.emplace(place, message).second) bench_.say(severity, code, place, message);
  }

 private:
  Bench& bench_;
  std::set<std::pair<Place, std::string>> said_;
};

double damage_against(const Attack& attack, const Kind& foe) {
  const auto own = foe.resist.find(attack.damage_kind);
  return attack.damage * (own == foe.resist.end() ? 1.0 : 1.0 - own->second);
}

}  // namespace

Outcome outcome_of(const Attack& attack, const Kind& foe, double until) {
  const double damage = damage_against(attack, foe);
  const int shots = attack.how == Attack::How::shot ? attack.burst : 1;
  Outcome outcome;
  double pulled = 0.0;
  double spared_until = -1.0;
  int left = attack.ammunition;
  for (int pull = 0; pull < 1'000'000 && pulled <= until; ++pull) {
    double last = pulled;
    const int count = left == 0 ? shots : std::min(shots, left);
    for (int shot = 0; shot < count; ++shot) {
      last = pulled + attack.wind_up.seconds() + shot * attack.burst_interval.seconds();
      if (last < spared_until) continue;
      spared_until = last + foe.grace.seconds();
      outcome.lost += damage;
      if (outcome.lost < foe.health) continue;
      outcome.lost = foe.health;
      outcome.seconds = last + (attack.how == Attack::How::beam ? attack.hold.seconds() : 0.0);
      return outcome;
    }
    pulled += attack.cooldown.seconds();
    if (left == 0) continue;
    left -= count;
    if (left > 0) continue;
    if (!attack.reload) return outcome;
    left = attack.ammunition;
    pulled = std::max(pulled, last + attack.reload->seconds());
  }
  return outcome;
}

namespace {

void judge_outcome(Reports& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  if (!(damage_against(attack, foe) > 0.0)) return;
  const Place place = bench.place_of(kind, "attack." + attack.name + ".damage");
  const Outcome outcome = outcome_of(attack, foe, std::numeric_limits<double>::infinity());
  if (!outcome.seconds) {
    return bench.say(
        Severity::note, "never-defeats", place,
        fmt::format("'{}' of {} takes {:g} of the {:g} health of {}, and then is empty",
                    attack.name, kind.name, outcome.lost, foe.health, foe.name));
  }
  if (*outcome.seconds == 0.0) {
    return bench.say(
        Severity::note, "time-to-defeat", place,
        fmt::format("'{}' of {} defeats {} at one blow", attack.name, kind.name, foe.name));
  }
  bench.say(
      Severity::note, "time-to-defeat", place,
      fmt::format("'{}' of {}, if all of it hits, takes the {:g} health of {} in {:.4g} s: {:.3g} "
                  "points a second",
                  attack.name, kind.name, foe.health, foe.name, *outcome.seconds,
                  outcome.lost / *outcome.seconds));
}

// From the muzzle to the middle of a foe on the same ground.
void judge_lob(Reports& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  if (attack.how != Attack::How::shot || !is_lobbed(attack)) return;
  const double gravity = bench.level().gravity * attack.gravity_share;
  const Place place = bench.place_of(kind, "attack." + attack.name + ".range");
  if (!(gravity > 0.0)) {
    return bench.say(
        Severity::error, "lob-without-gravity", place,
        fmt::format("'{}' of {} is lobbed, but the level has no gravity: it is never fired",
                    attack.name, kind.name));
  }
  const double reach = lob_reach(attack.speed, gravity, foe.height / 2.0 - attack.muzzle.z());
  if (reach >= attack.range) return;
  bench.say(
      Severity::warning, "lob-out-of-reach", place,
      fmt::format(
          "'{}' of {} comes down within {:.1f} m at {:g} m/s: {} at its range of {:g} m is out "
          "of reach by {:.1f} m",
          attack.name, kind.name, reach, attack.speed, foe.name, attack.range,
          attack.range - reach));
}

void judge_flight(Reports& bench, const Kind& kind, const Attack& attack) {
  const bool is_straight = attack.aim == Attack::Aim::direct || attack.aim == Attack::Aim::lead;
  if (attack.how != Attack::How::shot || !is_straight) return;
  const double seconds = attack.lifetime.seconds();
  const double drag = attack.drag;
  const double way =
      drag > 0.0 ? attack.speed / drag * (1.0 - std::exp(-drag * seconds)) : attack.speed * seconds;
  const double rounding = 1e-6;  // metres: lifetimes are whole nanoseconds
  if (way >= attack.range - rounding) return;
  bench.say(
      Severity::warning, "shot-falls-short",
      bench.place_of(kind, "attack." + attack.name + ".range"),
      fmt::format(
          "'{}' of {} flies {:.1f} m and is gone: what it is fired at within its range of {:g} "
          "m is out of reach by up to {:.1f} m",
          attack.name, kind.name, way, attack.range, attack.range - way));
}

void judge_speed(Reports& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  const bool can_miss = attack.how == Attack::How::shot && attack.homing_rate.degrees() == 0.0 &&
                        foe.move.gait == Gait::walk && attack.speed <= foe.move.speed;
  if (!can_miss) return;
  bench.say(
      Severity::warning, "shot-too-slow", bench.place_of(kind, "attack." + attack.name + ".speed"),
      fmt::format(
          "'{}' of {} flies at {:g} m/s: it never reaches {}, who runs straight away at {:g} m/s",
          attack.name, kind.name, attack.speed, foe.name, foe.move.speed));
}

}  // namespace

void judge_harm(Bench& bench) {
  Reports reports(bench);
  const Level& level = bench.level();
  const auto in_play = kinds_in_play(level);
  for (const std::uint32_t index : in_play) {
    const Kind& kind = level.kinds[index];
    for (const Attack& attack : kind.attacks) {
      judge_flight(reports, kind, attack);
      for (const std::uint32_t other : in_play) {
        const Kind& foe = level.kinds[other];
        if (!is_hostile(level, kind.team, foe.team)) continue;
        judge_lob(reports, kind, attack, foe);
        judge_speed(reports, kind, attack, foe);
        judge_outcome(reports, kind, attack, foe);
      }
    }
  }
}

}  // namespace gaze
