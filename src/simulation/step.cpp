#include "combat/fighting.hpp"
#include "mind/deciding.hpp"
#include "sense/sensing.hpp"
#include "simulation/stages.hpp"
#include "travel/neighbours.hpp"

/// The list of all stages of a step, in their order. Each room gets the game as it sees it.
namespace gaze {
namespace {

void perceive(Sensing& sensing, Deciding& deciding) {
  look_who_is_where(sensing);
  enter_zones(sensing);
  wake_up(deciding);
  hear(sensing);
  look_out(sensing);
}

void set_things_down(Fighting& fighting, Travelling& travelling) {
  release_things(fighting);
  place_things(travelling);
}

}  // namespace

// Once a round is over, the next step is the first of a new one, or nothing moves any more.
void play_step(Simulation::State& state) {
  ++state.clock.tick;
  if (state.is_over) {
    if (state.fixed.level->round.resets) begin_round(state);
    return;
  }
  Deciding deciding(state);
  Travelling travelling(state);
  Fighting fighting(state);
  Sensing sensing(state);

  decide(deciding);
  move_doors(state);
  travel(travelling);
  end_modes(deciding);
  use_hands(fighting);
  pick_things_up(fighting);
  set_things_down(fighting, travelling);
  keep_in_bounds(state);
  fight(fighting);
  take_pushes(travelling);
  set_things_down(fighting, travelling);
  note_made(deciding);
  settle_who_is_there(state);
  judge_round(state);
  perceive(sensing, deciding);
  order_events(state.events);
  remember_poses(travelling);
}

void begin(Simulation::State& state) {
  Deciding deciding(state);
  Travelling travelling(state);
  Sensing sensing(state);
  choose_starts(travelling);
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) turn_head(travelling, who);
  state.bodies.previous_head = state.bodies.head;
  perceive(sensing, deciding);
  order_events(state.events);
}

}  // namespace gaze
