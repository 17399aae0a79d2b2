#include <algorithm>

#include "combat/cooldown.hpp"
#include "simulation/stages.hpp"

/// Rounds: when one is over, and how the next begins.
namespace gaze {
namespace {

using Index = std::uint32_t;

// Of a team those count who are placed in the level, but for things, and for those who will come
// back.
bool is_out(const Simulation::State& state, std::uint32_t team) {
  bool any = false;
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (state.agent(who).is_spare || state.kind(who).team != team || state.kind(who).thing)
      continue;
    any = true;
    if (state.lives.alive[who] || state.lives.returns_at[who] != kNeverReady) return false;
  }
  return any;
}

void end(Simulation::State& state, std::uint32_t team) {
  state.is_over = true;
  const auto last =
      std::find_if(state.events.all.rbegin(), state.events.all.rend(), [](const Event& event) {
        return event.what == Event::What::caught || event.what == Event::What::defeated;
      });
  const Index who = last == state.events.all.rend() ? 0 : last->agent.index;
  const std::optional<AgentId> other = last == state.events.all.rend() ? std::nullopt : last->other;
  Event& event = Teller(state).tell(Event::What::ended, who);
  event.other = other;
  event.team = team;
}

}  // namespace

void judge_round(Simulation::State& state) {
  const auto& round = state.level().round;
  if (!round.can_end()) return;
  if (round.ends_when_caught && state.fights.somebody_caught) return end(state, kNoTeam);
  for (const std::uint32_t team : round.ends_without) {
    if (is_out(state, team)) return end(state, team);
  }
}

void begin_round(Simulation::State& state) {
  static_cast<RoundState&>(state) = RoundState(state.fixed, state.world.whole(), state);
  begin(state);
}

}  // namespace gaze
