#pragma once

#include <span>

#include "travel/travelling.hpp"

/// Ways to places: straight where that is free, else by a path that is searched anew only for a
/// reason.
namespace gaze {

/// Goes towards a goal by the shortest way. `is_agent`: the goal moves, and it stops before it.
LegResult find_way(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                   bool is_agent);
/// Searches for those who wait, up to the budget of a step.
void search_asked(Travelling& state);

/// True if there is anything in a level that a way may have to lead round.
[[nodiscard]] bool has_ways(const Level& level);
/// True if it goes by paths, and there is something to lead them round.
[[nodiscard]] bool uses_paths(const Everyone& all, std::uint32_t who);

/// The mesh that it goes by; made when first needed.
[[nodiscard]] const NavigationMesh& mesh_for(Travelling& state, std::uint32_t who);
/// Where its feet are at a place, if its body fits there.
[[nodiscard]] std::optional<Vector3d> standing_place(Travelling& state, std::uint32_t who,
                                                     const Vector3d& place);
/// True if it can go straight to a place.
[[nodiscard]] bool can_go(Travelling& state, std::uint32_t who, const Vector3d& place);
/// The height of what carries its feet at a place straight on from where it is; roughly as high as
/// the place given.
[[nodiscard]] double landing_height(Travelling& state, std::uint32_t who, const Vector3d& place);
/// Metres, level, that are left to a goal: along the way if it follows one.
[[nodiscard]] double way_left(const Everyone& all, const Ways& ways, std::uint32_t who,
                              const Vector3d& goal);

/// Those whom its way leads round, where they stand. Valid until it is asked again.
[[nodiscard]] std::span<const Cylinder> avoided_by(Travelling& state, std::uint32_t who);
/// Lets its way lead round those who hold it up and stand, the oldest forgotten first.
void avoid(Travelling& state, std::uint32_t who);
/// Forgets those who have gone. @return True if there are any.
bool forget_avoided(Travelling& state, std::uint32_t who);
/// True if one of them bars its straight way to a goal.
[[nodiscard]] bool stand_in_the_way(Travelling& state, std::uint32_t who, const Vector3d& goal);

}  // namespace gaze
