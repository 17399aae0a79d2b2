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

double distance_to(Plane plane, const Solid& block, const Vector3d& p) {
  const Vector2d plan = plan_part(plane, p);
  double out = contains(block.points, plan) ? 0.0 : std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < block.points.size() && out > 0.0; ++i) {
    const Vector2d& next = block.points[(i + 1) % block.points.size()];
    out = std::min(out, distance_to_segment(block.points[i], next, plan));
  }
  const double above = p.z() - *block.base;
  const double off = plane == Plane::upright ? 0.0 : std::max({0.0, -above, above - block.height});
  return std::sqrt(out * out + off * off);
}

}  // namespace gaze
