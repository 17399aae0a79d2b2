#pragma once

#include <optional>

#include "gaze/level.hpp"

namespace gaze {

/// True if a place is within the bounds of a level, their edge included.
[[nodiscard]] bool is_within(Plane plane, const Bounds& bounds, const Vector3d& place);

/// The share of a straight way at which it first leaves the bounds: 0 if it begins outside, nothing
/// if it stays within. A way that only touches the edge from inside stays within.
[[nodiscard]] std::optional<double> leaves_at(Plane plane, const Bounds& bounds,
                                              const Segment& way);

}  // namespace gaze
