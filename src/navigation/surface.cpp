#include "navigation/surface.hpp"

#include <algorithm>
#include <array>
#include <map>
#include <optional>
#include <utility>

#include "geometry/dilation.hpp"
#include "geometry/plan_grid.hpp"
#include "navigation/air.hpp"
#include "navigation/ledges.hpp"
#include "navigation/slope_reach.hpp"
#include "navigation/walkable.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

HeightPlane top_of(const World::Index& index, std::uint32_t piece) {
  const PieceShape shape(index, piece);
  const Prism& prism = shape.prism();
  return prism.slopes != nullptr ? prism.slopes->high : HeightPlane{prism.high, 0.0, 0.0};
}
HeightPlane bottom_of(const World::Index& index, std::uint32_t piece) {
  const PieceShape shape(index, piece);
  const Prism& prism = shape.prism();
  return prism.slopes != nullptr ? prism.slopes->low : HeightPlane{prism.low, 0.0, 0.0};
}

Polygon outline_of(const World::Index& index, std::uint32_t piece) {
  Polygon outline;
  const PieceShape shape(index, piece);
  for (const PrismEdge& edge : shape.prism().edges) outline.emplace_back(edge.x, edge.y);
  return outline;
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

/// Finds the tops of solids, and which of them a body can get onto.
class Tops {
 public:
  Tops(const Level& level, const World& world, const BodySize& body)
      : level_(level), index_(index_of(world)), body_(body) {
    pieces_of_.resize(level.solids.size());
    for (std::uint32_t i = 0; i < index_.pieces.size(); ++i) {
      if (index_.stops(i, Stops::bodies)) pieces_of_[index_.pieces[i].solid].push_back(i);
    }
    taken_.assign(level.solids.size(), 0);
  }

  // Keeps the surfaces that matter: what is made to be walked on, what agents stand on, and then,
  // one after another, what is within a step of a surface that has been kept already.
  std::vector<Surface> find(std::optional<Surface> ground) {
    if (ground) add(*ground);
    for (std::uint32_t i = 0; i < level_.solids.size(); ++i) {
      if (is_walkway(level_.solids[i].form)) take(i);
      if (level_.solids[i].form == Solid::Form::mesh) take_triangles(i);
    }
    take_those_stood_on();
    while (!to_look_round_.empty()) {
      const auto [box, height] = to_look_round_.back();
      to_look_round_.pop_back();
      const Vector2d reach{body_.hop_length, body_.hop_length};
      for (const std::uint32_t solid : near({box.low - reach, box.high + reach})) {
        if (is_within_step(height, box, solid)) take(solid);
      }
    }
    return std::move(surfaces_);
  }

 private:
  // Walls and blocks have level tops.
  double top_of(std::uint32_t solid) const {
    const PieceShape shape(index_, pieces_of_[solid][0]);
    return shape.prism().high;
  }

  bool is_within_step(const HeightPlane& height, const PlanBox& box, std::uint32_t solid) const {
    const double top = top_of(solid);
    const auto [low, high] =
        std::minmax({height.at(box.low), height.at(box.high), height.at(box.low.x(), box.high.y()),
                     height.at(box.high.x(), box.low.y())});
    return top >= low - std::max(body_.step_height, body_.drop_height) &&
           top <= high + std::max(body_.step_height, body_.hop_height);
  }

  void take(std::uint32_t solid) {
    if (taken_[solid] || pieces_of_[solid].empty() || can_go_away(level_.solids[solid])) return;
    taken_[solid] = 1;
    Surface surface;
    surface.height = gaze::top_of(index_, pieces_of_[solid][0]);
    if (!is_walkable(surface.height, body_)) return;
    for (const std::uint32_t piece : pieces_of_[solid]) {
      surface.parts.push_back(outline_of(index_, piece));
      surface.solids.push_back(solid);
    }
    add(surface);
  }

  void take_triangles(std::uint32_t solid) {
    taken_[solid] = 1;
    for (const std::uint32_t piece : pieces_of_[solid]) {
      if (!index_.pieces[piece].carries) continue;
      Surface surface;
      surface.height = gaze::top_of(index_, piece);
      surface.parts.push_back(outline_of(index_, piece));
      surface.solids.push_back(solid);
      if (is_walkable(surface.height, body_)) add(surface);
    }
  }

  // All tops that lie in one plane are one surface. The ground is all of its plane.
  void add(const Surface& surface) {
    to_look_round_.emplace_back(box_of(surface), surface.height);
    const HeightPlane& h = surface.height;
    const auto [at, is_new] =
        by_plane_.try_emplace({h.base, h.along_x, h.along_y}, surfaces_.size());
    if (is_new) {
      surfaces_.push_back(surface);
      return;
    }
    Surface& known = surfaces_[at->second];
    if (known.solids.empty()) return;
    known.parts.insert(known.parts.end(), surface.parts.begin(), surface.parts.end());
    known.solids.insert(known.solids.end(), surface.solids.begin(), surface.solids.end());
  }

  void take_those_stood_on() {
    if (level_.plane != Plane::space) return;
    for (const Agent& agent : level_.agents) {
      const Vector2d feet{agent.position.x(), agent.position.y()};
      for (const std::uint32_t solid : near({feet, feet})) {
        if (top_of(solid) <= agent.position.z() + body_.step_height) take(solid);
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
  std::vector<Surface> surfaces_;
  std::map<std::array<double, 3>, std::size_t> by_plane_;  ///< Index in `surfaces_`.
  std::vector<std::pair<PlanBox, HeightPlane>> to_look_round_;
};

/// The part of an outline where `upper` lies above `lower`.
Polygon where_above(const Polygon& outline, const HeightPlane& upper, const HeightPlane& lower) {
  const HeightPlane over{upper.base - lower.base, upper.along_x - lower.along_x,
                         upper.along_y - lower.along_y};
  if (over.is_level()) return over.base > 0.0 ? outline : Polygon{};
  return clipped(outline, over.base, {over.along_x, over.along_y});
}

HeightPlane raised(HeightPlane plane, double by) {
  plane.base += by;
  return plane;
}

/// Keeps the centre of a body off parts of a surface because of a solid. Where the solid is higher
/// than a step, that is all within the radius of the body. Where it is lower, it is only what lies
/// under the solid, because there the body steps onto it.
void add_hindrances(const Surface& surface, const HeightPlane& top, const HeightPlane& bottom,
                    const Polygon& outline, const BodySize& body, std::uint32_t tag,
                    std::vector<Hindrance>& hindrances) {
  const Polygon above = where_above(outline, top, surface.height);
  if (above.empty()) return;
  const HeightPlane step = raised(surface.height, body.step_height);
  const Polygon high = where_above(above, top, step);
  if (!surface.height.is_level()) {
    Polygon stops = hindered_on_slope({above, top, bottom}, surface.height, body);
    if (!stops.empty()) hindrances.push_back({std::move(stops), tag});
  } else if (!high.empty()) {
    const Polygon stops = where_above(high, raised(surface.height, body.height), bottom);
    if (!stops.empty()) {
      hindrances.push_back(
          {dilated(stops, body.radius + kSkin, NavigationMesh::kRoundingSlack - kSkin), tag});
    }
  }
  const Polygon low = high.empty() ? above : where_above(above, step, top);
  if (!low.empty()) hindrances.push_back({low, tag});
}

// True if one edge of the first has all of the second beyond it or on it.
bool parts_from(const Polygon& one, const Polygon& other) {
  for (std::size_t i = 0; i < one.size(); ++i) {
    const Vector2d& from = one[i];
    const Vector2d along = one[(i + 1) % one.size()] - from;
    const auto is_beyond = [&](const Vector2d& p) { return cross(along, p - from) <= 0.0; };
    if (std::all_of(other.begin(), other.end(), is_beyond)) return true;
  }
  return false;
}

// Of a surface of one part, as a triangle of a terrain, most of what is near lies beside it.
void leave_out_what_lies_beside(const Surface& surface, std::vector<Hindrance>& hindrances) {
  if (surface.parts.size() != 1) return;
  std::erase_if(hindrances, [&](const Hindrance& one) {
    return parts_from(surface.parts[0], one.outline) || parts_from(one.outline, surface.parts[0]);
  });
}

// Where a surface lies below the ground by no more than a step, a body stands on the ground.
void add_ground(const Surface& surface, const HeightPlane& ground, const BodySize& body,
                std::vector<Hindrance>& hindrances) {
  const HeightPlane step = raised(surface.height, body.step_height);
  for (const Polygon& part : surface.parts) {
    const Polygon below = where_above(part, ground, surface.height);
    if (below.empty()) continue;
    const Polygon low = where_above(below, step, ground);
    if (!low.empty()) hindrances.push_back({low, Hindrance::kStays});
  }
}

}  // namespace

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
  std::vector<Vector2d> points = index_of(world).corners();
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
  if (body.altitude) return {air_of(level, world, body)};
  if (level.plane == Plane::upright) return ledges_of(level, world, body);
  std::optional<Surface> ground;
  if (level.ground_height) ground = ground_of(level, world);
  return Tops(level, world, body).find(std::move(ground));
}

std::optional<std::uint32_t> may_go(const Level& level, const BodySize& body, std::uint32_t solid) {
  if (!can_go_away(level.solids[solid])) return Hindrance::kStays;
  if (std::find(body.opens.begin(), body.opens.end(), solid) != body.opens.end()) return {};
  return solid;
}

std::vector<Hindrance> hindrances_on(const Surface& surface, const Level& level, const World& world,
                                     const BodySize& body, std::uint32_t first) {
  if (world.plane() == Plane::upright) {
    return body.altitude ? hindrances_in_air(surface, level, world, body, first)
                         : hindrances_on_ledge(surface, level, world, body, first);
  }
  const World::Index& index = index_of(world);
  PlanBox box = box_of(surface);
  const double far = body.radius + NavigationMesh::kRoundingSlack;
  box = {box.low - Vector2d{far, far}, box.high + Vector2d{far, far}};
  std::vector<Hindrance> hindrances;
  for (const std::uint32_t piece : pieces_near(index, box)) {
    if (index.pieces[piece].solid < first) continue;
    const auto tag = may_go(level, body, index.pieces[piece].solid);
    if (!tag) continue;
    add_hindrances(surface, top_of(index, piece), bottom_of(index, piece), outline_of(index, piece),
                   body, *tag, hindrances);
  }
  if (first == 0 && level.ground_height && !surface.solids.empty()) {
    add_ground(surface, {*level.ground_height, 0.0, 0.0}, body, hindrances);
  }
  leave_out_what_lies_beside(surface, hindrances);
  return hindrances;
}

}  // namespace gaze
