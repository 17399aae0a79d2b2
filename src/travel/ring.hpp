#pragma once

#include "travel/travelling.hpp"

/// Agents that chase or follow the same target share the circle at their stop distance.
namespace gaze {

/// Returns the leg of an agent that approaches a target.
///
/// The leg leads straight at the target if the agent has room where it would stop. Else it leads
/// along the ring to the nearest free position, or to a row behind a full ring. If two agents want
/// the same position, the nearer agent gets it.
/// @param leg  To the target; its stop distance is the radius of the ring, metres.
/// Cost: quadratic in the number of bodies within 4 rows of the ring. Constant for agents farther
/// away.
[[nodiscard]] Leg share_ring(Travelling& state, std::uint32_t who, std::uint32_t centre,
                             const Leg& leg);

/// Forgets the positions of agents that no longer approach a ring. Called before agents move.
void forget_ring_places(Travelling& state);

}  // namespace gaze
