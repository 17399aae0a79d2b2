#include "world/distances.hpp"

#include <algorithm>
#include <limits>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"

namespace gaze {

double distance_to(const Cylinder& body, const Vector3d& p) {
  const double x = p.x() - body.feet.x();
  const double y = p.y() - body.feet.y();
  const double out = std::max(0.0, std::sqrt(x * x + y * y) - body.radius);
  const double below = body.feet.z() - p.z();
  const double off = std::max({0.0, below, -below - body.height});
  return std::sqrt(out * out + off * off);
}

Vector3d nearest_point(Plane plane, const Solid& block, const Vector3d& p) {
  const Vector2d plan = plan_part(plane, p);
  Vector2d nearest = plan;
  double best = contains(block.points, plan) ? 0.0 : std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < block.points.size() && best > 0.0; ++i) {
    const Vector2d& next = block.points[(i + 1) % block.points.size()];
    const Vector2d on_edge = nearest_on_segment(block.points[i], next, plan);
    const double distance = length_of(Vector2d(plan - on_edge));
    if (!(distance < best)) continue;
    best = distance;
    nearest = on_edge;
  }
  if (plane == Plane::upright) return {nearest.x(), p.y(), nearest.y()};
  return {nearest.x(), nearest.y(), std::clamp(p.z(), *block.base, *block.base + block.height)};
}

double distance_to(Plane plane, const Solid& block, const Vector3d& p) {
  return length_of(Vector3d(p - nearest_point(plane, block, p)));
}

}  // namespace gaze
