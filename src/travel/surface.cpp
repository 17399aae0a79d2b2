#include "travel/surface.hpp"

#include <algorithm>
#include <limits>

#include "geometry/dilation.hpp"
#include "geometry/plan_grid.hpp"
#include "travel/ledges.hpp"
#include "travel/reach.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

HeightPlane top_of(const World::Index& index, std::uint32_t piece) {
  const Piece& its = index.pieces[piece];
  if (its.slopes != Piece::kNoSlopes) return index.slopes[its.slopes].high;
  return {its.high, 0.0, 0.0};
}
HeightPlane bottom_of(const World::Index& index, std::uint32_t piece) {
  const Piece& its = index.pieces[piece];
  if (its.slopes != Piece::kNoSlopes) return index.slopes[its.slopes].low;
  return {its.low, 0.0, 0.0};
}

Polygon outline_of(const World::Index& index, std::uint32_t piece) {
  Polygon outline;
  for (const PrismEdge& edge : index.prism(piece).edges) outline.emplace_back(edge.x, edge.y);
  return outline;
}

// Those that stop bodies, in order.
std::vector<std::uint32_t> pieces_near(const World::Index& index, const PlanBox& box) {
  const Vector2d middle = (box.low + box.high) / 2.0;
  const Vector2d half = (box.high - box.low) / 2.0;
  std::vector<std::uint32_t> pieces;
  const PlanPoint place{middle, 0.0};
  walk_any(index.tree, Walker({place, place}, {half.x(), half.y(), 1e12}),
           [&](std::uint32_t piece) {
             if (index.stops(piece, Stops::bodies)) pieces.push_back(piece);
             return false;
           });
  std::sort(pieces.begin(), pieces.end());
  return pieces;
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

  // What is there to be walked on, what agents stand on, and one after another what is within a
  // step of what has been found already.
  void find(std::vector<Surface>& surfaces) {
    for (std::uint32_t i = 0; i < level_.solids.size(); ++i) {
      const Solid::Form form = level_.solids[i].form;
      if (form != Solid::Form::wall && form != Solid::Form::block) take(i, surfaces);
    }
    take_those_stood_on(surfaces);
    for (std::size_t before = count_ + 1; before != count_;) {
      before = count_;
      for (std::size_t i = 0; i < surfaces.size(); ++i) take_near(i, surfaces);
    }
  }

 private:
  void take_near(std::size_t surface, std::vector<Surface>& surfaces) {
    const PlanBox box = box_of(surfaces[surface]);
    for (const std::uint32_t solid : near(box)) {
      if (!taken_[solid] && is_near(surfaces[surface], box, solid)) take(solid, surfaces);
    }
  }

  // Walls and blocks have level tops.
  double top_of(std::uint32_t solid) const { return index_.pieces[pieces_of_[solid][0]].high; }

  bool is_near(const Surface& surface, const PlanBox& box, std::uint32_t solid) const {
    const double top = top_of(solid);
    double low = std::numeric_limits<double>::infinity();
    double high = -low;
    for (const Vector2d& corner : {box.low, box.high, Vector2d{box.low.x(), box.high.y()},
                                   Vector2d{box.high.x(), box.low.y()}}) {
      low = std::min(low, surface.height.at(corner));
      high = std::max(high, surface.height.at(corner));
    }
    return top >= low - body_.step_height && top <= high + body_.step_height;
  }

  void take(std::uint32_t solid, std::vector<Surface>& surfaces) {
    if (taken_[solid] || pieces_of_[solid].empty()) return;
    taken_[solid] = 1;
    ++count_;
    Surface surface;
    surface.height = gaze::top_of(index_, pieces_of_[solid][0]);
    if (!is_walkable(surface.height, body_)) return;
    // What lies in one plane is one surface.
    for (Surface& known : surfaces) {
      if (!(known.height == surface.height)) continue;
      if (known.solids.empty()) return;  // the ground is there already
      add_parts(solid, known);
      return;
    }
    add_parts(solid, surface);
    surfaces.push_back(std::move(surface));
  }

  void add_parts(std::uint32_t solid, Surface& surface) const {
    for (const std::uint32_t piece : pieces_of_[solid]) {
      surface.parts.push_back(outline_of(index_, piece));
      surface.solids.push_back(solid);
    }
  }

  void take_those_stood_on(std::vector<Surface>& surfaces) {
    if (level_.plane != Plane::space) return;
    for (const Agent& agent : level_.agents) {
      const Vector2d feet{agent.position.x(), agent.position.y()};
      for (const std::uint32_t solid : near({feet, feet})) {
        if (top_of(solid) <= agent.position.z() + body_.step_height) take(solid, surfaces);
      }
    }
  }

  std::vector<std::uint32_t> near(const PlanBox& box) const {
    std::vector<std::uint32_t> solids;
    for (const std::uint32_t piece : pieces_near(index_, box)) {
      solids.push_back(index_.pieces[piece].solid);
    }
    std::sort(solids.begin(), solids.end());
    solids.erase(std::unique(solids.begin(), solids.end()), solids.end());
    return solids;
  }

  const Level& level_;
  const World::Index& index_;
  const BodySize& body_;
  std::vector<std::vector<std::uint32_t>> pieces_of_;  ///< By solid.
  std::vector<char> taken_;
  std::size_t count_ = 0;  ///< Of those taken.
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

HeightPlane raised(HeightPlane plane, double by) {
  plane.base += by;
  return plane;
}

/// Keeps the centre of a body off a surface: where the solid is higher than a step, all within the
/// body's radius; where it is lower, what lies under it, for there the body steps onto it.
void add_hindrances(const Surface& surface, const HeightPlane& top, const HeightPlane& bottom,
                    const Polygon& outline, const BodySize& body,
                    std::vector<Polygon>& hindrances) {
  const Polygon above = where_above(outline, top, surface.height, 0.0);
  if (above.empty()) return;
  const HeightPlane step = raised(surface.height, body.step_height);
  const Polygon high = where_above(above, top, step, 0.0);
  if (!high.empty()) {
    // On a slope the head comes nearer to what hangs above the lower side.
    const double lean = std::sqrt(surface.height.along_x * surface.height.along_x +
                                  surface.height.along_y * surface.height.along_y) *
                        body.radius;
    const HeightPlane head = raised(surface.height, body.height + lean);
    const Polygon stops = where_above(high, head, bottom, 0.0);
    if (!stops.empty()) {
      hindrances.push_back(
          dilated(stops, body.radius + kSkin, NavigationMesh::kRoundingSlack - kSkin));
    }
  }
  const Polygon low = high.empty() ? above : where_above(above, step, top, 0.0);
  if (!low.empty()) hindrances.push_back(low);
}

}  // namespace

