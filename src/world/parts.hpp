#pragma once

#include <vector>

#include "gaze/level.hpp"
#include "geometry/height_plane.hpp"
#include "geometry/polygon.hpp"

namespace gaze {

/// A convex part of a solid: an outline between two heights.
struct SolidPart {
  Polygon outline;  ///< Anticlockwise.
  HeightPlane low;
  HeightPlane high;
  std::uint8_t stops = 0xFF;  ///< Bit per Stops: of what its material stops, what this part does.
  bool carries = true;        ///< Its upper side may be walked on.
};

/// A triangle as a shell that is some metres thick, inwards.
void add_shell(const Triangle& triangle, double thickness, std::vector<SolidPart>& parts);

/// The convex parts of a solid. Stairs are steps for everything but bodies, and a ramp for bodies.
/// @param base  Its lowest height, metres, if it has one.
[[nodiscard]] std::vector<SolidPart> parts_of(const Solid& solid, double base);

[[nodiscard]] double lowest(const SolidPart& part);
[[nodiscard]] double highest(const SolidPart& part);

}  // namespace gaze
