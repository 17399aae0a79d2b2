#include <algorithm>
#include <cmath>

#include "travel/course.hpp"
#include "travel/find_way.hpp"
#include "travel/footing.hpp"
#include "travel/modes.hpp"
#include "travel/neighbours.hpp"
#include "travel/ring.hpp"
#include "travel/steer.hpp"
#include "travel/turn.hpp"
#include "travel/walk.hpp"

namespace gaze {
namespace {

using Wish = FacingWish;

Vector3d middle_of(const Travelling& state, std::uint32_t who) {
  return state.bodies.position[who] + Vector3d{0.0, 0.0, state.kind(who).height / 2.0};
}

Vector3d level_part(const Vector3d& way) {
  return {way.x(), way.y(), 0.0};
}

Wish look_at(const Focus& focus) {
  return {focus.place + Vector3d{0.0, 0.0, focus.height / 2.0}, std::nullopt};
}

// Where two meet if one keeps its course and the other runs straight to that place. That is at the
// least time t with |way + velocity t| = speed t, and no more than some seconds ahead.
std::optional<Vector2d> meeting(const Vector2d& way, const Vector2d& velocity, double speed) {
  constexpr double kFarthest = 5.0;  // seconds
  const double a = dot(velocity, velocity) - speed * speed;
  const double b = dot(way, velocity);
  const double c = dot(way, way);
  double time = -1.0;
  if (a == 0.0) {
    time = b < 0.0 ? -c / (2.0 * b) : -1.0;
  } else {
    const double root2 = b * b - a * c;
    if (root2 < 0.0) return std::nullopt;
    // Of two times that are still to come the earlier one counts. Who is faster has only one.
    const double root = std::sqrt(root2);
    const auto [early, late] = std::minmax({(-b - root) / a, (-b + root) / a});
    time = early > 0.0 ? early : late;
  }
  if (!(time > 0.0 && time <= kFarthest)) return std::nullopt;
  return Vector2d(way + velocity * time);
}

// A body that hovers goes to above or below its target, and stays at its own height.
Vector3d goal_at(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  if (!state.flies_freely(who)) return place;
  return {place.x(), place.y(), state.bodies.post[who].z()};
}

// If it is nearer than the distance to keep by more than a tenth, it backs off. If it is farther
// away, it comes nearer.
Wish hold_distance(Travelling& state, std::uint32_t who, const Focus& focus) {
  constexpr double kSlack = 0.1;
  const Move& move = *state.kind(who).move;
  const Vector3d& feet = state.bodies.position[who];
  const double distance = level_distance(state.plane(), feet, focus.place);
  if (distance >= move.keep_away * (1.0 - kSlack) || distance == 0.0) {
    const double stop = state.stop_before(who, *focus.agent, move.keep_away);
    const Leg leg{goal_at(state, who, focus.place), stop, move.speed};
    find_way(state, who, share_ring(state, who, *focus.agent, leg), kMomentsPerTick, true);
    return look_at(focus);
  }
  Vector3d away = (feet - focus.place) / distance;
  away.z() = 0.0;
  if (state.plane() == Plane::upright) away.y() = 0.0;
  const Vector3d goal = feet + away * (move.keep_away - distance);
  find_way(state, who, {goal, 0.0, move.speed}, kMomentsPerTick, true);
  return look_at(focus);
}

// To where it meets its target, if it can be there; else to where that is.
Leg chase_leg(Travelling& state, std::uint32_t who, const Focus& focus) {
  const Move& move = *state.kind(who).move;
  Leg leg{goal_at(state, who, focus.place), 0.0, move.speed};
  if (!focus.agent) return leg;
  leg.stop = state.chase_stop(who, *focus.agent);
  const Vector3d way = focus.place - state.bodies.position[who];
  const bool is_there =
      level_distance(state.plane(), state.bodies.position[who], focus.place) <= leg.stop;
  if (move.chase != ChaseStyle::ahead || is_there) return leg;
  const auto ahead = meeting({way.x(), way.y()}, state.ways.pace[*focus.agent], move.speed);
  if (!ahead) return leg;
  const Vector3d there = state.bodies.position[who] + Vector3d{ahead->x(), ahead->y(), way.z()};
  return standing_place(state, who, there) ? Leg{there, 0.0, move.speed} : leg;
}

Wish chase(Travelling& state, std::uint32_t who) {
  const auto focus = focus_of(state, who);
  if (!focus) return {};
  if (focus->agent && state.kind(who).move->keep_away > 0.0) {
    return hold_distance(state, who, *focus);
  }
  Leg leg = chase_leg(state, who, *focus);
  if (focus->agent) leg = share_ring(state, who, *focus->agent, leg);
  find_way(state, who, leg, kMomentsPerTick, focus->agent.has_value());
  if (focus->agent) hop_in_place(state, who, focus->place.z());
  return look_at(*focus);
}

// Where it looks while it waits at a point of its patrol; nothing once it goes on.
std::optional<Wish> wait_at_stop(Travelling& state, std::uint32_t who, Moment& budget) {
  Course& course = state.ways.course[who];
  if (course.wait_until < 0) return std::nullopt;
  const Agent& agent = state.agent(who);
  if (course.wait_until > state.now()) {
    const auto& look = agent.stops[course.next].look;
    if (!look) return Wish{std::nullopt, state.bodies.facing[who]};
    const SineCosine way = sine_cosine(*look);
    return Wish{std::nullopt, Vector2d{way.cosine, way.sine}};
  }
  budget = std::min(budget, state.now() - course.wait_until);
  course.wait_until = -1;
  advance_course(course, agent.patrol.size(), agent.patrol_style == PatrolStyle::to_and_fro);
  return std::nullopt;
}

Wish patrol(Travelling& state, std::uint32_t who) {
  const Agent& agent = state.agent(who);
  if (agent.patrol.empty()) return {std::nullopt, state.bodies.rest_facing[who]};
  Course& course = state.ways.course[who];
  Moment budget = kMomentsPerTick;
  std::size_t idle_arrivals = 0;
  while (idle_arrivals < agent.patrol.size()) {
    if (const auto waits = wait_at_stop(state, who, budget)) return *waits;
    if (budget == 0) break;
    bool stuck = false;
    const LegResult result = walk_watched(state, who, agent.patrol[course.next], budget, stuck);
    if (!result.arrived && !stuck) break;
    idle_arrivals = result.used == 0 ? idle_arrivals + 1 : 0;
    budget -= result.used;
    const Duration wait = agent.stops.empty() ? Duration{} : agent.stops[course.next].wait;
    if (wait.nanoseconds > 0 && result.arrived) {
      course.wait_until = state.now() - budget + state.moments(wait);
    } else {
      advance_course(course, agent.patrol.size(), agent.patrol_style == PatrolStyle::to_and_fro);
    }
  }
  return {std::nullopt,
          plan_part(state.plane(), agent.patrol[course.next] - state.bodies.position[who])};
}

Wish go_home(Travelling& state, std::uint32_t who) {
  bool stuck = false;
  const bool is_fixed = !travels(state.kind(who).move->gait);
  const Vector2d way = plan_part(state.plane(), state.ways.home[who] - state.bodies.position[who]);
  const bool is_home =
      is_fixed || walk_watched(state, who, state.ways.home[who], kMomentsPerTick, stuck).arrived;
  if (!is_home) return {std::nullopt, way};
  state.told.modes.push_back({who, state.fixed.idle[who]});
  go_on_as_before(state.ways, who);
  return {std::nullopt, state.bodies.rest_facing[who]};
}

Wish stand(const Travelling& state, std::uint32_t who) {
  if (const auto focus = focus_of(state, who)) return look_at(*focus);
  return {std::nullopt, state.bodies.rest_facing[who]};
}

// In the air it goes on looking at what it chases, or else where it flies.
Wish leap_on(const Travelling& state, std::uint32_t who) {
  const auto focus = focus_of(state, who);
  if (focus && state.minds.mode[who] == Mode::chase) return look_at(*focus);
  const Arc& arc = state.ways.leap[who]->arc;
  return {std::nullopt, plan_part(state.plane(), level_part(arc.to - arc.from))};
}

Wish follow_mind(Travelling& state, std::uint32_t who) {
  switch (state.minds.mode[who]) {
    case Mode::chase:
      return chase(state, who);
    case Mode::patrol:
      return patrol(state, who);
    case Mode::investigate:
      return investigate(state, who);
    case Mode::search:
      return search(state, who);
    case Mode::return_:
      return go_home(state, who);
    case Mode::wander:
      return wander(state, who);
    case Mode::follow:
      return follow(state, who);
    case Mode::flee:
      return flee(state, who);
    case Mode::mirror:
      return mirror(state, who);
    default:
      return stand(state, who);
  }
}

// Returns the target of a beam of the agent that has locked on.
std::optional<std::uint32_t> locked_on(const Travelling& state, std::uint32_t who) {
  const std::vector<Locked>& all = state.told.locked;
  const auto one =
      std::find_if(all.begin(), all.end(), [&](const Locked& l) { return l.who == who; });
  if (one == all.end() || !state.lives.alive[one->target]) return std::nullopt;
  return one->target;
}

// Where a kind looks that has a rule of its own for that, whatever the mode would have it look at.
Wish faced(const Travelling& state, std::uint32_t who, const Vector3d& before, const Wish& wish) {
  if (const auto target = locked_on(state, who)) return {middle_of(state, *target), std::nullopt};
  switch (state.kind(who).move->face) {
    case Face::travel: {
      const Vector2d way = plan_part(state.plane(), state.bodies.position[who] - before);
      return dot(way, way) > 0.0 ? Wish{std::nullopt, way} : wish;
    }
    case Face::always_target: {
      const auto focus = focus_of(state, who);
      return focus && focus->agent ? look_at(*focus) : wish;
    }
    case Face::keep:
      return {std::nullopt, state.bodies.rest_facing[who]};
    default:
      return wish;
  }
}

void turn(Travelling& state, std::uint32_t who, const Wish& wish) {
  if (wish.look_along && *wish.look_along == state.bodies.facing[who]) return;
  Vector2d wanted{0.0, 0.0};
  if (wish.look_along) wanted = *wish.look_along;
  if (wish.look_at) wanted = plan_part(state.plane(), *wish.look_at - middle_of(state, who));
  const Kind& kind = state.kind(who);
  if (kind.move->gait == Gait::fixed) return turn_turret(state, who, wanted);
  state.bodies.facing[who] =
      state.plane() == Plane::upright
          ? flip_toward(state.bodies.facing[who], wanted)
          : turn_toward(state.bodies.facing[who], wanted, state.limit(who).turn);
}

// A scripted walker looks where it goes.
Wish along_script(Travelling& state, std::uint32_t who) {
  const std::vector<ScriptStep>& script = state.agent(who).script;
  const Course& course = state.ways.course[who];
  const Trigger* trigger = state.bodies.trigger[who];
  if (trigger != nullptr && trigger->aim) return {trigger->aim, std::nullopt};
  if (course.next >= script.size() || script[course.next].what != ScriptStep::What::go) {
    const Vector2d* facing = state.ways.script_facing[who];
    return {std::nullopt, facing != nullptr ? std::optional(*facing) : std::nullopt};
  }
  state.ways.script_facing.reset(who);
  return {std::nullopt,
          plan_part(state.plane(), script[course.next].place - state.bodies.position[who])};
}

// One that the host drives turns to what it aims at.
Wish aimed(const Travelling& state, std::uint32_t who) {
  const Trigger* trigger = state.bodies.trigger[who];
  return {trigger != nullptr ? trigger->aim : std::nullopt, std::nullopt};
}

// True for an agent that goes before all minds.
bool is_moved(const Travelling& state, std::uint32_t who) {
  return state.minds.mode[who] == Mode::script || is_steered(state, who);
}

// True if an agent goes by a script, a track or a host, or is pushed by blows.
bool is_somebody_driven(const Travelling& state) {
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    const Vector3d& pushed = state.ways.pushed[who];
    if (is_moved(state, who) || pushed.x() != 0.0 || pushed.y() != 0.0) return true;
  }
  return false;
}

// Tags that have changed decide what bodies can pass; solids that have changed decide which ways
// there are.
void take_changes(Travelling& state) {
  for (const std::uint32_t who : state.told.changed_tags) change_body(state, who);
  state.told.changed_tags.clear();
  for (const std::uint32_t solid : state.told.changed_solids) mend_routes(state, solid);
  state.told.changed_solids.clear();
}

// One noise for each stride, and no more than one a step.
void make_step_noise(Travelling& state, std::uint32_t who) {
  const Move& move = *state.kind(who).move;
  if (move.step_reach == 0.0 && move.quiet_reach == 0.0) return;
  const Vector3d way = state.bodies.position[who] - state.bodies.previous[who];
  const double walked = level_length(way);
  if (walked == 0.0 || is_in_the_air(state, who)) return;
  state.ways.stride_left[who] -= walked;
  if (state.ways.stride_left[who] > 0.0) return;
  state.ways.stride_left[who] +=
      move.stride * std::ceil(-state.ways.stride_left[who] / move.stride + 1e-12);
  const double reach = state.ways.quiet[who] ? move.quiet_reach : move.step_reach;
  state.make_noise(state.bodies.position[who], reach, state.fixed.links.step, who);
}

}  // namespace

