#include "world/bounds.hpp"

#include <algorithm>
#include <vector>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"

namespace gaze {
namespace {

bool is_between_heights(const Bounds& bounds, double height) {
  return (!bounds.low || height >= *bounds.low) && (!bounds.high || height <= *bounds.high);
}

void add_share(std::vector<double>& shares, double part, double whole) {
  if (whole == 0.0) return;
  const double share = part / whole;
  if (share > 0.0 && share < 1.0) shares.push_back(share);
}

// Where the way goes over a line along which it may get out.
std::vector<double> crossings(Plane plane, const Bounds& bounds, const Segment& way) {
  std::vector<double> shares;
  const Vector2d from = plan_part(plane, way.from);
  const Vector2d along = plan_part(plane, way.to) - from;
  const std::vector<Vector2d>& outline = bounds.outline;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d corner = outline[i] - from;
    const Vector2d edge = outline[(i + 1) % outline.size()] - outline[i];
    add_share(shares, cross(corner, edge), cross(along, edge));
  }
  const double rise = way.to.z() - way.from.z();
  if (bounds.low) add_share(shares, *bounds.low - way.from.z(), rise);
  if (bounds.high) add_share(shares, *bounds.high - way.from.z(), rise);
  std::sort(shares.begin(), shares.end());
  return shares;
}

}  // namespace

bool is_within(Plane plane, const Bounds& bounds, const Vector3d& place) {
  if (!is_between_heights(bounds, place.z())) return false;
  return bounds.outline.empty() || contains(bounds.outline, plan_part(plane, place));
}

// Between two lines that it goes over it is inside all along, or outside.
std::optional<double> leaves_at(Plane plane, const Bounds& bounds, const Segment& way) {
  if (!is_within(plane, bounds, way.from)) return 0.0;
  std::vector<double> shares = crossings(plane, bounds, way);
  shares.push_back(1.0);
  double last = 0.0;
  for (const double share : shares) {
    const Vector3d middle = way.from + (way.to - way.from) * ((last + share) / 2.0);
    if (!is_within(plane, bounds, middle)) return last;
    last = share;
  }
  return std::nullopt;
}

}  // namespace gaze
