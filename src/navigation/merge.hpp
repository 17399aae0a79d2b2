#pragma once

#include <cstdint>
#include <vector>

#include "navigation/cover.hpp"

namespace gaze {

/// An outline from `convex_on_lattice`, and what it makes of the places in it: outlines with the
/// same number make the same of them.
struct Covering {
  const ConvexOutline* outline;
  std::uint32_t what;
};

/// Adds the lines of outlines. Of outlines that lie among many others of the same `what`, adds the
/// boundary of their union only. So 500 rounded outlines of 1,000 corners that lie upon each other
/// do not become millions of faces inside, where nobody can be.
///
/// Cost: O(n log n) in the corners of all outlines and of the crossings of what is merged.
void add_merged(Lines& lines, const std::vector<Covering>& coverings);

}  // namespace gaze
