#include "combat/cooldown.hpp"
#include "combat/make_fights.hpp"
#include "mind/deciding.hpp"
#include "mind/make_minds.hpp"
#include "sense/make_senses.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"
#include "travel/travelling.hpp"

/// Who comes into play and who leaves it: each part is reset by its own room.
namespace gaze {
namespace {

using Index = std::uint32_t;

void go_over_to(Simulation::State& state, Index who, Mode mode) {
  Deciding deciding(state);
  change_mode(deciding, who, mode);
}

void forget_all(Simulation::State& state, Index who) {
  clear_mind(state.minds, who);
  forget(state.knowledge, state.senses, who);
  state.told.news[who] = {};
}

void put_out(Simulation::State& state, Index who) {
  go_over_to(state, who, Mode::out);
  forget_all(state, who);
  state.bodies.leader[who].reset();
  state.ways.pushed[who] = {0.0, 0.0, 0.0};
}

void come_back(Simulation::State& state, Index who) {
  state.lives.returns_at[who] = kNeverReady;
  const SineCosine facing = sine_cosine(state.agent(who).facing);
  appear(state, who, state.agent(who).position, {facing.cosine, facing.sine});
  Travelling travelling(state);
  choose_start(travelling, who);
}

// Brings back those who were defeated so long ago that it is time.
void bring_back_in_time(Simulation::State& state) {
  std::erase_if(state.fights.returning, [&](Index who) {
    if (state.lives.returns_at[who] > state.now()) return false;
    come_back(state, who);
    return true;
  });
}

}  // namespace

void appear(Simulation::State& state, Index who, const Vector3d& feet, const Vector2d& facing) {
  reset_body(state.bodies, state.ways, state.fixed, who, feet, facing);
  reset_course(state.bodies, state.ways, who);
  reset(state.lives, state.fights, state.fixed, who);
  reset(state.minds, who);
  reset(state.knowledge, state.senses, state.fixed, who);
  state.told.news[who] = {};
  Travelling travelling(state);
  change_body(travelling, who);  // by the tags that its kind begins with
  state.bodies.is_airborne[who] = state.kind(who).thing.has_value();  // it falls to what is below
  go_over_to(state, who, state.fixed.idle[who]);
}

void bring_back(Simulation::State& state, Index who) {
  std::erase(state.fights.returning, who);
  std::erase(state.told.gone, who);
  come_back(state, who);
}

// Puts an agent back as it began, but for its health and what it has.
void put_back(Simulation::State& state, Index who) {
  forget_all(state, who);
  reset_body(state.bodies, state.ways, state.fixed, who, state.bodies.post[who],
             state.bodies.placed_facing[who]);
  if (state.fixed.driver[who] != Driver::mind) return;
  state.ways.course[who] = state.ways.left_course[who] = {};
  go_over_to(state, who, state.fixed.idle[who]);
}

void settle_who_is_there(Simulation::State& state) {
  for (const Index who : state.told.gone) put_out(state, who);
  state.told.gone.clear();
  for (const Coming& coming : state.told.comings) {
    appear(state, coming.who, coming.feet, coming.facing);
  }
  state.told.comings.clear();
  bring_back_in_time(state);
}

}  // namespace gaze
