#pragma once

#include "combat/fighting.hpp"

/// What blows and blasts do, and what a defeat brings.
namespace gaze {

/// A blast. It adds blows for all whom it may hurt, who are within it and whom nothing shields, and
/// it wears down what breaks. `by` is who did it; `maker` is whose attack it is: the jar, and not
/// who threw it.
void blast(Fighting& state, std::uint32_t by, std::uint32_t maker, const AttackId& id,
           const Vector3d& place, double radius, Moment when);
/// Deals the blows of this step. They fall together, against the health at the start of the step.
void deal_blows(Fighting& state);
/// Gives back what heals by itself in this step.
void heal(Fighting& state);
/// Lowers the health of a solid that breaks. `place` is the position of the hit.
void wear_down(Fighting& state, std::uint32_t solid, double damage, std::uint32_t by,
               const Vector3d& place);
/// Takes points of health from somebody, by nobody's attack, and deals what that brings.
void hurt(Fighting& state, std::uint32_t who, double points, std::optional<std::uint32_t> by);
/// Opens a door or shuts it, breaks what breaks or makes it whole.
void set_gone(Fighting& state, std::uint32_t solid, bool is_gone);
/// Forgets what lies before the shells, because a solid has come or gone.
void look_ahead_again(Fights& fights);

/// Takes an agent out of play that has lost all health, and does all that this brings.
/// @param feet  Where it is.
void defeat(Fighting& state, std::uint32_t who, const Vector3d& feet,
            std::optional<std::uint32_t> by, Moment when);
/// Takes an agent out of the round without hurting it: it has been caught.
void put_out(Fighting& state, std::uint32_t who);
/// Schedules the return of an agent after its `respawn` time. Does nothing without `respawn`.
void come_back_later(Fighting& state, std::uint32_t who);
/// What a shot leaves behind where it ends.
void leave_behind(Fighting& state, std::uint32_t owner, const AttackId& attack,
                  const Vector3d& place);

}  // namespace gaze
