#include <algorithm>
#include <cmath>

#include "simulation/stages.hpp"

/// Bodies that stop each other, and where they are while a step goes on.
namespace gaze {

std::span<const Cylinder> bodies_in_the_way(Simulation::State& state, std::uint32_t who,
                                            double reach) {
  state.ways.in_the_way.clear();
  const Vector3d& own = state.bodies.position[who];
  const double near = reach + state.fixed.radius[who] + state.fixed.widest + state.ways.strayed;
  state.ways.walkers.near(own, near, [&](std::uint32_t other, double) {
    if (other == who || !state.lives.alive[other] || !state.are_solid(who, other)) return;
    const double most = reach + state.fixed.radius[who] + state.fixed.radius[other];
    if (level_distance(state.plane(), own, state.bodies.position[other]) > most) return;
    state.ways.in_the_way.push_back(state.body(other));
  });
  return state.ways.in_the_way;
}

void note_move(Simulation::State& state, std::uint32_t who) {
  const Vector3d moved = state.bodies.position[who] - state.bodies.seen_position[who];
  state.ways.strayed =
      std::max({state.ways.strayed, std::abs(moved.x()), std::abs(moved.y()), std::abs(moved.z())});
}

void look_for_neighbours(Simulation::State& state) {
  state.bodies.seen_position = state.bodies.position;
  state.ways.strayed = 0.0;
  state.ways.walkers.rebuild(state.plane(), state.bodies.seen_position, state.lives.alive);
  std::fill(state.ways.goes_on_way.begin(), state.ways.goes_on_way.end(), 0);
}

bool is_taken_by_one_beside(const Simulation::State& state, std::uint32_t who,
                            const Vector3d& place) {
  constexpr double kTouching = 0.1;  // metres: others slow down before they touch
  const Vector3d& own = state.bodies.position[who];
  const double near = state.fixed.radius[who] + state.fixed.widest + state.ways.strayed + kTouching;
  bool is_taken = false;
  state.ways.walkers.near(own, near, [&](std::uint32_t other, double) {
    if (other == who || !state.lives.alive[other] || !state.are_solid(who, other)) return;
    const Vector3d& its = state.bodies.position[other];
    const double gap = state.fixed.radius[who] + state.fixed.radius[other];
    is_taken |= level_distance(state.plane(), own, its) <= gap + kTouching &&
                level_distance(state.plane(), place, its) < gap;
  });
  return is_taken;
}

}  // namespace gaze
