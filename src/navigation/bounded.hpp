#pragma once

#include <vector>

#include "gaze/level.hpp"
#include "navigation/surface.hpp"

/// How a mesh ends at the bounds of a level.
namespace gaze {

/// Returns obstacles along the boundary of the level on a surface. They extend `kSkin` to either
/// side, because mesh corners are rounded to a lattice. Empty if the level has no bounds.
[[nodiscard]] std::vector<Hindrance> rim_of_bounds(const Level& level, bool hovers,
                                                   const Surface& surface);

/// Returns whether the point of a surface above `p` lies within the bounds or on their edge.
[[nodiscard]] bool is_within_bounds(const Level& level, bool hovers, const Surface& surface,
                                    const Vector2d& p);

}  // namespace gaze
