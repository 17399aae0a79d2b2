#include "navigation/air.hpp"

#include <algorithm>
#include <limits>

#include "navigation/walkable.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

// The box around everything that the level speaks of, in x and z.
PlanBox side_extent(const Level& level, const World& world, const BodySize& body) {
  std::vector<Vector2d> points = index_of(world).corners();
  for (const Agent& agent : level.agents) {
    points.emplace_back(agent.position.x(), agent.position.z());
    points.emplace_back(agent.position.x(), *body.altitude);
  }
  if (points.empty()) points.emplace_back(0.0, *body.altitude);
  return box_around(points);
}

}  // namespace

Surface air_of(const Level& level, const World& world, const BodySize& body) {
  const bool is_upright = level.plane == Plane::upright;
  const PlanBox extent = is_upright ? side_extent(level, world, body) : extent_of(level, world);
  const Vector2d margin{kFreeMargin, kFreeMargin};
  Vector2d low = extent.low - margin;
  const Vector2d high = extent.high + margin;
  if (is_upright && level.ground_height) low.y() = std::max(low.y(), *level.ground_height);
  Surface air;
  if (!is_upright) air.height.base = *body.altitude;
  air.parts = {{low, {high.x(), low.y()}, high, {low.x(), high.y()}}};
  return air;
}

// The outline that the feet keep off: the sum of the solid and of the body, mirrored at its feet.
// It is the hull of the sums of all pairs of corners.
std::vector<Hindrance> hindrances_in_air(const Surface& air, const Level& level, const World& world,
                                         const BodySize& body, std::uint32_t first) {
  const World::Index& index = index_of(world);
  const double side = body.radius + kSkin;
  std::vector<Hindrance> hindrances;
  for (const std::uint32_t piece : pieces_near(index, box_of(air))) {
    if (index.pieces[piece].solid < first) continue;
    const auto tag = may_go(level, body, index.pieces[piece].solid);
    if (!tag) continue;
    std::vector<Vector2d> sums;
    const PieceShape shape(index, piece);
    for (const PrismEdge& edge : shape.prism().edges) {
      for (const double x : {-side, side}) {
        for (const double z : {-body.height - kSkin, kSkin}) {
          sums.emplace_back(edge.x + x, edge.y + z);
        }
      }
    }
    hindrances.push_back({convex_hull(std::move(sums)), *tag});
  }
  return hindrances;
}

}  // namespace gaze
