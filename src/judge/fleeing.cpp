#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "judge/judges.hpp"

/// What somebody suffers who turns and runs straight away.
namespace gaze {
namespace {

constexpr double kForEver = std::numeric_limits<double>::infinity();

bool can_hurt(const Attack& attack) {
  return attack.damage > 0.0 && attack.aim != Attack::Aim::mirror &&
         attack.how != Attack::How::touch && attack.how != Attack::How::catch_;
}

// From as near as the one comes: where a chaser stops, else body to body.
double start_of(const Kind& kind, const Kind& foe) {
  return can_chase(kind) ? stop_distance(kind, foe) : kind.radius + foe.radius;
}

double speed_of(const Kind& kind) {
  return can_chase(kind) ? kind.move.speed : 0.0;
}

double seconds_in_reach(const Kind& kind, const Attack& attack, const Kind& foe) {
  const double gap = attack.range - start_of(kind, foe);
  const double gain = foe.move.speed - speed_of(kind);
  if (gap < 0.0) return -1.0;
  return gain > 0.0 ? gap / gain : kForEver;
}

// A shot that is slower than its target never comes up with it.
bool catches_up(const Attack& attack, const Kind& foe) {
  return attack.how != Attack::How::shot || attack.speed > foe.move.speed;
}

/// Of all attacks together.
struct Suffered {
  double lost = 0.0;
  double seconds = 0.0;  ///< In reach of any.
  std::size_t attacks = 0;
};

Suffered suffered(const Kind& kind, const Kind& foe) {
  Suffered sum;
  for (const Attack& attack : kind.attacks) {
    if (!can_hurt(attack) || !catches_up(attack, foe)) continue;
    const double seconds = seconds_in_reach(kind, attack, foe);
    if (seconds < 0.0) continue;
    sum.lost += outcome_of(attack, foe, seconds).lost;
    sum.seconds = std::max(sum.seconds, seconds);
    ++sum.attacks;
  }
  sum.lost = std::min(sum.lost, foe.health);
  return sum;
}

void judge_pair(Bench& bench, const Kind& kind, const Kind& foe) {
  if (foe.move.gait != Gait::walk || !(foe.move.speed > 0.0)) return;
  const Suffered sum = suffered(kind, foe);
  if (sum.attacks == 0) return;
  const std::string runner =
      fmt::format("a {} that runs straight away at {:g} m/s from {:.2f} m before a {}", foe.name,
                  foe.move.speed, start_of(kind, foe), kind.name);
  std::string outcome;
  if (sum.seconds == kForEver) {
    outcome = fmt::format("does not get out of its reach and loses {:g} of its {:g} health",
                          sum.lost, foe.health);
  } else {
    outcome = fmt::format(
        "loses at most {:g} of its {:g} health and is out of its reach after "
        "{:.3g} s",
        sum.lost, foe.health, sum.seconds);
  }
  bench.say(Finding::Severity::note, "running-away", kind.place, runner + " " + outcome);
}

}  // namespace

void judge_fleeing(Bench& bench) {
  const Level& level = bench.level();
  const auto in_play = kinds_in_play(level);
  for (const std::uint32_t index : in_play) {
    if (index >= level.named_kinds)
      continue;  // agents of their own values are much like their kind
    for (const std::uint32_t other : in_play) {
      if (other >= level.named_kinds) continue;
      const Kind& kind = level.kinds[index];
      const Kind& foe = level.kinds[other];
      if (is_hostile(level, kind.team, foe.team)) judge_pair(bench, kind, foe);
    }
  }
}

}  // namespace gaze
