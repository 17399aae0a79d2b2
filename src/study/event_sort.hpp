#pragma once

#include <string>

#include "gaze/simulation.hpp"

namespace gaze {

/// What an event is, without its numbers: "pruner-1 hurt collector". Events of one sort are
/// counted together where runs are held against each other.
[[nodiscard]] std::string sort_of(const Simulation& game, const Event& event);

}  // namespace gaze
