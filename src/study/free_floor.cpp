#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "gaze/tools/cover.hpp"
#include "geometry/plan.hpp"
#include "geometry/slanted.hpp"
#include "level/numbers.hpp"
#include "study/regions.hpp"
#include "study/spots.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

struct FloorExtent {
  Vector2d low{std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()};
  Vector2d high = -low;

  void include(const Vector2d& p) {
    low = low.cwiseMin(p);
    high = high.cwiseMax(p);
  }
};

FloorExtent extent_of_level(const Level& level, const World& world) {
  FloorExtent extent;
  for (const Vector2d& corner : index_of(world).corners()) extent.include(corner);
  for (const Agent& agent : level.agents) {
    extent.include(plan_part(level.plane, agent.position));
    for (const Vector3d& point : agent.patrol) extent.include(plan_part(level.plane, point));
    for (const ScriptStep& step : agent.script) {
      if (step.what == ScriptStep::What::go) extent.include(plan_part(level.plane, step.place));
    }
  }
  if (!(extent.low.x() <= extent.high.x())) extent.include({0.0, 0.0});
  return extent;
}

FloorExtent within(const FloorExtent& extent, const std::optional<std::array<Vector2d, 2>>& part) {
  if (!part) return extent;
  const Vector2d low = extent.low.cwiseMax((*part)[0]);
  return {low, extent.high.cwiseMin((*part)[1]).cwiseMax(low)};
}

// Columns and rows of spots that cover an extent: at least one of each. May be more than an int.
Vector2d spots_along(const FloorExtent& extent, double spot_size) {
  const Vector2d size = extent.high - extent.low;
  return {std::max(1.0, std::ceil(size.x() / spot_size)),
          std::max(1.0, std::ceil(size.y() / spot_size))};
}

SpotGrid grid_over(const FloorExtent& extent, const FloorOptions& options) {
  const std::size_t limit = options.larger_above.value_or(FloorOptions::kMostSpots);
  const auto most = static_cast<double>(std::max<std::size_t>(1, limit));
  SpotGrid grid;
  grid.low = extent.low;
  grid.size = options.spot_size;
  Vector2d along = spots_along(extent, grid.size);
  while (options.larger_above && along.prod() > most) {
    grid.size *= 1.25;
    along = spots_along(extent, grid.size);
  }
  if (along.prod() > most) {
    throw UsageError(worded("spots of {} m make {} of this level; at most {} are allowed",
                            options.spot_size, along.prod(), most));
  }
  grid.columns = static_cast<int>(along.x());
  grid.rows = static_cast<int>(along.y());
  return grid;
}

// The heights of a body on the floor; seen from the side, all there is.
std::pair<double, double> heights_of(const Level& level, const FloorOptions& options) {
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  if (level.plane == Plane::upright) return {-kInfinity, kInfinity};
  const double floor = level.ground_height.value_or(0.0);
  return {std::nextafter(floor + options.step_height, kInfinity),
          std::nextafter(floor + options.height, -kInfinity)};  // touching is not in the way
}

Outlines hindrances(const Level& level, const World& world, const FloorOptions& options,
                    bool only_what_stays) {
  const World::Index& index = index_of(world);
  const auto [low, high] = heights_of(level, options);
  Outlines pieces;
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    const PieceShape shape(index, piece);
    const Slice slice(shape.prism(), low, high);
    if (!stops(world, piece, Stops::bodies) || slice.is_empty()) continue;
    if (only_what_stays && can_go_away(level.solids[index.pieces[piece].solid])) continue;
    Outline outline;
    for (const PrismEdge& edge : slice.prism().edges) outline.emplace_back(edge.x, edge.y);
    pieces.push_back(std::move(outline));
  }
  return pieces;
}

// Returns the agents of a team; all agents if the team is empty or kNoTeam.
std::vector<const Agent*> agents_of(const Level& level, std::uint32_t team) {
  std::vector<const Agent*> agents;
  for (const Agent& agent : level.agents) {
    if (team == kNoTeam || level.kind_of(agent).team == team) agents.push_back(&agent);
  }
  return agents.empty() && team != kNoTeam ? agents_of(level, kNoTeam) : agents;
}

