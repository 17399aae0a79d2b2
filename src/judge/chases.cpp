#include <fmt/format.h>

#include <algorithm>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

// The fastest that a player's agent goes: by its script where it has one.
double top_speed(const Level& level, const Agent& player) {
  const Kind& kind = level.kind_of(player);
  if (!travels(kind.move->gait)) return 0.0;
  if (player.driver != Driver::script) return kind.move->speed;
  double speed = 0.0;
  for (const ScriptStep& step : player.script) {
    if (step.what != ScriptStep::What::go) continue;
    speed = std::max(speed, step.speed.value_or(kind.move->speed));
  }
  return speed;
}

void judge_pair(Bench& bench, const Kind& chaser, const Agent& player) {
  const Kind& kind = bench.level().kind_of(player);
  const double speed = top_speed(bench.level(), player);
  const double own = chaser.move->speed;
  if (own < speed || has_cover(bench.level())) return;
  bench.say(Severity::note, "never-loses", bench.place_of(chaser, "move.speed"),
            worded("{} at {} m/s can never lose {} at {} m/s once it chases it: it comes up "
                   "to {} m, sees {} m far, and no solid of this level stops sight",
                   chaser.name, own, player.id, speed, stop_distance(chaser, kind),
                   farthest_sight(chaser)));
}

}  // namespace

void judge_chases(Bench& bench) {
  const Level& level = bench.level();
  for (const std::uint32_t index : bench.kinds_in_play()) {
    const Kind& chaser = level.kinds[index];
    if (!can_chase(chaser)) continue;
    for (const Agent& player : level.agents) {
      const bool is_player = player.driver != Driver::mind;
      if (is_player && is_hostile(level, chaser.team, level.kind_of(player).team)) {
        judge_pair(bench, chaser, player);
      }
    }
  }
}

}  // namespace gaze
