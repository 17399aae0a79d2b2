#pragma once

#include <optional>
#include <string>

#include "fuzz/choices.hpp"
#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

namespace gaze::fuzz {

/// The text of a level that is right in structure: solids that overlap, touch and stand a hair
/// apart, kinds with any mixture of senses, ways and attacks, agents with patrols and scripts,
/// zones, doors, links, starts, rounds and bounds, in any plane and at any rate of steps.
[[nodiscard]] std::string write_level(Choices& choices);

/// The level of a seed, read; nothing if it is refused: a few keys do not go together.
[[nodiscard]] std::optional<Level> level_of_seed(std::uint64_t seed);

}  // namespace gaze::fuzz
