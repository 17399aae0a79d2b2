#pragma once

#include <vector>

#include "gaze/level.hpp"

namespace gaze {

/// The kinds of a level as they were given: without what was left out in a file and follows from
/// other values.
[[nodiscard]] std::vector<Kind> written_kinds(const Level& level);

}  // namespace gaze
