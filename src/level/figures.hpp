#pragma once

#include <span>
#include <string>

#include "gaze/figure.hpp"

namespace gaze {

/// Returns whether the agent of such an event suffers it, and `other` is the cause.
[[nodiscard]] constexpr bool is_suffered(Happening what) {
  return what == Happening::hurt || what == Happening::defeated;
}

/// Takes out what is measured of agents that a level no longer has, and what is expected of that.
void drop_figures_of_nobody(Level& level, std::span<const std::string> gone);

}  // namespace gaze
