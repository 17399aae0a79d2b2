#pragma once

#include <memory>
#include <vector>

#include "gaze/level.hpp"

namespace gaze {

/// The level with all that was left out, copied only if anything was. Throws LevelError with all
/// that `validate` finds.
[[nodiscard]] std::shared_ptr<const Level> playable(std::shared_ptr<const Level> level);
/// The same of a level that is somebody else's, and is copied.
[[nodiscard]] std::shared_ptr<const Level> playable(const Level& level);

/// What is wrong with an agent that is to come into a level.
[[nodiscard]] std::vector<Fault> faults_of(const Level& level, const Agent& agent);

/// What is wrong with the last solid of a level, which was right before it came.
[[nodiscard]] std::vector<Fault> faults_of_last_solid(const Level& level);

/// Throws LevelError where a world cannot be made of the solids of a level.
/// @param first  Those before this one are known to be right.
void need_solids(const Level& level, std::uint32_t first = 0);

}  // namespace gaze
