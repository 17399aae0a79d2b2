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

LatticeOutline convex_on_lattice(const Polygon& outline) {
  LatticeOutline points = on_lattice(outline);
  const std::size_t count = points.size();
  bool is_convex = true;
  for (std::size_t i = 0; i < count; ++i) {
    is_convex &= side_of(points[i], points[(i + 1) % count], points[(i + 2) % count]) >= 0;
  }
  if (is_convex) return points;
  std::vector<Vector2d> corners;
  for (const LatticePoint& p : points) corners.push_back(from_lattice(p));
  return on_lattice(convex_hull(std::move(corners)));
}

bool covers(const LatticeOutline& convex, const Vector2d& p) {
  for (std::size_t i = 0; i < convex.size(); ++i) {
    const Vector2d a = from_lattice(convex[i]);
    const Vector2d b = from_lattice(convex[(i + 1) % convex.size()]);
    if ((b.x() - a.x()) * (p.y() - a.y()) - (b.y() - a.y()) * (p.x() - a.x()) < 0.0) return false;
  }
  return !convex.empty();
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

void cover(NavigationMesh::Data& mesh, std::uint32_t surface, const Lines& lines,
           const std::function<std::uint32_t(const Vector2d&)>& class_at,
           const std::vector<Ground>& grounds) {
  const auto plan = cut_plan<LatticePoint>(lines.points(), lines.ends(), 1);
  const Triangulation& triangulation = plan.triangulation;
  const auto classes = Regions(triangulation).classes(class_at);
  append(mesh, surface, triangulation, cover_by_convex(triangulation, classes), grounds);
}

}  // namespace gaze
