#include "gaze/going.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "explain/explaining.hpp"
#include "level/numbers.hpp"
#include "travel/find_way.hpp"
#include "travel/travelling.hpp"

namespace gaze {
namespace {

double seconds(const Explaining& state, Moment moments) {
  return static_cast<double>(moments) / 1e9 / state.level().ticks_per_second;
}

std::string leap_text(const Explaining& state, std::uint32_t who) {
  const Leap& leap = *state.ways.leap[who];
  const std::string_view what = leap.what == Leap::What::hop    ? "in a hop"
                                : leap.what == Leap::What::drop ? "dropping"
                                                                : "on a link";
  return fmt::format("{} to {}, there in {:.2f} s", what, place_text(state.plane(), leap.arc.to),
                     seconds(state, leap.end - state.now()));
}

// What keeps an agent from going anywhere, whatever it wants.
std::string held_by(const Explaining& state, std::uint32_t who) {
  const Gait gait = state.kind(who).move->gait;
  if (!state.lives.alive[who]) return "it is defeated";
  if (!state.minds.awake[who]) return "it is asleep until something wakes it";
  if (state.fixed.driver[who] == Driver::host) return "the host drives it";
  if (state.fixed.driver[who] == Driver::track) return "it follows its track";
  if (gait == Gait::fixed) return "it is fixed";
  if (state.ways.is_leaping(who)) return leap_text(state, who);
  if (gait == Gait::drop) {
    if (state.ways.hangs[who]) return "it hangs until it has a reason to drop";
    return state.bodies.is_airborne[who] ? "it is dropping" : "it lies where it landed";
  }
  if (state.bodies.is_airborne[who]) return "it is falling";
  return "";
}

std::string no_way_text(const Explaining& state, std::uint32_t who) {
  const Route& route = state.ways.route[who];
  const std::string what =
      route.outcome == Path::Outcome::bad_goal
          ? fmt::format("{} is where it cannot stand", place_text(state.plane(), route.goal))
          : fmt::format("no way leads to {} ({})", place_text(state.plane(), route.goal),
                        name_of(route.outcome));
  if (state.kind(who).move->no_path == NoPath::nearest) {
    return what + ": it is as near as it gets";
  }
  return what + ", and it waits until there is one";
}

// Returns why an agent stands behind a full ring; empty if it does not.
std::string stands_behind_ring(const Explaining& state, std::uint32_t who, double stop) {
  const RingPlace* place = state.ways.ring_place[who];
  if (place == nullptr) return {};
  const double away = level_distance(state.plane(), state.bodies.position[who],
                                     state.bodies.position[place->centre]);
  if (length_of(place->offset) <= stop + 1e-6 || away <= stop + 1e-6) return {};
  return fmt::format("it is {:.2f} m from {}: the ring at {:.2f} m has no room for its body", away,
                     state.agent(place->centre).id, stop);
}

// Why a follower stands.
std::string follows_from(const Explaining& state, std::uint32_t who) {
  const auto leader = followed(state, who);
  if (!leader) return "nobody whom it follows is there";
  const Route& route = state.ways.route[who];
  if (route.is_made && route.outcome != Path::Outcome::whole) return no_way_text(state, who);
  const double stop = state.stop_before(who, *leader, state.kind(who).move->follow_distance);
  if (std::string text = stands_behind_ring(state, who, stop); !text.empty()) return text;
  const double away =
      plane_distance(state.plane(), state.bodies.position[who], state.bodies.position[*leader]);
  return fmt::format("it is {:.2f} m from {} and follows it at {:.2f} m", away,
                     state.agent(*leader).id, state.kind(who).move->follow_distance);
}

// Behind whom an agent stands in a line, and how many stand between them.
std::string stands_in_line(const Explaining& state, std::uint32_t who) {
  const InLine& line = state.ways.line[who];
  if (line.place == InLine::kNone || !state.ways.is_on_way[who]) return {};
  const std::string& head = state.agent(line.head).id;
  const double away =
      level_distance(state.plane(), state.bodies.position[who], state.bodies.position[line.head]);
  if (line.place == 1) return fmt::format("{} stands in its way, {:.2f} m off", head, away);
  return fmt::format("it stands in line behind {}, {:.2f} m off, with {} between them", head, away,
                     line.place - 1);
}

// Why an agent that is free to go does not go.
std::string stands_for(const Explaining& state, std::uint32_t who) {
  const Route& route = state.ways.route[who];
  if (state.ways.rests_until[who] > state.now()) {
    return fmt::format("it rests from its hop for {:.2f} s more",
                       seconds(state, state.ways.rests_until[who] - state.now()));
  }
  if (state.ways.is_asked(who)) {
    const auto at = std::find(state.ways.asked.begin(), state.ways.asked.end(), who);
    return fmt::format("it waits for its search of a way: {} of {} in line",
                       at - state.ways.asked.begin() + 1, state.ways.asked.size());
  }
  if (const auto target = state.target_agent(who); target && state.minds.mode[who] == Mode::chase) {
    const double stop = state.chase_stop(who, *target);
    const double away =
        level_distance(state.plane(), state.bodies.position[who], state.bodies.position[*target]);
    if (away <= stop + 1e-6) {
      return fmt::format("it is {:.2f} m from {} and stops {:.2f} m before it", away,
                         state.agent(*target).id, stop);
    }
    if (std::string text = stands_behind_ring(state, who, stop); !text.empty()) return text;
  }
  if (state.minds.mode[who] == Mode::follow) return follows_from(state, who);
  const Moment wait = state.ways.course[who].wait_until;
  if (wait > state.now())
    return fmt::format("it waits {:.2f} s more", seconds(state, wait - state.now()));
  if (state.minds.mode[who] == Mode::post) return "it is at its post";
  if (route.is_made && route.outcome != Path::Outcome::whole) return no_way_text(state, who);
  if (const std::string line = stands_in_line(state, who); !line.empty()) return line;
  if (route.is_made && route.was_pushed) return "others are in its way";
  if (!state.level().agents[who].script.empty() && state.minds.mode[who] == Mode::script) {
    return state.ways.course[who].next < state.agent(who).script.size() ? "its script has it stand"
                                                                        : "its script has ended";
  }
  if (route.is_made && route.next < route.points.size()) {
    return fmt::format("something keeps it from {}",
                       place_text(state.plane(), route.points[route.next]));
  }
  return fmt::format("nothing in mode {} makes it go", name_of(state.minds.mode[who]));
}

std::string on_its_way(const Explaining& state, std::uint32_t who, const Going& going) {
  if (!going.goal || !state.ways.route[who].is_made) return "it goes straight";
  const std::size_t turns = going.ahead.empty() ? 0 : going.ahead.size() - 1;
  const std::string way =
      fmt::format("{:.2f} m are left to {}, {}", going.left, place_text(state.plane(), *going.goal),
                  turns == 0 ? std::string("straight") : fmt::format("by {} points", turns));
  if (state.ways.route[who].outcome == Path::Outcome::whole) return way;
  return fmt::format("{}; the way is {}", way, name_of(state.ways.route[who].outcome));
}

}  // namespace

Going going(const Simulation& simulation, AgentId agent) {
  const Simulation::State& all = state_of(simulation);
  const Explaining state(all);
  const std::uint32_t who = all.index_of(agent);
  Going going;
  const Vector3d moved = state.bodies.last_move[who];
  going.speed = std::sqrt(moved.squaredNorm()) * state.level().ticks_per_second;
  going.is_moving = going.speed > 0.0;
  const Route& route = state.ways.route[who];
  const bool follows_route = route.is_made && travels(state.kind(who).move->gait) &&
                             state.minds.mode[who] != Mode::post &&
                             state.minds.mode[who] != Mode::script;
  if (follows_route) {
    going.goal = route.goal;
    going.outcome = route.outcome;
    going.left = way_left(state, state.ways, who, route.goal);
    going.ahead.assign(
        route.points.begin() + std::min<std::ptrdiff_t>(route.next, std::ssize(route.points)),
        route.points.end());
  }
  going.reason = held_by(state, who);
  if (going.reason.empty()) {
    going.reason = going.is_moving ? on_its_way(state, who, going) : stands_for(state, who);
  }
  return going;
}

}  // namespace gaze
