#include <algorithm>
#include <array>
#include <cmath>
#include <span>

#include "agents/chance.hpp"
#include "travel/footing.hpp"
#include "travel/neighbours.hpp"
#include "travel/steer.hpp"

namespace gaze {
namespace {

constexpr std::size_t kMostNeighbours = 10;

/// Share of what an agent could walk in a step. To get on by less than this is no way round those
/// in line.
constexpr double kLeastGain = 0.2;

/// Metres. Who stands so near before an agent is in its way.
constexpr double kInFront = 0.1;

// Friends give way to each other. A foe is walked up to instead; but somebody who is after one foe
// gives way to all others.
bool gives_way_to(const Travelling& state, std::uint32_t who, std::uint32_t other) {
  if (other == who || !state.are_solid(who, other)) return false;
  const double rise = state.bodies.seen_position[other].z() - state.bodies.seen_position[who].z();
  if (!state.share_a_height(who, other, rise)) return false;
  if (!state.are_foes(who, other)) return true;
  const auto target = state.target_agent(who);
  return target && *target != other;
}

/// The neighbours that count: the nearest of those that can be met in time, up to a number of them.
/// Of equally near ones it is the first in the file. They are sorted by how near they are.
class Nearest {
 public:
  double farthest2() const {
    return count_ == kMostNeighbours ? distance2_[count_ - 1] : farthest2_;
  }
  explicit Nearest(double farthest) : farthest2_(farthest * farthest) {}

  void offer(std::uint32_t other, double distance2) {
    std::size_t at = count_ < kMostNeighbours ? count_++ : count_ - 1;
    for (; at > 0; --at) {
      const bool is_before = distance2 < distance2_[at - 1] ||
                             (distance2 == distance2_[at - 1] && other < other_[at - 1]);
      if (!is_before) break;
      distance2_[at] = distance2_[at - 1];
      other_[at] = other_[at - 1];
    }
    distance2_[at] = distance2;
    other_[at] = other;
  }

  std::span<const std::uint32_t> others() const { return {other_.data(), count_}; }

