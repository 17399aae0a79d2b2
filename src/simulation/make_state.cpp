#include "combat/make_fights.hpp"
#include "mind/make_minds.hpp"
#include "sense/make_senses.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"

/// Puts everybody into their places.
namespace gaze {

RunState::RunState(const Fixed& fixed, Meshes the_meshes)
    : chance(fixed.level->seed, fixed.level->agents.size()),
      meshes(std::move(the_meshes)),
      score(fixed.level->agents.size()) {}

RoundState::RoundState(const Fixed& fixed, World the_world, RunState& run)
    : world(std::move(the_world)),
      bodies(make_bodies(fixed)),
      lives(make_lives(fixed)),
      minds(make_minds(fixed, run.clock.tick * kMomentsPerTick)),
      knowledge(make_knowledge(fixed)),
      senses(make_senses(fixed)),
      ways(make_ways(run.meshes, fixed, bodies, knowledge)),
      fights(make_fights(fixed)),
      door_used(fixed.doors.size()) {
  told.resize(fixed.level->agents.size());
}

void add_agents(Simulation::State& state, std::uint32_t first) {
  const std::size_t count = state.fixed.level->agents.size();
  state.chance.add_agents(state.level().seed, count);
  state.score.resize(count);
  add_agents(state.bodies, state.fixed);
  add_agents(state.lives, state.fixed);
  add_agents(state.minds, state.fixed, state.now());
  add_agents(state.knowledge, state.fixed);
  add_agents(state.senses, state.fixed);
  add_meshes(state.meshes, state.fixed, state.world, first, static_cast<std::uint32_t>(count));
  add_agents(state.ways, state.meshes, state.fixed, state.bodies, state.knowledge);
  add_agents(state.fights, state.fixed);
  state.told.resize(count);
}

}  // namespace gaze
