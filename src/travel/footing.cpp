#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "travel/footing.hpp"
#include "travel/steer.hpp"

namespace gaze {
namespace {

/// Metres. Nothing is looked for farther below the feet than this.
constexpr double kDeepest = 100'000.0;

// The highest ground below the middle of a body that is not higher than its step.
double support_below(const Travelling& state, std::uint32_t who, const Vector3d& feet) {
  const double step = *state.kind(who).move->step_height;
  const double ground =
      state.level().ground_height.value_or(-std::numeric_limits<double>::infinity());
  // The search begins just above the step, so that what is exactly as high as a step is still
  // stepped on.
  const Segment down{feet + Vector3d{0.0, 0.0, step + kContactGap},
                     feet - Vector3d{0.0, 0.0, kDeepest}};
  const auto touch = state.world.first_touch(down, Stops::bodies);
  if (!touch) return ground;
  // Inside a solid there is no telling what a body stands on. It stays at its height.
  return std::max(ground, touch->share == 0.0 ? feet.z() : touch->place.z());
}

// A body may stand on the very rim of something higher, or past the rim by rounding. So what lies a
// centimetre beside its middle carries it as well, unless it is a slope.
std::optional<double> rim_above(const Travelling& state, std::uint32_t who, const Vector3d& feet,
                                double support) {
  constexpr double kBeside = 0.01;  // metres
  constexpr double kHigher = 0.02;  // metres
  const double step = *state.kind(who).move->step_height;
  const double from = std::max(support, feet.z() - step) + kHigher;
  const double top = feet.z() + step;
  if (!(from < top)) return std::nullopt;
  const Cylinder about{{feet.x(), feet.y(), from}, kBeside, top - from};
  if (!state.world.overlaps(about, Stops::bodies)) return std::nullopt;
  const Cylinder thin{{feet.x(), feet.y(), top}, kBeside, step};
  const auto touch = state.world.sweep(thin, {0.0, 0.0, from - top}, Stops::bodies);
  if (!touch || touch->share == 0.0) return std::nullopt;
  return touch->place.z();
}

// Height of the ground that carries the centre of a body.
double support_of(const Travelling& state, std::uint32_t who, const Vector3d& feet) {
  const double support = support_below(state, who, feet);
  return rim_above(state, who, feet, support).value_or(support);
}

// The middle of the body is beyond a ledge, and a part of the body is not.
bool rests_on_something(const Travelling& state, std::uint32_t who) {
  const Cylinder body = standing_core(state.body(who));
  return state.world.sweep(body, {0.0, 0.0, -kContactGap}, Stops::bodies).has_value();
}

// Looks for ground that is higher than the body steps.
bool is_in_a_solid(const Travelling& state, std::uint32_t who, double height) {
  const Vector3d& feet = state.bodies.position[who];
  const Kind& kind = state.kind(who);
  const double step = std::min(*kind.move->step_height, kind.height);
  const Cylinder body =
      core_of({{feet.x(), feet.y(), height + step}, kind.radius, kind.height - step});
  return body.height > 0.0 && state.world.overlaps(body, Stops::bodies);
}

// Beside a slope or stairs it does not step down into their side.
bool stays_above(const Travelling& state, std::uint32_t who, double support) {
  const double height = state.bodies.position[who].z();
  return support < height && is_in_a_solid(state, who, support) &&
         !is_in_a_solid(state, who, height) && rests_on_something(state, who);
}

// How high a body will get: on its way up it goes on until gravity has used up its speed.
void note_height(Travelling& state, std::uint32_t who) {
  if (state.ways.highest_of_fall[who]) return;
  const double up = std::max(0.0, state.ways.velocity[who].z());
  const double gravity = state.level().gravity;
  const double rise = gravity > 0.0 ? up * up / (2.0 * gravity) : 0.0;
  state.ways.highest_of_fall[who] = state.bodies.position[who].z() + rise;
}

// First solid above or below. Only the leading end of the body is its own: the sides and the other
// end are those of its core, so that a ceiling which it falls from does not hold it.
std::optional<Touch> meets_above_or_below(const World& world, const Cylinder& body, double rise) {
  Cylinder moving = standing_core(body);
  if (rise > 0.0) moving.feet.z() += kContactGap;
  return world.sweep(moving, {0.0, 0.0, rise}, Stops::bodies);
}

// One step of a free fall: sideways as far as nothing is in the way, then down onto whatever is
// met.
void fly(Travelling& state, std::uint32_t who, bool also_sideways) {
  const double seconds =
      std::exchange(state.ways.air_share[who], 1.0) / state.level().ticks_per_second;
  Vector3d& velocity = state.ways.velocity[who];
  note_height(state, who);
  const double fall = velocity.z() * seconds - state.level().gravity * seconds * seconds / 2.0;
  velocity.z() -= state.level().gravity * seconds;
  const Vector3d sideways{velocity.x() * seconds, velocity.y() * seconds, 0.0};
  Cylinder body = state.body(who);
  if (also_sideways && (sideways.x() != 0.0 || sideways.y() != 0.0)) {
    body.feet = slide(state.world, body, sideways);
  }
  const auto touch = meets_above_or_below(state.world, body, fall);
  double height = body.feet.z() + (touch ? fall * touch->share : fall);
  bool has_landed = touch.has_value() && fall < 0.0;
  const auto& ground = state.level().ground_height;
  if (ground && height <= *ground) {
    height = *ground;
    has_landed = true;
  }
  if (touch && fall > 0.0) {
    velocity.z() = 0.0;
    state.ways.highest_of_fall[who] = height;
  }
  state.bodies.position[who] = {body.feet.x(), body.feet.y(), height};
  if (!has_landed) return;
  state.bodies.is_airborne[who] = 0;
  velocity = {0.0, 0.0, 0.0};
  tell_landing(state, who,
               std::exchange(state.ways.highest_of_fall[who], std::nullopt).value_or(height));
}

// A body with the gait `drop` hangs while it waits, falls as soon as it does anything else, and
// lies where it lands.
void hang(Travelling& state, std::uint32_t who) {
  if (state.ways.hangs[who]) {
    if (state.minds.mode[who] == Mode::post || state.minds.mode[who] == Mode::return_) return;
    state.ways.hangs[who] = 0;
    state.bodies.is_airborne[who] = 1;
  }
  if (state.bodies.is_airborne[who]) fly(state, who, false);
}

}  // namespace

// Things that are thrown hit something instead.
void tell_landing(Travelling& state, std::uint32_t who, double highest) {
  if (state.kind(who).thing) return;
  Event& event = state.tell(Event::What::landed, who);
  event.place = state.bodies.position[who];
  event.distance = std::max(0.0, highest - event.place.z());
}

bool has_footing(const Travelling& state, std::uint32_t who, const Vector3d& feet) {
  if (!state.fixed.has_relief || state.kind(who).move->gait != Gait::walk) return true;
  return feet.z() - support_of(state, who, feet) <= *state.kind(who).move->step_height;
}

bool is_in_the_air(const Travelling& state, std::uint32_t who) {
  if (state.ways.is_leaping(who) || state.bodies.is_airborne[who]) return true;
  const Driver driver = state.fixed.driver[who];
  const bool is_put = driver == Driver::host || driver == Driver::track;
  const Gait gait = state.kind(who).move->gait;
  if (!is_put || (gait != Gait::walk && gait != Gait::hop)) return false;
  const Vector3d& feet = state.bodies.position[who];
  return feet.z() - support_of(state, who, feet) > kContactGap;
}

bool flies_past_others(const Travelling& state, std::uint32_t who) {
  if (state.fixed.driver[who] == Driver::track) return is_in_the_air(state, who);
  return state.ways.is_leaping(who) || state.bodies.is_airborne[who] != 0;
}

void settle(Travelling& state, std::uint32_t who) {
  const Gait gait = state.kind(who).move->gait;
  if (gait == Gait::drop) return hang(state, who);
  if (state.kind(who).thing && state.bodies.is_airborne[who]) return fly(state, who, false);
  if (!state.fixed.has_relief || (gait != Gait::walk && gait != Gait::hop)) return;
  const Driver driver = state.fixed.driver[who];
  const bool is_put = driver == Driver::host || driver == Driver::track;
  if (is_put && !is_steered(state, who)) return;  // where it is put, it is
  if (state.bodies.is_airborne[who]) return fly(state, who, true);
  const double step = *state.kind(who).move->step_height;
  const double support = support_of(state, who, state.bodies.position[who]);
  double& height = state.bodies.position[who].z();
  if (height - support <= step) {
    if (!stays_above(state, who, support)) height = support;
    return;
  }
  if (rests_on_something(state, who)) return;
  // If a hop has just ended, the way of the hop is no speed with which the body goes on.
  const Leap* leap = state.ways.leap[who];
  const bool has_hopped = leap != nullptr && leap->end > state.step_start();
  const Vector3d moved = state.bodies.position[who] - state.bodies.previous[who];
  state.ways.velocity[who] = moved * (has_hopped ? 0.0 : 1.0 * state.level().ticks_per_second);
  state.ways.velocity[who].z() = 0.0;
  state.bodies.is_airborne[who] = 1;
  fly(state, who, false);  // sideways it has moved in this step
}

void find_footing(Travelling& state) {
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    state.ways.has_settled[who] = 0;
    if (!state.ways.is_just_placed[who] || !state.is_up(who)) continue;
    state.ways.is_just_placed[who] = 0;
    settle(state, who);
    // A body that stands now may still walk in this step. A body that falls has used the step up.
    state.ways.has_settled[who] = state.bodies.is_airborne[who];
  }
}

}  // namespace gaze
