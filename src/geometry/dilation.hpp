#pragma once

#include <span>
#include <vector>

#include "geometry/polygon.hpp"

namespace gaze {

/// Everything within a radius of a convex outline, its rounded corners given by tangents: nothing
/// is cut off, and nowhere does it reach more than `slack` too far.
///
/// @param outline  Convex, anticlockwise, 3 corners or more; corners may repeat or lie in line.
/// @param radius   Metres, above 0.
/// @param slack    Metres, above 0.
/// @return A convex anticlockwise outline.
[[nodiscard]] Polygon dilated(std::span<const Vector2d> outline, double radius, double slack);

/// A disc about the origin, given by tangents in the same way: those with these outward normals are
/// among them.
///
/// @param normals  Of length 1, no two next to each other half a turn or more apart; in any order.
[[nodiscard]] Polygon disc(std::vector<Vector2d> normals, double radius, double slack);

/// The part of a convex outline on which a linear function start + along.dot(p) is not negative;
/// empty if there is none, or none with an area. (Sutherland and Hodgman, 1974.)
[[nodiscard]] Polygon clipped(std::span<const Vector2d> outline, double start,
                              const Vector2d& along);

}  // namespace gaze
