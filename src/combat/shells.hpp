#pragma once

#include "combat/fighting.hpp"

/// What has been fired, thrown or switched on.
namespace gaze {

/// Flies what has been fired before this step.
void fly_shells(Fighting& state);
/// Fires one projectile from the muzzle.
void fire_shell(Fighting& state, std::uint32_t who, std::uint32_t attack, const Vector3d& velocity,
                const Aimed& at);
/// Switches a beam on, from a moment on.
void light_beam(Fighting& state, const Release& release);
/// What beams that are on do in this step.
void shine_beams(Fighting& state);

}  // namespace gaze
