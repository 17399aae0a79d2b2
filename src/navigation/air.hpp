#pragma once

#include <vector>

#include "navigation/surface.hpp"

/// The places where a body that hovers can be. Seen from above that is a level at its own height;
/// seen from the side it is all of the plane.
namespace gaze {

[[nodiscard]] Surface air_of(const Level& level, const World& world, const BodySize& body);

/// For levels seen from the side: the solids, widened by the size of the body. Its feet keep off
/// these in x and z.
[[nodiscard]] std::vector<Hindrance> hindrances_in_air(const Surface& air, const Level& level,
                                                       const World& world, const BodySize& body,
                                                       std::uint32_t first);

}  // namespace gaze
