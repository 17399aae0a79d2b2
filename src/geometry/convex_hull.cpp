#include <algorithm>

#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"

namespace gaze {
namespace {

// Adds the corners of the lower side of the hull of points sorted to the right; of the upper side
// if they are sorted to the left. The last one is left out: the other side begins with it.
template <typename Iterator>
void add_side(Iterator begin, Iterator end, Polygon& hull) {
  const std::size_t first = hull.size();
  for (Iterator p = begin; p != end; ++p) {
    while (hull.size() >= first + 2 &&
           cross(hull.back() - hull[hull.size() - 2], *p - hull.back()) <= 0.0) {
      hull.pop_back();
    }
    hull.push_back(*p);
  }
  hull.pop_back();
}

}  // namespace

Polygon convex_hull(std::vector<Vector2d> points) {
  std::sort(points.begin(), points.end(), [](const Vector2d& a, const Vector2d& b) {
    return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y();
  });
  points.erase(std::unique(points.begin(), points.end()), points.end());
  if (points.size() < 2) return points;
  Polygon hull;
  add_side(points.begin(), points.end(), hull);
  add_side(points.rbegin(), points.rend(), hull);
  return hull;
}

}  // namespace gaze
