#pragma once

#include <string>
#include <string_view>

#include "gaze/level.hpp"

namespace gaze {

/// All that decides how a level plays, as bytes: two levels with the same bytes play alike. Places
/// where values were written are not among them.
[[nodiscard]] std::string bytes_of_level(const Level& level);

/// The level again, without its name and without what its kinds make up for. Throws Damaged where
/// the bytes are none.
[[nodiscard]] Level level_of_bytes(std::string_view bytes);

}  // namespace gaze