 private:
  double farthest2_;
  std::size_t count_ = 0;
  std::array<double, kMostNeighbours> distance2_{};
  std::array<std::uint32_t, kMostNeighbours> other_{};
};

Neighbour neighbour_of(const Travelling& state, std::uint32_t who, std::uint32_t other) {
  const Vector3d way = state.bodies.seen_position[other] - state.bodies.seen_position[who];
  Neighbour neighbour;
  neighbour.offset = {way.x(), way.y()};
  neighbour.velocity = state.ways.pace[other];
  neighbour.gap = state.kind(who).radius + state.kind(other).radius;
  neighbour.share = state.ways.is_on_way[other] ? 0.5 : 1.0;
  return neighbour;
}

// Of two who go in much the same direction, only the one behind gives way: to what the other does,
// and to what it wants to do. So who is first at a door is let through, and they do not hold each
// other up.
void give_way_to(Travelling& state, std::uint32_t who, std::uint32_t other) {
  Neighbour neighbour = neighbour_of(state, who, other);
  const Vector2d& own = state.ways.next_wish[who];
  const Vector2d& its = state.ways.wish[other];
  if (state.ways.is_on_way[other] && dot(own, its) > 0.0) {
    if (dot(neighbour.offset, own + its) <= 0.0) return;
    neighbour.share = 1.0;
    state.ways.neighbours.push_back(neighbour);
    neighbour.velocity = its;
  }
  state.ways.neighbours.push_back(neighbour);
}

// The place in a line, as of the last step: one behind that of the agent before it who is nearest
// to the head of the line. Agents that hold each other up count on and on, until they count as
// being in no line.
InLine place_in_line(const Travelling& state, std::uint32_t who,
                     std::span<const std::uint32_t> others) {
  InLine line;
  for (const std::uint32_t other : others) {
    const Neighbour neighbour = neighbour_of(state, who, other);
    const double reach = neighbour.gap + kInFront;
    const bool is_in_front = dot(neighbour.offset, state.ways.next_wish[who]) > 0.0 &&
                             dot(neighbour.offset, neighbour.offset) < reach * reach;
    if (!is_in_front) continue;
    const InLine its = state.ways.is_on_way[other] ? state.ways.line[other] : InLine{0, other};
    if (its.place + 1 >= line.place) continue;
    line = {static_cast<std::uint8_t>(its.place + 1), its.head};
  }
  return line;
}

void find_neighbours(Travelling& state, std::uint32_t who, double speed) {
  const Vector3d& own = state.bodies.seen_position[who];
  const double radius = state.fixed.radius[who];
  const double reach =
      radius + state.fixed.widest + (speed + state.ways.fastest) * kKeepApartHorizon;
  Nearest nearest(reach);
  const auto offer = [&](std::uint32_t other, double distance2) {
    if (distance2 > nearest.farthest2()) return;
    // How fast two can come together: no faster than the fastest has just been, and this one may
    // go.
    const double most = radius + state.fixed.radius[other] +
                        (speed + state.ways.pace_length[other]) * kKeepApartHorizon;
    if (distance2 < most * most && gives_way_to(state, who, other)) {
      nearest.offer(other, distance2);
    }
  };
  state.ways.walkers.near_shrinking(
      own, [&] { return std::sqrt(nearest.farthest2()); }, offer);
  state.ways.neighbours.clear();
  for (const std::uint32_t other : nearest.others()) give_way_to(state, who, other);
  state.ways.next_line[who] = place_in_line(state, who, nearest.others());
}

// An agent that gets no farther on its route because of others tries another direction for a while.
// Each tries a direction of its own, so that no knot of bodies holds itself together.
Vector2d evasive(const Travelling& state, std::uint32_t who, const Vector2d& wanted) {
  const Moment second = kMomentsPerTick * state.level().ticks_per_second;
  if (state.now() - state.ways.route[who].progress.since < second / 2) return wanted;
  const auto window = static_cast<std::uint64_t>(2 * state.now() / second);
  const std::uint64_t draw = scrambled(scrambled(state.level().seed + who) + window * kGoldenStep);
  constexpr std::array<double, 4> kTurns{-60.0, 60.0, -120.0, 120.0};
  return turned(wanted, sine_cosine(Angle::from_degrees(kTurns[draw % kTurns.size()])));
}

// Returns whether a blocking body other than the target is within `kInFront` of an agent.
bool is_beside_another(const Travelling& state, std::uint32_t who) {
  const Vector3d& own = state.bodies.seen_position[who];
  const double reach = state.fixed.radius[who] + kInFront;
  const RingPlace* place = state.ways.ring_place[who];
  bool is_any = false;
  state.ways.walkers.near(
      own, reach + state.fixed.widest, [&](std::uint32_t other, double distance2) {
        const double most = reach + state.fixed.radius[other];
        const bool is_goal = place != nullptr && place->centre == other;
        if (other == who || is_goal || distance2 > most * most) return;
        is_any |= state.are_solid(who, other) &&
                  state.share_a_height(who, other, state.bodies.seen_position[other].z() - own.z());
      });
  return is_any;
}

// Returns whether other bodies slow an agent down, or did in the last tick. Solids do not count.
bool is_held_up(const Travelling& state, std::uint32_t who, const Vector2d& chosen) {
  constexpr double kMuchSlower = 0.5;
  const double wished = length_of(state.ways.wish[who]);
  const bool is_slow =
      chosen != state.ways.next_wish[who] || state.ways.pace_length[who] < wished * kMuchSlower;
  return is_slow && is_beside_another(state, who);
}

// As fast as it gets from the speed at which it walked in the last step, whether or not it slid
// along something: else each step along that would leave it slower for the next. Speeds are means
// over a step: from rest it comes to half of what it gains, so that after t seconds it has gone
// a t^2 / 2 at any rate.
double fastest_now(const Travelling& state, std::uint32_t who, double speed) {
  const double gain = state.kind(who).move->acceleration / state.level().ticks_per_second;
  const bool rests = state.ways.gathered[who] == 0.0 || state.bodies.last_move[who].isZero(0.0);
  return std::min(speed, rests ? gain / 2.0 : state.ways.gathered[who] + gain);
}

Vector2d at_most(const Vector2d& velocity, double most) {
  const double speed = length_of(velocity);
  return speed > most ? Vector2d(velocity * (most / speed)) : velocity;
}

/// The velocity at which it goes on: what it wants, or what giving way makes of that.
struct Choice {
  Vector2d wanted{0.0, 0.0};
  Vector2d chosen{0.0, 0.0};
  bool evades = false;  ///< It tries another direction, because it has gained nothing for long.

