#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "geometry/triangulation.hpp"

namespace gaze {

/// Convex polygons that cover classes of triangles without gap or overlap. Polygon i has the
/// corners first[i] to first[i + 1].
struct ConvexCover {
  std::vector<std::uint32_t> first{0};
  std::vector<std::uint32_t> corner;  ///< Vertices, anticlockwise; some may lie in line.
  std::vector<std::uint32_t>
      twin;  ///< By corner, of the edge from there: where in `corner` the same
             ///< edge of the polygon beyond begins; kNone if there is none.
  std::vector<std::uint32_t> of_class;  ///< By polygon.
};

/// Triangles of one class are merged, the longest edges between them dropped first, as long as what
/// results is convex (Hertel and Mehlhorn, 1983). Triangles of class kNone are left out.
///
/// @param of_class  By triangle.
[[nodiscard]] ConvexCover cover_by_convex(const Triangulation& triangulation,
                                          std::span<const std::uint32_t> of_class);

}  // namespace gaze
