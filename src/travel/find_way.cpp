#include <algorithm>
#include <cmath>

#include "geometry/plan_grid.hpp"
#include "navigation/body_size.hpp"
#include "travel/find_way.hpp"
#include "travel/footing.hpp"
#include "travel/neighbours.hpp"

namespace gaze {
namespace {

/// Gaps and turns that searches may look at in one step, about a third of a millisecond. Searches
/// beyond that wait for the next step, and are served in the order in which they came.
constexpr std::int64_t kSearchBudget = 2'000;

/// Where on its mesh a walker is, and where its goal is, if they are on it at all.
struct Ends {
  std::optional<MeshPlace> own;
  std::optional<MeshPlace> goal;
};

// A goal that is off the mesh by no more than the radius of the body merely stands nearer to a wall
// than the body can. The place on the mesh next to it will do.
Ends ends_of(Travelling& state, std::uint32_t who, const Vector3d& goal) {
  Route& route = state.ways.route[who];
  const NavigationMesh& mesh = mesh_for(state, who);
  Ends ends{mesh.find(state.bodies.position[who], route.own_face),
            mesh.find(goal, route.goal_face)};
  if (ends.own) route.own_face = ends.own->polygon;
  if (ends.own && !ends.goal) {
    const auto nearest = state.ways.finder.nearest_reachable(mesh, *ends.own, goal, &state.world);
    const double radius = state.kind(who).radius;
    const bool is_beside = nearest && plane_distance(Plane::space, nearest->place, goal) <= radius;
    if (is_beside) ends.goal = nearest;
  }
  if (ends.goal) route.goal_face = ends.goal->polygon;
  return ends;
}

// A mesh ends up to `kRoundingSlack` before a solid, and its corners lie on a lattice. At a goal
// that is off the mesh by no more than that, the body stands free. So the path ends at the goal.
Vector3d end_of_way(const Travelling& state, std::uint32_t who, const Vector3d& on_mesh,
                    const Vector3d& goal) {
  constexpr double kShort = NavigationMesh::kRoundingSlack + 0.001;  // metres
  return state.apart(who, on_mesh, goal) <= kShort ? goal : on_mesh;
}

/// The end of the straight way to a goal, if that is free.
std::optional<Vector3d> straight_end(Travelling& state, std::uint32_t who, const Vector3d& goal) {
  if (!uses_paths(state, who)) return goal;
  const Ends ends = ends_of(state, who, goal);
  if (!ends.own || !ends.goal || !mesh_for(state, who).is_free(*ends.own, *ends.goal)) {
    return std::nullopt;
  }
  if (stand_in_the_way(state, who, goal)) return std::nullopt;
  return end_of_way(state, who, ends.goal->place, goal);
}

bool is_free(Travelling& state, std::uint32_t who, const Vector3d& goal) {
  return straight_end(state, who, goal).has_value();
}

// The points of the way without its start, so that the leg to a point has the number of the point.
void follow_points(Route& route, const Path& path) {
  route.points.assign(path.points.begin() + (path.points.empty() ? 0 : 1), path.points.end());
  route.links = path.links;
  for (Path::Leg& leg : route.links) --leg.to_point;
}

const Path::Leg* link_ahead(const Route& route) {
  const bool is_next =
      route.next_link < route.links.size() && route.links[route.next_link].to_point == route.next;
  return is_next ? &route.links[route.next_link] : nullptr;
}

/// Begins a new way, which leads straight for now. A goal that the body cannot get near is replaced
/// by the nearest place that it can reach.
/// @return Where a search for it has to lead; nothing if none is needed or nothing can be found.
std::optional<Vector3d> begin_route(Travelling& state, std::uint32_t who, const Vector3d& goal) {
  Route& route = state.ways.route[who];
  route.next = 0;
  route.links.clear();
  route.next_link = 0;
  route.goal = goal;
  route.is_made = true;
  route.outcome = Path::Outcome::whole;
  route.progress = {std::numeric_limits<double>::infinity(), state.now(), false};
  const auto end = straight_end(state, who, goal);
  route.points.assign({end.value_or(goal)});
  if (end) return std::nullopt;
  const Ends ends = ends_of(state, who, goal);
  if (!ends.own) {
    route.outcome = Path::Outcome::bad_start;  // straight, for what it is worth
    return std::nullopt;
  }
  if (ends.goal) return ends.goal->place;
  route.outcome = Path::Outcome::bad_goal;
  const auto nearest =
      state.ways.finder.nearest_reachable(mesh_for(state, who), *ends.own, goal, &state.world);
  return nearest ? std::optional(nearest->place) : std::nullopt;
}

void follow_path(Travelling& state, std::uint32_t who, const Path& path) {
  Route& route = state.ways.route[who];
  if (route.outcome != Path::Outcome::bad_goal) route.outcome = path.outcome;
  follow_points(route, path);
  if (path.outcome == Path::Outcome::whole && !route.points.empty()) {
    route.points.back() = end_of_way(state, who, route.points.back(), route.goal);
  }
}

void note_search(Travelling& state) {
  state.ways.searches_left -= static_cast<std::int64_t>(state.ways.finder.looked_at()) + 1;
}

void search(Travelling& state, std::uint32_t who, const Vector3d& goal) {
  const auto to = begin_route(state, who, goal);
  if (!to) return;
  const NavigationMesh& mesh = mesh_for(state, who);
  const Vector3d& from = state.bodies.position[who];
  const Path* path = &state.ways.finder.find(mesh, from, *to, &state.world, avoided_by(state, who));
  note_search(state);
  // If no way leads round those who stand there, the agent waits behind them.
  if (path->outcome == Path::Outcome::none && state.ways.leads_round[who] != nullptr) {
    path = &state.ways.finder.find(mesh, from, *to, &state.world);
    note_search(state);
  }
  follow_path(state, who, *path);
}

bool is_about(const Travelling& state, std::uint32_t who) {
  return state.is_up(who) && !state.ways.is_leaping(who);
}

// Several agents share a search: those that wait for a way to the same place over the same mesh,
// and that are near to the first of them compared with the length of the way.
void search_together(Travelling& state, std::size_t first) {
  constexpr std::size_t kMostTogether = 64;
  constexpr double kNear = 0.04;  // of the straight way
  const std::uint32_t leader = state.ways.asked[first];
  const Vector3d goal = *state.ways.asked_goal[leader];
  const Vector3d start = state.bodies.position[leader];
  const double near = kNear * plane_distance(Plane::space, start, goal);
  std::optional<Vector3d> common;
  state.ways.together.clear();
  state.ways.starts.clear();
  for (std::size_t i = first; i < state.ways.asked.size(); ++i) {
    const std::uint32_t who = state.ways.asked[i];
    const Vector3d* asked_goal = state.ways.asked_goal[who];
    const bool is_alike = asked_goal != nullptr && *asked_goal == goal &&
                          state.ways.mesh_of[who] == state.ways.mesh_of[leader] &&
                          plane_distance(Plane::space, state.bodies.position[who], start) <= near &&
                          is_about(state, who);
    if (!is_alike || state.ways.together.size() == kMostTogether) continue;
    state.ways.asked_goal.reset(who);
    const auto to = begin_route(state, who, goal);
    if (!to) continue;
    if (!common) common = to;
    if (*to != *common || state.ways.leads_round[who] != nullptr) {
      search(state, who, goal);
      continue;
    }
    state.ways.together.push_back(who);
    state.ways.starts.push_back(state.bodies.position[who]);
  }
  if (state.ways.together.empty()) return;
  state.ways.finder.find_all(mesh_for(state, leader), state.ways.starts, *common, &state.world,
                             [&state](std::size_t i, const Path& path) {
                               follow_path(state, state.ways.together[i], path);
                             });
  note_search(state);
}

// An agent that has a way already goes on by it until the next step. Then the searches of all who
// want to go to the same place are done together.
void ask(Travelling& state, std::uint32_t who, const Vector3d& goal, bool can_wait = false) {
  if (Vector3d* asked = state.ways.asked_goal[who]) {
    *asked = goal;
  } else if (state.ways.searches_left > 0 && !can_wait) {
    search(state, who, goal);
  } else {
    state.ways.asked_goal.set(who, goal);
    state.ways.asked.push_back(who);
  }
}

double left_of(const Everyone& state, const Ways& ways, std::uint32_t who) {
  const Route& route = ways.route[who];
  double length = 0.0;
  Vector3d at = state.bodies.position[who];
  for (std::size_t i = route.next; i < route.points.size(); ++i) {
    length += state.apart(who, at, route.points[i]);
    at = route.points[i];
  }
  return length;
}

// An agent that has been pushed past a turn goes on to the next turn, and not back.
void skip_points(Travelling& state, std::uint32_t who) {
  Route& route = state.ways.route[who];
  while (route.next + 1 < route.points.size() && link_ahead(route) == nullptr) {
    ++route.next;
    if (link_ahead(route) != nullptr || !is_free(state, who, route.points[route.next])) {
      --route.next;
      return;
    }
  }
}

}  // namespace

// A new search is needed if the goal is another one or has moved too far, or if nothing has been
// gained for long.
void keep_route(Travelling& state, std::uint32_t who, const Leg& leg, bool is_agent) {
  Route& route = state.ways.route[who];
  const Move& move = *state.kind(who).move;
  if (!route.is_made) return ask(state, who, leg.goal);
  if (forget_avoided(state, who)) return ask(state, who, leg.goal);
  if (route.goal != leg.goal) {
    if (!is_agent) return ask(state, who, leg.goal);
    const bool is_last = route.next + 1 >= route.points.size();
    const auto end = is_last ? straight_end(state, who, leg.goal) : std::nullopt;
    if (end) {
      lead_straight(route, *end, leg.goal);
    } else if (plane_distance(Plane::space, route.goal, leg.goal) > move.repath_distance) {
      return ask(state, who, leg.goal, true);
    }
  }
  if (route.was_pushed && route.next < route.points.size()) {
    route.was_pushed = false;
    skip_points(state, who);
    if (!is_free(state, who, route.points[route.next])) return ask(state, who, leg.goal);
  }
  const double left = left_of(state, state.ways, who);
  const bool sets_out = !state.ways.is_on_way[who];
  if (sets_out || left < route.progress.best - 0.01) {
    route.progress = {left, state.now(), false};
  } else if (state.now() - route.progress.since >= state.moments(move.stuck_time)) {
    if (state.plane() != Plane::upright) avoid(state, who);
    ask(state, who, leg.goal);
  }
}

namespace {

bool has_no_way(const Travelling& state, std::uint32_t who) {
  const Path::Outcome outcome = state.ways.route[who].outcome;
  return outcome != Path::Outcome::whole && outcome != Path::Outcome::bad_start;
}

// Where on a straight way an agent first comes within its stop distance of the goal. The goal may
// lie beside the end of the way.
Vector3d stop_on_way(const Travelling& state, std::uint32_t who, const Vector3d& to,
                     const Leg& leg) {
  const Vector3d& from = state.bodies.position[who];
  const auto in_plan = [&](const Vector3d& way) {
    if (state.flies_freely(who)) return Vector2d{way.x(), way.z()};
    return Vector2d{way.x(), state.plane() == Plane::upright ? 0.0 : way.y()};
  };
  const Vector2d along = in_plan(to - from);
  const Vector2d off = in_plan(from - leg.goal);
  const double a = dot(along, along);
  const double b = dot(off, along);
  const double c = dot(off, off) - leg.stop * leg.stop;
  const double root2 = b * b - a * c;
  if (a == 0.0 || root2 < 0.0) return to;
  const double share = c <= 0.0 ? 0.0 : (-b - std::sqrt(root2)) / a;
  return share >= 0.0 && share < 1.0 ? Vector3d(from + (to - from) * share) : to;
}

// One leg of the route; the last leg ends at the stop distance.
Leg next_leg(const Travelling& state, std::uint32_t who, const Leg& leg) {
  const Route& route = state.ways.route[who];
  const Vector3d& to = route.points[route.next];
  const bool is_last = route.next + 1 == route.points.size();
  if (!is_last || leg.stop == 0.0) return {to, 0.0, leg.speed};
  if (to == leg.goal) return {to, leg.stop, leg.speed};
  return {stop_on_way(state, who, to, leg), 0.0, leg.speed};
}

void give_up(Travelling& state, std::uint32_t who) {
  if (state.minds.mode[who] == state.fixed.idle[who] || state.minds.mode[who] == Mode::return_)
    return;
  state.told.modes.push_back({who, Mode::return_});
  state.ways.course[who] = {};
  state.ways.route[who].is_made = false;
}

}  // namespace

LegResult find_way(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                   bool is_agent) {
  const LegResult stands{state.bodies.position[who], budget, false};
  if (!travels(state.kind(who).move->gait)) return stands;
  if (state.apart(who, state.bodies.position[who], leg.goal) <= leg.stop &&
      is_free(state, who, leg.goal)) {
    return {state.bodies.position[who], 0, true};
  }
  if (state.left_after_rest(who, budget) == 0) return stands;
  keep_route(state, who, leg, is_agent);
  return walk_route(state, who, leg, budget, is_agent);
}

LegResult walk_route(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget,
                     bool is_agent) {
  const LegResult stands{state.bodies.position[who], budget, false};
  Route& route = state.ways.route[who];
  if (!route.is_made) return walk_apart(state, who, leg, budget, is_agent);
  const NoPath no_path = state.kind(who).move->no_path;
  if (has_no_way(state, who) && no_path != NoPath::nearest) {
    if (no_path == NoPath::give_up) give_up(state, who);
    return stands;
  }
  Moment used = 0;
  while (used < budget && route.next < route.points.size()) {
    const bool is_last = route.next + 1 == route.points.size();
    if (const Path::Leg* link = link_ahead(route)) {
      const Moment start = state.now() - state.left_after_rest(who, budget - used);
      ++route.next;
      ++route.next_link;
      const std::vector<MeshLink>& links = mesh_for(state, who).links();
      if (link->link >= links.size()) {  // a crafted save can contain such an index
        route.is_made = false;
        return stands;
      }
      take_link(state, who, links[link->link], start);
      if (state.ways.is_leaping(who)) return {state.bodies.position[who], budget, false};
      used = std::max(used, budget - state.left_after_rest(who, budget));
      continue;
    }
    const Leg next = next_leg(state, who, leg);
    const LegResult result = walk_apart(state, who, next, budget - used, is_agent);
    used += result.used;
    if (!result.arrived) return {result.feet, budget, false};
    if (is_last) return {result.feet, used, next.goal == leg.goal};
    ++route.next;
  }
  return {state.bodies.position[who], budget, false};
}

void lead_straight(Route& route, const Vector3d& end, const Vector3d& goal) {
  route.points.assign({end});
  route.links.clear();
  route.next = 0;
  route.next_link = 0;
  route.goal = goal;
  route.is_made = true;
  route.outcome = Path::Outcome::whole;
  route.was_pushed = false;  // that way has just been found free
}

double way_left(const Everyone& all, const Ways& ways, std::uint32_t who, const Vector3d& goal) {
  const Route& route = ways.route[who];
  if (route.is_made && route.goal == goal) return left_of(all, ways, who);
  return all.apart(who, all.bodies.position[who], goal);
}

void search_asked(Travelling& state) {
  state.ways.searches_left = kSearchBudget;
  for (std::size_t i = 0; i < state.ways.asked.size() && state.ways.searches_left > 0; ++i) {
    const std::uint32_t who = state.ways.asked[i];
    if (!state.ways.is_asked(who)) continue;  // it has shared the search of another
    if (is_about(state, who)) search_together(state, i);
    state.ways.asked_goal.reset(who);
  }
  std::erase_if(state.ways.asked, [&](std::uint32_t who) { return !state.ways.is_asked(who); });
}

}  // namespace gaze
