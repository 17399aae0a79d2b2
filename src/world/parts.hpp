#pragma once

#include <array>
#include <optional>
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

/// Metres: so thick, inwards, is what a triangle stands for.
inline constexpr double kShellThickness = 0.02;

/// A triangle that does not stand upright, as a prism.
struct LyingShell {
  std::array<Vector2d, 3> outline;  ///< Anticlockwise.
  HeightPlane low;
  HeightPlane high;
  bool carries = false;  ///< It faces upwards.
};

/// Nothing if it stands upright, or has no area.
[[nodiscard]] std::optional<LyingShell> lying_shell(const Triangle& triangle);

/// Any triangle of a mesh.
void add_shell(const Triangle& triangle, std::vector<SolidPart>& parts);

/// The convex parts of a solid that is no mesh. Stairs are steps for everything but bodies, and a
/// ramp for bodies.
/// @param base  Its lowest height, metres, if it has one.
[[nodiscard]] std::vector<SolidPart> parts_of(const Solid& solid, double base);

[[nodiscard]] double lowest(const SolidPart& part);
[[nodiscard]] double highest(const SolidPart& part);

}  // namespace gaze
