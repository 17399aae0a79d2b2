#pragma once

#include <cstdint>
#include <vector>

#include "gaze/navigation.hpp"
#include "geometry/height_plane.hpp"
#include "geometry/polygon.hpp"

namespace gaze {

/// Something that feet can stand on.
struct Surface {
  HeightPlane height;
  std::vector<Polygon> parts;         ///< Convex; together they are the surface.
  std::vector<std::uint32_t> solids;  ///< By part, in Level::solids; empty for the ground.
};

/// All surfaces that a body of that size may come to stand on.
[[nodiscard]] std::vector<Surface> surfaces_of(const Level& level, const World& world,
                                               const BodySize& body);

/// What keeps the centre of a body off parts of a surface: solids that stop it, widened by its
/// radius, and low ones onto which it steps, as they are.
[[nodiscard]] std::vector<Polygon> hindrances_on(const Surface& surface, const World& world,
                                                 const BodySize& body);

}  // namespace gaze
