#pragma once

namespace gaze {

/// How far from a solid a body comes to rest, metres: far above the rounding of the sweep (1e-12),
/// far below what shows. It keeps "never inside" true whatever the angle of approach.
constexpr double kContactGap = 1e-6;

}  // namespace gaze
