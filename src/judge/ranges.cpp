#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

std::string attack_key(const Attack& attack) {
  return "attack." + attack.name + ".range";
}

// True if a kind notices others, by sight or another sense, so that there may be somebody to
// attack.
bool notices_others(const Kind& kind) {
  return kind.sight || !kind.feelers.empty() || kind.nearness || kind.touch || kind.hurt ||
         !kind.when.rules.empty();
}

// How far off a kind perceives a foe by a sense other than sight, metres between their middles: 0
// if by none.
double farthest_felt(const Plane plane, const Kind& kind, const Kind& foe) {
  double farthest = 0.0;
  if (kind.nearness) {
    const std::array<bool, 3>& axes = *kind.nearness->axes;
    const bool counts_plan = axes[0] && (axes[1] || plane == Plane::upright);
    farthest = counts_plan ? kind.nearness->range : std::numeric_limits<double>::infinity();
  }
  for (const Feeler& feeler : kind.feelers) {
    if (feeler.finds == Feeler::Finds::nothing) continue;
    const double begins = feeler.from ? std::hypot(feeler.from->x(), feeler.from->y()) : 0.0;
    farthest = std::max(farthest, begins + feeler.length + feeler.thickness / 2.0 + foe.radius);
  }
  return farthest;
}

// A sight that measures to the surface reaches farther, between the middles, by the radius of the
// foe.
double between_middles(const Kind& kind, const Kind& foe, double limit) {
  return kind.sight->measure == Measure::surface ? limit + foe.radius : limit;
}

// True if something else than perceiving a foe makes a kind chase it.
bool chases_unperceived(const Kind& kind) {
  return std::any_of(kind.when.rules.begin(), kind.when.rules.end(), [](const Rule& rule) {
    const bool is_elsewhere = rule.cause == Cause::told || rule.cause == Cause::hurt ||
                              rule.cause == Cause::hears || rule.cause == Cause::lasts;
    return is_elsewhere && rule.reaction.mode == Mode::chase;
  });
}

void judge_strike(Bench& bench, const Kind& kind, const Attack& attack, const Kind& foe) {
  const double stop = stop_distance(kind, foe);
  // Bodies that touch may be a rounding farther apart than both radii.
  const bool touches = stop <= kind.radius + foe.radius;
  if (touches ? attack.range > stop : attack.range >= stop) return;
  const std::string how_stop = kind.move->stop_distance ? "" : " (the sum of both radii)";
  bench.say(Severity::error, "strike-short-of-stop", bench.place_of(kind, attack_key(attack)),
            worded("{} stops {} m{} from {}, but its strike '{}' reaches {} m: it will stand "
                   "in front of it and not strike; let it reach {}{} m{}, or stop nearer",
                   kind.name, stop, how_stop, foe.name, attack.name, attack.range,
                   touches ? "more than " : "", stop, touches ? "" : " or more"));
}

void judge_stop(Bench& bench, const Kind& kind, const Kind& foe) {
  const double stop = stop_distance(kind, foe);
  if (!kind.sight || chases_unperceived(kind)) return;
  const double noticed = std::max(between_middles(kind, foe, kind.sight->range),
                                  farthest_felt(bench.level().plane, kind, foe));
  if (stop <= noticed) return;
  bench.say(Severity::warning, "stop-beyond-sight", bench.place_of(kind, "move.stop_distance"),
            worded("{} notices {} within {} m and stops {} m from it: when it notices, it is "
                   "near enough already and will not take a step",
                   kind.name, foe.name, noticed, stop));
}

bool is_driven(const Level& level, const Kind& kind) {
  return std::none_of(level.agents.begin(), level.agents.end(), [&](const Agent& agent) {
    return &level.kind_of(agent) == &kind && agent.driver == Driver::mind;
  });
}

bool needs_no_noticing(const Level& level, const Kind& kind, const Attack& attack) {
  return attack.how == Attack::How::touch || attack.aim == Attack::Aim::mirror || attack.locks_on ||
         attack.name == kind.defeat.attack || is_driven(level, kind);
}

void judge_attack(Bench& bench, const Kind& kind, const Attack& attack) {
  if (needs_no_noticing(bench.level(), kind, attack)) return;
  const Place place = bench.place_of(kind, attack_key(attack));
  if (!notices_others(kind)) {
    bench.say(Severity::error, "attack-without-sight", place,
              worded("{} has the attack '{}' but no sight: it notices nobody and never attacks",
                     kind.name, attack.name));
    return;
  }
  if (!kind.sight) return;
  double seen = 0.0;
  for (const Kind* foe : bench.foes_in_play(kind)) {
    const double felt = farthest_felt(bench.level().plane, kind, *foe);
    seen = std::max({seen, between_middles(kind, *foe, farthest_sight(kind)), felt});
  }
  if (seen == 0.0 || attack.range <= seen) return;
  bench.say(
      Severity::warning, "attack-beyond-sight", place,
      worded("'{}' of {} reaches {} m, but it notices within {} m and sees no farther "
             "than {} m: the last {} m are never used",
             attack.name, kind.name, attack.range, kind.sight->range, seen, attack.range - seen));
}

}  // namespace

void judge_ranges(Bench& bench) {
  for (const std::uint32_t index : bench.kinds_in_play()) {
    const Kind& kind = bench.level().kinds[index];
    for (const Attack& attack : kind.attacks) judge_attack(bench, kind, attack);
    const bool stops =
        travels(kind.move->gait) && (can_chase(kind) || kind.move->stop_distance.has_value());
    if (!stops) continue;
    for (const Kind* foe : bench.foes_in_play(kind)) {
      judge_stop(bench, kind, *foe);
      for (const Attack& attack : kind.attacks) {
        if (attack.how == Attack::How::strike) judge_strike(bench, kind, attack, *foe);
      }
    }
  }
}

}  // namespace gaze
