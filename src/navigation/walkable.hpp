#pragma once

#include "geometry/plan_grid.hpp"
#include "navigation/surface.hpp"
#include "world/index.hpp"

/// What the surfaces of levels seen from above and from the side have in common.
namespace gaze {

/// Metres. An endless floor is taken to go on so far beyond all that stands on it.
constexpr double kFreeMargin = 64.0;

/// Metres. The rim of the mesh keeps so much more than the radius of the body away from solids. So
/// rounding to the lattice (0.2 mm) never brings a body into a solid.
constexpr double kSkin = 0.0005;
static_assert(kSkin < NavigationMesh::kRoundingSlack);

/// True if a body can stand and walk on a surface. It must not be steeper than the body climbs, and
/// not so steep that the slope rises above its step height within its radius.
[[nodiscard]] bool is_walkable(const HeightPlane& top, const BodySize& body);

/// The box around everything that the level speaks of, in x and y. In levels seen from the side
/// only x counts.
[[nodiscard]] PlanBox extent_of(const Level& level, const World& world);

[[nodiscard]] PlanBox box_of(const Surface& surface);

/// The pieces of solids that stop bodies over a part of the plan, whatever their height, in the
/// order of the level.
[[nodiscard]] std::vector<std::uint32_t> pieces_near(const World::Index& index, const PlanBox& box);

}  // namespace gaze
