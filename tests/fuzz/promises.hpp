#pragma once

#include <string>

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

namespace gaze::fuzz {

/// Judges and plays a level for so many steps. @return The first promise that does not hold, in
/// words; empty if all do: numbers are finite, facings of length one, health is lost and got back
/// as told, events come in order, shares lie in [0, 1], quick answers equal full ones, and a copy
/// goes on to the same bits.
[[nodiscard]] std::string broken_promise(const Level& level, int steps);

}  // namespace gaze::fuzz
