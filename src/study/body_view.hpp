#pragma once

#include "gaze/simulation.hpp"
#include "gaze/tools/cover.hpp"
#include "study/regions.hpp"

/// The positions on a floor at which a body is seen, as exact polygons.
namespace gaze {

/// Returns the positions of the feet at which `can_see` holds for the body of the floor. Arcs are
/// chords less than 1 mm inside. Cost: the pieces within range, times
/// the body points.
/// @param known  Result of the last call for this observer; empty at first.
[[nodiscard]] Outlines body_view(const Simulation& game, const Looker& looker,
                                 const FreeFloor& floor, ClearView& known);

}  // namespace gaze
