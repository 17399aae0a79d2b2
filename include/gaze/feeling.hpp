#pragma once

#include <cstdint>
#include <optional>
#include <span>

#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/sides.hpp"
#include "gaze/world.hpp"

/// Feelers, nearness and touch, asked of a world and some bodies alone.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// What a feeler meets first.
struct Felt {
  std::optional<double> distance;     ///< Metres along it; none: nothing is there.
  std::optional<std::uint32_t> body;  ///< Which of the bodies, if it is one;
  std::optional<SolidId> solid;       ///< which solid; neither: the ground.
  Vector3d place{0.0, 0.0, 0.0};  ///< Of the ray's end or the ball's middle there, or its far end.
};

/// The straight way of a feeler. Its direction is level with the facing turned by `toward`, and
/// rises by `tilt`; in an upright plan both are turns in the plan, for who faces left mirrored. For
/// one that turns with the head, the facing is the head's.
[[nodiscard]] BallPath feeler_path(Plane plane, const Feeler& feeler, const Vector3d& feet,
                                   const Vector2d& facing);

/// Follows a feeler to the first thing: a solid that stops what it is stopped by, the ground (none:
/// no ground), or one of the bodies; of several at once a solid before the ground before a body,
/// and bodies in their order. A start in or on something is at distance 0; the far end alone may
/// touch. O(bodies) and one question to the world.
[[nodiscard]] Felt feel(const World& world, std::optional<double> ground, const Feeler& feeler,
                        const Vector3d& feet, const Vector2d& facing,
                        std::span<const Cylinder> bodies) noexcept;

/// The same for many bodies' feelers at once; the answer to question i goes to place i. Equal
/// lengths but for `bodies`, which all share.
struct FeelerQuestion {
  Feeler feeler;
  Vector3d feet{0.0, 0.0, 0.0};
  Vector2d facing{1.0, 0.0};
};
void feel(const World& world, std::optional<double> ground,
          std::span<const FeelerQuestion> questions, std::span<const Cylinder> bodies,
          std::span<Felt> felt);

/// Metres between two places along the axes that count.
[[nodiscard]] double distance_along(const std::array<bool, 3>& axes, const Vector3d& a,
                                    const Vector3d& b) noexcept;

}  // namespace gaze
GAZE_PUBLIC_END
