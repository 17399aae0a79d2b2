#include "gaze/seen_area.hpp"

#include <algorithm>

#include "sense/area_edges.hpp"
#include "sense/eye_walk.hpp"
#include "sense/look.hpp"

namespace gaze {

SeenArea seen_area(const World& world, const Looker& looker) {
  const PlanPoint eye = to_plan(world.plane(), eye_of(world.plane(), looker));
  SeenArea area;
  area.eye = eye.plan;
  area.range = range_of(looker);
  Outlook outlook(area.range);
  const PlanField field = plan_field(world.plane(), looker);
  if (!field.half) return area;
  if (field.half->degrees() < 180.0) {
    const FieldSides sides = field_sides(field.middle, *field.half);
    outlook.close(sides.end, sides.start);
  }
  if (EyeWalk(world, index_of(world).tree, {}, eye, area.range, Stops::sight, outlook).walk()) {
    make_edges(outlook.borders(), outlook, area);
  }
  return area;
}

SeenArea clear_area(const World& world, const Vector3d& place, double radius, Stops what) {
  const PlanPoint eye = to_plan(world.plane(), place);
  SeenArea area;
  area.eye = eye.plan;
  area.range = radius;
  Outlook outlook(radius);
  if (EyeWalk(world, index_of(world).tree, {}, eye, radius, what, outlook).walk()) {
    make_edges(outlook.borders(), outlook, area);
  }
  return area;
}

double SeenArea::area() const {
  double sum = 0.0;
  for (const SeenEdge& edge : edges) {
    sum += edge.at_range ? range * range * (edge.end.radians() - edge.start.radians()) / 2.0
                         : cross(edge.from - eye, edge.to - eye) / 2.0;
  }
  return sum;
}

namespace {

bool is_between(const SeenEdge& arc, double degrees) {
  while (degrees < arc.start.degrees()) degrees += 360.0;
  return degrees <= arc.end.degrees();
}

}  // namespace

bool SeenArea::contains(const Vector2d& point) const {
  const Vector2d way = point - eye;
  if (edges.empty() || dot(way, way) > range * range) return false;
  if (way == Vector2d{0.0, 0.0}) return true;
  const double degrees = angle_of(way).degrees();
  return std::any_of(edges.begin(), edges.end(), [&](const SeenEdge& edge) {
    if (edge.at_range) return is_between(edge, degrees);
    return cross(edge.from - eye, way) >= 0.0 && cross(way, edge.to - eye) >= 0.0 &&
           cross(edge.to - edge.from, point - edge.from) >= 0.0;
  });
}

}  // namespace gaze