  bool is_as_wanted() const {
    const Vector2d change = chosen - wanted;
    return dot(change, change) <= 1e-18;  // square metres a second squared
  }
};

// The direction is chosen as if at full speed; then the agent goes as fast as it can by now. If it
// chose at that speed, each turn aside would leave it slower for the next one.
Choice choose_velocity(Travelling& state, std::uint32_t who, const Pace& pace, double fastest) {
  const Vector2d wanted = at_most(pace.wanted, fastest);
  state.ways.next_wish[who] = wanted;
  find_neighbours(state, who, pace.most);
  const double step = 1.0 / state.level().ticks_per_second;
  const Vector2d chosen =
      at_most(state.ways.keep_apart.choose(pace, state.ways.neighbours, step), fastest);
  if (is_held_up(state, who, chosen)) {
    const Vector2d another = evasive(state, who, wanted);
    if (another != wanted) return {wanted, another, true};
  }
  return {wanted, chosen, false};
}

/// Replacements for a velocity that leads off a ledge, in the order in which they are tried.
constexpr std::array kDetours{20.0, 40.0, 60.0, 90.0, 130.0};  // degrees, to either side
constexpr std::array kSlower{0.5, 0.25};                       // fractions of the speed

// Giving way never leads off a ledge. The velocity that the agent wants may.
Vector2d velocity_that_stands(const Travelling& state, std::uint32_t who, const Choice& choice,
                              double seconds) {
  const Vector3d& feet = state.bodies.position[who];
  const auto stands = [&](const Vector2d& v) {
    return has_footing(state, who, feet + Vector3d{v.x(), v.y(), 0.0} * seconds);
  };
  if (stands(choice.chosen) || !has_footing(state, who, feet)) return choice.chosen;
  const double side = cross(choice.chosen, choice.wanted) >= 0.0 ? 1.0 : -1.0;
  for (const double degrees : kDetours) {
    for (const double turn : {side * degrees, -side * degrees}) {
      const Vector2d other = turned(choice.chosen, sine_cosine(Angle::from_degrees(turn)));
      if (stands(other)) return other;
    }
  }
  for (const double share : kSlower) {
    if (stands(choice.chosen * share)) return choice.chosen * share;
  }
  return {0.0, 0.0};
}

/// @param full  The leg at full speed.
/// @param leg   The same at the speed that it has gathered.
LegResult give_way(Travelling& state, std::uint32_t who, const Leg& full, const Leg& leg,
                   Moment budget, bool queues) {
  const double seconds =
      static_cast<double>(budget) / double(kMomentsPerTick) / state.level().ticks_per_second;
  const Vector3d feet = state.bodies.position[who];
  const Vector2d way{leg.goal.x() - feet.x(), leg.goal.y() - feet.y()};
  const double distance = length_of(way);
  const double to_go = distance - leg.stop;
  if (!(to_go > 0.0) || !(seconds > 0.0)) return walk_leg(state, who, leg, budget);
  const Vector2d wanted = way * (std::min(full.speed, to_go / seconds) / distance);
  const Choice choice =
      choose_velocity(state, who, {wanted, state.ways.pace[who], full.speed}, leg.speed);
  if (choice.is_as_wanted()) return walk_leg(state, who, leg, budget);
  const Vector2d chosen = velocity_that_stands(state, who, choice, seconds);
  state.ways.gathered[who] = length_of(chosen);
  const Vector3d there = feet + Vector3d{chosen.x(), chosen.y(), 0.0} * seconds;
  const LegResult result = walk_leg(state, who, {there, 0.0, state.ways.gathered[who]}, budget);
  // In a line, only what brings an agent nearer to its goal is a way round those before it. Else it
  // would shuffle to and fro for ever.
  const bool is_in_line = queues && state.ways.next_line[who].place != InLine::kNone;
  if (is_in_line && choice.evades) {
    const double gained = distance - level_distance(state.plane(), result.feet, leg.goal);
    const double most = length_of(choice.wanted) * seconds;
    if (gained < kLeastGain * most) state.bodies.position[who] = feet;
  }
  state.ways.route[who].was_pushed = true;
  return {state.bodies.position[who], budget, false};
}

// Sliding along another body never leads off a ledge. The path that an agent takes alone may.
bool is_turned_off_a_ledge(const Travelling& state, std::uint32_t who, const WalkingBody& body,
                           const Leg& leg, Moment budget, const LegResult& result) {
  if (!state.fixed.has_relief || is_steered(state, who) || has_footing(state, who, result.feet) ||
      !has_footing(state, who, body.feet)) {
    return false;
  }
  const int rate = state.level().ticks_per_second;
  return walk(state.world, body, leg, budget, rate).feet != result.feet;
}

}  // namespace

LegResult walk_leg(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget) {
  const Kind& kind = state.kind(who);
  const Moment left = state.left_after_rest(who, budget);
  if (left <= 0) return {state.bodies.position[who], budget, false};
  if (kind.move->gait == Gait::hop) return hop_leg(state, who, leg, left);
  const double step_height = kind.move->gait == Gait::hover ? 0.0 : *kind.move->step_height;
  const WalkingBody body{state.bodies.position[who], kind.radius, kind.height, step_height,
                         state.flies_freely(who)};
  Leg possible = leg;
  if (!travels(kind.move->gait) || state.bodies.is_airborne[who]) possible.speed = 0.0;
  const double reach = possible.speed * static_cast<double>(left) / double(kMomentsPerTick) /
                       state.level().ticks_per_second;
  const std::span<const Cylinder> others = bodies_in_the_way(state, who, reach);
  LegResult result =
      walk(state.world, body, possible, left, state.level().ticks_per_second, others);
  if (!others.empty() && is_turned_off_a_ledge(state, who, body, possible, left, result)) {
    result = {body.feet, left, false};
  }
  state.bodies.position[who] = result.feet;
  result.used += budget - left;
  return result;
}

LegResult walk_apart(Travelling& state, std::uint32_t who, const Leg& full, Moment budget,
                     bool queues) {
  const bool is_first = !state.ways.goes_on_way[who];
  const Move& move = *state.kind(who).move;
  Leg leg = full;
  if (move.acceleration > 0.0) {
    leg.speed = is_first ? fastest_now(state, who, full.speed)
                         : std::min(full.speed, state.ways.gathered[who]);
  }
  state.ways.goes_on_way[who] = 1;
  if (is_first) {
    state.ways.gathered[who] = leg.speed;
    state.ways.next_wish[who] = {0.0, 0.0};
    state.ways.next_line[who] = {};
  }
  const bool gives_way = is_first && move.gait != Gait::hop && state.plane() != Plane::upright;
  if (!gives_way || !(leg.speed > 0.0)) return walk_leg(state, who, leg, budget);
  return give_way(state, who, full, leg, budget, queues);
}

void note_pace(Travelling& state) {
  state.ways.fastest = 0.0;
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    const Vector3d moved =
        (state.bodies.position[who] - state.bodies.previous[who]) * state.level().ticks_per_second;
    state.ways.pace[who] = {moved.x(), moved.y()};
    state.ways.pace_length[who] = length_of(state.ways.pace[who]);
    if (state.ways.goes_on_way[who]) {
      state.ways.fastest = std::max(state.ways.fastest, state.ways.pace_length[who]);
    } else {
      state.ways.gathered[who] = 0.0;
    }
  }
  state.ways.is_on_way.swap(state.ways.goes_on_way);
  state.ways.wish.swap(state.ways.next_wish);
  state.ways.line.swap(state.ways.next_line);
}

}  // namespace gaze
