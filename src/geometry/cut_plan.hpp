#pragma once

#include <algorithm>
#include <cstdint>
#include <span>
#include <utility>
#include <vector>

#include "geometry/triangulation.hpp"

/// How a part of the plan is cut into triangles along lines, and these are put together again to
/// regions between which lines run.
namespace gaze {

using LineEnds = std::pair<std::uint32_t, std::uint32_t>;  ///< From one point to another.

template <typename Point>
struct CutPlan {
  TriangulationOf<Point> triangulation;
  std::vector<std::uint32_t> vertex;  ///< By point.
};

/// @param points  At least one.
/// @param margin  So many steps of the lattice reach beyond all points, at least 1.
template <typename Point, typename Step>
[[nodiscard]] CutPlan<Point> cut_plan(std::span<const Point> points,
                                      std::span<const LineEnds> lines, Step margin) {
  Point low = points.front();
  Point high = low;
  for (const Point& p : points) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y)};
  }
  CutPlan<Point> plan{
      TriangulationOf<Point>({low.x - margin, low.y - margin}, {high.x + margin, high.y + margin}),
      std::vector<std::uint32_t>(points.size())};
  for (const std::uint32_t i : in_order_of_space(points)) {
    plan.vertex[i] = plan.triangulation.add(points[i]);
  }
  for (const auto& [from, to] : lines) plan.triangulation.fix(plan.vertex[from], plan.vertex[to]);
  return plan;
}

/// Puts triangles with no fixed edge between them together to regions. The largest triangle of a
/// region says of which class the region is.
template <typename Point>
class Regions {
 public:
  explicit Regions(const TriangulationOf<Point>& triangulation) : triangulation_(triangulation) {}

  /// @param class_of  Of the middle of a triangle.
  /// @return By triangle.
  template <typename ClassOf>
  std::vector<std::uint32_t> classes(ClassOf&& class_of) {
    const auto& triangles = triangulation_.triangles();
    std::vector<std::uint32_t> result(triangles.size(), kNone);
    std::vector<char> is_done(triangles.size(), 0);
    for (std::uint32_t t = 0; t < triangles.size(); ++t) {
      if (is_done[t]) continue;
      flood(t, is_done);
      const std::uint32_t its_class = class_of(middle_of_largest());
      for (const std::uint32_t member : region_) result[member] = its_class;
    }
    return result;
  }

 private:
  void flood(std::uint32_t start, std::vector<char>& is_done) {
    region_.assign({start});
    is_done[start] = 1;
    for (std::size_t i = 0; i < region_.size(); ++i) {
      const auto& triangle = triangulation_.triangles()[region_[i]];
      for (unsigned k = 0; k < 3; ++k) {
        const std::uint32_t other = triangle.beyond[k];
        if (other == kNone || triangle.fixed[k] || is_done[other]) continue;
        is_done[other] = 1;
        region_.push_back(other);
      }
    }
  }

  Vector2d middle_of_largest() const {
    const auto& points = triangulation_.points();
    decltype(side_of(points[0], points[0], points[0])) largest = -1;
    Vector2d middle{0.0, 0.0};
    for (const std::uint32_t t : region_) {
      const auto& [a, b, c] = triangulation_.triangles()[t].corner;
      const auto area = side_of(points[a], points[b], points[c]);
      if (area <= largest) continue;
      largest = area;
      middle = (from_lattice(points[a]) + from_lattice(points[b]) + from_lattice(points[c])) / 3.0;
    }
    return middle;
  }

  const TriangulationOf<Point>& triangulation_;
  std::vector<std::uint32_t> region_;
};

}  // namespace gaze
