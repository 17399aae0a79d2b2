#include <algorithm>
#include <cmath>

#include "travel/body_sweep.hpp"
#include "travel/footing.hpp"
#include "travel/neighbours.hpp"
#include "travel/walk.hpp"

/// Bodies that stop each other, and where they are while a step goes on.
namespace gaze {

namespace {

// Returns whether one of two bodies has fallen onto the other and they overlap. Neither stops the
// other until they are apart, so that the lower one can walk out.
bool has_fallen_onto(const Travelling& state, std::uint32_t one, std::uint32_t other) {
  const auto has_fallen = [&](std::uint32_t who) {
    return state.kind(who).move->gait == Gait::drop && !state.ways.hangs[who];
  };
  return (has_fallen(one) || has_fallen(other)) &&
         bodies_overlap(state.plane(), state.body(one), state.body(other));
}

}  // namespace

std::span<const Cylinder> bodies_in_the_way(Travelling& state, std::uint32_t who, double reach) {
  state.ways.in_the_way.clear();
  const Vector3d& own = state.bodies.position[who];
  const double near = reach + state.fixed.radius[who] + state.fixed.widest + state.ways.strayed;
  state.ways.walkers.near(own, near, [&](std::uint32_t other, double) {
    if (other == who || !state.lives.alive[other] || !state.are_solid(who, other)) return;
    if (flies_past_others(state, other)) return;
    const double most = reach + state.fixed.radius[who] + state.fixed.radius[other];
    if (level_distance(state.plane(), own, state.bodies.position[other]) > most) return;
    if (has_fallen_onto(state, who, other)) return;
    state.ways.in_the_way.push_back(state.body(other));
  });
  return state.ways.in_the_way;
}

void note_move(Travelling& state, std::uint32_t who) {
  const Vector3d moved = state.bodies.position[who] - state.bodies.seen_position[who];
  state.ways.strayed =
      std::max({state.ways.strayed, std::abs(moved.x()), std::abs(moved.y()), std::abs(moved.z())});
}

void look_for_neighbours(Travelling& state) {
  state.bodies.seen_position = state.bodies.position;
  state.ways.strayed = 0.0;
  state.ways.walkers.rebuild(state.plane(), state.bodies.seen_position, state.lives.alive,
                             state.fixed.tallest);
  std::fill(state.ways.goes_on_way.begin(), state.ways.goes_on_way.end(), 0);
}

bool is_taken_by_one_beside(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  constexpr double kTouching = 0.1;  // metres: others slow down before they touch
  const Vector3d& own = state.bodies.position[who];
  const double near = state.fixed.radius[who] + state.fixed.widest + state.ways.strayed + kTouching;
  bool is_taken = false;
  state.ways.walkers.near(own, near, [&](std::uint32_t other, double) {
    if (other == who || !state.lives.alive[other] || !state.are_solid(who, other)) return;
    const Vector3d& its = state.bodies.position[other];
    const double gap = state.fixed.radius[who] + state.fixed.radius[other];
    if (!state.share_a_height(who, other, its.z() - own.z())) return;
    is_taken |= level_distance(state.plane(), own, its) <= gap + kTouching &&
                level_distance(state.plane(), place, its) < gap;
  });
  return is_taken;
}

void take_pushes(Travelling& state) {
  for (const Push& push : state.told.pushes) state.ways.pushed[push.who] += push.velocity;
  state.told.pushes.clear();
}

// Bodies that are pushed slow down evenly, by friction.
void move_pushed(Travelling& state) {
  constexpr double kSlowing = 10.0;  // metres a second squared
  const double step = 1.0 / state.level().ticks_per_second;
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    Vector3d& pushed = state.ways.pushed[who];
    if (pushed.x() == 0.0 && pushed.y() == 0.0) continue;
    const double speed = level_length(pushed);
    const double seconds = std::min(step, speed / kSlowing);
    const double way = speed * seconds - kSlowing * seconds * seconds / 2.0;
    if (state.lives.alive[who] && !state.ways.is_leaping(who)) {
      const Kind& kind = state.kind(who);
      const double lift = kind.move->gait == Gait::hover ? 0.0 : *kind.move->step_height;
      const Cylinder body{state.bodies.position[who] + Vector3d{0.0, 0.0, lift}, kind.radius,
                          kind.height - lift};
      const Vector3d end = slide(state.world, body, pushed * (way / speed), false,
                                 bodies_in_the_way(state, who, way));
      state.bodies.position[who] = {end.x(), end.y(), state.bodies.position[who].z()};
      note_move(state, who);
      state.ways.route[who].was_pushed = true;
    }
    pushed *= std::max(0.0, speed - kSlowing * step) / speed;
  }
}

}  // namespace gaze
