#pragma once

#include "simulation/state.hpp"

namespace gaze {

/// The game as its explanations see it: all of it, and nothing to write.
struct Explaining : Everyone {
  const Senses& senses;
  const Ways& ways;
  const Fights& fights;
  const Told& told;

  explicit Explaining(const Simulation::State& state)
      : Everyone(state),
        senses(state.senses),
        ways(state.ways),
        fights(state.fights),
        told(state.told) {}
};

}  // namespace gaze
