#pragma once

#include <vector>

#include "gaze/face.hpp"
#include "gaze/sight.hpp"

namespace GAZE_FACE gaze {

/// One stretch of the edge of a seen area, anticlockwise as seen from the eye.
struct SeenEdge {
  Vector2d from{0.0, 0.0};
  Vector2d to{0.0, 0.0};
  bool at_range = false;  ///< An arc about the eye; else a straight piece of a solid.
  Angle start;            ///< Arcs: where `from` is as seen from the eye.
  Angle end;      ///< Arcs: where `to` is; start <= end < 720 degrees. 0 for straight pieces.
  SolidId solid;  ///< Whose, if it is not at the range.
};

/// What a looker can see in the plan through its eye: all points of it within range and field of
/// view to which the way from the eye is clear for sight. It is star-shaped about the eye; points
/// are [x, y], in an upright level [x, z]. Of a tilted view in space it is what lies level with the
/// eye; a vertical field of view is left aside.
struct SeenArea {
  Vector2d eye{0.0, 0.0};
  double range = 0.0;
  std::vector<SeenEdge> edges;  ///< Empty if the eye is in or on a solid that stops sight, or the
                                ///< whole view lies above or below it.

  double area() const;  ///< Square metres, from the closed forms of triangle and sector.
  bool contains(const Vector2d& point) const;  ///< Closed at the edges; O(edges).
};

/// Exact: the edge changes only at corners, at crossings of solids, where solids cross the range,
/// and at the sides of the field of view; between those directions one straight piece or the arc
/// bounds what is seen, and its ends are computed. No rays are sampled. The range is the one for
/// noticing, or `keep_range` for a looker that has noticed. Solids are taken near ones first,
/// and what they hide is left out: the time goes with what is in sight.
[[nodiscard]] SeenArea seen_area(const World& world, const Looker& looker);

/// The same all round a place, for another of the things that solids stop: what a blast there
/// reaches in its plane.
[[nodiscard]] SeenArea clear_area(const World& world, const Vector3d& place, double radius,
                                  Stops what);

}  // namespace gaze
