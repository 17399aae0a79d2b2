#pragma once

#include "gaze/navigation.hpp"
#include "geometry/height_plane.hpp"
#include "geometry/polygon.hpp"

namespace gaze {

/// A convex piece of a solid: its plan, and its upper and lower sides.
struct SlopedPiece {
  const Polygon& outline;
  HeightPlane top;
  HeightPlane bottom;
};

/// Where on a slope the centre of a body cannot be because of a piece: where some of that lies
/// within its radius, higher than a step above its feet and lower than its head. Exact but for the
/// round of the body, which is given by tangents: nothing is left out, and nowhere does it reach
/// more than `NavigationMesh::kRoundingSlack` too far. Empty if the body can be everywhere.
[[nodiscard]] Polygon hindered_on_slope(const SlopedPiece& piece, const HeightPlane& slope,
                                        const BodySize& body);

}  // namespace gaze
