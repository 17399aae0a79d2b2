#pragma once

#include <vector>

#include "gaze/level.hpp"
#include "navigation/surface.hpp"

/// How a mesh ends at the bounds of a level.
namespace gaze {

/// The rim of the bounds on a surface, `kSkin` wide to either side: corners of a mesh are rounded
/// to its lattice. Empty if the level has no bounds.
[[nodiscard]] std::vector<Hindrance> rim_of_bounds(const Level& level, bool hovers,
                                                   const Surface& surface);

/// True if the place of a surface at `p` of its plan is within the bounds, their edge included.
[[nodiscard]] bool is_within_bounds(const Level& level, bool hovers, const Surface& surface,
                                    const Vector2d& p);

}  // namespace gaze