bool is_walkable(const HeightPlane& top, const BodySize& body) {
  const SineCosine limit = sine_cosine(body.slope);
  const double steepness = std::sqrt(top.along_x * top.along_x + top.along_y * top.along_y);
  return steepness * limit.cosine <= limit.sine && steepness * body.radius <= body.step_height;
}

PlanBox box_of(const Surface& surface) {
  PlanBox box = box_around(surface.parts.front());
  for (const Polygon& part : surface.parts) {
    const PlanBox own = box_around(part);
    box = {box.low.cwiseMin(own.low), box.high.cwiseMax(own.high)};
  }
  return box;
}

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

std::vector<Surface> surfaces_of(const Level& level, const World& world, const BodySize& body) {
  if (level.plane == Plane::upright) return ledges_of(level, world, body);
  std::vector<Surface> surfaces;
  if (level.ground_height) surfaces.push_back(ground_of(level, world));
  Tops(level, world, body).find(surfaces);
  return surfaces;
}

std::vector<Polygon> hindrances_on(const Surface& surface, const World& world,
                                   const BodySize& body) {
  if (world.plane() == Plane::upright) return hindrances_on_ledge(surface, world, body);
  const World::Index& index = world.index();
  PlanBox box = box_of(surface);
  const Vector2d reach{body.radius + 1.0, body.radius + 1.0};
  box = {box.low - reach, box.high + reach};
  std::vector<Polygon> hindrances;
  for (const std::uint32_t piece : pieces_near(index, box)) {
    add_hindrances(surface, top_of(index, piece), bottom_of(index, piece), outline_of(index, piece),
                   body, hindrances);
  }
  return hindrances;
}

}  // namespace gaze
