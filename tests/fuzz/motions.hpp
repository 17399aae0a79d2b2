#pragma once

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

namespace gaze::fuzz {

/// Where else a whole level may lie: mirrored at the x axis, then turned by quarters about the
/// origin, then moved. Upright levels, whose gravity has a direction in the plan, are mirrored from
/// left to right, and not turned.
struct Motion {
  bool is_mirrored = false;
  int quarters = 0;
  Vector3d shift = Vector3d::Zero();
};

/// The level as it lies then.
[[nodiscard]] Level moved(Level level, const Motion& motion);

/// The level with all lengths, speeds and accelerations doubled: it takes as long.
[[nodiscard]] Level doubled(Level level);

/// The level with its solids, zones, links, materials and teams in the opposite order. Agents and
/// kinds keep theirs: of two that come to the same at the same time the first one counts.
[[nodiscard]] Level in_another_order(Level level);

}  // namespace gaze::fuzz
