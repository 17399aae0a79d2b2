#pragma once

#include "simulation/state.hpp"

namespace gaze {

/// What follows from the level of a game, to be changed for that game alone. If others share it,
/// the game gets its own first: state, level and all that is asked of it from then on.
struct Changing {
  explicit Changing(std::unique_ptr<Simulation::State>& state);

  Fixed& fixed;
  Level& level;
};

/// Throws UsageError with the first of what is wrong, if anything is.
void need_no_fault(const std::vector<Fault>& faults);

/// The game goes on with other values. Agents and their numbers stay.
/// @param written  The kinds as they were given, with what is left out.
void go_on_with(std::unique_ptr<Simulation::State>& state, std::shared_ptr<const Level> level,
                std::shared_ptr<const std::vector<Kind>> written, std::vector<Pool> pools);

}  // namespace gaze