// Agents that are driven go first. Then minds travel, and all of them go by where the driven ones
// are now. So a chaser needs no extra step to learn where its target went, whatever the order in
// the file.
void travel(Travelling& state) {
  state.told.deeds.clear();
  forget_ended_leaps(state);
  forget_ring_places(state);
  change_courses(state);
  take_changes(state);
  find_footing(state);
  if (is_somebody_driven(state)) look_for_neighbours(state);
  move_pushed(state);
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who) || !is_moved(state, who)) continue;
    state.bodies.trigger.reset(who);
    if (is_steered(state, who)) {
      go_as_steered(state, who);
    } else if (state.fixed.driver[who] == Driver::track) {
      follow_track(state, who);
    } else {
      if (state.ways.is_leaping(who)) fly_on(state, who);
      if (!state.ways.is_leaping(who)) follow_script(state, who);
    }
    note_move(state, who);
  }
  search_asked(state);
  look_for_neighbours(state);
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who)) continue;
    if (state.fixed.driver[who] == Driver::mind) {
      const Vector3d before = state.bodies.position[who];
      if (state.ways.is_leaping(who)) fly_on(state, who);
      const Wish wish = state.ways.is_leaping(who) ? leap_on(state, who) : follow_mind(state, who);
      climb(state, who);
      state.bodies.has_come[who] = state.ways.course[who].next != 0;
      turn(state, who, faced(state, who, before, wish));
    }
    if (!state.ways.is_leaping(who) && !state.ways.has_settled[who]) settle(state, who);
    if (is_steered(state, who)) {
      turn(state, who, steered_facing(state, who));
    } else if (state.fixed.driver[who] == Driver::track) {
      face_along_track(state, who);
    } else if (state.minds.mode[who] == Mode::script) {
      turn(state, who, along_script(state, who));
    } else if (state.fixed.driver[who] == Driver::host) {
      turn(state, who, aimed(state, who));
    }
    note_move(state, who);
    turn_head(state, who);
    make_step_noise(state, who);
  }
  note_pace(state);
}

void place_things(Travelling& state) {
  Bodies& bodies = state.bodies;
  for (const Placed& placed : state.told.placed) {
    bodies.position[placed.who] = placed.feet;
    if (!placed.is_released) continue;
    bodies.previous[placed.who] = placed.feet;
    bodies.is_airborne[placed.who] = 1;
    state.ways.velocity[placed.who] = {0.0, 0.0, 0.0};
  }
  state.told.placed.clear();
  for (const std::uint32_t thing : state.fixed.things) {
    if (state.lives.presence[thing] != Presence::carried) continue;
    const std::uint32_t carrier = state.lives.carrier[thing];
    const Vector3d hand = hand_of(state, carrier, bodies.position[carrier]);
    bodies.position[thing] = bodies.previous[thing] = hand;
  }
}

void remember_poses(Travelling& state) {
  Bodies& bodies = state.bodies;
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    bodies.last_move[who] = bodies.position[who] - bodies.previous[who];
  }
  bodies.previous = bodies.position;
  bodies.previous_head = bodies.head;
}

}  // namespace gaze
