#pragma once

#include <memory>
#include <span>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/sight.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

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

/// Finds the seen areas of one world, one after another, several times as fast as `seen_area` and
/// the same to rounding: an eye looks from triangle to triangle of the plan, through the gaps that
/// are in sight, and touches nothing that is hidden (Bungiu, Hemmer, Hershberger, Huang and
/// Kroeller, "Efficient computation of visibility polygons", EuroCG 2014). For that the plan is cut
/// into triangles along the sides of all solids that stand at the height of the eye, beforehand.
/// Ramps and other slanted pieces are looked for as `seen_area` does it. What is narrower than
/// 1e-11 radians counts as shut, so that nobody looks through where two solids touch.
///
/// It keeps its memory from one area to the next. Several threads use one each; copies share the
/// triangles.
class SeenAreaFinder {
 public:
  /// @param eye_heights  At which it is quick, metres in the level; also at all others between the
  ///                     same tops and undersides of solids. Elsewhere, and outside of all that
  ///                     stands there, it does as `seen_area`. For each the plan is cut once, about
  ///                     as quickly as a navigation mesh is made. In an upright level one will do.
  ///                     Throws UsageError for one that is not finite.
  SeenAreaFinder(const World& world, std::span<const double> eye_heights);
  SeenAreaFinder(const SeenAreaFinder& other);
  SeenAreaFinder(SeenAreaFinder&& other) noexcept;
  SeenAreaFinder& operator=(const SeenAreaFinder& other);
  SeenAreaFinder& operator=(SeenAreaFinder&& other) noexcept;
  ~SeenAreaFinder();

  /// Valid until the next one.
  ///
  /// @param now  The world as it is now: that for which this was made, or a copy, with what has
  ///             gone and come back since. Throws UsageError if it has other solids.
  const SeenArea& find(const World& now, const Looker& looker);

  struct Data;

 private:
  std::unique_ptr<Data> data_;
};

/// The same all round a place, for another of the things that solids stop: what a blast there
/// reaches in its plane.
[[nodiscard]] SeenArea clear_area(const World& world, const Vector3d& place, double radius,
                                  Stops what);

}  // namespace gaze
GAZE_PUBLIC_END
