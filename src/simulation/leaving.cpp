#include "combat/damage.hpp"
#include "simulation/stages.hpp"
#include "world/bounds.hpp"

/// What has left the level is gone, or is put back.
namespace gaze {
namespace {

void leave(Simulation::State& state, std::uint32_t who) {
  const Bounds& bounds = *state.level().bounds;
  Fighting fighting(state);
  Event& event = fighting.tell(Event::What::left, who);
  event.place = state.bodies.position[who];
  // An agent whose own place lies outside would leave the level again and again.
  const bool is_thing = state.kind(who).thing.has_value();
  const bool has_a_place = is_within(state.plane(), bounds, state.bodies.post[who]);
  event.is_outside = !bounds.puts_back || is_thing || !has_a_place;
  if (!event.is_outside) return put_back(state, who);
  if (is_thing) return put_out(fighting, who);
  defeat(fighting, who, state.bodies.position[who], std::nullopt, state.now());
}

}  // namespace

void keep_in_bounds(Simulation::State& state) {
  if (!state.level().bounds) return;
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (!state.lives.alive[who]) continue;
    if (!is_within(state.plane(), *state.level().bounds, state.bodies.position[who]))
      leave(state, who);
  }
}

}  // namespace gaze
