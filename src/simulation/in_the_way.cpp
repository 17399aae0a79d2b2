#include <algorithm>
#include <cmath>

#include "simulation/stages.hpp"

/// Bodies that stop each other, and where they are while a step goes on.
namespace gaze {

std::span<const Cylinder> bodies_in_the_way(Simulation::State& state, std::uint32_t who,
                                            double reach) {
  state.in_the_way.clear();
  const Vector3d& own = state.position[who];
  const double near = reach + state.radius[who] + state.widest + state.strayed;
  state.walkers.near(own, near, [&](std::uint32_t other, double) {
    if (other == who || !state.alive[other] || !state.are_solid(who, other)) return;
    const double most = reach + state.radius[who] + state.radius[other];
    if (level_distance(state.plane(), own, state.position[other]) > most) return;
    state.in_the_way.push_back(state.body(other));
  });
  return state.in_the_way;
}

void note_move(Simulation::State& state, std::uint32_t who) {
  const Vector3d moved = state.position[who] - state.seen_position[who];
  state.strayed =
      std::max({state.strayed, std::abs(moved.x()), std::abs(moved.y()), std::abs(moved.z())});
}

void look_for_neighbours(Simulation::State& state) {
  state.seen_position = state.position;
  state.strayed = 0.0;
  state.walkers.rebuild(state.plane(), state.seen_position, state.alive);
  std::fill(state.goes_on_way.begin(), state.goes_on_way.end(), 0);
}

bool is_taken_by_one_beside(const Simulation::State& state, std::uint32_t who,
                            const Vector3d& place) {
  constexpr double kTouching = 0.1;  // metres: others slow down before they touch
  const Vector3d& own = state.position[who];
  const double near = state.radius[who] + state.widest + state.strayed + kTouching;
  bool is_taken = false;
  state.walkers.near(own, near, [&](std::uint32_t other, double) {
    if (other == who || !state.alive[other] || !state.are_solid(who, other)) return;
    const Vector3d& its = state.position[other];
    const double gap = state.radius[who] + state.radius[other];
    is_taken |= level_distance(state.plane(), own, its) <= gap + kTouching &&
                level_distance(state.plane(), place, its) < gap;
  });
  return is_taken;
}

}  // namespace gaze
