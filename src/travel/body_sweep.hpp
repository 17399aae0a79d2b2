#pragma once

#include <optional>
#include <span>

#include "gaze/world.hpp"

namespace gaze {

/// Metres by which two bodies may overlap before they stop each other: far above rounding, far
/// below what shows. Who comes to where it just touches another has not been stopped on its way.
constexpr double kBodySlack = 1e-9;

/// Where a body that moves first meets another.
struct BodyTouch {
  double share = 0.0;              ///< Of the way, in [0, 1).
  Vector3d normal{0.0, 0.0, 0.0};  ///< Away from the other, level unless it flies; unit.
};

/// The first of some bodies that a moving one meets. Bodies at other heights are passed, those that
/// are left or passed by touching them too. Who overlaps another already may go any way that does
/// not lead deeper, and from the very same place any way. Seen from the side bodies are rectangles,
/// and what walks moves along x alone.
[[nodiscard]] std::optional<BodyTouch> first_body_met(Plane plane, const Cylinder& body,
                                                      const Vector3d& wish, bool flies,
                                                      std::span<const Cylinder> others);

}  // namespace gaze
