#pragma once

#include <span>

#include "travel/travelling.hpp"

/// How agents find ways to places: straight where that is free, else along a path, which is
/// searched anew only if there is a reason.
namespace gaze {

/// Goes towards a goal by the shortest way. If the goal `is_agent`, it moves, and the walker stops
/// before it.
LegResult find_way(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                   bool is_agent);
/// Makes a straight route. Nothing blocks it.
void lead_straight(Route& route, const Vector3d& end, const Vector3d& goal);
/// The two halves of `find_way`, for an agent that looks at its route before it goes: the first
/// brings the route up to date, the second walks along it.
void keep_route(Travelling& state, std::uint32_t who, const Leg& leg, bool is_agent);
LegResult walk_route(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                     bool is_agent);
/// Searches the ways of those who wait for one, up to the budget of a step.
void search_asked(Travelling& state);

/// True if a level holds anything that a way may have to lead round.
[[nodiscard]] bool has_ways(const Level& level);
/// True if an agent goes by paths, and there is something for them to lead round.
[[nodiscard]] bool uses_paths(const Everyone& all, std::uint32_t who);

/// The mesh by which an agent goes. It is made when it is first needed.
[[nodiscard]] const NavigationMesh& mesh_for(Travelling& state, std::uint32_t who);
/// Where the feet of an agent are at a place, if its body fits there.
[[nodiscard]] std::optional<Vector3d> standing_place(Travelling& state, std::uint32_t who,
                                                     const Vector3d& place);
/// True if an agent can go straight to a place.
[[nodiscard]] bool can_go(Travelling& state, std::uint32_t who, const Vector3d& place);
/// How high the ground is that would carry an agent at a place straight ahead of it. The height of
/// the place that is given is only roughly right.
[[nodiscard]] double landing_height(Travelling& state, std::uint32_t who, const Vector3d& place);
/// How far it is to a goal, in metres, level: along the way, if the agent follows one.
[[nodiscard]] double way_left(const Everyone& all, const Ways& ways, std::uint32_t who,
                              const Vector3d& goal);

/// The bodies round which the way of an agent leads, where they stand. Valid until this is asked
/// again.
[[nodiscard]] std::span<const Cylinder> avoided_by(Travelling& state, std::uint32_t who);
/// From now on the way of an agent leads round those who hold it up by standing there. If there are
/// too many, the oldest are forgotten first.
void avoid(Travelling& state, std::uint32_t who);
/// Forgets those who have gone away. @return True if there are any.
bool forget_avoided(Travelling& state, std::uint32_t who);
/// True if one of them bars the straight way of an agent to a goal.
[[nodiscard]] bool stand_in_the_way(Travelling& state, std::uint32_t who, const Vector3d& goal);

}  // namespace gaze
