#pragma once

#include "travel/travelling.hpp"

/// Where somebody with a list of places or a script stands in it.
namespace gaze {

/// True once a goal has been out of reach for a second; resets itself for a new goal.
[[nodiscard]] bool is_stuck(Course& course, double distance, Moment now, Moment patience);
/// How long it may gain nothing: a second, and for what hops a whole hop more.
[[nodiscard]] Moment patience(const Everyone& all, std::uint32_t who);

/// Moves on to the next place of a list, round or to and fro.
void advance_course(Course& course, std::size_t places, bool to_and_fro);
/// Goes back to the place that it came from, and on from there that way.
void turn_course(Course& course, std::size_t places, bool to_and_fro);

/// Takes up its idle mode where it left it: a patrol goes on to the point that it was going to.
void go_on_as_before(Ways& ways, std::uint32_t who);
/// Does what minds have decided about where they go.
void change_courses(Travelling& state);

/// Follows an agent's script for one step.
void follow_script(Travelling& state, std::uint32_t who);

}  // namespace gaze