// Returns the start positions of a team, and the ends of links.
std::vector<Vector2d> starts_of(const Level& level, std::uint32_t team) {
  std::vector<Vector2d> starts;
  for (const Agent* agent : agents_of(level, team)) {
    starts.push_back(plan_part(level.plane, agent->position));
  }
  for (const Start& start : level.starts) {
    starts.insert(starts.end(), start.outline.begin(), start.outline.end());
  }
  for (const Link& link : level.links) {
    starts.push_back(plan_part(level.plane, link.from));
    starts.push_back(plan_part(level.plane, link.to));
  }
  return starts;
}

// Returns whether an agent may cross obstacles between parts of the floor.
bool may_get_over(const Level& level, std::uint32_t team) {
  const std::vector<const Agent*> agents = agents_of(level, team);
  return level.plane == Plane::upright ||
         std::any_of(agents.begin(), agents.end(), [&](const Agent* agent) {
           const Move& move = *level.kind_of(*agent).move;
           return move.gait == Gait::hover || (travels(move.gait) && *move.hop_height > 0.0);
         });
}

// Returns the connected parts of the floor that contain a start. Removable solids are ignored.
Outlines within_reach(const Level& level, const World& world, const FloorOptions& options,
                      const Outlines& all) {
  const Outlines stays = combined(ClipperLib::ctUnion, hindrances(level, world, options, true), {});
  const Outlines open = combined(ClipperLib::ctDifference, all, widened(stays, options.radius));
  const std::vector<Vector2d> starts = starts_of(level, options.team);
  Outlines reached;
  for (const Outlines& part : parts_of(open)) {
    const bool begins_here = std::any_of(starts.begin(), starts.end(),
                                         [&](const Vector2d& p) { return lies_in(part, p); });
    if (begins_here) reached.insert(reached.end(), part.begin(), part.end());
  }
  return reached;
}

// Removes the floor outside the bounds.
Outlines within_bounds(const Level& level, const Outlines& all) {
  if (!level.bounds || level.bounds->outline.empty()) return all;
  return combined(ClipperLib::ctIntersection, all, {level.bounds->outline});
}

}  // namespace

FreeFloor free_floor(const Level& level, const World& world, const FloorOptions& options) {
  const FloorExtent extent = extent_of_level(level, world);
  const SpotGrid grid = grid_over(within(extent, options.part), options);
  const Outlines whole{{extent.low,
                        {extent.high.x(), extent.low.y()},
                        extent.high,
                        {extent.low.x(), extent.high.y()}}};
  const Outlines all = within_bounds(level, whole);
  const Outlines in_the_way =
      combined(ClipperLib::ctUnion, hindrances(level, world, options, false), {});
  const bool is_upright = level.plane == Plane::upright;
  const Outlines kept_off = is_upright ? in_the_way : widened(in_the_way, options.radius);
  Outlines free = combined(ClipperLib::ctDifference, all, kept_off);
  if (!may_get_over(level, options.team)) {
    const Outlines reached = within_reach(level, world, options, all);
    // All starts may lie inside solids. Then all floor counts.
    if (!reached.empty()) free = combined(ClipperLib::ctIntersection, free, reached);
  }
  FreeFloor floor;
  floor.low = extent.low;
  floor.high = extent.high;
  floor.taken = combined(ClipperLib::ctDifference, whole, free);
  floor.area = area_of(free);
  floor.grid = grid;
  floor.radius = options.radius;
  floor.height = options.height;
  floor.body_points = options.body_points;
  floor.floor_height = level.ground_height.value_or(0.0);
  floor.is_free.assign(floor.grid.count(), 0);
  mark_spots(floor.grid, free, [&](std::size_t spot) { floor.is_free[spot] = 1; });
  return floor;
}

}  // namespace gaze
