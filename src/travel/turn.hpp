#pragma once

#include "gaze/geometry.hpp"

namespace gaze {

/// Turns a unit vector towards a wanted direction by at most an angle in [0, 180] degrees, given by
/// its sine and cosine; what is exactly behind is reached anticlockwise. A wanted direction without
/// length changes nothing.
[[nodiscard]] Vector2d turn_toward(const Vector2d& facing, const Vector2d& wanted,
                                   const SineCosine& most);

/// Right or left, whichever is nearer to the wanted direction. If both are equally near, it is the
/// facing itself.
[[nodiscard]] Vector2d flip_toward(const Vector2d& facing, const Vector2d& wanted);

}  // namespace gaze
