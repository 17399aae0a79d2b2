#pragma once

#include <optional>

#include "gaze/aim.hpp"
#include "gaze/level.hpp"
#include "gaze/world.hpp"

namespace gaze {

/// A body in a fight.
struct Fighter {
  Vector3d feet{0.0, 0.0, 0.0};
  Vector2d facing{1.0, 0.0};  ///< In the plan.
  double radius = 0.0;
  double height = 0.0;

  Vector3d middle() const { return feet + Vector3d{0.0, 0.0, height / 2.0}; }
};

/// Near enough, within the arc about the facing, nothing that stops bodies between the middles.
[[nodiscard]] bool can_strike(const World& world, const Attack& attack, const Fighter& fighter,
                              const Fighter& target);

/// Near enough, and turned to the target as far as the tolerance asks (in the plan, from middle to
/// middle).
[[nodiscard]] bool is_aimed_at(Plane plane, const Attack& attack, const Fighter& fighter,
                               const Fighter& target);

/// With which velocity a shot leaves the muzzle for the middle of a target that keeps its velocity,
/// as the attack aims; nothing if it cannot get there. Whether anything is in the way is not asked.
///
/// @param gravity  Of the level, metres a second squared.
[[nodiscard]] std::optional<Launch> launch_at(Plane plane, const Attack& attack,
                                              const Fighter& shooter, const Fighter& target,
                                              const Vector3d& motion, double gravity);

/// True if a ball of the projectile's size flies from the muzzle to where it meets the target
/// without meeting a solid that stops shots. Arcs are asked chord by chord, each at most 5 mm from
/// the arc.
[[nodiscard]] bool is_flight_clear(const World& world, const Attack& attack, const Vector3d& muzzle,
                                   const Launch& launch, double gravity);

/// Aimed at the target, and the flight there is clear.
[[nodiscard]] std::optional<Launch> can_shoot(const World& world, const Attack& attack,
                                              const Fighter& fighter, const Fighter& target,
                                              const Vector3d& motion, double gravity);

/// Where the muzzle is.
[[nodiscard]] Vector3d muzzle_of(Plane plane, const Attack& attack, const Fighter& fighter);

/// Along the facing.
[[nodiscard]] Vector3d ahead_of(Plane plane, const Fighter& fighter);

}  // namespace gaze
