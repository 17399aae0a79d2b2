#pragma once

#include "navigation/mesh.hpp"
#include "travel/travelling.hpp"

/// What carries a body: floors, steps and slopes, the air, and links.
namespace gaze {

/// Keeps a walker on what is below its feet: up and down steps and slopes, or falling.
void settle(Travelling& state, std::uint32_t who);
/// Returns whether the ground below the centre of a walker with these feet is no deeper than its
/// step. True for all other gaits, and in levels without heights.
[[nodiscard]] bool has_footing(const Travelling& state, std::uint32_t who, const Vector3d& feet);
/// Returns whether a body hops, falls or flies. A body that a host or a track puts above its ground
/// is in the air as well.
[[nodiscard]] bool is_in_the_air(const Travelling& state, std::uint32_t who);
/// Returns whether a body blocks no other body, because it is in the air. Bodies that a host puts
/// into the air block others.
[[nodiscard]] bool flies_past_others(const Travelling& state, std::uint32_t who);
/// Agents that have just been placed come to stand, or begin to fall. That is done before anybody
/// goes anywhere.
void find_footing(Travelling& state);
/// Tells that somebody has landed after a hop, a drop or a fall from such a height.
void tell_landing(Travelling& state, std::uint32_t who, double highest);

/// Begins to use a link, at a moment of this step, and goes on to the end of the step.
void take_link(Travelling& state, std::uint32_t who, const MeshLink& link, Moment start);
/// Goes on in a leap until the end of the step or of the leap.
void fly_on(Travelling& state, std::uint32_t who);
/// Those that ended before this step.
void forget_ended_leaps(Travelling& state);
/// One hop towards a goal, if there is room for it.
/// Starts a hop on the spot for a hopper with `hops_in_place` whose target stands more than a step
/// higher. Call it after the hopper has moved in this tick.
void hop_in_place(Travelling& state, std::uint32_t who, double target_height);
LegResult hop_leg(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget);
/// A hop that a script asks for: up, and towards a place if the script names one.
void hop_up(Travelling& state, std::uint32_t who, const ScriptStep* then, Moment budget);
/// The same at a level velocity, metres a second. @return False for who does not hop.
bool hop_off(Travelling& state, std::uint32_t who, const Vector3d& velocity, Moment budget);

}  // namespace gaze
