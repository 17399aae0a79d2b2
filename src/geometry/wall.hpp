#pragma once

#include <optional>
#include <span>
#include <vector>

#include "geometry/polygon.hpp"

namespace gaze {

/// A path widened by half its thickness to either side: flat ends, mitred corners. A path whose
/// last point is its first is closed and mitred there as well.
///
/// @param path       2 points or more, neighbours apart.
/// @param thickness  Metres, above 0.
/// @return One convex anticlockwise piece for each stretch of the path; neighbours share an edge.
///         Nothing where a corner is so sharp that its mitre eats up a whole stretch.
[[nodiscard]] std::optional<std::vector<Polygon>> widen_path(std::span<const Vector2d> path,
                                                             double thickness);

}  // namespace gaze
