#include <algorithm>
#include <cmath>

#include "simulation/state.hpp"

namespace gaze {
namespace {

/// Gaps and turns that searches may look at in one step, about a third of a millisecond. What is
/// asked beyond that waits for the next step, first come, first served.
constexpr std::int64_t kSearchBudget = 2'000;

bool uses_paths(const Simulation::State& state, std::uint32_t who) {
  const Move& move = state.kind(who).move;
  return move.gait != Gait::fixed && move.route == RouteStyle::path && !state.level->solids.empty();
}

bool sweeps_free(const Simulation::State& state, std::uint32_t who, const Vector3d& goal) {
  const Kind& kind = state.kind(who);
  const double step = kind.move.step_height;
  const Cylinder body{state.position[who] + Vector3d{0.0, 0.0, step}, kind.radius,
                      kind.height - step};
  return !state.world.sweep(body, goal - state.position[who], Stops::bodies);
}

const NavigationMesh& mesh_for(Simulation::State& state, std::uint32_t who) {
  std::optional<NavigationMesh>& mesh = state.meshes[state.mesh_of_kind[state.kind_index[who]]];
  if (!mesh) mesh.emplace(*state.level, state.world, body_size(state.kind(who)));
  return *mesh;
}

bool is_free(Simulation::State& state, std::uint32_t who, const Vector3d& goal) {
  const auto& mesh = state.meshes[state.mesh_of_kind[state.kind_index[who]]];
  if (!mesh && !state.has_relief) return sweeps_free(state, who, goal);
  Route& route = state.route[who];
  const NavigationMesh& own = mesh_for(state, who);
  const auto from = own.find(state.position[who], route.own_face);
  const auto to = own.find(goal, route.goal_face);
  if (!from || !to) return false;
  route.own_face = from->polygon;
  route.goal_face = to->polygon;
  return own.is_free(*from, *to);
}

// A goal off the mesh is replaced by the place nearest to it that can be reached.
void search(Simulation::State& state, std::uint32_t who, const Vector3d& goal) {
  Route& route = state.route[who];
  route.points.assign({goal});
  route.next = 0;
  route.goal = goal;
  route.is_made = true;
  route.outcome = Path::Outcome::whole;
  route.progress = {std::numeric_limits<double>::infinity(), state.now(), false};
  if (is_free(state, who, goal)) return;
  const NavigationMesh& mesh = mesh_for(state, who);
  const Path& path = state.finder.find(mesh, state.position[who], goal);
  state.searches_left -= static_cast<std::int64_t>(state.finder.looked_at()) + 1;
  route.outcome = path.outcome;
  if (path.outcome == Path::Outcome::bad_start) return;  // straight, for what it is worth
  if (path.outcome != Path::Outcome::bad_goal) {
    route.points.assign(path.points.begin() + (path.points.empty() ? 0 : 1), path.points.end());
    return;
  }
  route.points.clear();
  const auto start = mesh.find(state.position[who]);
  const auto nearest = mesh.nearest(goal, mesh.island_of(*start));
  if (!nearest) return;
  const Path& way = state.finder.find(mesh, state.position[who], nearest->place);
  if (way.points.size() > 1) route.points.assign(way.points.begin() + 1, way.points.end());
}

void ask(Simulation::State& state, std::uint32_t who, const Vector3d& goal) {
  Route& route = state.route[who];
  if (route.is_asked) {
    route.asked_goal = goal;
  } else if (state.searches_left > 0) {
    search(state, who, goal);
  } else {
    route.is_asked = true;
    route.asked_goal = goal;
    state.asked.push_back(who);
  }
}

double left_of(const Simulation::State& state, std::uint32_t who) {
  const Route& route = state.route[who];
  double length = 0.0;
  Vector3d at = state.position[who];
  for (std::size_t i = route.next; i < route.points.size(); ++i) {
    length += level_distance(state.plane(), at, route.points[i]);
    at = route.points[i];
  }
  return length;
}

// A new search when the goal is another, has moved too far, or nothing has been gained for long.
void keep_route(Simulation::State& state, std::uint32_t who, const Leg& leg, bool is_agent) {
  Route& route = state.route[who];
  const Move& move = state.kind(who).move;
  if (!route.is_made) return ask(state, who, leg.goal);
  if (route.goal != leg.goal) {
    const bool is_last = route.next + 1 >= route.points.size();
    const double moved = plane_distance(Plane::space, route.goal, leg.goal);
    if (!is_agent) return ask(state, who, leg.goal);
    if (is_last && route.outcome == Path::Outcome::whole && is_free(state, who, leg.goal)) {
      route.points.assign({leg.goal});
      route.next = 0;
      route.goal = leg.goal;
    } else if (moved > move.repath_distance) {
      return ask(state, who, leg.goal);
    }
  }
  if (route.was_pushed && route.next < route.points.size()) {
    route.was_pushed = false;
    if (!is_free(state, who, route.points[route.next])) return ask(state, who, leg.goal);
  }
  const double left = left_of(state, who);
  if (left < route.progress.best - 0.01) {
    route.progress = {left, state.now(), false};
  } else if (state.now() - route.progress.since >=
             moments_of(move.stuck_time, state.level->ticks_per_second)) {
    ask(state, who, leg.goal);
  }
}

bool stands_still(const Simulation::State& state, std::uint32_t who) {
  const Path::Outcome outcome = state.route[who].outcome;
  const bool is_whole = outcome == Path::Outcome::whole || outcome == Path::Outcome::bad_start;
  return !is_whole && state.kind(who).move.no_path != NoPath::nearest;
}

}  // namespace

LegResult find_way(Simulation::State& state, std::uint32_t who, const Leg& leg, Moment budget,
                   bool is_agent) {
  if (!uses_paths(state, who)) return walk_apart(state, who, leg, budget);
  if (level_distance(state.plane(), state.position[who], leg.goal) <= leg.stop &&
      is_free(state, who, leg.goal)) {
    return {state.position[who], 0, true};
  }
  keep_route(state, who, leg, is_agent);
  Route& route = state.route[who];
  if (!route.is_made) return walk_apart(state, who, leg, budget);
  if (stands_still(state, who)) return {state.position[who], budget, false};
  Moment used = 0;
  while (used < budget && route.next < route.points.size()) {
    const bool is_last = route.next + 1 == route.points.size();
    const bool is_whole = route.outcome == Path::Outcome::whole;
    const double stop = is_last && is_whole ? leg.stop : 0.0;
    const LegResult result =
        walk_apart(state, who, {route.points[route.next], stop, leg.speed}, budget - used);
    used += result.used;
    if (!result.arrived) return {result.feet, budget, false};
    if (is_last) return {result.feet, used, is_whole && route.goal == leg.goal};
    ++route.next;
  }
  return {state.position[who], budget, false};
}

bool can_stand(Simulation::State& state, std::uint32_t who, const Vector3d& place) {
  return state.level->solids.empty() || mesh_for(state, who).find(place).has_value();
}

bool can_go(Simulation::State& state, std::uint32_t who, const Vector3d& place) {
  return state.level->solids.empty() || is_free(state, who, place);
}

double way_left(const Simulation::State& state, std::uint32_t who, const Vector3d& goal) {
  const Route& route = state.route[who];
  if (uses_paths(state, who) && route.is_made && route.goal == goal) return left_of(state, who);
  return level_distance(state.plane(), state.position[who], goal);
}

void search_asked(Simulation::State& state) {
  state.searches_left = kSearchBudget;
  std::size_t done = 0;
  for (; done < state.asked.size() && state.searches_left > 0; ++done) {
    const std::uint32_t who = state.asked[done];
    state.route[who].is_asked = false;
    if (state.is_up(who)) search(state, who, state.route[who].asked_goal);
  }
  state.asked.erase(state.asked.begin(), state.asked.begin() + static_cast<std::ptrdiff_t>(done));
}

void set_up_routes(Simulation::State& state) {
  state.route.resize(state.level->agents.size());
  std::vector<BodySize> sizes;
  for (const Kind& kind : state.level->kinds) {
    const BodySize size = body_size(kind);
    const auto it = std::find(sizes.begin(), sizes.end(), size);
    state.mesh_of_kind.push_back(static_cast<std::uint32_t>(it - sizes.begin()));
    if (it == sizes.end()) sizes.push_back(size);
  }
  state.meshes.resize(sizes.size());
  constexpr std::size_t kUsualTurns = 48;
  for (Route& route : state.route) route.points.reserve(kUsualTurns);
  state.asked.reserve(state.route.size());
}

}  // namespace gaze
