#include <algorithm>

#include "combat/cooldown.hpp"
#include "simulation/stages.hpp"

/// Rounds: when one is over, and how the next begins.
namespace gaze {
namespace {

using Index = std::uint32_t;

// Those placed in the level count, but for things and those who will be back.
bool is_out(const Simulation::State& state, std::uint32_t team) {
  bool any = false;
  for (Index who = 0; who < state.fixed.placed; ++who) {
    if (state.kind(who).team != team || state.kind(who).thing) continue;
    any = true;
    if (state.lives.alive[who] || state.lives.returns_at[who] != kNeverReady) return false;
  }
  return any;
}

void end(Simulation::State& state, std::uint32_t team) {
  state.run.is_over = true;
  const auto last =
      std::find_if(state.told.events.rbegin(), state.told.events.rend(), [](const Event& event) {
        return event.what == Event::What::caught || event.what == Event::What::defeated;
      });
  const Index who = last == state.told.events.rend() ? 0 : last->agent.index;
  const std::optional<AgentId> other =
      last == state.told.events.rend() ? std::nullopt : last->other;
  Event& event = state.tell(Event::What::ended, who);
  event.other = other;
  event.team = team;
}

}  // namespace

void judge_round(Simulation::State& state) {
  const Round& round = state.level().round;
  if (!round.can_end()) return;
  if (round.ends_when_caught && state.fights.somebody_caught) return end(state, kNoTeam);
  for (const std::uint32_t team : round.ends_without) {
    if (is_out(state, team)) return end(state, team);
  }
}

// What outlives a round is moved over; all else is made anew.
void begin_round(Simulation::State& state) {
  Simulation::State fresh(state.fixed.level, state.world.whole());
  fresh.clock.tick = state.clock.tick;
  fresh.run.unspent_ticks = state.run.unspent_ticks;
  fresh.fixed.placed = state.fixed.placed;
  place_all(fresh);
  fresh.chance = std::move(state.chance);
  fresh.run.score = std::move(state.run.score);
  fresh.ways.meshes = std::move(state.ways.meshes);
  fresh.ways.mesh_bodies = std::move(state.ways.mesh_bodies);
  fresh.run.host_names = std::move(state.run.host_names);
  fresh.fights.shells_made = state.fights.shells_made;
  fresh.told.events = std::move(state.told.events);
  fresh.told.sorted_events = state.told.sorted_events;
  fresh.told.events_are_old = state.told.events_are_old;
  std::fill(fresh.minds.mode_since.begin(), fresh.minds.mode_since.end(), fresh.now());
  begin(fresh);
  state = std::move(fresh);
}

}  // namespace gaze
