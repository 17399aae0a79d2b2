#pragma once

#include <polyclipping/clipper.hpp>

#include <vector>

#include "gaze/seen_area.hpp"

/// Plane regions as the polygon library has them: whole micrometres.
namespace gaze {

using Outline = std::vector<Vector2d>;
using Outlines = std::vector<Outline>;

/// How far chords may lie inside their arcs, metres.
constexpr double kArcError = 1e-3;

[[nodiscard]] ClipperLib::Paths to_paths(const Outlines& outlines);
[[nodiscard]] Outlines from_paths(const ClipperLib::Paths& paths);

[[nodiscard]] Outlines combined(ClipperLib::ClipType how, const Outlines& one,
                                const Outlines& other);

/// Wider by a distance on all sides, round at corners to within a millimetre.
[[nodiscard]] Outlines widened(const Outlines& outlines, double by);

/// Returns the connected parts of a region, each with its holes.
[[nodiscard]] std::vector<Outlines> parts_of(const Outlines& region);

/// Returns whether a part contains a point. Holes are not inside.
[[nodiscard]] bool lies_in(const Outlines& part, const Vector2d& p);

/// Square metres; holes run the other way round and count against it.
[[nodiscard]] double area_of(const Outlines& outlines);

/// A seen area with its arcs as chords that lie less than a millimetre inside.
[[nodiscard]] Outline outline_of(const SeenArea& area);

}  // namespace gaze
