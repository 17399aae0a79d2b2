#pragma once

#include <vector>

#include "navigation/surface.hpp"

/// What is walked on seen from the side: the upper edges of solids, as strips one metre deep, so
/// that the rest of the mesh need not know.
namespace gaze {

[[nodiscard]] std::vector<Surface> ledges_of(const Level& level, const World& world,
                                             const BodySize& body);

/// As strips as well.
[[nodiscard]] std::vector<Hindrance> hindrances_on_ledge(const Surface& ledge, const Level& level,
                                                         const World& world, const BodySize& body);

}  // namespace gaze
