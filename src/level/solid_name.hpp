#pragma once

#include <string>

#include "gaze/level.hpp"

namespace gaze {

/// The id of a solid of the level; what is in a host's own world has a name of the host's alone.
[[nodiscard]] inline const std::string& solid_name(const Level& level, std::uint32_t index) {
  static const std::string kHosts = "the host's world";
  return index < level.solids.size() ? level.solids[index].id : kHosts;
}

}  // namespace gaze
