#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "travel/find_way.hpp"
#include "travel/modes.hpp"
#include "travel/neighbours.hpp"

/// Fleeing, and never through the pursuer.
namespace gaze {
namespace {

/// The centre of the circle in which an agent flees.
Vector3d flees_about(const Travelling& state, std::uint32_t who) {
  const bool is_here = state.kind(who).move->flee_from == FleeFrom::here;
  return is_here ? state.bodies.position[who] : state.bodies.post[who];
}

Vector3d level_direction(const Travelling& state, const Vector3d& from, const Vector3d& to) {
  Vector2d way{to.x() - from.x(), state.plane() == Plane::upright ? 0.0 : to.y() - from.y()};
  const double length = length_of(way);
  way = length > 0.0 ? Vector2d(way / length) : Vector2d{1.0, 0.0};
  return {way.x(), way.y(), 0.0};
}

Vector3d far_side(const Travelling& state, std::uint32_t who, const Focus& focus) {
  const Vector3d middle = flees_about(state, who);
  return middle + level_direction(state, focus.place, middle) * state.kind(who).move->flee_distance;
}

// Horizontal distance between a position and a straight line.
double distance_to_line(const Travelling& state, const Vector3d& from, const Vector3d& to,
                        const Vector3d& place) {
  const auto level = [&](const Vector3d& v) {
    return Vector2d{v.x(), state.plane() == Plane::upright ? 0.0 : v.y()};
  };
  return distance_to_segment(level(from), level(to), level(place));
}

// Returns whether the straight line from the agent to a position comes nearer to the pursuer than
// half of their present distance.
bool leads_past(const Travelling& state, std::uint32_t who, const Vector3d& to,
                const Vector3d& pursuer) {
  const Vector3d& own = state.bodies.position[who];
  const double near = level_distance(state.plane(), own, pursuer) / 2.0;
  return distance_to_line(state, own, to, pursuer) < near;
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

// The position on the circle, or half as far out, that the pursuer cannot see and the agent reaches
// soonest. The agent keeps it while it is hidden, and searches at most twice a second.
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
  const Vector3d middle = flees_about(state, who);
  double best = std::numeric_limits<double>::infinity();
  for (int i = 0; i < 2 * kDirections; ++i) {
    const double radius = state.kind(who).move->flee_distance * (i < kDirections ? 1.0 : 0.5);
    const SineCosine way = sine_cosine(Angle::from_degrees(i % kDirections * 360.0 / kDirections));
    const double y = state.plane() == Plane::upright ? 0.0 : way.sine * radius;
    const auto feet = standing_place(state, who, middle + Vector3d{way.cosine * radius, y, 0.0});
    if (!feet || !is_hidden(state, who, focus, *feet)) continue;
    if (leads_past(state, who, *feet, focus.place)) continue;
    const double lead =
        state.apart(who, state.bodies.position[who], *feet) - state.apart(who, focus.place, *feet);
    if (lead >= best) continue;
    best = lead;
    state.ways.wander_goal[who] = *feet;
  }
  return state.ways.wander_goal[who];
}

// A free position straight away from the pursuer, or as nearly so as possible. Nothing if the agent
// is cornered. The side that it faces comes first.
std::optional<Vector3d> away_from(Travelling& state, std::uint32_t who, const Vector3d& pursuer) {
  constexpr std::array kTurns{0.0, 20.0, 40.0, 60.0, 85.0};  // degrees, to either side
  const Vector3d& feet = state.bodies.position[who];
  const Vector3d away = level_direction(state, pursuer, feet);
  const Vector2d straight{away.x(), away.y()};
  const double side = cross(straight, state.bodies.facing[who]) >= 0.0 ? 1.0 : -1.0;
  const double second = state.kind(who).move->speed;
  for (const double length : {second, second / 4.0}) {
    for (const double degrees : kTurns) {
      for (const double turn : {side * degrees, -side * degrees}) {
        const Vector2d way = turned(straight, sine_cosine(Angle::from_degrees(turn)));
        const double y = state.plane() == Plane::upright ? 0.0 : way.y();
        const Vector3d there = feet + Vector3d{way.x(), y, 0.0} * length;
        if (can_go(state, who, there)) return there;
      }
    }
  }
  return std::nullopt;
}

// A route round a solid may lead past the pursuer although the straight line does not.
bool route_leads_past(const Travelling& state, std::uint32_t who, const Vector3d& pursuer) {
  const Route& route = state.ways.route[who];
  const double near = level_distance(state.plane(), state.bodies.position[who], pursuer) / 2.0;
  Vector3d at = state.bodies.position[who];
  for (std::size_t i = route.next; route.is_made && i < route.points.size(); ++i) {
    if (distance_to_line(state, at, route.points[i], pursuer) < near) return true;
    at = route.points[i];
  }
  return false;
}

}  // namespace

FacingWish flee(Travelling& state, std::uint32_t who) {
  const auto focus = focus_of(state, who);
  if (!focus || !travels(state.kind(who).move->gait)) {
    return {std::nullopt, state.bodies.facing[who]};
  }
  const Move& move = *state.kind(who).move;
  const Vector3d before = state.bodies.position[who];
  Leg leg{far_side(state, who, *focus), 0.0, move.speed};
  if (move.flee_to == FleeStyle::out_of_sight)
    leg.goal = hiding_place(state, who, *focus, leg.goal);
  bool is_past = leads_past(state, who, leg.goal, focus->place);
  if (!is_past) {
    keep_route(state, who, leg, true);
    is_past = route_leads_past(state, who, focus->place);
  }
  if (is_past) {
    const auto away = away_from(state, who, focus->place);
    if (!away) return {std::nullopt, state.bodies.facing[who]};
    leg.goal = *away;
    lead_straight(state.ways.route[who], *away, *away);
  }
  walk_route(state, who, leg, kMomentsPerTick, true);
  return look_along(state, who, before);
}

}  // namespace gaze
