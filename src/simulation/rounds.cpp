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
  for (Index who = 0; who < state.placed; ++who) {
    if (state.kind(who).team != team || state.kind(who).thing) continue;
    any = true;
    if (state.alive[who] || state.returns_at[who] != kNeverReady) return false;
  }
  return any;
}

void end(Simulation::State& state, std::uint32_t team) {
  state.is_over = true;
  const auto last =
      std::find_if(state.events.rbegin(), state.events.rend(), [](const Event& event) {
        return event.what == Event::What::caught || event.what == Event::What::defeated;
      });
  const Index who = last == state.events.rend() ? 0 : last->agent.index;
  const std::optional<AgentId> other = last == state.events.rend() ? std::nullopt : last->other;
  Event& event = state.tell(Event::What::ended, who);
  event.other = other;
  event.team = team;
}

}  // namespace

void judge_round(Simulation::State& state) {
  const Round& round = state.level->round;
  if (!round.can_end()) return;
  if (round.ends_when_caught && state.somebody_caught) return end(state, kNoTeam);
  for (const std::uint32_t team : round.ends_without) {
    if (is_out(state, team)) return end(state, team);
  }
}

// What outlives a round is moved over; all else is made anew.
void begin_round(Simulation::State& state) {
  Simulation::State fresh(state.level, state.world.whole());
  fresh.tick = state.tick;
  fresh.unspent_ticks = state.unspent_ticks;
  fresh.placed = state.placed;
  place_all(fresh);
  fresh.random = std::move(state.random);
  fresh.score = std::move(state.score);
  fresh.meshes = std::move(state.meshes);
  fresh.mesh_bodies = std::move(state.mesh_bodies);
  fresh.host_names = std::move(state.host_names);
  fresh.shells_made = state.shells_made;
  fresh.events = std::move(state.events);
  fresh.sorted_events = state.sorted_events;
  fresh.events_are_old = state.events_are_old;
  std::fill(fresh.mode_since.begin(), fresh.mode_since.end(), fresh.now());
  begin(fresh);
  state = std::move(fresh);
}

}  // namespace gaze
