#include <algorithm>
#include <cmath>
#include <utility>

#include "geometry/plan_grid.hpp"
#include "navigation/bounded.hpp"
#include "navigation/cover.hpp"
#include "navigation/merge.hpp"

namespace gaze {
namespace {

/// A set of convex outlines, which can be asked for those that contain a point.
class Outlines {
 public:
  explicit Outlines(const std::vector<Polygon>& outlines) {
    std::vector<PlanBox> boxes;
    for (const Polygon& outline : outlines) {
      outlines_.push_back(convex_on_lattice(outline));
      boxes.push_back(box_around(outline));
    }
    grid_ = PlanGrid(boxes);
  }

  const std::vector<ConvexOutline>& all() const { return outlines_; }

  bool any_contains(const Vector2d& p) const {
    const auto near = grid_.at(p);
    return std::any_of(near.begin(), near.end(),
                       [&](std::uint32_t i) { return covers(outlines_[i], p); });
  }

  /// Calls visit(number) for each outline that contains the point.
  template <typename Visit>
  void each_containing(const Vector2d& p, Visit&& visit) const {
    for (const std::uint32_t i : grid_.at(p)) {
      if (covers(outlines_[i], p)) visit(i);
    }
  }

 private:
  std::vector<ConvexOutline> outlines_;
  PlanGrid grid_;
};

/// Tells of any place on a surface what class it is of: what a metre costs there (that of the
/// dearest area), and what has to go before anybody can be there.
class Grounds {
 public:
  Grounds(NavigationMesh::Data& mesh, const Surface& surface, const Level& level,
          std::vector<Hindrance> hindrances)
      : mesh_(mesh),
        surface_(surface),
        level_(level),
        areas_(areas_on(mesh, surface)),
        hindrances_(std::move(hindrances)),
        parts_(surface.parts),
        blocked_(outlines_of(hindrances_)) {
    for (const MeshArea& area : areas_) area_outlines_.push_back(on_lattice(area.outline));
  }

  /// Lines that separate areas of different classes.
  Lines lines() const {
    Lines lines;
    for (const ConvexOutline& part : parts_.all()) lines.add(part.corners);
    std::vector<Covering> coverings;
    for (std::size_t i = 0; i < hindrances_.size(); ++i) {
      const ConvexOutline& outline = blocked_.all()[i];
      if (!outline.corners.empty()) coverings.push_back({&outline, hindrances_[i].may_go});
    }
    add_merged(lines, coverings);
    for (const LatticeOutline& outline : area_outlines_) lines.add(outline);
    return lines;
  }

  /// The class of a place; kNone where nobody can be.
  std::uint32_t class_at(const Vector2d& p) {
    if (!parts_.any_contains(p)) return kNone;
    if (!is_within_bounds(level_, mesh_.body.altitude.has_value(), surface_, p)) return kNone;
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

  // The cost of a metre there; 0 where it is closed.
  double cost_at(const Vector2d& p) const {
    const double z = surface_.height.at(p);
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
  const Surface& surface_;
  const Level& level_;
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
  std::vector<Hindrance> hindrances = hindrances_on(surface, level, world, mesh.body);
  const bool hovers = mesh.body.altitude.has_value();
  for (Hindrance& one : rim_of_bounds(level, hovers, surface)) hindrances.push_back(std::move(one));
  Grounds grounds(mesh, surface, level, std::move(hindrances));
  const Lines lines = grounds.lines();
  if (lines.empty()) return;
  cover(
      mesh, number, lines, [&](const Vector2d& p) { return grounds.class_at(p); },
      grounds.by_class());
}

}  // namespace

void cover_surfaces(NavigationMesh::Data& mesh, const Level& level, const World& world) {
  for (std::uint32_t i = 0; i < mesh.surfaces.size(); ++i) cover_surface(mesh, i, level, world);
}

}  // namespace gaze
