#include "navigation/cover.hpp"

#include <algorithm>

#include "geometry/convex_cover.hpp"
#include "geometry/cut_plan.hpp"

namespace gaze {
namespace {

void append(NavigationMesh::Data& mesh, std::uint32_t surface, const Triangulation& triangulation,
            const ConvexCover& cover, const std::vector<Ground>& grounds) {
  std::vector<std::uint32_t> vertex_of(triangulation.points().size(), kNone);
  const auto first_face = static_cast<std::uint32_t>(mesh.faces.size());
  const auto first_edge = static_cast<std::uint32_t>(mesh.edges.size());
  for (std::uint32_t i = 0; i < cover.of_class.size(); ++i) {
    MeshFace face;
    face.first = first_edge + cover.first[i];
    face.count = cover.first[i + 1] - cover.first[i];
    face.surface = surface;
    face.cost = grounds[cover.of_class[i]].cost;
    face.patch = grounds[cover.of_class[i]].patch;
    mesh.faces.push_back(face);
    for (std::uint32_t k = cover.first[i]; k < cover.first[i + 1]; ++k) {
      std::uint32_t& vertex = vertex_of[cover.corner[k]];
      const Vector2d p = from_lattice(triangulation.points()[cover.corner[k]]);
      if (vertex == kNone) {
        vertex = static_cast<std::uint32_t>(mesh.vertices.size());
        mesh.vertices.push_back({p.x(), p.y()});
      }
      mesh.edges.push_back({{p.x(), p.y()}, vertex, kNone, first_face + i});
    }
  }
  for (std::uint32_t k = 0; k < cover.twin.size(); ++k) {
    if (cover.twin[k] != kNone) mesh.edges[first_edge + k].twin = first_edge + cover.twin[k];
  }
}

bool is_before(const Vector2d& a, const Vector2d& b) {
  return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y();
}

bool is_before(const LatticePoint& a, const LatticePoint& b) {
  return a.x != b.x ? a.x < b.x : a.y < b.y;
}

/// The first of the numbers from `first` to before `end` for which something is true, which then
/// is true for all that follow; `end` if there is none.
template <typename IsTrue>
std::size_t first_where(std::size_t first, std::size_t end, IsTrue&& is_true) {
  while (first < end) {
    const std::size_t middle = first + (end - first) / 2;
    if (is_true(middle)) {
      end = middle;
    } else {
      first = middle + 1;
    }
  }
  return first;
}

}  // namespace

LatticeOutline on_lattice(const Polygon& outline) {
  LatticeOutline points;
  for (const Vector2d& p : outline) {
    const LatticePoint point = to_lattice(p);
    if (points.empty() || !(points.back() == point)) points.push_back(point);
  }
  while (points.size() > 1 && points.back() == points.front()) points.pop_back();
  if (points.size() < 3) points.clear();
  return points;
}

ConvexOutline convex_on_lattice(const Polygon& outline) {
  LatticeOutline points = on_lattice(outline);
  const std::size_t count = points.size();
  bool is_convex = true;
  for (std::size_t i = 0; i < count; ++i) {
    is_convex &= side_of(points[i], points[(i + 1) % count], points[(i + 2) % count]) >= 0;
  }
  if (!is_convex) {
    std::vector<Vector2d> corners;
    for (const LatticePoint& p : points) corners.push_back(from_lattice(p));
    points = on_lattice(convex_hull(std::move(corners)));
  }
  const auto leftmost = std::min_element(
      points.begin(), points.end(),
      [](const LatticePoint& a, const LatticePoint& b) { return is_before(a, b); });
  const auto index = static_cast<std::uint32_t>(leftmost - points.begin());
  return {std::move(points), index};
}

// The corners run along the lower side to the rightmost one, and along the upper side back. Each
// side has one edge above or below which the point lies; a binary search finds it.
bool covers(const ConvexOutline& outline, const Vector2d& p) {
  const std::size_t count = outline.corners.size();
  if (count == 0) return false;
  const auto corner = [&](std::size_t i) {
    return from_lattice(outline.corners[(outline.leftmost + i) % count]);
  };
  const auto is_left_of_edge = [&](std::size_t i) {
    const Vector2d a = corner(i);
    const Vector2d b = corner(i + 1);
    return (b.x() - a.x()) * (p.y() - a.y()) - (b.y() - a.y()) * (p.x() - a.x()) >= 0.0;
  };
  const std::size_t rightmost =
      first_where(0, count, [&](std::size_t i) { return !is_before(corner(i), corner(i + 1)); });
  if (is_before(p, corner(0)) || is_before(corner(rightmost), p)) return false;
  const std::size_t below =
      first_where(0, rightmost - 1, [&](std::size_t i) { return is_before(p, corner(i + 1)); });
  const std::size_t above = first_where(
      rightmost, count - 1, [&](std::size_t i) { return !is_before(p, corner(i + 1)); });
  return is_left_of_edge(below) && is_left_of_edge(above);
}

void Lines::add(const LatticeOutline& outline) {
  const auto first = static_cast<std::uint32_t>(points_.size());
  const auto count = static_cast<std::uint32_t>(outline.size());
  points_.insert(points_.end(), outline.begin(), outline.end());
  for (std::uint32_t i = 0; i < count; ++i) ends_.emplace_back(first + i, first + (i + 1) % count);
}

void Lines::add(const LatticePoint& from, const LatticePoint& to) {
  const auto first = static_cast<std::uint32_t>(points_.size());
  points_.push_back(from);
  points_.push_back(to);
  ends_.emplace_back(first, first + 1);
}

void Lines::add(const Lines& lines) {
  const auto first = static_cast<std::uint32_t>(points_.size());
  points_.insert(points_.end(), lines.points_.begin(), lines.points_.end());
  for (const auto& [from, to] : lines.ends_) ends_.emplace_back(first + from, first + to);
}

void cover(NavigationMesh::Data& mesh, std::uint32_t surface, const Lines& lines,
           const std::function<std::uint32_t(const Vector2d&)>& class_at,
           const std::vector<Ground>& grounds) {
  const auto plan = cut_plan<LatticePoint>(lines.points(), lines.ends(), 1);
  const Triangulation& triangulation = plan.triangulation;
  const auto classes = Regions(triangulation).classes(class_at);
  append(mesh, surface, triangulation, cover_by_convex(triangulation, classes), grounds);
}

}  // namespace gaze
