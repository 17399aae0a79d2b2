#pragma once

#include <vector>

#include "gaze/level.hpp"
#include "navigation/surface.hpp"

namespace gaze {

/// Cuts surfaces at the bounds of a level, so that no path leaves them. A
/// surface ends `kSkin` before the bounds: corners of a mesh are rounded to its lattice.
///
/// @param hovers  The surfaces are air, not ground: in side view their plan is x and z.
void keep_within_bounds(const Level& level, bool hovers, std::vector<Surface>& surfaces);

}  // namespace gaze
