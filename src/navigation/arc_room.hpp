#pragma once

#include "gaze/navigation.hpp"
#include "navigation/arc.hpp"

namespace gaze {

/// True if a body meets no solid on a hop. The body is swept along chords of the arc, which lie at
/// most 5 mm below it. Solids that reach no more than `step` metres above its feet are ignored, and
/// so is what it stands on.
[[nodiscard]] bool has_room_for(const World& world, const BodySize& body, const Arc& arc,
                                double step = 0.0);

/// The same for a drop: first level, to above the place where it ends, and then straight down.
[[nodiscard]] bool has_room_to_drop(const World& world, const BodySize& body, const Vector3d& from,
                                    const Vector3d& to);

}  // namespace gaze
