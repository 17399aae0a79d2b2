#pragma once

#include "geometry/plan_grid.hpp"
#include "navigation/surface.hpp"
#include "world/index.hpp"

/// What surfaces seen from above and from the side have in common.
namespace gaze {

/// Metres by which an endless floor goes on around all that stands on it.
constexpr double kFreeMargin = 64.0;

/// Metres: the rim of the mesh keeps so much more than the body's radius from solids, so that
/// rounding to the lattice (0.2 mm) never brings a body into one.
constexpr double kSkin = 0.0005;
static_assert(kSkin < NavigationMesh::kRoundingSlack);

/// Whose surface a body can stand and walk on: not steeper than it climbs, and not so steep that
/// the slope ahead, within its radius, rises above its step.
[[nodiscard]] bool is_walkable(const HeightPlane& top, const BodySize& body);

/// All that the level speaks of, in x and y; seen from the side only x counts.
[[nodiscard]] PlanBox extent_of(const Level& level, const World& world);

[[nodiscard]] PlanBox box_of(const Surface& surface);

/// The pieces over a part of the plan that stop bodies, whatever their height, in order.
[[nodiscard]] std::vector<std::uint32_t> pieces_near(const World::Index& index, const PlanBox& box);

}  // namespace gaze
