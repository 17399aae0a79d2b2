#include "travel/surface.hpp"

#include <algorithm>
#include <limits>

#include "geometry/dilation.hpp"
#include "geometry/plan_grid.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

/// Metres by which an endless floor goes on around all that stands on it.
constexpr double kFreeMargin = 64.0;

/// Metres: the rim of the mesh keeps so much more than the body's radius from solids, so that
/// rounding to the lattice (0.2 mm) never brings a body into one.
constexpr double kSkin = 0.0005;
static_assert(kSkin < NavigationMesh::kRoundingSlack);

HeightPlane top_of(const Piece& piece) {
  return {piece.high, 0.0, 0.0};
}
HeightPlane bottom_of(const Piece& piece) {
  return {piece.low, 0.0, 0.0};
}

Polygon outline_of(const World::Index& index, std::uint32_t piece) {
  Polygon outline;
  for (const PrismEdge& edge : index.prism(piece).edges) outline.emplace_back(edge.x, edge.y);
  return outline;
}

PlanBox box_of(const Surface& surface) {
  PlanBox box = box_around(surface.parts.front());
  for (const Polygon& part : surface.parts) {
    const PlanBox own = box_around(part);
    box = {box.low.cwiseMin(own.low), box.high.cwiseMax(own.high)};
  }
  return box;
}

// All that the level speaks of.
PlanBox extent_of(const Level& level, const World& world) {
  std::vector<Vector2d> points;
  for (const PrismEdge& edge : world.index().edges) points.emplace_back(edge.x, edge.y);
  const auto add = [&](const Vector3d& p) { points.emplace_back(p.x(), p.y()); };
  for (const Agent& agent : level.agents) {
    add(agent.position);
    for (const Vector3d& point : agent.patrol) add(point);
    for (const ScriptStep& step : agent.script) {
      if (step.what == ScriptStep::What::go) add(step.place);
    }
  }
  if (points.empty()) points.emplace_back(0.0, 0.0);
  return box_around(points);
}

Surface ground_of(const Level& level, const World& world) {
  const PlanBox extent = extent_of(level, world);
  const Vector2d margin{kFreeMargin, kFreeMargin};
  const Vector2d low = extent.low - margin;
  const Vector2d high = extent.high + margin;
  Surface ground;
  ground.height.base = *level.ground_height;
  ground.parts = {{low, {high.x(), low.y()}, high, {low.x(), high.y()}}};
  return ground;
}

/// The tops of solids, and which of them a body can get to.
class Tops {
 public:
  Tops(const Level& level, const World& world, const BodySize& body)
      : level_(level), index_(world.index()), body_(body) {
    pieces_of_.resize(level.solids.size());
    for (std::uint32_t i = 0; i < index_.pieces.size(); ++i) {
      if (index_.stops(i, Stops::bodies)) pieces_of_[index_.pieces[i].solid].push_back(i);
    }
    taken_.assign(level.solids.size(), 0);
  }

  // One after another, those within a step of what has been found already.
  void find(std::vector<Surface>& surfaces) {
    take_those_stood_on(surfaces);
    for (std::size_t i = 0; i < surfaces.size(); ++i) {
      const PlanBox box = box_of(surfaces[i]);
      const double height = surfaces[i].height.base;
      for (const std::uint32_t solid : near(box)) {
        const double top = top_of(solid);
        if (std::abs(top - height) <= body_.step_height && top != height) take(solid, surfaces);
      }
    }
  }

 private:
  double top_of(std::uint32_t solid) const { return index_.pieces[pieces_of_[solid][0]].high; }

  void take(std::uint32_t solid, std::vector<Surface>& surfaces) {
    if (taken_[solid]) return;
    taken_[solid] = 1;
    Surface surface;
    surface.height = gaze::top_of(index_.pieces[pieces_of_[solid][0]]);
    surface.solids = {solid};
    for (const std::uint32_t piece : pieces_of_[solid]) {
      surface.parts.push_back(outline_of(index_, piece));
    }
    surfaces.push_back(std::move(surface));
  }

