#pragma once

#include <polyclipping/clipper.hpp>

#include <vector>

#include "gaze/seen_area.hpp"

/// Plane regions as the polygon library has them: whole micrometres.
namespace gaze {

using Outline = std::vector<Vector2d>;
using Outlines = std::vector<Outline>;

/// Largest distance between a chord and its arc, metres.
constexpr double kArcError = 1e-3;
/// Returns the angle of the longest such chord, degrees.
[[nodiscard]] double chord_degrees(double radius);

/// Returns the points of an arc, both ends included. Angles in degrees, anticlockwise.
[[nodiscard]] Outline arc(const Vector2d& centre, double radius, double from, double span);
/// Returns a disc. Empty if the radius is not > 0.
[[nodiscard]] Outlines disc(const Vector2d& centre, double radius);

[[nodiscard]] ClipperLib::Paths to_paths(const Outlines& outlines);
[[nodiscard]] Outlines from_paths(const ClipperLib::Paths& paths);

[[nodiscard]] Outlines combined(ClipperLib::ClipType how, const Outlines& one,
                                const Outlines& other);

[[nodiscard]] Outlines united(const Outlines& one, const Outlines& other);
[[nodiscard]] Outlines common(const Outlines& one, const Outlines& other);
[[nodiscard]] Outlines without(const Outlines& one, const Outlines& other);

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
