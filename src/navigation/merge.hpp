#pragma once

#include <cstdint>
#include <vector>

#include "navigation/cover.hpp"

namespace gaze {

/// An outline from `convex_on_lattice`, and the class of the area inside. Outlines of the same
/// class have the same number.
struct Covering {
  const ConvexOutline* outline;
  std::uint32_t what;
};

/// Adds the lines of outlines. Where many outlines of the same class overlap, adds only the
/// boundary of their union. Otherwise 500 overlapping outlines of 1,000 corners would make millions
/// of faces inside, where no body can be.
///
/// Cost: O(n log n) in the corners of all outlines and of the crossings of what is merged.
void add_merged(Lines& lines, const std::vector<Covering>& coverings);

}  // namespace gaze
