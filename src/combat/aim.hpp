#pragma once

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

/// Near enough, turned to the target as far as the tolerance asks (in the plan, from middle to
/// middle), and a ball of the projectile's size rolls from the muzzle to the target's middle.
[[nodiscard]] bool can_shoot(const World& world, const Attack& attack, const Fighter& fighter,
                             const Fighter& target);

/// From the muzzle straight to the target's middle at the attack's speed; along the facing if the
/// muzzle is there already.
[[nodiscard]] Vector3d launch_velocity(Plane plane, const Attack& attack, const Fighter& shooter,
                                       const Fighter& target);

}  // namespace gaze
