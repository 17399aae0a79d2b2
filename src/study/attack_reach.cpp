#include "gaze/tools/attack_reach.hpp"

#include "combat/stance.hpp"
#include "geometry/plan.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

Fighter standing_at(const Level& level, const Kind& victim, const Vector2d& spot) {
  const double height = level.ground_height.value_or(0.0);
  const Vector3d feet = level.plane == Plane::upright ? Vector3d{spot.x(), 0.0, spot.y()}
                                                      : Vector3d{spot.x(), spot.y(), height};
  return fighter_of(level.plane, victim, feet, {1.0, 0.0});
}

}  // namespace

const Kind* usual_victim(const Level& level, const Kind& by) {
  const Agent* best = nullptr;
  for (const Agent& agent : level.agents) {
    if (!is_hostile(level, by.team, level.kind_of(agent).team)) continue;
    const bool is_player = agent.driver != Driver::mind;
    if (best == nullptr || (is_player && best->driver == Driver::mind)) best = &agent;
  }
  return best == nullptr ? nullptr : &level.kind_of(*best);
}

FloorOptions floor_for(const Kind& kind, double spot_size) {
  FloorOptions options;
  options.team = kind.team;
  options.radius = kind.radius;
  options.height = kind.height;
  options.step_height = *kind.move->step_height;
  options.spot_size = spot_size;
  return options;
}

std::vector<AttackReach> attack_reach(const Simulation& simulation, AgentId agent,
                                      const Kind& victim, const FreeFloor& floor) {
  const Simulation::State& state = state_of(simulation);
  static_cast<void>(state.index_of(agent));
  const Kind& kind = state.kind(agent.index);
  const Stance stance = stance_of(state.plane(), kind, state.bodies.position[agent.index],
                                  state.bodies.placed_facing[agent.index]);
  std::vector<AttackReach> reaches;
  for (const Attack& attack : kind.attacks) {
    AttackReach& reach = reaches.emplace_back();
    reach.attack = attack.name;
    reach.can_hurt.assign(floor.grid.count(), 0);
    for (int row = 0; row < floor.grid.rows; ++row) {
      for (int column = 0; column < floor.grid.columns; ++column) {
        const std::size_t spot = floor.grid.index(column, row);
        if (floor.is_free[spot] == 0) continue;
        const Fighter there = standing_at(state.level(), victim, floor.grid.middle(column, row));
        if (!can_hit(state.world, attack, stance, there, state.level().gravity)) continue;
        reach.can_hurt[spot] = 1;
        reach.area += floor.grid.size * floor.grid.size;
      }
    }
  }
  return reaches;
}

}  // namespace gaze
