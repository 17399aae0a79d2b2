#pragma once

#include <cstdint>
#include <optional>
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
  bool operator==(const Surface&) const = default;
};

/// All surfaces on which a body of that size may come to stand.
[[nodiscard]] std::vector<Surface> surfaces_of(const Level& level, const World& world,
                                               const BodySize& body);

/// An outline that the centre of a body does not enter.
struct Hindrance {
  static constexpr std::uint32_t kStays = 0xFFFFFFFF;
  Polygon outline;
  std::uint32_t may_go = kStays;  ///< The solid, in Level::solids, if it may go.
};

/// What keeps the centre of a body off parts of a surface. These are the solids that stop the body,
/// widened by its radius, and low solids onto which it steps, as they are.
/// @param first  The solids before this one do not count.
[[nodiscard]] std::vector<Hindrance> hindrances_on(const Surface& surface, const Level& level,
                                                   const World& world, const BodySize& body,
                                                   std::uint32_t first = 0);

/// Which tag a hindrance by a solid has. Nothing if the solid does not hinder the body at all.
[[nodiscard]] std::optional<std::uint32_t> may_go(const Level& level, const BodySize& body,
                                                  std::uint32_t solid);

}  // namespace gaze
