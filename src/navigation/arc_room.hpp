#pragma once

#include "gaze/navigation.hpp"
#include "navigation/arc.hpp"

namespace gaze {

/// True if a body meets no solid on a hop. It is swept along chords of the arc that lie at most
/// 5 mm below it. What is up to `step` metres above its feet is no hindrance; nor is what it stands
/// on.
[[nodiscard]] bool has_room_for(const World& world, const BodySize& body, const Arc& arc,
                                double step = 0.0);

/// The same for a drop: level to above where it ends, and straight down.
[[nodiscard]] bool has_room_to_drop(const World& world, const BodySize& body, const Vector3d& from,
                                    const Vector3d& to);

}  // namespace gaze
