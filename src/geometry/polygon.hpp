#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

#include "gaze/geometry.hpp"

namespace gaze {

using Polygon = std::vector<Vector2d>;  ///< Corners in order, not closed by repeating the first.

/// Positive for anticlockwise outlines, square metres.
[[nodiscard]] double signed_area(std::span<const Vector2d> outline);

/// True for points inside a simple polygon or on its edge. A ray to the right crosses its edges an
/// odd number of times (Shimrat, 1962); edges are half open, and points on an edge are looked for
/// first.
[[nodiscard]] bool contains(std::span<const Vector2d> outline, const Vector2d& point);

/// What keeps an outline from being a simple polygon.
struct OutlineFault {
  enum class What { too_few_points, repeated_point, crosses_itself, no_area } what;
  std::size_t first = 0;   ///< Index of the point, or of the first point of the edge, at fault.
  std::size_t second = 0;  ///< The other one of a crossing or repetition.
};

/// Nothing if the outline is a simple polygon: 3 points or more, no edge touching another but its
/// neighbours at their shared point. O(n log n) for outlines whose edges are short against it.
[[nodiscard]] std::optional<OutlineFault> find_outline_fault(std::span<const Vector2d> outline);

/// The convex hull of points, anticlockwise, without points in line (Andrew, "Another efficient
/// algorithm for convex hulls in two dimensions", 1979). Fewer than 3 corners if all lie in line.
[[nodiscard]] Polygon convex_hull(std::vector<Vector2d> points);

/// Convex anticlockwise pieces whose union is a simple polygon of either orientation. Their corners
/// are corners of the outline, so that neighbouring pieces share their edge exactly.
/// Ears cut off (Meisters, "Polygons have ears", 1975), then merged where the union stays convex
/// (Hertel and Mehlhorn, 1983).
[[nodiscard]] std::vector<Polygon> convex_pieces(std::span<const Vector2d> outline);

}  // namespace gaze
