#include <algorithm>
#include <cmath>

#include "simulation/stages.hpp"

/// Doors, and solids that break.
namespace gaze {
namespace {

double distance_to_leaf(const Solid& door, const Vector2d& p) {
  double nearest = distance_to_segment(door.points[0], door.points[0], p);
  for (std::size_t i = 0; i + 1 < door.points.size(); ++i) {
    nearest = std::min(nearest, distance_to_segment(door.points[i], door.points[i + 1], p));
  }
  return nearest;
}

bool is_at_its_height(const Simulation::State& state, const Solid& door, std::uint32_t who) {
  if (state.plane() == Plane::upright) return true;
  const double feet = state.bodies.position[who].z();
  return feet < door.base + door.height && door.base < feet + state.kind(who).height;
}

bool is_somebody_near(const Simulation::State& state, std::uint32_t number) {
  const Solid& door = state.level().solids[number];
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who) || !is_at_its_height(state, door, who)) continue;
    if (state.kind(who).thing) continue;  // it opens no doors
    if (!state.fixed.openings.opens_for(number, state.somebody(who))) continue;
    const Vector2d feet = plan_part(state.plane(), state.bodies.position[who]);
    if (distance_to_leaf(door, feet) <= door.door.opens_within) return true;
  }
  return false;
}

// A leaf never shuts on a body.
bool is_in_its_way(const Simulation::State& state, const Solid& door) {
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (!state.lives.alive[who] || !is_at_its_height(state, door, who)) continue;
    const Vector2d feet = plan_part(state.plane(), state.bodies.position[who]);
    const double gap = state.kind(who).radius + door.thickness / 2.0 + kContactGap;
    if (distance_to_leaf(door, feet) < gap) return true;
  }
  return false;
}

void set_gone(Simulation::State& state, std::uint32_t solid, bool is_gone) {
  state.world.set_gone({solid}, is_gone);
  for (Shell& shell : state.fights.shells) shell.clear_steps = 0;
  mend_routes(state, solid);
}

}  // namespace

void move_doors(Simulation::State& state) {
  for (std::size_t i = 0; i < state.fixed.doors.size(); ++i) {
    const std::uint32_t number = state.fixed.doors[i];
    const Solid& door = state.level().solids[number];
    const bool is_open = state.world.is_gone({number});
    if (is_somebody_near(state, number)) {
      state.doors.last_near[i] = state.step_start();
      if (!is_open) set_gone(state, number, true);
      continue;
    }
    const Moment wait = state.moments(door.door.closes_after);
    const bool is_due = state.step_start() - state.doors.last_near[i] >= wait;
    if (is_open && is_due && !is_in_its_way(state, door)) set_gone(state, number, false);
  }
}

void wear_down(Simulation::State& state, std::uint32_t solid, double damage, std::uint32_t by) {
  if (state.fights.solid_health.empty() || !(state.level().solids[solid].health > 0.0)) return;
  if (state.world.is_gone({solid})) return;
  state.fights.solid_health[solid] = std::max(0.0, state.fights.solid_health[solid] - damage);
  if (state.fights.solid_health[solid] > 0.0) return;
  state.tell(Event::What::broke, by).solid = SolidId{solid};
  set_gone(state, solid, true);
}

void set_up_solids(Simulation::State& state) {
  const std::vector<Solid>& solids = state.level().solids;
  bool any_breaks = false;
  for (std::uint32_t i = 0; i < solids.size(); ++i) {
    if (solids[i].form == Solid::Form::door) state.fixed.doors.push_back(i);
    any_breaks |= solids[i].health > 0.0;
  }
  state.doors.last_near.resize(state.fixed.doors.size());
  if (!any_breaks) return;
  for (const Solid& solid : solids) state.fights.solid_health.push_back(solid.health);
}

}  // namespace gaze
