#include "navigation/merge.hpp"

#include <algorithm>
#include <map>
#include <span>

#include "geometry/cut_plan.hpp"
#include "geometry/plan_grid.hpp"

namespace gaze {
namespace {

/// If the middle of an outline lies in the boxes of more outlines than this, it is merged with
/// others of its kind. Below it, cutting the plan along all lines at once takes less time.
constexpr std::size_t kMostAround = 16;

PlanBox box_round(const LatticeOutline& corners) {
  std::vector<Vector2d> points;
  points.reserve(corners.size());
  for (const LatticePoint& p : corners) points.push_back(from_lattice(p));
  return box_around(points);
}

struct MergedPart {
  const ConvexOutline* outline;
  PlanBox box;
};

/// By part: true if it lies among many others.
std::vector<char> are_crowded(const std::vector<MergedPart>& parts) {
  std::vector<char> crowded(parts.size(), 0);
  if (parts.size() <= kMostAround) return crowded;
  std::vector<PlanBox> boxes;
  boxes.reserve(parts.size());
  for (const MergedPart& part : parts) boxes.push_back(part.box);
  const PlanGrid grid(boxes);
  for (std::size_t i = 0; i < boxes.size(); ++i) {
    const Vector2d middle = 0.5 * (boxes[i].low + boxes[i].high);
    std::size_t around = 0;
    for (const std::uint32_t other : grid.at(middle)) {
      if (boxes[other].contains(middle)) ++around;
      if (around > kMostAround) break;
    }
    crowded[i] = around > kMostAround;
  }
  return crowded;
}

bool any_contains(std::span<const MergedPart> parts, const Vector2d& p) {
  return std::any_of(parts.begin(), parts.end(), [&](const MergedPart& part) {
    return part.box.contains(p) && covers(*part.outline, p);
  });
}

/// Adds the boundary between what parts cover and what they do not.
void add_boundary(Lines& boundary, const Lines& lines, std::span<const MergedPart> parts) {
  const auto plan = cut_plan<LatticePoint>(lines.points(), lines.ends(), 1);
  const auto& triangles = plan.triangulation.triangles();
  const auto& points = plan.triangulation.points();
  const auto classes = Regions(plan.triangulation).classes([&](const Vector2d& p) {
    return any_contains(parts, p) ? 0 : kNone;
  });
  for (std::uint32_t t = 0; t < triangles.size(); ++t) {
    if (classes[t] == kNone) continue;
    for (unsigned k = 0; k < 3; ++k) {
      const std::uint32_t beyond = triangles[t].beyond[k];
      if (beyond != kNone && classes[beyond] != kNone) continue;
      boundary.add(points[triangles[t].corner[k]], points[triangles[t].corner[(k + 1) % 3]]);
    }
  }
}

/// The boundary of a union. Halves are merged first: what lies inside a half is gone before it can
/// cross what lies inside the other.
Lines boundary_of(std::span<const MergedPart> parts) {
  Lines boundary;
  if (parts.size() == 1) {
    boundary.add(parts[0].outline->corners);
    return boundary;
  }
  const std::size_t half = parts.size() / 2;
  Lines lines = boundary_of(parts.first(half));
  lines.add(boundary_of(parts.subspan(half)));
  if (!lines.empty()) add_boundary(boundary, lines, parts);
  return boundary;
}

}  // namespace

void add_merged(Lines& lines, const std::vector<Covering>& coverings) {
  std::map<std::uint32_t, std::vector<MergedPart>> by_what;
  for (const Covering& one : coverings) {
    by_what[one.what].push_back({one.outline, box_round(one.outline->corners)});
  }
  std::map<std::uint32_t, std::vector<char>> is_crowded;
  for (const auto& group : by_what) is_crowded[group.first] = are_crowded(group.second);
  std::map<std::uint32_t, std::size_t> next;
  for (const Covering& one : coverings) {
    if (!is_crowded[one.what][next[one.what]++]) lines.add(one.outline->corners);
  }
  for (const auto& group : by_what) {
    std::vector<MergedPart> crowded;
    for (std::size_t i = 0; i < group.second.size(); ++i) {
      if (is_crowded[group.first][i]) crowded.push_back(group.second[i]);
    }
    if (!crowded.empty()) lines.add(boundary_of(crowded));
  }
}

}  // namespace gaze
