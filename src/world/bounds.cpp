#include "world/bounds.hpp"

#include <vector>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"

namespace gaze {
namespace {

bool is_between_heights(const Bounds& bounds, double height) {
  return (!bounds.low || height >= *bounds.low) && (!bounds.high || height <= *bounds.high);
}

/// The next share of a way, after a given one, at which it crosses a line over which it may get
/// out.
class NextCrossing {
 public:
  explicit NextCrossing(double after) : after_(after) {}

  void offer(double part, double whole) {
    if (whole == 0.0) return;
    const double share = part / whole;
    if (share > after_ && share < next_) next_ = share;
  }

  double share() const { return next_; }  ///< 1: none before the end.

 private:
  double after_;
  double next_ = 1.0;
};

double next_crossing(Plane plane, const Bounds& bounds, const Segment& way, double after) {
  NextCrossing next(after);
  const Vector2d from = plan_part(plane, way.from);
  const Vector2d along = plan_part(plane, way.to) - from;
  const std::vector<Vector2d>& outline = bounds.outline;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d corner = outline[i] - from;
    const Vector2d edge = outline[(i + 1) % outline.size()] - outline[i];
    next.offer(cross(corner, edge), cross(along, edge));
  }
  const double rise = way.to.z() - way.from.z();
  if (bounds.low) next.offer(*bounds.low - way.from.z(), rise);
  if (bounds.high) next.offer(*bounds.high - way.from.z(), rise);
  return next.share();
}

}  // namespace

bool is_within(Plane plane, const Bounds& bounds, const Vector3d& place) {
  if (!is_between_heights(bounds, place.z())) return false;
  return bounds.outline.empty() || contains(bounds.outline, plan_part(plane, place));
}

// Between two lines that it crosses, a way is inside all along, or outside all along.
std::optional<double> leaves_at(Plane plane, const Bounds& bounds, const Segment& way) {
  if (!is_within(plane, bounds, way.from)) return 0.0;
  for (double last = 0.0; last < 1.0;) {
    const double next = next_crossing(plane, bounds, way, last);
    const Vector3d middle = way.from + (way.to - way.from) * ((last + next) / 2.0);
    if (!is_within(plane, bounds, middle)) return last;
    last = next;
  }
  return std::nullopt;
}

}  // namespace gaze
