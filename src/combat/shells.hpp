#pragma once

#include "combat/fighting.hpp"

/// What has been fired, thrown or switched on.
namespace gaze {

/// Flies what has been fired before this step.
void fly_shells(Fighting& state);
/// Fires one projectile from the muzzle.
void fire_shell(Fighting& state, std::uint32_t who, std::uint32_t attack, const Vector3d& velocity,
                const Aimed& at);
/// Fires all projectiles of a shot at the same time for a defeated agent. Each has a random
/// direction within the `spread` about `ahead`. They fly from the next tick on.
void scatter(Fighting& state, std::uint32_t who, const AttackId& attack, const Vector3d& place,
             const Vector3d& ahead);
/// Returns a velocity within the `spread` of a shot, from the random stream of its shooter.
[[nodiscard]] Vector3d spread(Fighting& state, std::uint32_t who, const Attack& attack,
                              const Vector3d& velocity);
/// Switches a beam on, from a moment on.
void light_beam(Fighting& state, const Release& release);
/// Returns the enemy that a ray straight ahead meets first; nothing if it meets anything else
/// first.
[[nodiscard]] std::optional<std::uint32_t> enemy_on_ray(const Fighting& state, std::uint32_t who,
                                                        std::uint32_t attack);
/// What beams that are on do in this step.
void shine_beams(Fighting& state);

}  // namespace gaze
