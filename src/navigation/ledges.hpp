#pragma once

#include <vector>

#include "navigation/surface.hpp"

/// What bodies walk on in levels seen from the side: the upper edges of solids. Each becomes a
/// strip that is one metre deep, so that the rest of the code can take it for a floor.
namespace gaze {

[[nodiscard]] std::vector<Surface> ledges_of(const Level& level, const World& world,
                                             const BodySize& body);

/// What stands in the way on a ledge, as strips as well.
[[nodiscard]] std::vector<Hindrance> hindrances_on_ledge(const Surface& ledge, const Level& level,
                                                         const World& world, const BodySize& body,
                                                         std::uint32_t first);

}  // namespace gaze
