#include <algorithm>
#include <cmath>

#include "gaze/acquaintance.hpp"
#include "gaze/feeling.hpp"
#include "geometry/plan.hpp"
#include "sense/sensing.hpp"
#include "simulation/state.hpp"
#include "study/sneak.hpp"

/// Who might notice, moment by moment.
namespace gaze {
namespace {

// Those that find bodies that are hostile, up to what they meet.
std::vector<BallPath> feelers_of(const Simulation& game, const Watcher& watcher) {
  std::vector<BallPath> paths;
  if (watcher.kind.feelers.empty()) return paths;
  const AgentState state = game.state(watcher.agent);
  const std::vector<FeelerAnswer> answers = feelers(game, watcher.agent);
  for (std::size_t i = 0; i < answers.size(); ++i) {
    const Feeler& feeler = watcher.kind.feelers[i];
    if (feeler.finds == Feeler::Finds::nothing) continue;
    const Vector2d& facing = feeler.turns_with_head ? state.head : state.facing;
    BallPath path = feeler_path(game.level().plane, feeler, state.position, facing);
    const Felt& felt = answers[i].felt;
    const double length = length_of(Vector3d(path.path.to - path.path.from));
    if (felt.distance && length > 0.0) {
      path.path.to =
          path.path.from + (path.path.to - path.path.from) * std::min(1.0, *felt.distance / length);
    }
    paths.push_back(path);
  }
  return paths;
}

std::vector<char> spent_zones(const Simulation& game) {
  const Simulation::State& state = state_of(game);
  std::vector<char> spent;
  for (std::size_t i = 0; i < game.level().zones.size(); ++i) {
    spent.push_back(game.level().zones[i].once && state.senses.zone_spent[i] != 0 ? 1 : 0);
  }
  return spent;
}

void note_motion(const Simulation& game, Watcher& watcher) {
  const AgentState state = game.state(watcher.agent);
  const WatcherAt& last = watcher.at.back();
  const bool is_up = state.is_alive && state.is_awake && state.is_there;
  watcher.has_moved |=
      is_up != last.is_up || state.position != last.looker.feet || state.head != last.looker.facing;
}

bool has_senses(const Kind& kind) {
  return kind.sight || kind.nearness || kind.hearing || !kind.feelers.empty() || kind.touch;
}

}  // namespace

double reach_of(const Watcher& watcher, const Level& level, const Sneaker& sneaker) {
  const Kind& kind = watcher.kind;
  double reach = kind.radius + sneaker.kind.radius;
  if (kind.sight) reach = std::max(reach, kind.sight->range + sneaker.kind.radius);
  if (kind.nearness) reach = std::max(reach, kind.nearness->range);
  if (kind.hearing) reach = std::max(reach, heard_from(kind, sneaker));
  for (const Feeler& feeler : kind.feelers) {
    const double out = length_of(*feeler.from) + feeler.length + feeler.thickness;
    reach = std::max(reach, out + sneaker.kind.radius);
  }
  // What tells of somebody may lie anywhere.
  const bool is_told = std::any_of(level.zones.begin(), level.zones.end(), [&](const Zone& zone) {
    return std::find(zone.tells.begin(), zone.tells.end(), watcher.agent.index) != zone.tells.end();
  });
  constexpr double kAnywhere = 1e5;
  return is_told ? kAnywhere : std::min(reach, kAnywhere);
}

std::vector<Watcher> watchers_of(const Level& level, AgentId who, const Sneaker& sneaker,
                                 std::size_t moments, SneakEffort& effort) {
  Simulation game(level);
  std::vector<Watcher> watchers;
  const double moment = static_cast<double>(sneaker.ticks) / level.ticks_per_second;
  const bool changes_tags =
      std::any_of(level.zones.begin(), level.zones.end(),
                  [](const Zone& zone) { return !zone.grants.empty() || !zone.takes.empty(); });
  for (const AgentId agent : game.agents()) {
    const Kind& kind = game.level().kind_of(game.level().agents[agent.index]);
    if (!has_senses(kind)) continue;
    const bool turns = !kind.choose.tags.empty() && changes_tags;
    if (!turns && !state_of(game).looks_for(agent.index, who.index)) continue;
    if (!is_hostile(level, kind.team, sneaker.kind.team)) continue;
    Watcher watcher;
    watcher.agent = agent;
    watcher.id = game.id_of(agent);
    watcher.kind = kind;
    watcher.may_turn_away = turns;
    watcher.ebb = 1.0;
    if (kind.sight && kind.sight->ebb_time.nanoseconds > 0) {
      watcher.ebb = moment / kind.sight->ebb_time.seconds();
    }
    watchers.push_back(std::move(watcher));
  }
  if (game.is_there(who)) game.despawn(who);
  for (std::size_t k = 0; k < moments; ++k) {
    effort.goes_on(0, moments);  // a search needs all observers
    for (Watcher& watcher : watchers) {
      WatcherAt at;
      const AgentState state = game.state(watcher.agent);
      at.has_kept_still = k > 0 && !watcher.has_moved;
      watcher.has_moved = false;
      at.is_up = state.is_alive && state.is_awake && state.is_there;
      at.looker.feet = state.position;
      at.looker.facing = state.head;
      at.feelers = feelers_of(game, watcher);
      at.zone_is_spent = spent_zones(game);
      if (watcher.kind.sight) at.looker = game.looker(watcher.agent);
      watcher.at.push_back(std::move(at));
    }
    for (int tick = 0; tick < sneaker.ticks; ++tick) {
      game.step();
      for (Watcher& watcher : watchers) note_motion(game, watcher);
    }
  }
  return watchers;
}

}  // namespace gaze
