#pragma once

#include <array>

#include "combat/aim.hpp"

namespace gaze {

/// A fighter where it stands, with how far it can turn there.
struct Stance {
  Fighter fighter;                                   ///< Facing as it was placed.
  std::array<double, 2> turn_limits{-180.0, 180.0};  ///< Degrees about that.
};

/// The stance of an agent of a kind that is placed there. What cannot turn at all has no range to
/// either side.
[[nodiscard]] Stance stance_of(Plane plane, const Kind& kind, const Vector3d& feet,
                               const Vector2d& facing);

/// True if an attack, made from there once it has turned as far as it can, hits a body that stands
/// still: it can be made (`can_reach`), and what is fired straight ahead flies into that body.
/// Friends and bounces are left out.
///
/// @param gravity  Of the level, metres a second squared.
[[nodiscard]] bool can_hit(const World& world, const Attack& attack, const Stance& stance,
                           const Fighter& victim, double gravity);

}  // namespace gaze
