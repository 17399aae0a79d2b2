#pragma once

#include <vector>

#include "navigation/surface.hpp"

/// Where what hovers can be: level with its own height; seen from the side all of the plane.
namespace gaze {

[[nodiscard]] Surface air_of(const Level& level, const World& world, const BodySize& body);

/// Seen from the side, the solids widened by the body: what its feet keep off in x and z.
[[nodiscard]] std::vector<Hindrance> hindrances_in_air(const Surface& air, const Level& level,
                                                       const World& world, const BodySize& body);

}  // namespace gaze
