#include "combat/damage.hpp"
#include "combat/make_fights.hpp"
#include "simulation/change.hpp"
#include "simulation/stages.hpp"
#include "travel/game_mesh.hpp"
#include "travel/make_ways.hpp"
#include "values/playable.hpp"

/// Solids that come into a running game.
namespace gaze {
namespace {

using Index = std::uint32_t;

// Each mesh is mended, and everybody looks for a way anew.
void mend_meshes(Simulation::State& state) {
  const Level ground = ground_of(state.fixed);
  for (auto& mesh : state.meshes.meshes) {
    if (mesh) mesh = mesh->with_solids(ground, state.world);
  }
  for (Index who = 0; who < state.agent_count(); ++who) forget_way(state.ways, who);
}

}  // namespace

SolidId Simulation::add_solid(const Solid& solid) {
  auto next = std::make_shared<Level>(level());
  next->solids.push_back(solid);
  need_no_fault(faults_of_last_solid(*next));
  complete(*next);
  World world = state_->world.with_solids(*next);
  go_on_with(state_, std::move(next), state_->fixed.written, state_->fixed.pools);
  state_->world = std::move(world);
  state_->door_used.resize(state_->fixed.doors.size(), state_->now());
  add_solids(state_->fights, state_->level());
  look_ahead_again(state_->fights);
  mend_meshes(*state_);
  return {static_cast<Index>(level().solids.size() - 1)};
}

}  // namespace gaze
