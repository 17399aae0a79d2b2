#pragma once

#include "simulation/state.hpp"

/// The functions that concern all parts of a running game.
namespace gaze {

/// One step of play.
void play_step(Simulation::State& state);
/// Begins a game: start places are drawn, and all look once.
void begin(Simulation::State& state);

/// Opens doors for those who come near and for whom they open, and shuts them afterwards.
void move_doors(Simulation::State& state);
/// Defeats those who have left the level, or puts them back.
void keep_in_bounds(Simulation::State& state);

/// Adds all agents to the parts of a game that have been added to its level, from the first on.
void add_agents(Simulation::State& state, std::uint32_t first);
/// Puts an agent into play as if it had done nothing yet.
void appear(Simulation::State& state, std::uint32_t who, const Vector3d& feet,
            const Vector2d& facing);
/// Takes an agent out of everybody's account, by the flags of those that go.
void strike_out(Simulation::State& state, const std::vector<char>& goes);

/// Puts an agent back to where it began. It forgets what it noticed.
void put_back(Simulation::State& state, std::uint32_t who);
/// Brings back one who was defeated, to where it began.
void bring_back(Simulation::State& state, std::uint32_t who);
/// Takes out of play who has been defeated, caught or lost, and brings into play what has been left
/// behind and who comes back.
void settle_who_is_there(Simulation::State& state);

/// Ends the round in this step, if it is over.
void judge_round(Simulation::State& state);
/// Makes everything as it was at the beginning, but for the time, the score and the course of
/// chance.
void begin_round(Simulation::State& state);

/// Returns whether all values of a restored game are valid for its level: indices exist, counts are
/// within their limits, and a mesh can be made for each body.
[[nodiscard]] bool can_be(const Simulation::State& state);
/// Throws UsageError if a deed is impossible in the level of a game.
void need_deed(const Simulation::State& state, const TrackDeed& deed);

/// Puts the events of this step into their order.
void order_events(Events& events);

}  // namespace gaze
