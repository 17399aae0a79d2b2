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

SpotGrid grid_over(const FloorExtent& extent, double spot_size) {
  const Vector2d size = extent.high - extent.low;
  SpotGrid grid;
  grid.low = extent.low;
  grid.size = spot_size;
  grid.columns = std::max(1, static_cast<int>(std::ceil(size.x() / spot_size)));
  grid.rows = std::max(1, static_cast<int>(std::ceil(size.y() / spot_size)));
  if (grid.count() > FloorOptions::kMostSpots) {
    throw UsageError(worded("spots of {} m make {} of this level; at most {} are allowed",
                            spot_size, grid.count(), FloorOptions::kMostSpots));
  }
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

Outlines hindrances(const Level& level, const World& world, const FloorOptions& options) {
  const World::Index& index = index_of(world);
  const auto [low, high] = heights_of(level, options);
  Outlines pieces;
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    const PieceShape shape(index, piece);
    const Slice slice(shape.prism(), low, high);
    if (!stops(world, piece, Stops::bodies) || slice.is_empty()) continue;
    Outline outline;
    for (const PrismEdge& edge : slice.prism().edges) outline.emplace_back(edge.x, edge.y);
    pieces.push_back(std::move(outline));
  }
  return pieces;
}

}  // namespace

FreeFloor free_floor(const Level& level, const World& world, const FloorOptions& options) {
  const FloorExtent extent = extent_of_level(level, world);
  const SpotGrid grid = grid_over(extent, options.spot_size);
  const Outline all{extent.low,
                    {extent.high.x(), extent.low.y()},
                    extent.high,
                    {extent.low.x(), extent.high.y()}};
  const Outlines in_the_way = combined(ClipperLib::ctUnion, hindrances(level, world, options), {});
  FreeFloor floor;
  const bool is_upright = level.plane == Plane::upright;
  const Outlines taken = is_upright ? in_the_way : widened(in_the_way, options.radius);
  floor.low = extent.low;
  floor.high = extent.high;
  floor.taken = taken;
  const Outlines free = combined(ClipperLib::ctDifference, {all}, taken);
  floor.area = area_of(free);
  floor.grid = grid;
  floor.is_free.assign(floor.grid.count(), 0);
  mark_spots(floor.grid, free, [&](std::size_t spot) { floor.is_free[spot] = 1; });
  return floor;
}

}  // namespace gaze
