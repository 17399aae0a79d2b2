#pragma once

#include <cmath>
#include <vector>

#include "gaze/gaze.hpp"

/// The plain loop over all walls: what anybody writes first, and what the tree is measured and
/// checked against. It shares no code with the library: a solid is its outline, and a segment is
/// stopped if it crosses a side of it below its top, or starts or ends in it there.
namespace gaze::plain {

struct Outline {
  std::vector<Vector2d> corners;
  double base = 0.0;
  double top = 0.0;
};

inline std::vector<Outline> outlines_of(const Level& level) {
  std::vector<Outline> outlines;
  for (const Solid& solid : level.solids) {
    const double base = base_of(level, solid);
    if (solid.form == Solid::Form::block) {
      outlines.push_back({solid.points, base, base + solid.height});
      continue;
    }
    // Only axis-aligned closed walls are made by the scenes: four long boxes.
    const double half = solid.thickness / 2.0;
    for (std::size_t i = 0; i + 1 < solid.points.size(); ++i) {
      const Vector2d low = solid.points[i].cwiseMin(solid.points[i + 1]) - Vector2d{half, half};
      const Vector2d high = solid.points[i].cwiseMax(solid.points[i + 1]) + Vector2d{half, half};
      outlines.push_back(
          {{low, {high.x(), low.y()}, high, {low.x(), high.y()}}, base, base + solid.height});
    }
  }
  return outlines;
}

inline bool is_inside(const Outline& outline, const Vector3d& p) {
  if (p.z() < outline.base || p.z() > outline.top) return false;
  bool inside = false;  // even-odd rule
  for (std::size_t i = 0, j = outline.corners.size() - 1; i < outline.corners.size(); j = i++) {
    const Vector2d& a = outline.corners[i];
    const Vector2d& b = outline.corners[j];
    if ((a.y() > p.y()) != (b.y() > p.y()) &&
        p.x() < (b.x() - a.x()) * (p.y() - a.y()) / (b.y() - a.y()) + a.x()) {
      inside = !inside;
    }
  }
  return inside;
}

// The segment is above the solid on some of its way: its height where it crosses decides, and
// where it passes through the level of the top or base within the outline.
inline bool is_stopped_by(const Outline& outline, const Segment& segment) {
  if (is_inside(outline, segment.from)) return true;
  const Vector3d way = segment.to - segment.from;
  for (std::size_t i = 0, j = outline.corners.size() - 1; i < outline.corners.size(); j = i++) {
    const Vector2d edge = outline.corners[i] - outline.corners[j];
    const double along = way.x() * edge.y() - way.y() * edge.x();
    if (along == 0.0) continue;
    const double fx = outline.corners[j].x() - segment.from.x();
    const double fy = outline.corners[j].y() - segment.from.y();
    const double share = (fx * edge.y() - fy * edge.x()) / along;
    const double on_edge = (fx * way.y() - fy * way.x()) / along;
    if (share < 0.0 || share >= 1.0 || on_edge < 0.0 || on_edge > 1.0) continue;
    const double z = segment.from.z() + share * way.z();
    if (z >= outline.base && z <= outline.top) return true;
  }
  for (const double height : {outline.base, outline.top}) {
    const double share = (height - segment.from.z()) / way.z();
    if (!(share >= 0.0 && share < 1.0)) continue;
    Vector3d there = segment.from + way * share;
    there.z() = height;
    if (is_inside(outline, there)) return true;
  }
  return false;
}

inline bool is_clear(const std::vector<Outline>& outlines, const Segment& segment) {
  for (const Outline& outline : outlines) {
    if (is_stopped_by(outline, segment)) return false;
  }
  return true;
}

}  // namespace gaze::plain
