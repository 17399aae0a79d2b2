#pragma once

#include "gaze/simulation.hpp"
#include "gaze/tools/cover.hpp"
#include "study/regions.hpp"

/// Where on the floor a body is seen, as exact polygons: the positions of its feet at which
/// `can_see` holds.
namespace gaze {

/// Arcs are chords less than 1 mm inside. The shadow of each piece of a solid on the level of a
/// body point is the projection of its corners from the eye: a projective map keeps convex pieces
/// convex. Levels seen from above and in space. Cost: the pieces within range, times the body
/// points.
/// @param known  From the last call for this looker; empty at first.
[[nodiscard]] Outlines body_view(const Simulation& game, const Looker& looker,
                                 const FreeFloor& floor, ClearView& known);

}  // namespace gaze
