#pragma once

#include "gaze/geometry.hpp"

/// Solids are prisms over a plan. Which two world axes make the plan, and which one runs across
/// it, is all that the planes differ in; every query is answered in these coordinates.
namespace gaze {

struct PlanPoint {
  Vector2d plan{0.0, 0.0};
  double across = 0.0;  ///< Along the axis on which prisms rise.
};

struct PlanSegment {
  PlanPoint from;
  PlanPoint to;
};

inline PlanPoint to_plan(Plane plane, const Vector3d& p) {
  return plane == Plane::upright ? PlanPoint{{p.x(), p.z()}, p.y()}
                                 : PlanPoint{{p.x(), p.y()}, p.z()};
}

inline PlanSegment to_plan(Plane plane, const Segment& segment) {
  return {to_plan(plane, segment.from), to_plan(plane, segment.to)};
}

inline Vector3d from_plan(Plane plane, const PlanPoint& p) {
  return plane == Plane::upright ? Vector3d{p.plan.x(), p.across, p.plan.y()}
                                 : Vector3d{p.plan.x(), p.plan.y(), p.across};
}

/// The part of a world vector that lies in the plan.
inline Vector2d plan_part(Plane plane, const Vector3d& v) {
  return to_plan(plane, v).plan;
}

/// Where an offset [forward, left, up] from a body's feet is in the world. Seen from the side, left
/// of the facing is depth: toward y for who faces right.
inline Vector3d offset_place(Plane plane, const Vector3d& feet, const Vector2d& facing,
                             const Vector3d& offset) {
  const Vector2d& f = facing;
  if (plane == Plane::upright) {
    const double depth = f.x() < 0.0 ? -offset.y() : offset.y();
    return feet + Vector3d{f.x() * offset.x(), depth, f.y() * offset.x() + offset.z()};
  }
  return feet + Vector3d{f.x() * offset.x() - f.y() * offset.y(),
                         f.y() * offset.x() + f.x() * offset.y(), offset.z()};
}

/// Twice the area of the triangle (origin, a, b); positive if b lies to the left of a.
inline double cross(const Vector2d& a, const Vector2d& b) {
  return a.x() * b.y() - a.y() * b.x();
}

/// Spelt out, so that the order of the additions does not depend on a library's version.
inline double dot(const Vector2d& a, const Vector2d& b) {
  return a.x() * b.x() + a.y() * b.y();
}

}  // namespace gaze
