#include <cmath>

#include "simulation/state.hpp"
#include "travel/turn.hpp"
#include "travel/walk.hpp"

namespace gaze {
namespace {

using Wish = FacingWish;

Vector3d middle_of(const Simulation::State& state, std::uint32_t who) {
  return state.position[who] + Vector3d{0.0, 0.0, state.kind(who).height / 2.0};
}

Wish look_at(const Focus& focus) {
  return {focus.place + Vector3d{0.0, 0.0, focus.height / 2.0}, std::nullopt};
}

Wish chase(Simulation::State& state, std::uint32_t who) {
  auto focus = focus_of(state, who);
  if (!focus) return {};
  Leg leg{focus->place, 0.0, state.kind(who).move.speed};
  if (focus->agent) {
    leg.stop = stop_distance(state.kind(who), state.kind(*focus->agent));
  }
  find_way(state, who, leg, kMomentsPerTick, focus->agent.has_value());
  return look_at(*focus);
}

Wish patrol(Simulation::State& state, std::uint32_t who) {
  const Agent& agent = state.agent(who);
  if (agent.patrol.empty()) return {std::nullopt, state.placed_facing[who]};
  Course& course = state.course[who];
  Moment budget = kMomentsPerTick;
  std::size_t idle_arrivals = 0;
  while (budget > 0 && idle_arrivals < agent.patrol.size()) {
    bool stuck = false;
    const LegResult result = walk_watched(state, who, agent.patrol[course.next], budget, stuck);
    if (!result.arrived && !stuck) break;
    idle_arrivals = result.used == 0 ? idle_arrivals + 1 : 0;
    budget -= result.used;
    advance_course(course, agent.patrol.size(), agent.patrol_style == PatrolStyle::to_and_fro);
  }
  return {std::nullopt, plan_part(state.plane(), agent.patrol[course.next] - state.position[who])};
}

Wish go_home(Simulation::State& state, std::uint32_t who) {
  bool stuck = false;
  const bool is_fixed = state.kind(who).move.gait == Gait::fixed;
  const Vector2d way = plan_part(state.plane(), state.home[who] - state.position[who]);
  const bool is_home =
      is_fixed || walk_watched(state, who, state.home[who], kMomentsPerTick, stuck).arrived;
  if (!is_home) return {std::nullopt, way};
  state.change_mode(who, state.idle[who]);
  state.course[who].is_new = true;
  return {std::nullopt, state.placed_facing[who]};
}

Wish stand(const Simulation::State& state, std::uint32_t who) {
  if (const auto focus = focus_of(state, who)) return look_at(*focus);
  return {std::nullopt, state.placed_facing[who]};
}

Wish follow_mind(Simulation::State& state, std::uint32_t who) {
  switch (state.mode[who]) {
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
    default:
      return stand(state, who);
  }
}

void turn(Simulation::State& state, std::uint32_t who, const Wish& wish) {
  if (wish.look_along && *wish.look_along == state.facing[who]) return;
  Vector2d wanted{0.0, 0.0};
  if (wish.look_along) wanted = *wish.look_along;
  if (wish.look_at) wanted = plan_part(state.plane(), *wish.look_at - middle_of(state, who));
  const Kind& kind = state.kind(who);
  const bool flips = state.plane() == Plane::upright && kind.move.gait != Gait::fixed;
  state.facing[who] = flips ? flip_toward(state.facing[who], wanted)
                            : turn_toward(state.facing[who], wanted, state.limit(who).turn);
}

// A scripted walker looks where it goes.
Wish along_script(Simulation::State& state, std::uint32_t who) {
  const std::vector<ScriptStep>& script = state.agent(who).script;
  const Course& course = state.course[who];
  if (course.next >= script.size() || script[course.next].what != ScriptStep::What::go) {
    return {std::nullopt, state.script_facing[who]};
  }
  state.script_facing[who].reset();
  return {std::nullopt, plan_part(state.plane(), script[course.next].place - state.position[who])};
}

}  // namespace

LegResult walk_leg(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget) {
  const Kind& kind = state.kind(who);
  const WalkingBody body{state.position[who], kind.radius, kind.height, kind.move.step_height};
  Leg possible = leg;
  if (kind.move.gait == Gait::fixed || state.is_airborne[who]) possible.speed = 0.0;
  const LegResult result = walk(state.world, body, possible, budget, state.level->ticks_per_second);
  state.position[who] = result.feet;
  return result;
}

// One noise for each stride, and no more than one a step.
void make_step_noise(Simulation::State& state, std::uint32_t who) {
  const Move& move = state.kind(who).move;
  if (move.step_reach == 0.0 && move.quiet_reach == 0.0) return;
  const Vector3d way = state.position[who] - state.previous[who];
  const double walked = std::sqrt(way.x() * way.x() + way.y() * way.y());
  if (walked == 0.0) return;
  state.stride_left[who] -= walked;
  if (state.stride_left[who] > 0.0) return;
  state.stride_left[who] += move.stride * std::ceil(-state.stride_left[who] / move.stride + 1e-12);
  const double reach = state.quiet[who] ? move.quiet_reach : move.step_reach;
  state.make_noise(state.position[who], reach, "step", who);
}

// Drivers go first and minds travel by where that leaves everybody, all by the same picture: who
// chases needs no extra step to learn where its target went, whatever the order in the file.
void travel(Simulation::State& state) {
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (state.is_up(who) && state.mode[who] == Mode::script) follow_script(state, who);
  }
  state.seen_position = state.position;
  search_asked(state);
  look_for_neighbours(state);
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who)) continue;
    if (state.driver[who] == Driver::mind) turn(state, who, follow_mind(state, who));
    settle(state, who);
    if (state.mode[who] == Mode::script) turn(state, who, along_script(state, who));
    turn_head(state, who);
    make_step_noise(state, who);
  }
  note_pace(state);
}

}  // namespace gaze
