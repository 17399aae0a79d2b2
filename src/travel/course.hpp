#pragma once

#include "travel/travelling.hpp"

/// How far an agent has come in its list of places or in its script.
namespace gaze {

/// True when an agent has not come nearer to its goal for a second. Begins anew for each new goal.
[[nodiscard]] bool is_stuck(Course& course, double distance, Moment now, Moment patience);
/// How long an agent may gain nothing: a second, and for what hops the time of a whole hop more.
[[nodiscard]] Moment patience(const Everyone& all, std::uint32_t who);

/// Moves on to the next place of a list, round or to and fro.
void advance_course(Course& course, std::size_t places, bool to_and_fro);
/// Goes back to the place of the list that it came from, and goes on from there in that direction.
void turn_course(Course& course, std::size_t places, bool to_and_fro);

/// Takes up the idle mode where it was left: a patrol goes on to the point to which it was going.
void go_on_as_before(Ways& ways, std::uint32_t who);
/// Carries out what minds have decided about where they go.
void change_courses(Travelling& state);

/// Follows an agent's script for one step.
void follow_script(Travelling& state, std::uint32_t who);
/// Does what a track or a host has it do: the names are those of the level.
void do_deed(Travelling& state, std::uint32_t who, const TrackDeed& deed);

/// Puts an agent where its track has it now, and does what that says. Where it looks is put by the
/// second.
void follow_track(Travelling& state, std::uint32_t who);
void face_along_track(Travelling& state, std::uint32_t who);

/// What scripts and tracks have somebody do at once. Traces tell of it.
void wish_by_hand(Travelling& state, const HandWish& wish);
void make_noise_by_will(Travelling& state, std::uint32_t who, const NoiseName& name, double reach,
                        const Vector3d& feet);

}  // namespace gaze
