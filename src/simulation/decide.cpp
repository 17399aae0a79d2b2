#include "simulation/state.hpp"

namespace gaze {
namespace {

double squared_distance(Plane plane, const Vector3d& a, const Vector3d& b) {
  const double x = b.x() - a.x();
  const double y = plane == Plane::upright ? 0.0 : b.y() - a.y();
  const double z = plane == Plane::ground ? 0.0 : b.z() - a.z();
  return x * x + y * y + z * z;
}

void decide_one(Simulation::State& state, std::uint32_t who) {
  state.target[who] = choose_target(state.contacts[who], [&](std::uint32_t other) {
    return squared_distance(state.plane(), state.position[who], state.position[other]);
  });
  if (state.agent(who).driver != Driver::mind) return;
  const Mode before = state.mode[who];
  const Mode after = next_mode(before, state.idle[who], state.kind(who).when, state.news[who],
                               state.contacts[who]);
  if (before == state.idle[who] && after != before) state.home[who] = state.position[who];
  if (before != after) state.course[who].is_new = true;
  state.change_mode(who, after);
}

}  // namespace

void decide(Simulation::State& state) {
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    if (state.alive[who]) decide_one(state, who);
  }
}

}  // namespace gaze