  void take_those_stood_on(std::vector<Surface>& surfaces) {
    if (level_.plane != Plane::space) return;
    for (const Agent& agent : level_.agents) {
      const Vector2d feet{agent.position.x(), agent.position.y()};
      for (const std::uint32_t solid : near({feet, feet})) {
        const double top = top_of(solid);
        if (top <= agent.position.z() + body_.step_height) take(solid, surfaces);
      }
    }
  }

  std::vector<std::uint32_t> near(const PlanBox& box) const {
    const Vector2d middle = (box.low + box.high) / 2.0;
    const Vector2d half = (box.high - box.low) / 2.0;
    std::vector<std::uint32_t> solids;
    const PlanPoint place{middle, 0.0};
    walk_any(index_.tree, Walker({place, place}, {half.x(), half.y(), 1e12}),
             [&](std::uint32_t piece) {
               if (index_.stops(piece, Stops::bodies)) solids.push_back(index_.pieces[piece].solid);
               return false;
             });
    std::sort(solids.begin(), solids.end());
    solids.erase(std::unique(solids.begin(), solids.end()), solids.end());
    return solids;
  }

  const Level& level_;
  const World::Index& index_;
  const BodySize& body_;
  std::vector<std::vector<std::uint32_t>> pieces_of_;  ///< By solid.
  std::vector<char> taken_;
};

Vector2d slope_between(const HeightPlane& upper, const HeightPlane& lower) {
  return {upper.along_x - lower.along_x, upper.along_y - lower.along_y};
}

/// The part of an outline where `upper` lies more than `least` above `lower`.
Polygon where_above(const Polygon& outline, const HeightPlane& upper, const HeightPlane& lower,
                    double least) {
  const Vector2d slope = slope_between(upper, lower);
  const double start = upper.base - lower.base - least;
  if (slope.x() == 0.0 && slope.y() == 0.0) return start > 0.0 ? outline : Polygon{};
  return clipped(outline, start, slope);
}

void add_hindrances(const Surface& surface, const Piece& piece, const Polygon& outline,
                    const BodySize& body, std::vector<Polygon>& hindrances) {
  const Polygon above = where_above(outline, top_of(piece), surface.height, 0.0);
  if (above.empty()) return;
  const Polygon high = where_above(above, top_of(piece), surface.height, body.step_height);
  if (!high.empty()) {
    HeightPlane head = surface.height;
    head.base += body.height;
    const Polygon stops = where_above(high, head, bottom_of(piece), 0.0);
    if (!stops.empty()) {
      hindrances.push_back(
          dilated(stops, body.radius + kSkin, NavigationMesh::kRoundingSlack - kSkin));
    }
  }
  HeightPlane step = surface.height;
  step.base += body.step_height;
  Polygon low = outline;
  if (!high.empty()) {
    const Vector2d slope = slope_between(step, top_of(piece));
    if (slope.x() == 0.0 && slope.y() == 0.0) return;
    low = clipped(above, step.base - piece.high, slope);
  }
  if (!low.empty()) hindrances.push_back(low);
}

}  // namespace

std::vector<Surface> surfaces_of(const Level& level, const World& world, const BodySize& body) {
  std::vector<Surface> surfaces;
  if (level.ground_height) surfaces.push_back(ground_of(level, world));
  Tops(level, world, body).find(surfaces);
  return surfaces;
}

std::vector<Polygon> hindrances_on(const Surface& surface, const World& world,
                                   const BodySize& body) {
  const World::Index& index = world.index();
  const PlanBox box = box_of(surface);
  const Vector2d middle = (box.low + box.high) / 2.0;
  const Vector2d half = (box.high - box.low) / 2.0;
  const double reach = body.radius + 1.0;
  std::vector<std::uint32_t> pieces;
  const PlanPoint place{middle, 0.0};
  walk_any(index.tree, Walker({place, place}, {half.x() + reach, half.y() + reach, 1e12}),
           [&](std::uint32_t piece) {
             if (index.stops(piece, Stops::bodies)) pieces.push_back(piece);
             return false;
           });
  std::sort(pieces.begin(), pieces.end());
  std::vector<Polygon> hindrances;
  for (const std::uint32_t piece : pieces) {
    add_hindrances(surface, index.pieces[piece], outline_of(index, piece), body, hindrances);
  }
  return hindrances;
}

}  // namespace gaze
