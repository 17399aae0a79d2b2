#include "travel/course.hpp"

#include <array>

#include "geometry/signed_turn.hpp"
#include "travel/footing.hpp"
#include "travel/neighbours.hpp"
#include "travel/turn.hpp"
#include "travel/walk.hpp"

namespace gaze {
namespace {

constexpr double kLeastProgress = 0.01;  // metres a second, by the meaning of `blocked`

Moment start_waiting(Course& course, Moment from, Moment length) {
  if (course.wait_until < 0) course.wait_until = from + length;
  return course.wait_until;
}

void next_step(Course& course, std::size_t steps) {
  course.next = static_cast<std::uint32_t>(std::min<std::size_t>(course.next + 1, steps));
  course.wait_until = -1;
  course.is_new = true;
}

/// @return The budget that is left; 0 while the step of the script goes on.
Moment go(Travelling& state, std::uint32_t who, const ScriptStep& step, Moment budget) {
  Course& course = state.ways.course[who];
  const double before = level_distance(state.plane(), state.bodies.position[who], step.place);
  if (course.is_new) {
    course.progress = {before, state.now() - budget, false};
    course.is_new = false;
  }
  const double speed = step.speed.value_or(state.kind(who).move->speed);
  const LegResult result = walk_leg(state, who, {step.place, 0.0, speed}, budget);
  const double left = level_distance(state.plane(), state.bodies.position[who], step.place);
  const bool stuck = !result.arrived && is_stuck(course, left, state.now(), patience(state, who));
  if (!result.arrived && !stuck) return 0;
  state.tell(result.arrived ? Event::What::arrived : Event::What::blocked, who).place = step.place;
  next_step(course, state.agent(who).script.size());
  return result.arrived ? budget - result.used : 0;
}

double degrees_off(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  const Vector2d way = plan_part(state.plane(), place - state.middle(who));
  return std::abs(signed_turn(state.bodies.facing[who], way));
}

// In levels seen from the side walkers turn round at once.
bool is_turned(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  constexpr double kTurned = 1.0;  // degrees
  if (state.plane() == Plane::upright && state.kind(who).move->gait != Gait::fixed) return true;
  return degrees_off(state, who, place) <= kTurned;
}

const ScriptLinks& links_of_step(const Travelling& state, std::uint32_t who) {
  return state.fixed.links.scripts[who][state.ways.course[who].next];
}

/// Turns to a place, and then fires at it for a while. @return The budget that is left.
Moment aim(Travelling& state, std::uint32_t who, const ScriptStep& step, Moment budget) {
  Course& course = state.ways.course[who];
  Trigger& trigger = state.bodies.trigger.get(who);
  trigger.aim = step.place;
  trigger.is_plan = state.plane() == Plane::ground;
  trigger.attacks = links_of_step(state, who).attacks;
  if (course.wait_until < 0 && !is_turned(state, who, step.place)) {
    const double off = degrees_off(state, who, step.place);
    if (course.is_new) course.progress = {off, state.now() - budget, false};
    course.is_new = false;
    if (!is_stuck(course, off, state.now(), patience(state, who))) return 0;
    state.tell(Event::What::blocked, who).place = step.place;
    next_step(course, state.agent(who).script.size());
    return 0;
  }
  const Moment length = state.moments(step.duration);
  // Firing begins at a tick, so that as many pulls fit into it at any rate of steps. Without a
  // duration each attack is made once, at this tick.
  const Moment end = start_waiting(course, state.now(), length);
  trigger.fires = true;
  trigger.until = end;
  if (end > state.now()) return 0;
  next_step(course, state.agent(who).script.size());
  if (length > 0) return state.now() - end;
  const std::vector<ScriptStep>& script = state.agent(who).script;
  const bool aims_on =
      course.next < script.size() && script[course.next].what == ScriptStep::What::aim;
  return aims_on ? 0 : budget;  // the next one would have it aim elsewhere at this tick
}

void use_thing(Travelling& state, std::uint32_t who, const ScriptStep& step) {
  using What = ScriptStep::What;
  HandWish wish;
  wish.who = who;
  wish.feet = state.bodies.position[who];
  wish.place = step.place;
  if (step.what == What::drop) {
    wish.what = HandWish::What::drop;
  } else if (step.what == What::throw_) {
    wish.what = HandWish::What::throw_;
    wish.thing = step.kind;
  } else {
    wish.thing = links_of_step(state, who).thing;
  }
  wish_by_hand(state, wish);
}

// A step of this sort takes no time: it is done at the very moment at which the one before it ends.
bool takes_no_time(const ScriptStep& step) {
  using What = ScriptStep::What;
  return step.what == What::face || step.what == What::quiet || step.what == What::noise ||
         step.what == What::take || step.what == What::throw_ || step.what == What::drop;
}

void do_at_once(Travelling& state, std::uint32_t who, const ScriptStep& step) {
  if (step.what == ScriptStep::What::face) {
    const SineCosine way = sine_cosine(step.facing);
    state.ways.script_facing.set(who, {way.cosine, way.sine});
  } else if (step.what == ScriptStep::What::quiet) {
    state.ways.quiet[who] = step.quiet;
  } else if (step.what != ScriptStep::What::noise) {
    use_thing(state, who, step);
  } else {
    make_noise_by_will(state, who, links_of_step(state, who).noise, step.reach,
                       state.bodies.position[who]);
  }
}

// An agent on a patrol is sent back, one that wanders to and fro goes on in the new direction, and
// all others turn at their rate.
void turn_round(Travelling& state, std::uint32_t who, Angle by, Mode mode) {
  Vector2d& facing = state.bodies.facing[who];
  const bool is_mirrored = state.plane() == Plane::upright && facing.x() < 0.0;
  const double degrees = is_mirrored ? -by.degrees() : by.degrees();
  const Vector2d way = turned(facing, sine_cosine(Angle::from_degrees(degrees)));
  state.bodies.rest_facing[who] = way;
  const bool is_back = dot(way, facing) < 0.0;
  const Agent& agent = state.agent(who);
  if (mode == Mode::patrol && is_back && agent.patrol.size() > 1) {
    turn_course(state.ways.course[who], agent.patrol.size(),
                agent.patrol_style == PatrolStyle::to_and_fro);
  }
  const auto& wander = state.kind(who).wander;
  if (mode == Mode::wander && wander && wander->style == Wander::Style::to_and_fro) {
    facing = state.plane() == Plane::upright ? flip_toward(facing, way) : way;
  }
}

}  // namespace

Moment patience(const Everyone& state, std::uint32_t who) {
  const int rate = state.level().ticks_per_second;
  const Move& move = *state.kind(who).move;
  const Moment second = kMomentsPerTick * rate;
  if (move.gait != Gait::hop) return second;
  const double in_the_air = *move.hop_length / move.speed - move.hop_rest->seconds();
  return second + moments_of(*move.hop_rest, rate) +
         moments_of(Duration::from_seconds(in_the_air), rate);
}

bool is_stuck(Course& course, double distance, Moment now, Moment patience) {
  Progress& progress = course.progress;
  if (distance <= progress.best - kLeastProgress) {
    progress.best = distance;
    progress.since = now;
    return false;
  }
  return now - progress.since >= patience;
}

void advance_course(Course& course, std::size_t places, bool to_and_fro) {
  course.is_new = true;
  const auto last = static_cast<std::uint32_t>(places - 1);
  if (!to_and_fro || places < 2) {
    const bool wraps = course.backwards ? course.next == 0 : course.next >= last;
    const std::uint32_t first = course.backwards ? last : 0;
    course.next = wraps ? first : course.next + (course.backwards ? std::uint32_t(-1) : 1U);
    return;
  }
  if (course.next == 0) course.backwards = false;
  if (course.next >= last) course.backwards = true;
  course.next += course.backwards ? std::uint32_t(-1) : 1U;
}

void turn_course(Course& course, std::size_t places, bool to_and_fro) {
  const bool was_first = course.next == 0 && !course.backwards;  // on its way from where it stood
  course.wait_until = -1;
  course.backwards = !course.backwards;
  if (to_and_fro && was_first) course.backwards = false;
  if (to_and_fro && !course.backwards) {
    course.next = std::min(course.next + 1, static_cast<std::uint32_t>(places - 1));
    course.is_new = true;
  } else if (to_and_fro) {
    --course.next;
    course.is_new = true;
  } else {
    advance_course(course, places, false);
  }
}

void go_on_as_before(Ways& ways, std::uint32_t who) {
  ways.course[who] = ways.left_course[who];
  ways.course[who].is_new = true;
}

void change_courses(Travelling& state) {
  for (const CourseChange& change : state.told.courses) {
    const std::uint32_t who = change.who;
    switch (change.what) {
      case CourseChange::What::anew:
        state.ways.course[who] = {};
        break;
      case CourseChange::What::leaves:
        state.ways.home[who] = state.bodies.position[who];
        state.ways.left_course[who] = state.ways.course[who];
        break;
      case CourseChange::What::as_before:
        go_on_as_before(state.ways, who);
        break;
      case CourseChange::What::turns_round:
        turn_round(state, who, change.turn, change.mode);
    }
  }
  state.told.courses.clear();
}

void wish_by_hand(Travelling& state, const HandWish& wish) {
  constexpr std::array<TrackDeed::What, 3> kDeeds{TrackDeed::What::take, TrackDeed::What::throw_,
                                                  TrackDeed::What::drop};
  state.told.hands.push_back(wish);
  state.told.deeds.push_back({wish.who,
                              kDeeds[static_cast<std::size_t>(wish.what)],
                              wish.thing,
                              {},
                              wish.place,
                              0.0,
                              wish.feet});
}

void make_noise_by_will(Travelling& state, std::uint32_t who, const NoiseName& name, double reach,
                        const Vector3d& feet) {
  const Vector3d place = state.middle(who) + (feet - state.bodies.position[who]);
  state.make_noise(place, reach, name, who);
  state.told.deeds.push_back({who, TrackDeed::What::noise, 0, name, place, reach, feet});
}

void follow_script(Travelling& state, std::uint32_t who) {
  const std::vector<ScriptStep>& script = state.agent(who).script;
  Course& course = state.ways.course[who];
  Moment budget = kMomentsPerTick;
  Moment at_last_repeat = budget + 1;
  while (course.next < script.size()) {
    const ScriptStep& step = script[course.next];
    if (budget == 0 && !takes_no_time(step)) return;
    if (step.what == ScriptStep::What::go) {
      budget = go(state, who, step, budget);
    } else if (step.what == ScriptStep::What::aim) {
      budget = aim(state, who, step, budget);
      if (course.wait_until >= 0 || budget == 0) return;
    } else if (step.what == ScriptStep::What::wait) {
      const Moment end = start_waiting(course, state.now() - budget, state.moments(step.duration));
      if (end > state.now()) return;
      budget = state.now() - end;
      next_step(course, script.size());
    } else if (step.what == ScriptStep::What::hop) {
      if (course.wait_until < 0) {
        if (state.bodies.is_airborne[who]) return;  // there is nothing to hop from
        course.wait_until = state.now();
        const bool goes_on =
            course.next + 1 < script.size() && script[course.next + 1].what == ScriptStep::What::go;
        return hop_up(state, who, goes_on ? &script[course.next + 1] : nullptr, budget);
      }
      if (state.bodies.is_airborne[who]) return;
      next_step(course, script.size());
    } else if (takes_no_time(step)) {
      do_at_once(state, who, step);
      next_step(course, script.size());
    } else {
      if (budget == at_last_repeat) return;  // a round that takes no time would never end
      at_last_repeat = budget;
      course.next = 0;
    }
  }
}

}  // namespace gaze
