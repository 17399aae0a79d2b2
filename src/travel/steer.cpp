#include "travel/steer.hpp"

#include <algorithm>
#include <cmath>

#include "travel/course.hpp"
#include "travel/footing.hpp"
#include "travel/neighbours.hpp"

namespace gaze {
namespace {

// Metres a second, level; in upright levels x and z.
Vector3d wished_velocity(const Travelling& state, std::uint32_t who) {
  const Vector2d& way = state.ways.steering[who]->way;
  const double speed = state.kind(who).move->speed / std::max(1.0, length_of(way));
  if (state.plane() != Plane::upright) return {way.x() * speed, way.y() * speed, 0.0};
  return {way.x() * speed, 0.0, state.flies_freely(who) ? way.y() * speed : 0.0};
}

void pull_trigger(Travelling& state, std::uint32_t who) {
  const Steering& steering = *state.ways.steering[who];
  Trigger& trigger = state.bodies.trigger.get(who);
  trigger.aim = steering.aim;
  trigger.is_plan = steering.is_plan_aim;
  trigger.fires = steering.fires;
}

void walk_on(Travelling& state, std::uint32_t who) {
  const Steering& steering = *state.ways.steering[who];
  if (state.ways.is_leaping(who)) fly_on(state, who);
  const bool is_in_the_air = state.ways.is_leaping(who) || state.bodies.is_airborne[who] != 0;
  if (is_in_the_air || !travels(state.kind(who).move->gait)) return;
  const Vector3d velocity = wished_velocity(state, who);
  if (steering.hops && hop_off(state, who, velocity, kMomentsPerTick)) return;
  const double speed = length_of(velocity);
  if (speed == 0.0) return;
  // A goal that is farther off than it gets in a step.
  const Vector3d goal = state.bodies.position[who] + velocity;
  static_cast<void>(walk_leg(state, who, {goal, 0.0, speed}, kMomentsPerTick));
}

}  // namespace

void go_as_steered(Travelling& state, std::uint32_t who) {
  Steering& steering = *state.ways.steering[who];
  pull_trigger(state, who);
  state.ways.quiet[who] = steering.is_quiet ? 1 : 0;
  walk_on(state, who);
  // From where it has got to, as on a track.
  for (const TrackDeed& deed : steering.deeds) do_deed(state, who, deed);
  steering.deeds.clear();
}

FacingWish steered_facing(const Travelling& state, std::uint32_t who) {
  const Steering& steering = *state.ways.steering[who];
  if (steering.aim) return {steering.aim, std::nullopt};
  if (steering.way.x() == 0.0 && steering.way.y() == 0.0) return {};
  return {std::nullopt, steering.way};
}

}  // namespace gaze
