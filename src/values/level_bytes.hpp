#pragma once

#include <string>

#include "gaze/level.hpp"

namespace gaze {

/// All that decides how a level plays, as bytes: two levels with the same bytes play alike. Places
/// where values were written are not among them.
[[nodiscard]] std::string bytes_of_level(const Level& level);

}  // namespace gaze
