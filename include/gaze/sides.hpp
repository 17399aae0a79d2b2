#pragma once

#include <optional>

#include "gaze/public.hpp"
#include "gaze/senses.hpp"
#include "gaze/world.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// What rests against a body touches it, though rounding may leave a gap: metres.
inline constexpr double kTouchGap = 1e-6;

/// On which side, in its own frame, a body is touched by another, if it is: their cylinders overlap
/// or are less than `kTouchGap` apart. Top or bottom if the feet of the upper one are in the upper
/// half of the lower one or above, so that what is the top of the one is the bottom of the other;
/// else by quarters about the facing; on the border front and back come first. Same place: front.
[[nodiscard]] std::optional<Side> touched_side(Plane plane, const Cylinder& body,
                                               const Vector2d& facing,
                                               const Cylinder& other) noexcept;

/// The same after a step in which both have moved evenly, the body from `body_from` and the other
/// from `other_from` (feet): on the side of the moment at which they came to touch, if they did in
/// it, so that who comes down on a body touches its top however far it has sunk in since.
[[nodiscard]] std::optional<Side> touched_side(Plane plane, const Cylinder& body,
                                               const Vector2d& facing, const Cylinder& other,
                                               const Vector3d& body_from,
                                               const Vector3d& other_from) noexcept;

/// On which side of a body a point lies that is outside of it or on it: straight above or below is
/// its top or bottom, else by quarters about the facing.
[[nodiscard]] Side side_towards(Plane plane, const Cylinder& body, const Vector2d& facing,
                                const Vector3d& point) noexcept;

}  // namespace gaze
GAZE_PUBLIC_END
