#pragma once

#include "travel/travelling.hpp"

/// The modes in which an agent goes to a place: each moves it for one step and says where to look.
namespace gaze {

[[nodiscard]] FacingWish investigate(Travelling& state, std::uint32_t who);
[[nodiscard]] FacingWish search(Travelling& state, std::uint32_t who);
[[nodiscard]] FacingWish wander(Travelling& state, std::uint32_t who);
[[nodiscard]] FacingWish follow(Travelling& state, std::uint32_t who);
[[nodiscard]] FacingWish flee(Travelling& state, std::uint32_t who);
/// Looks in the direction in which the agent has moved since it was at `before`.
[[nodiscard]] FacingWish look_along(const Travelling& state, std::uint32_t who,
                                    const Vector3d& before);
[[nodiscard]] FacingWish mirror(Travelling& state, std::uint32_t who);

/// Walks to a goal, and tells once if the goal cannot be reached. @return The result of the leg.
LegResult walk_watched(Travelling& state, std::uint32_t who, const Vector3d& goal, Moment budget,
                       bool& stuck);

/// Turns what is fixed, within its limits if it has any.
void turn_turret(Travelling& state, std::uint32_t who, const Vector2d& wanted);

/// Moves a hoverer up or down, towards its target or back to its own height.
void climb(Travelling& state, std::uint32_t who);

}  // namespace gaze
