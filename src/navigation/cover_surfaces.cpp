#include <algorithm>
#include <cmath>
#include <span>
#include <utility>

#include "geometry/convex_cover.hpp"
#include "geometry/plan_grid.hpp"
#include "navigation/mesh.hpp"

namespace gaze {
namespace {

using LatticeOutline = std::vector<LatticePoint>;

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

/// A set of convex outlines, which can be asked for those that contain a point.
class Outlines {
 public:
  explicit Outlines(const std::vector<Polygon>& outlines) {
    std::vector<PlanBox> boxes;
    for (const Polygon& outline : outlines) {
      points_.push_back(on_lattice(outline));
      boxes.push_back(box_around(outline));
    }
    grid_ = PlanGrid(boxes);
  }

  const std::vector<LatticeOutline>& all() const { return points_; }

  bool any_contains(const Vector2d& p) const {
    const auto near = grid_.at(p);
    return std::any_of(near.begin(), near.end(),
                       [&](std::uint32_t i) { return covers(points_[i], p); });
  }

  /// Calls visit(number) for each outline that contains the point.
  template <typename Visit>
  void each_containing(const Vector2d& p, Visit&& visit) const {
    for (const std::uint32_t i : grid_.at(p)) {
      if (covers(points_[i], p)) visit(i);
    }
  }

 private:
  std::vector<LatticeOutline> points_;
  PlanGrid grid_;
};

Triangulation triangulate(const std::vector<const LatticeOutline*>& outlines) {
  std::vector<LatticePoint> points;
  for (const LatticeOutline* outline : outlines) {
    points.insert(points.end(), outline->begin(), outline->end());
  }
  LatticePoint low = points.front();
  LatticePoint high = low;
  for (const LatticePoint& p : points) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y)};
  }
  Triangulation triangulation({low.x - 1, low.y - 1}, {high.x + 1, high.y + 1});
  std::vector<std::uint32_t> vertex(points.size());
  for (const std::uint32_t i : in_order_of_space(points)) vertex[i] = triangulation.add(points[i]);
  std::size_t first = 0;
  for (const LatticeOutline* outline : outlines) {
    const std::size_t count = outline->size();
    for (std::size_t i = 0; i < count; ++i) {
      triangulation.fix(vertex[first + i], vertex[first + (i + 1) % count]);
    }
    first += count;
  }
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

/// What faces of each class have in common.
struct Ground {
  double cost = 1.0;
  std::uint32_t patch = 0;
  bool operator==(const Ground&) const = default;
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

/// Tells of any place on a surface what class it is of: what a metre costs there (that of the
/// dearest area), and what has to go before anybody can be there.
class Grounds {
 public:
  Grounds(NavigationMesh::Data& mesh, const Surface& surface, std::vector<Hindrance> hindrances)
      : mesh_(mesh),
        height_(surface.height),
        areas_(areas_on(mesh, surface)),
        hindrances_(std::move(hindrances)),
        parts_(surface.parts),
        blocked_(outlines_of(hindrances_)) {
    for (const MeshArea& area : areas_) area_outlines_.push_back(on_lattice(area.outline));
  }

  std::vector<const LatticeOutline*> outlines() const {
    std::vector<const LatticeOutline*> outlines;
    for (const auto& all : {std::span(parts_.all()), std::span(blocked_.all()),
                            std::span<const LatticeOutline>(area_outlines_)}) {
      for (const LatticeOutline& outline : all) {
        if (!outline.empty()) outlines.push_back(&outline);
      }
    }
    return outlines;
  }

  /// The class of a place; kNone where nobody can be.
  std::uint32_t class_at(const Vector2d& p) {
    if (!parts_.any_contains(p)) return kNone;
    to_go_.clear();
    bool is_blocked = false;
    blocked_.each_containing(p, [&](std::uint32_t i) {
      is_blocked |= hindrances_[i].may_go == Hindrance::kStays;
      to_go_.push_back(hindrances_[i].may_go);
    });
    const double cost = cost_at(p);
    if (is_blocked || cost == 0.0) return kNone;
    return number_of(Ground{cost, patch()}, by_class_);
  }

  const std::vector<Ground>& by_class() const { return by_class_; }

 private:
  static std::vector<Polygon> outlines_of(const std::vector<Hindrance>& hindrances) {
    std::vector<Polygon> outlines;
    outlines.reserve(hindrances.size());
    for (const Hindrance& hindrance : hindrances) outlines.push_back(hindrance.outline);
    return outlines;
  }

  template <typename Value>
  static std::uint32_t number_of(const Value& value, std::vector<Value>& known) {
    const auto at = std::find(known.begin(), known.end(), value);
    const auto number = static_cast<std::uint32_t>(at - known.begin());
    if (at == known.end()) known.push_back(value);
    return number;
  }

  // The cost of a metre there; 0 where it is closed.
  double cost_at(const Vector2d& p) const {
    const double z = height_.at(p);
    double cost = 0.0;
    for (const MeshArea& area : areas_) {
      if (!(z >= area.low && z < area.high) || !contains(area.outline, p)) continue;
      if (area.is_closed) return 0.0;
      cost = std::max(cost, area.cost);
    }
    return cost == 0.0 ? 1.0 : cost;
  }

  std::uint32_t patch() {
    std::sort(to_go_.begin(), to_go_.end());
    to_go_.erase(std::unique(to_go_.begin(), to_go_.end()), to_go_.end());
    return number_of(to_go_, mesh_.patches);
  }

  NavigationMesh::Data& mesh_;
  HeightPlane height_;
  std::vector<MeshArea> areas_;
  std::vector<Hindrance> hindrances_;
  Outlines parts_;
  Outlines blocked_;
  std::vector<LatticeOutline> area_outlines_;
  std::vector<Ground> by_class_{{}};
  std::vector<std::uint32_t> to_go_;  ///< Scratch.
};

void cover_surface(NavigationMesh::Data& mesh, std::uint32_t number, const Level& level,
                   const World& world) {
  const Surface& surface = mesh.surfaces[number];
  Grounds grounds(mesh, surface, hindrances_on(surface, level, world, mesh.body));
  const auto outlines = grounds.outlines();
  if (outlines.empty()) return;
  const Triangulation triangulation = triangulate(outlines);
  const auto classes =
      Regions(triangulation).classes([&](const Vector2d& p) { return grounds.class_at(p); });
  append(mesh, number, triangulation, cover_by_convex(triangulation, classes), grounds.by_class());
}

}  // namespace

void cover_surfaces(NavigationMesh::Data& mesh, const Level& level, const World& world) {
  for (std::uint32_t i = 0; i < mesh.surfaces.size(); ++i) cover_surface(mesh, i, level, world);
}

}  // namespace gaze
