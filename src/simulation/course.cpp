#include "simulation/state.hpp"
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
Moment go(Simulation::State& state, std::uint32_t who, const ScriptStep& step, Moment budget) {
  Course& course = state.course[who];
  const double before = level_distance(state.plane(), state.position[who], step.place);
  if (course.is_new) {
    course.progress = {before, state.now() - budget, false};
    course.is_new = false;
  }
  const double speed = step.speed.value_or(state.kind(who).move.speed);
  const LegResult result = walk_leg(state, who, {step.place, 0.0, speed}, budget);
  const double left = level_distance(state.plane(), state.position[who], step.place);
  const bool stuck = !result.arrived && is_stuck(course, left, state.now(), patience(state, who));
  if (!result.arrived && !stuck) return 0;
  state.tell(result.arrived ? Event::What::arrived : Event::What::blocked, who).place = step.place;
  next_step(course, state.agent(who).script.size());
  return result.arrived ? budget - result.used : 0;
}

// Such a step is done at the very moment at which the one before it ends.
bool takes_no_time(const ScriptStep& step) {
  using What = ScriptStep::What;
  return step.what == What::face || step.what == What::quiet || step.what == What::noise;
}

void do_at_once(Simulation::State& state, std::uint32_t who, const ScriptStep& step) {
  if (step.what == ScriptStep::What::face) {
    const SineCosine way = sine_cosine(step.facing);
    state.script_facing[who] = Vector2d{way.cosine, way.sine};
  } else if (step.what == ScriptStep::What::quiet) {
    state.quiet[who] = step.quiet;
  } else {
    state.make_noise(state.fighter(who).middle(), step.reach, step.noise, who);
  }
}

}  // namespace

Moment patience(const Simulation::State& state, std::uint32_t who) {
  const int rate = state.level->ticks_per_second;
  const Move& move = state.kind(who).move;
  const Moment second = kMomentsPerTick * rate;
  if (move.gait != Gait::hop) return second;
  const double in_the_air = move.hop_length / move.speed - move.hop_rest.seconds();
  return second + moments_of(move.hop_rest, rate) +
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
    course.next = course.next >= last ? 0 : course.next + 1;
    return;
  }
  if (course.next == 0) course.backwards = false;
  if (course.next >= last) course.backwards = true;
  course.next += course.backwards ? std::uint32_t(-1) : 1U;
}

void follow_script(Simulation::State& state, std::uint32_t who) {
  const std::vector<ScriptStep>& script = state.agent(who).script;
  Course& course = state.course[who];
  Moment budget = kMomentsPerTick;
  Moment at_last_repeat = budget + 1;
  while (course.next < script.size()) {
    const ScriptStep& step = script[course.next];
    if (budget == 0 && !takes_no_time(step)) return;
    if (step.what == ScriptStep::What::go) {
      budget = go(state, who, step, budget);
    } else if (step.what == ScriptStep::What::wait) {
      const Moment end = start_waiting(course, state.now() - budget,
                                       moments_of(step.duration, state.level->ticks_per_second));
      if (end > state.now()) return;
      budget = state.now() - end;
      next_step(course, script.size());
    } else if (step.what == ScriptStep::What::hop) {
      if (course.wait_until < 0) {
        course.wait_until = state.now();
        const bool goes_on =
            course.next + 1 < script.size() && script[course.next + 1].what == ScriptStep::What::go;
        return hop_up(state, who, goes_on ? &script[course.next + 1] : nullptr, budget);
      }
      if (state.is_airborne[who]) return;
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
