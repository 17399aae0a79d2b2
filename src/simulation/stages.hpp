#pragma once

#include "simulation/state.hpp"

/// What concerns all parts of a running game.
namespace gaze {

/// One step of play.
void play_step(Simulation::State& state);
/// Start places are drawn, and all look once.
void begin(Simulation::State& state);

/// Opens doors before those for whom they open, and shuts them after.
void move_doors(Simulation::State& state);
/// Has those who have left the level defeated or put back.
void keep_in_bounds(Simulation::State& state);

/// Puts somebody back to where it began; it has forgotten what it noticed.
void put_back(Simulation::State& state, std::uint32_t who);
/// Who has been defeated, caught or lost acts no more; who has been left behind, or comes back, is
/// there.
void settle_who_is_there(Simulation::State& state);

/// Ends the round in this step if it is to.
void judge_round(Simulation::State& state);
/// Everything but the time, the score and the course of chance as it was in the beginning.
void begin_round(Simulation::State& state);

/// Puts the events of this step into their order.
void order_events(Events& events);

}  // namespace gaze
