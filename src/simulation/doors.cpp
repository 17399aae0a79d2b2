#include <algorithm>
#include <cmath>

#include "combat/damage.hpp"
#include "geometry/polygon.hpp"
#include "simulation/stages.hpp"
#include "world/touching.hpp"

/// Doors: for whom they open, and when they shut.
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
  return feet < *door.base + door.height && *door.base < feet + state.kind(who).height;
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

}  // namespace

void move_doors(Simulation::State& state) {
  Fighting fighting(state);
  for (std::size_t i = 0; i < state.fixed.doors.size(); ++i) {
    const std::uint32_t number = state.fixed.doors[i];
    const Solid& door = state.level().solids[number];
    const bool is_open = state.world.is_gone({number});
    if (is_somebody_near(state, number)) {
      state.door_used[i] = state.step_start();
      if (!is_open) set_gone(fighting, number, true);
      continue;
    }
    const Moment wait = state.moments(door.door.closes_after);
    const bool is_due = state.step_start() - state.door_used[i] >= wait;
    if (is_open && is_due && !is_in_its_way(state, door)) set_gone(fighting, number, false);
  }
}

}  // namespace gaze
