#pragma once

#include <optional>
#include <span>

#include "gaze/world.hpp"

namespace gaze {

/// Metres. Two bodies may overlap by so much before they stop each other: far above rounding, and
/// far below what anybody sees. A body that comes to where it just touches another has not been
/// stopped on its way.
constexpr double kBodySlack = 1e-9;

/// Returns whether two bodies overlap by more than that.
[[nodiscard]] bool bodies_overlap(Plane plane, const Cylinder& body, const Cylinder& other);

/// Where a moving body first meets another one.
struct BodyTouch {
  double share = 0.0;              ///< Of the way, in [0, 1).
  Vector3d normal{0.0, 0.0, 0.0};  ///< Away from the other, level unless it flies; unit.
};

/// The first of some bodies that a moving body meets. Bodies at other heights are not met, and
/// neither are those that it merely leaves, or slides along. A body that overlaps another already
/// may go any way that does not lead deeper into it; from the very same place it may go any way. In
/// levels seen from the side bodies are rectangles, and a body that walks moves along x alone.
[[nodiscard]] std::optional<BodyTouch> first_body_met(Plane plane, const Cylinder& body,
                                                      const Vector3d& wish, bool flies,
                                                      std::span<const Cylinder> others);

}  // namespace gaze
