#pragma once

#include <span>

#include "travel/travelling.hpp"

/// Walking among others: they stop each other, and give way.
namespace gaze {

/// Walks one leg for as much of the budget as it takes, and moves the agent.
LegResult walk_leg(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget);
/// Walks one leg, giving way to others that are on their way too or stand there. Who `queues` waits
/// where it gets no farther, others try to get round.
LegResult walk_apart(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                     bool queues);

/// The living bodies that may stop one that moves by no more than so far, metres. Valid until it is
/// asked again.
[[nodiscard]] std::span<const Cylinder> bodies_in_the_way(Travelling& state, std::uint32_t who,
                                                          double reach);
/// True if somebody whom it all but touches stands where it wants to go.
[[nodiscard]] bool is_taken_by_one_beside(const Travelling& state, std::uint32_t who,
                                          const Vector3d& place);

/// Before somebody moves: who is where.
void look_for_neighbours(Travelling& state);
/// After one has moved.
void note_move(Travelling& state, std::uint32_t who);
/// After all have moved: how fast each has gone.
void note_pace(Travelling& state);

/// Blows push bodies, and friction slows them down.
void take_pushes(Travelling& state);
void move_pushed(Travelling& state);

}  // namespace gaze
