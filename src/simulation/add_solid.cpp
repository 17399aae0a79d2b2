#include "combat/damage.hpp"
#include "combat/make_fights.hpp"
#include "simulation/change.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"

/// Solids that come into a running game.
namespace gaze {
namespace {

using Index = std::uint32_t;

World world_with_gone(const Level& level, const World& before) {
  World world = World(level).with_host(before.host());
  for (Index i = 0; i + 1 < level.solids.size(); ++i) {
    if (before.is_gone({i})) world.set_gone({i}, true);
  }
  return world;
}

// Each mesh is made anew, and everybody looks for a way anew.
void make_meshes_anew(Simulation::State& state) {
  for (std::size_t i = 0; i < state.meshes.bodies.size(); ++i) {
    auto& mesh = state.meshes.meshes[i];
    if (mesh) mesh.emplace(state.level(), state.world, state.meshes.bodies[i]);
  }
  for (Index who = 0; who < state.agent_count(); ++who) forget_way(state.ways, who);
}

}  // namespace

SolidId Simulation::add_solid(const Solid& solid) {
  auto next = std::make_shared<Level>(level());
  next->solids.push_back(solid);
  need_no_fault(validate(*next));
  complete(*next);
  World world = world_with_gone(*next, state_->world);
  go_on_with(state_, std::move(next), state_->fixed.written, state_->fixed.pools);
  state_->world = std::move(world);
  state_->door_used.resize(state_->fixed.doors.size(), state_->now());
  add_solids(state_->fights, state_->level());
  look_ahead_again(state_->fights);
  make_meshes_anew(*state_);
  return {static_cast<Index>(level().solids.size() - 1)};
}

}  // namespace gaze
