#include <algorithm>
#include <cmath>

#include "travel/course.hpp"
#include "travel/find_way.hpp"
#include "travel/modes.hpp"
#include "travel/neighbours.hpp"

namespace gaze {
namespace {

constexpr double kLookRoundDegPerSecond = 90.0;
constexpr std::uint32_t kSearchPlaces = 6;

// In levels seen from the side walkers cannot turn in the plan. They look the other way each
// second.
FacingWish look_round(const Travelling& state, std::uint32_t who) {
  const int rate = state.level().ticks_per_second;
  const bool flips = state.plane() == Plane::upright && state.kind(who).move->gait != Gait::fixed;
  if (flips) {
    const bool is_due = state.clock.tick % rate == 0;
    return {std::nullopt, is_due ? Vector2d(-state.bodies.facing[who]) : state.bodies.facing[who]};
  }
  return {std::nullopt, turned(state.bodies.facing[who],
                               sine_cosine(Angle::from_degrees(kLookRoundDegPerSecond / rate)))};
}

// Done once, when an agent has come to the place or as near to it as it can. From here on it
// remembers what it came for.
void arrive(Travelling& state, std::uint32_t who, const Vector3d& place) {
  state.tell(Event::What::arrived, who).place = place;
  state.fire(who, Cause::arrives);
  state.told.arrivals.push_back(who);
}

// An agent that is fixed, or cannot leave the place where it is, has arrived at once.
bool come_to(Travelling& state, std::uint32_t who, const Vector3d& place) {
  if (!travels(state.kind(who).move->gait)) return true;
  bool stuck = false;
  const LegResult result = walk_watched(state, who, place, kMomentsPerTick, stuck);
  return result.arrived || stuck;
}

// It searches round the place, and looks first in the direction in which the one it has lost was
// going.
Vector3d search_place(const Travelling& state, std::uint32_t who, const Focus& focus,
                      std::uint32_t number) {
  const double radius = state.kind(who).move->search_radius;
  if (state.plane() == Plane::upright) {
    const double first = focus.motion.x() < 0.0 ? -1.0 : 1.0;
    const double side = number % 2 == 1 ? first : -first;
    return focus.place + Vector3d{side * radius, 0.0, 0.0};
  }
  Vector2d ahead{focus.motion.x(), focus.motion.y()};
  const double length = length_of(ahead);
  ahead = length > 0.0 ? Vector2d(ahead / length) : Vector2d{1.0, 0.0};
  const Angle turn = Angle::from_degrees(360.0 / kSearchPlaces * (number - 1));
  const Vector2d way = turned(ahead, sine_cosine(turn)) * radius;
  return focus.place + Vector3d{way.x(), way.y(), 0.0};
}

Vector2d way_to(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  return plan_part(state.plane(), place - state.bodies.position[who]);
}

}  // namespace

/// Walks to a goal and tells once if it cannot be reached. @return The result of the leg.
LegResult walk_watched(Travelling& state, std::uint32_t who, const Vector3d& goal, Moment budget,
                       bool& stuck) {
  Course& course = state.ways.course[who];
  LegResult result = find_way(state, who, {goal, 0.0, state.speed_now(who)}, budget, false);
  // If somebody stands on the place, touching them counts as having come there.
  result.arrived = result.arrived || is_taken_by_one_beside(state, who, goal);
  const double left = way_left(state, state.ways, who, goal);
  if (course.is_new) {
    course.progress = {left, state.now() - budget, false};
    course.is_new = state.ways.is_asked(who);  // the way is not known yet
  }
  stuck = !result.arrived && is_stuck(course, left, state.now(), patience(state, who));
  if (stuck && !course.progress.told) {
    course.progress.told = true;
    state.tell(Event::What::blocked, who).place = goal;
  }
  return result;
}

FacingWish investigate(Travelling& state, std::uint32_t who) {
  Course& course = state.ways.course[who];
  const auto focus = focus_of(state, who);
  if (!focus || course.next > 0) return look_round(state, who);
  if (come_to(state, who, focus->place)) {
    arrive(state, who, focus->place);
    course.next = 1;
  }
  return {std::nullopt, way_to(state, who, focus->place)};
}

FacingWish search(Travelling& state, std::uint32_t who) {
  Course& course = state.ways.course[who];
  const auto focus = focus_of(state, who);
  if (!focus) return look_round(state, who);
  const bool is_first = course.next == 0;
  const Vector3d place = is_first ? focus->place : search_place(state, who, *focus, course.next);
  if (come_to(state, who, place)) {
    if (is_first) arrive(state, who, place);
    course.next = course.next % kSearchPlaces + 1;
    course.is_new = true;
  }
  if (!travels(state.kind(who).move->gait)) return look_round(state, who);
  return {std::nullopt, way_to(state, who, place)};
}

}  // namespace gaze
