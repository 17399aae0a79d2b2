#pragma once

#include "combat/fighting.hpp"

/// What blows and blasts do, and what a defeat brings.
namespace gaze {

/// A blast: blows for all whom it may hurt within it and nothing shields, and wear on what breaks.
/// `by` is who did it, `maker` whose attack it is: the jar, not its thrower.
void blast(Fighting& state, std::uint32_t by, std::uint32_t maker, const Attack& attack,
           const Vector3d& place, double radius, Moment when);
/// Blows of this step fall together, against the health at its start.
void deal_blows(Fighting& state);
/// Gives back what heals by itself in this step.
void heal(Fighting& state);
/// Takes from the health of a solid that breaks.
void wear_down(Fighting& state, std::uint32_t solid, double damage, std::uint32_t by);
/// Nothing is known of what lies before the shells any more: a solid has come or gone.
void look_ahead_again(Fights& fights);

/// Takes somebody out of play who has lost all health, with all that this brings.
/// @param feet  Where it is.
void defeat(Fighting& state, std::uint32_t who, const Vector3d& feet,
            std::optional<std::uint32_t> by, Moment when);
/// Takes somebody out of the round, whole.
void put_out(Fighting& state, std::uint32_t who);
/// What a shot leaves behind where it ends.
void leave_behind(Fighting& state, std::uint32_t owner, const Attack& attack,
                  const Vector3d& place);

}  // namespace gaze
