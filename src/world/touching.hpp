#pragma once

#include <algorithm>

#include "gaze/world.hpp"

/// What touching means for bodies and solids. Placement, footing, sliding, paths and `gaze check`
/// all use this rule: a body that overlaps a solid by at most `kContactGap` touches it and is not
/// inside it. Positions that touch in a level file may overlap by a last bit once they are added
/// up.
namespace gaze {

/// Metres. Also the distance from a solid at which a moving body comes to rest. Far above the
/// rounding of a sweep (1e-12), far below what is visible.
constexpr double kContactGap = 1e-6;

/// A body without its outermost `kContactGap` at the sides and at the top: for bodies that fall or
/// stand. A body with a radius below twice the gap keeps half of its radius.
[[nodiscard]] inline Cylinder standing_core(const Cylinder& body) {
  return {body.feet, std::max(body.radius / 2.0, body.radius - kContactGap),
          body.height - kContactGap};
}

/// The same without the lowest `kContactGap`, for bodies that do not rest on a solid.
[[nodiscard]] inline Cylinder core_of(const Cylinder& body) {
  Cylinder core = standing_core(body);
  core.feet.z() += kContactGap;
  core.height -= kContactGap;
  return core;
}

}  // namespace gaze
