#include <algorithm>
#include <cmath>

#include "geometry/plan_grid.hpp"
#include "geometry/polygon.hpp"
#include "travel/find_way.hpp"
#include "travel/modes.hpp"
#include "travel/neighbours.hpp"
#include "travel/ring.hpp"
#include "world/touching.hpp"

namespace gaze {
namespace {

/// Metres. How far from its place an agent wanders that has no area of its own.
constexpr double kWanderRadius = 5.0;

// Returns whether a body stands a millimetre or more from all solids. A mesh alone does not tell:
// it leads through doors and through solids that break.
bool is_free_now(const Travelling& state, std::uint32_t who, const Vector3d& feet) {
  const Kind& kind = state.kind(who);
  const double step = kind.move->gait == Gait::hover ? 0.0 : *kind.move->step_height;
  constexpr double kBeside = 0.001;  // metres: a path ends a little before a solid
  const Cylinder body{feet + Vector3d{0.0, 0.0, step}, kind.radius + kBeside, kind.height - step};
  return !state.world.overlaps(body, Stops::bodies);
}

// A place in its area where the agent can be. If none is found in some tries, it is the place where
// the agent is.
Vector3d somewhere(Travelling& state, std::uint32_t who) {
  constexpr int kTries = 24;
  const std::uint32_t number = state.links(who).area;
  const Zone* area = number == kNothing ? nullptr : &state.level().zones[number];
  const Vector3d& post = state.bodies.post[who];
  PlanBox box{{post.x() - kWanderRadius, post.y() - kWanderRadius},
              {post.x() + kWanderRadius, post.y() + kWanderRadius}};
  if (area != nullptr) box = box_around(area->outline);
  for (int i = 0; i < kTries; ++i) {
    const double x = state.chance.share(who);
    const double y = state.chance.share(who);
    const Vector2d p{box.low.x() + (box.high.x() - box.low.x()) * x,
                     box.low.y() + (box.high.y() - box.low.y()) * y};
    const bool is_upright = state.plane() == Plane::upright;
    const Vector3d place{p.x(), is_upright ? 0.0 : p.y(), post.z()};
    const bool is_inside = area == nullptr ? (p - plan_part(state.plane(), post)).squaredNorm() <=
                                                 kWanderRadius * kWanderRadius
                                           : contains(area->outline, p);
    if (!is_inside && !(is_upright && area == nullptr)) continue;
    const auto feet = standing_place(state, who, place);
    if (feet && is_free_now(state, who, *feet)) return place;
  }
  return state.bodies.position[who];
}

// Waits between two walks. @return True while it does.
bool pauses(Travelling& state, std::uint32_t who) {
  Course& course = state.ways.course[who];
  if (course.wait_until < 0) return false;
  if (state.now() < course.wait_until) return true;
  course.wait_until = -1;
  return false;
}

void start_pause(Travelling& state, std::uint32_t who) {
  state.ways.course[who].wait_until = state.now() + state.moments(state.kind(who).wander->pause);
}

FacingWish wander_free(Travelling& state, std::uint32_t who) {
  Course& course = state.ways.course[who];
  if (pauses(state, who)) return {std::nullopt, state.bodies.facing[who]};
  if (course.is_new) state.ways.wander_goal[who] = somewhere(state, who);
  const Vector3d before = state.bodies.position[who];
  bool stuck = false;
  const LegResult result =
      walk_watched(state, who, state.ways.wander_goal[who], kMomentsPerTick, stuck);
  if (result.arrived || stuck) {
    course.is_new = true;
    start_pause(state, who);
  }
  return look_along(state, who, before);
}

// Goes straight ahead. Where the next steps would meet a wall or leave a ledge it waits, and turns
// round.
FacingWish wander_to_and_fro(Travelling& state, std::uint32_t who) {
  if (pauses(state, who)) return {std::nullopt, state.bodies.facing[who]};
  const Vector2d facing = state.bodies.facing[who];
  const Vector3d ahead = state.plane() == Plane::upright
                             ? Vector3d{facing.x() < 0.0 ? -1.0 : 1.0, 0.0, 0.0}
                             : Vector3d{facing.x(), facing.y(), 0.0};
  const Move& move = *state.kind(who).move;
  const double speed = state.speed_now(who);
  const double stride =
      move.gait == Gait::hop ? *move.hop_length : speed / state.level().ticks_per_second;
  const Vector3d goal = state.bodies.position[who] + ahead * stride;
  if (can_go(state, who, goal)) {
    walk_apart(state, who, {goal, 0.0, speed}, kMomentsPerTick, true);
    return {std::nullopt, facing};
  }
  start_pause(state, who);
  state.bodies.facing[who] = -facing;
  return {std::nullopt, Vector2d(-facing)};
}

}  // namespace

FacingWish look_along(const Travelling& state, std::uint32_t who, const Vector3d& before) {
  const Vector2d way = plan_part(state.plane(), state.bodies.position[who] - before);
  if (dot(way, way) == 0.0) return {std::nullopt, state.bodies.facing[who]};
  return {std::nullopt, way};
}

FacingWish wander(Travelling& state, std::uint32_t who) {
  const auto& wander = state.kind(who).wander;
  if (!wander || !travels(state.kind(who).move->gait)) {
    return {std::nullopt, state.bodies.rest_facing[who]};
  }
  return wander->style == Wander::Style::free ? wander_free(state, who)
                                              : wander_to_and_fro(state, who);
}

std::optional<std::uint32_t> followed(const Everyone& state, std::uint32_t who) {
  const Whom& whom = state.fixed.follows[state.fixed.kind_index[who]];
  std::optional<std::uint32_t> leader;
  double nearest = 0.0;
  for (std::uint32_t other = 0; other < state.agent_count() && !whom.is_empty(); ++other) {
    if (other == who || !state.lives.alive[other] || !whom.means(state.somebody(other))) continue;
    const double distance = plane_distance(state.plane(), state.bodies.position[who],
                                           state.bodies.seen_position[other]);
    if (leader && distance >= nearest) continue;
    leader = other;
    nearest = distance;
  }
  return leader;
}

FacingWish follow(Travelling& state, std::uint32_t who) {
  const auto leader = followed(state, who);
  if (!leader) return {std::nullopt, state.bodies.rest_facing[who]};
  const Move& move = *state.kind(who).move;
  Course& course = state.ways.course[who];
  const Vector3d before = state.bodies.position[who];
  const double from = course.backwards ? move.follow_distance : *move.follow_start;
  const double left = way_left(state, state.ways, who, state.bodies.seen_position[*leader]);
  const double away = plane_distance(state.plane(), state.bodies.position[who],
                                     state.bodies.seen_position[*leader]);
  course.backwards = std::max(away, left) > from;  // it is on its way
  if (course.backwards) {
    const double stop = state.stop_before(who, *leader, move.follow_distance);
    const Leg leg{state.bodies.seen_position[*leader], stop, state.speed_now(who)};
    const Leg own = share_ring(state, who, *leader, leg);
    // One that stands in a row behind the ring moves up once there is room.
    const bool is_there = find_way(state, who, own, kMomentsPerTick, true).arrived;
    course.backwards = !is_there || own.goal != leg.goal || own.stop > leg.stop;
  }
  if (state.bodies.position[who] != before) return look_along(state, who, before);
  const Vector3d middle{0.0, 0.0, state.kind(*leader).height / 2.0};
  return {Vector3d(state.bodies.seen_position[*leader] + middle), std::nullopt};
}

}  // namespace gaze
