#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan_grid.hpp"
#include "geometry/polygon.hpp"
#include "travel/find_way.hpp"
#include "travel/modes.hpp"
#include "travel/neighbours.hpp"

namespace gaze {
namespace {

/// Metres. How far from its place an agent wanders that has no area of its own.
constexpr double kWanderRadius = 5.0;

/// Share of the distance to keep by which a friend may get ahead before it is followed.
constexpr double kFollowSlack = 0.25;

FacingWish along(const Travelling& state, std::uint32_t who, const Vector3d& before) {
  const Vector2d way = plan_part(state.plane(), state.bodies.position[who] - before);
  if (dot(way, way) == 0.0) return {std::nullopt, state.bodies.facing[who]};
  return {std::nullopt, way};
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
    if ((is_inside || (is_upright && area == nullptr)) && standing_place(state, who, place))
      return place;
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
  return along(state, who, before);
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
  const double speed = move.speed;
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

Vector3d far_side(const Travelling& state, std::uint32_t who, const Focus& focus) {
  const Vector3d& post = state.bodies.post[who];
  Vector2d away{post.x() - focus.place.x(),
                state.plane() == Plane::upright ? 0.0 : post.y() - focus.place.y()};
  const double length = length_of(away);
  away = length > 0.0 ? Vector2d(away / length) : Vector2d{1.0, 0.0};
  return post + Vector3d{away.x(), away.y(), 0.0} * state.kind(who).move->flee_distance;
}

bool is_hidden(const Travelling& state, std::uint32_t who, const Focus& from,
               const Vector3d& feet) {
  const Vector3d eye = from.place + Vector3d{0.0, 0.0, kEyeShare * from.height};
  const Kind& own = state.kind(who);
  return std::none_of(own.body_points.begin(), own.body_points.end(), [&](double share) {
    const Segment line{eye, feet + Vector3d{0.0, 0.0, share * own.height}};
    return state.world.is_clear(line, Stops::sight);
  });
}

// Of the places in its circle that cannot be seen, the one that the agent reaches soonest. It keeps
// to a place as long as that serves, and looks for another one at most every half second.
Vector3d hiding_place(Travelling& state, std::uint32_t who, const Focus& focus,
                      const Vector3d& otherwise) {
  constexpr int kDirections = 24;
  Course& course = state.ways.course[who];
  const bool keeps = !course.is_new && is_hidden(state, who, focus, state.ways.wander_goal[who]);
  if (keeps || course.wait_until > state.now()) return state.ways.wander_goal[who];
  const Moment half_second = kMomentsPerTick * state.level().ticks_per_second / 2;
  course.is_new = false;
  course.wait_until = state.now() + half_second;
  state.ways.wander_goal[who] = otherwise;
  double best = std::numeric_limits<double>::infinity();
  for (int i = 0; i < 2 * kDirections; ++i) {
    const double radius = state.kind(who).move->flee_distance * (i < kDirections ? 1.0 : 0.5);
    const SineCosine way = sine_cosine(Angle::from_degrees(i % kDirections * 360.0 / kDirections));
    const double y = state.plane() == Plane::upright ? 0.0 : way.sine * radius;
    const Vector3d there = state.bodies.post[who] + Vector3d{way.cosine * radius, y, 0.0};
    const auto feet = standing_place(state, who, there);
    if (!feet || !is_hidden(state, who, focus, *feet)) continue;
    const double lead =
        state.apart(who, state.bodies.position[who], *feet) - state.apart(who, focus.place, *feet);
    if (lead >= best) continue;
    best = lead;
    state.ways.wander_goal[who] = *feet;
  }
  return state.ways.wander_goal[who];
}

}  // namespace

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
  const double from =
      course.backwards ? move.follow_distance : move.follow_distance * (1.0 + kFollowSlack);
  const double left = way_left(state, state.ways, who, state.bodies.seen_position[*leader]);
  const double away = plane_distance(state.plane(), state.bodies.position[who],
                                     state.bodies.seen_position[*leader]);
  course.backwards = std::max(away, left) > from;  // it is on its way
  if (course.backwards) {
    const Leg leg{state.bodies.seen_position[*leader], move.follow_distance, move.speed};
    course.backwards = !find_way(state, who, leg, kMomentsPerTick, true).arrived;
  }
  if (state.bodies.position[who] != before) return along(state, who, before);
  const Vector3d middle{0.0, 0.0, state.kind(*leader).height / 2.0};
  return {Vector3d(state.bodies.seen_position[*leader] + middle), std::nullopt};
}

FacingWish flee(Travelling& state, std::uint32_t who) {
  const auto focus = focus_of(state, who);
  if (!focus) return {std::nullopt, state.bodies.facing[who]};
  const Move& move = *state.kind(who).move;
  Vector3d goal = far_side(state, who, *focus);
  if (move.flee_to == FleeStyle::out_of_sight) goal = hiding_place(state, who, *focus, goal);
  const Vector3d before = state.bodies.position[who];
  find_way(state, who, {goal, 0.0, move.speed}, kMomentsPerTick, true);
  return along(state, who, before);
}

}  // namespace gaze
