#pragma once

#include <algorithm>
#include <cmath>

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
inline double dot3(const Vector3d& a, const Vector3d& b) {
  return a.x() * b.x() + a.y() * b.y() + a.z() * b.z();
}

inline double length_of(const Vector2d& v) {
  return std::sqrt(dot(v, v));
}
inline double length_of(const Vector3d& v) {
  return std::sqrt(dot3(v, v));
}
/// Of what lies in x and y.
inline double level_length(const Vector3d& v) {
  return std::sqrt(v.x() * v.x() + v.y() * v.y());
}

/// The point of a segment nearest to a point. The segment may have no length.
inline Vector2d nearest_on_segment(const Vector2d& a, const Vector2d& b, const Vector2d& p) {
  const Vector2d along = b - a;
  const double length2 = dot(along, along);
  const double share = length2 > 0.0 ? std::clamp(dot(p - a, along) / length2, 0.0, 1.0) : 0.0;
  return a + along * share;
}

/// From a point to a segment, which may have no length.
inline double distance_to_segment(const Vector2d& a, const Vector2d& b, const Vector2d& p) {
  return length_of(Vector2d(p - nearest_on_segment(a, b, p)));
}

/// Turned anticlockwise.
inline Vector2d turned(const Vector2d& v, const SineCosine& by) {
  return {v.x() * by.cosine - v.y() * by.sine, v.y() * by.cosine + v.x() * by.sine};
}

/// A direction turned from a facing, anticlockwise, and upwards. Seen from the side both turn it in
/// the plane: those of a walker that faces left are those of one that faces right, in a mirror.
inline Vector3d direction_along(Plane plane, const Vector2d& facing, Angle toward, Angle tilt) {
  if (plane == Plane::upright) {
    const double sign = facing.x() < 0.0 ? -1.0 : 1.0;
    const Angle turn = Angle::from_degrees(sign * (toward.degrees() + tilt.degrees()));
    const Vector2d way = turned(facing, sine_cosine(turn));
    return {way.x(), 0.0, way.y()};
  }
  const SineCosine rise = sine_cosine(tilt);
  const Vector2d way = turned(facing, sine_cosine(toward));
  return {way.x() * rise.cosine, way.y() * rise.cosine, rise.sine};
}

/// Distances between agents are measured in x and y; upright: x and z; space: all three.
inline double squared_plane_distance(Plane plane, const Vector3d& a, const Vector3d& b) {
  const double x = b.x() - a.x();
  const double y = plane == Plane::upright ? 0.0 : b.y() - a.y();
  const double z = plane == Plane::ground ? 0.0 : b.z() - a.z();
  return x * x + y * y + z * z;
}

inline double plane_distance(Plane plane, const Vector3d& a, const Vector3d& b) {
  return std::sqrt(squared_plane_distance(plane, a, b));
}

/// How far walkers have to go: level, and seen from the side along x alone.
inline double level_distance(Plane plane, const Vector3d& a, const Vector3d& b) {
  const Vector2d way{b.x() - a.x(), plane == Plane::upright ? 0.0 : b.y() - a.y()};
  return std::sqrt(way.x() * way.x() + way.y() * way.y());
}

}  // namespace gaze
