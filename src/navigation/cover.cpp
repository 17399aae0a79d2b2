#include "navigation/cover.hpp"

#include <algorithm>

#include "geometry/convex_cover.hpp"

namespace gaze {
namespace {

Triangulation triangulate(const Lines& lines) {
  const std::vector<LatticePoint>& points = lines.points();
  LatticePoint low = points.front();
  LatticePoint high = low;
  for (const LatticePoint& p : points) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y)};
  }
  Triangulation triangulation({low.x - 1, low.y - 1}, {high.x + 1, high.y + 1});
  std::vector<std::uint32_t> vertex(points.size());
  for (const std::uint32_t i : in_order_of_space(points)) vertex[i] = triangulation.add(points[i]);
  for (const auto& [from, to] : lines.ends()) triangulation.fix(vertex[from], vertex[to]);
  return triangulation;
}

/// Puts triangles with no fixed edge between them together to regions. The largest triangle of a
/// region says of which class the region is.
class Regions {
 public:
  explicit Regions(const Triangulation& triangulation) : triangulation_(triangulation) {}

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
    std::int64_t largest = -1;
    Vector2d middle{0.0, 0.0};
    for (const std::uint32_t t : region_) {
      const auto& [a, b, c] = triangulation_.triangles()[t].corner;
      const std::int64_t area = side_of(points[a], points[b], points[c]);
      if (area <= largest) continue;
      largest = area;
      middle = (from_lattice(points[a]) + from_lattice(points[b]) + from_lattice(points[c])) / 3.0;
    }
    return middle;
  }

  const Triangulation& triangulation_;
  std::vector<std::uint32_t> region_;
};

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
  // The twin of an edge begins where the edge ends.
  for (std::uint32_t k = 0; k < cover.beyond.size(); ++k) {
    if (cover.beyond[k] == kNone) continue;
    const MeshFace& other = mesh.faces[first_face + cover.beyond[k]];
    const std::uint32_t own = first_edge + k;
    const std::uint32_t from = mesh.edges[own].vertex;
    const std::uint32_t to = mesh.edges[mesh.next(own)].vertex;
    for (std::uint32_t e = other.first; e < other.first + other.count; ++e) {
      if (mesh.edges[e].vertex == to && mesh.edges[mesh.next(e)].vertex == from) {
        mesh.edges[own].twin = e;
      }
    }
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
  const Triangulation triangulation = triangulate(lines);
  const auto classes = Regions(triangulation).classes(class_at);
  append(mesh, surface, triangulation, cover_by_convex(triangulation, classes), grounds);
}

}  // namespace gaze
