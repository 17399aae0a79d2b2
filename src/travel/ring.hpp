#pragma once

#include "travel/travelling.hpp"

/// How a crowd surrounds somebody: agents that stop at a distance share the ring there.
namespace gaze {

/// Where an agent goes that wants to come within a distance of another.
///
/// Straight at it, if there is room where the agent would come to stand. Else round the ring to the
/// nearest room for its body; if the ring is full, to a row behind it. Of two that want the same
/// place the nearer one gets it.
/// @param leg  To the other one; its stop distance is the radius of the ring, metres.
/// Cost: by those within some rows of the ring; searches only for those near it.
[[nodiscard]] Leg share_ring(Travelling& state, std::uint32_t who, std::uint32_t centre,
                             const Leg& leg);

/// Forgets the places of those who have gone elsewhere. Before anybody moves.
void forget_ring_places(Travelling& state);

}  // namespace gaze
