#pragma once

#include <span>

#include "travel/travelling.hpp"

/// How agents walk among others: bodies stop each other, and give way to each other.
namespace gaze {

/// Walks one leg for as much of the budget as it takes, and moves the agent.
LegResult walk_leg(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget);
/// Walks one leg, and gives way to others that walk or stand there. If it `queues` it waits where
/// it gets no farther; else it tries to get round.
LegResult walk_apart(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                     bool queues);

/// The living bodies that may stop a body which moves by no more than so many metres. Valid until
/// this is asked again.
[[nodiscard]] std::span<const Cylinder> bodies_in_the_way(Travelling& state, std::uint32_t who,
                                                          double reach);
/// True if somebody stands where an agent wants to go, so near that they all but touch.
[[nodiscard]] bool is_taken_by_one_beside(const Travelling& state, std::uint32_t who,
                                          const Vector3d& place);

/// Notes who is where, before anybody moves.
void look_for_neighbours(Travelling& state);
/// Notes that one agent has moved.
void note_move(Travelling& state, std::uint32_t who);
/// Notes how fast each agent has gone, after all have moved.
void note_pace(Travelling& state);

/// Blows push bodies, and friction slows them down.
void take_pushes(Travelling& state);
void move_pushed(Travelling& state);

}  // namespace gaze
