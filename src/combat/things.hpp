#pragma once

#include "combat/fighting.hpp"

/// Things: carried, thrown, dropped and broken.
namespace gaze {

/// Takes a thing, if it lies near enough. @param feet  Where the one who takes it is.
bool take(Fighting& state, std::uint32_t who, const Vector3d& feet, std::uint32_t thing);
/// Returns whether an agent may take a thing now. The thing lies within `take_reach`,
/// `picked_up_by` of its kind names the agent or nothing, and the agent needs what the thing gives.
[[nodiscard]] bool may_take(const Fighting& state, std::uint32_t who, const Vector3d& feet,
                            std::uint32_t thing);
/// Heals and refills an agent by a thing, and removes the thing.
void use_up(Fighting& state, std::uint32_t who, std::uint32_t thing);
/// Throws a thing of a kind that it has, if it has one.
bool throw_thing(Fighting& state, std::uint32_t who, const Vector3d& feet, std::uint32_t kind,
                 const Vector3d& place);
/// Puts all down that it carries. @param feet  Where it is.
void drop_all(Fighting& state, std::uint32_t who, const Vector3d& feet);
/// Where a thrown thing ends: it breaks, or lies there.
void land(Fighting& state, const Shell& shell, const Vector3d& place);

}  // namespace gaze
