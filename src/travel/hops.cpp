#include <algorithm>
#include <cmath>

#include "navigation/arc_room.hpp"
#include "travel/find_way.hpp"
#include "travel/footing.hpp"

/// Hops and other links. Where one leads is settled when it begins.
namespace gaze {
namespace {

Moment moments_for(const Travelling& state, double seconds) {
  return state.moments(Duration::from_seconds(seconds));
}

double seconds_of(const Travelling& state, Moment moments) {
  return static_cast<double>(moments) / 1e9 / state.level().ticks_per_second;
}

double level_way(const Arc& ends) {
  const Vector3d way = ends.to - ends.from;
  return level_length(way);
}

// A drop goes level to above the place where it ends, and then down under gravity.
Vector3d place_in_drop(const Leap& leap, double seconds) {
  const Arc& ends = leap.arc;
  const double level_seconds = level_way(ends) / leap.speed;
  const double share = std::min(1.0, seconds / level_seconds);
  const double falling = std::max(0.0, seconds - level_seconds);
  Vector3d place = ends.from + (ends.to - ends.from) * share;
  place.z() = std::max(ends.to.z(), ends.from.z() - ends.gravity * falling * falling / 2.0);
  return place;
}

// A link goes upwards first, so that the body comes over the rim; downwards it goes last.
Vector3d place_on_made(const Leap& leap, double seconds) {
  const Arc& ends = leap.arc;
  const double rise = ends.to.z() - ends.from.z();
  const double level_length = level_way(ends);
  const double gone = seconds * leap.speed;
  const double upright_first = rise > 0.0 ? rise : 0.0;
  const double level_gone = std::clamp(gone - upright_first, 0.0, level_length);
  const double upright_gone =
      rise > 0.0 ? std::min(gone, rise) : -std::clamp(gone - level_length, 0.0, -rise);
  Vector3d place = ends.from;
  if (level_length > 0.0) place += (ends.to - ends.from) * (level_gone / level_length);
  place.z() = ends.from.z() + upright_gone;
  return place;
}

Vector3d place_in(const Leap& leap, double seconds) {
  switch (leap.what) {
    case Leap::What::hop:
      return place_on(leap.arc, seconds);
    case Leap::What::drop:
      return place_in_drop(leap, seconds);
    default:
      return place_on_made(leap, seconds);
  }
}

double highest_of(const Leap& leap) {
  const Arc& arc = leap.arc;
  if (leap.what != Leap::What::hop) return arc.from.z();
  return arc.from.z() + arc.up * arc.up / (2.0 * arc.gravity);
}

// Metres: nowhere on a leap is a body farther than this from where it lands.
double extent_of(const Leap& leap) {
  return level_way(leap.arc) + highest_of(leap) - std::min(leap.arc.from.z(), leap.arc.to.z());
}

double seconds_for(const Leap& leap) {
  const double rise = leap.arc.to.z() - leap.arc.from.z();
  switch (leap.what) {
    case Leap::What::hop:
      return leap.arc.seconds;
    case Leap::What::drop:
      return level_way(leap.arc) / leap.speed + std::sqrt(-2.0 * rise / leap.arc.gravity);
    default:
      return (level_way(leap.arc) + std::abs(rise)) / leap.speed;
  }
}

void begin(Travelling& state, std::uint32_t who, Leap leap, Moment start) {
  leap.start = start;
  leap.end = start + moments_for(state, seconds_for(leap));
  state.ways.longest_leap = std::max(state.ways.longest_leap, extent_of(leap));
  state.ways.leap.set(who, leap);
  fly_on(state, who);
}

// Nobody lands where others stand or are about to land.
bool is_taken(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  bool is_taken = false;
  const Kind& kind = state.kind(who);
  const double reach = kind.radius + state.fixed.widest + state.ways.longest_leap;
  state.ways.walkers.near(place, reach, [&](std::uint32_t other, double) {
    if (other == who || !state.is_up(other) || is_taken) return;
    const double gap = kind.radius + state.kind(other).radius;
    const Vector3d& at = state.ways.is_leaping(other) ? state.ways.leap[other]->arc.to
                                                      : state.bodies.seen_position[other];
    const bool is_beside = std::abs(at.z() - place.z()) < kind.height;
    is_taken = is_beside && level_distance(state.plane(), at, place) < gap;
  });
  return is_taken;
}

// A hop goes as high as the agent hops if there is room. Below a low ceiling it goes lower, and at
// last just over the ground if the mesh says that there is room to walk.
std::optional<Arc> arc_with_room(const Travelling& state, std::uint32_t who, const Vector3d& to) {
  const Vector3d& from = state.bodies.position[who];
  const Kind& kind = state.kind(who);
  const double gravity = state.level().gravity;
  const double rise = std::max(0.0, to.z() - from.z());
  BodySize body;
  body.radius = kind.radius;
  body.height = kind.height;
  for (const double share : {1.0, 0.5, 0.25, 0.125}) {
    const auto arc = arc_between(from, to, std::max(rise, *kind.move->hop_height * share), gravity);
    if (arc && has_room_for(state.world, body, *arc, *kind.move->step_height)) return arc;
  }
  constexpr double kLowest = 0.01;  // metres
  if (kind.move->route != RouteStyle::path || rise > *kind.move->step_height) return std::nullopt;
  return arc_between(from, to, rise + kLowest, gravity);
}

}  // namespace

void forget_ended_leaps(Travelling& state) {
  state.ways.longest_leap = 0.0;
  state.ways.leap.reset_if([&](const Leap& leap) {
    state.ways.longest_leap = std::max(state.ways.longest_leap, extent_of(leap));
    return leap.what == Leap::What::none && leap.end <= state.step_start();
  });
}

void fly_on(Travelling& state, std::uint32_t who) {
  Leap& leap = *state.ways.leap[who];
  if (state.now() < leap.end) {
    state.bodies.position[who] = place_in(leap, seconds_of(state, state.now() - leap.start));
    return;
  }
  state.bodies.position[who] = leap.arc.to;
  if (leap.what != Leap::What::made) tell_landing(state, who, highest_of(leap));
  const bool rests = leap.what == Leap::What::hop;
  const Moment rest = state.moments(*state.kind(who).move->hop_rest);
  state.ways.rests_until[who] = leap.end + (rests ? rest : 0);
  leap.what = Leap::What::none;
}

void take_link(Travelling& state, std::uint32_t who, const MeshLink& link, Moment start) {
  const Move& move = *state.kind(who).move;
  Leap leap;
  leap.speed = move.speed;
  leap.arc = {link.from, link.to, 0.0, state.level().gravity, 0.0};
  if (link.what == MeshLink::What::hop) {
    leap.what = Leap::What::hop;
    leap.arc = *arc_between(link.from, link.to, *move.hop_height, state.level().gravity);
  } else {
    const bool drops = link.what == MeshLink::What::drop;
    leap.what = drops ? Leap::What::drop : Leap::What::made;
    if (!(move.speed > 0.0)) return;
  }
  begin(state, who, leap, start);
}

/// Metres: a hop that ends at a place may end short of it by rounding; no hop makes up for that.
constexpr double kThere = 1e-9;

LegResult hop_leg(Travelling& state, std::uint32_t who, const Leg& leg, Moment budget) {
  const Vector3d from = state.bodies.position[who];
  const LegResult stands{from, budget, false};
  const double distance = level_distance(state.plane(), from, leg.goal);
  const double to_go = distance - leg.stop;
  if (to_go <= kThere) return {from, 0, true};
  const Move& move = *state.kind(who).move;
  if (state.bodies.is_airborne[who]) return stands;
  for (const double share : {1.0, 0.5, 0.25}) {
    const double length = std::min(to_go, *move.hop_length * share);
    Vector3d to = from + (leg.goal - from) * (length / distance);
    if (length == distance) to = leg.goal;
    if (state.plane() == Plane::upright) to.y() = from.y();
    to.z() = landing_height(state, who, to);
    if (is_taken(state, who, to)) continue;
    const auto arc = arc_with_room(state, who, to);
    if (!arc) continue;
    Leap leap;
    leap.what = Leap::What::hop;
    leap.arc = *arc;
    begin(state, who, leap, state.now() - budget);
    return {state.bodies.position[who], budget, false};
  }
  return stands;
}

void hop_in_place(Travelling& state, std::uint32_t who, double target_height) {
  const Move& move = *state.kind(who).move;
  const Vector3d& feet = state.bodies.position[who];
  const bool is_on_its_way =
      state.ways.is_leaping(who) || state.bodies.is_airborne[who] != 0 || state.ways.is_asked(who);
  if (!move.hops_in_place || move.gait != Gait::hop || is_on_its_way) return;
  const Moment left = state.left_after_rest(who, kMomentsPerTick);
  if (left == 0 || !(target_height - feet.z() > *move.step_height)) return;
  const auto arc = arc_with_room(state, who, feet);
  if (!arc) return;
  Leap leap;
  leap.what = Leap::What::hop;
  leap.arc = *arc;
  begin(state, who, leap, state.now() - left);
}

namespace {

// Metres a second, upwards, with which it gets as high as it hops; 0 for who does not hop.
double speed_up(const Travelling& state, std::uint32_t who) {
  const double gravity = state.level().gravity;
  return gravity > 0.0 ? std::sqrt(2.0 * gravity * *state.kind(who).move->hop_height) : 0.0;
}

}  // namespace

bool hop_off(Travelling& state, std::uint32_t who, const Vector3d& velocity, Moment budget) {
  const double up = speed_up(state, who);
  if (!(up > 0.0)) return false;
  state.ways.velocity[who] = {velocity.x(), velocity.y(), up};
  state.bodies.is_airborne[who] = 1;
  state.ways.air_share[who] = static_cast<double>(budget) / double(kMomentsPerTick);
  return true;
}

void hop_up(Travelling& state, std::uint32_t who, const ScriptStep* then, Moment budget) {
  const Move& move = *state.kind(who).move;
  const double gravity = state.level().gravity;
  const double up = speed_up(state, who);
  if (!(up > 0.0)) return;
  Vector3d velocity{0.0, 0.0, 0.0};
  if (then != nullptr) {
    const Vector3d way = then->place - state.bodies.position[who];
    const double distance = level_distance(state.plane(), state.bodies.position[who], then->place);
    // A hop to a place ends at the place once it is back at its height.
    const double speed = std::min(then->speed.value_or(move.speed), distance * gravity / up / 2.0);
    if (distance > 0.0) {
      velocity.x() = way.x() / distance * speed;
      if (state.plane() != Plane::upright) velocity.y() = way.y() / distance * speed;
    }
  }
  hop_off(state, who, velocity, budget);
}

}  // namespace gaze
