#include <algorithm>

#include "travel/body_sweep.hpp"
#include "travel/modes.hpp"
#include "travel/neighbours.hpp"

/// Vertical movement of hoverers towards a target.
namespace gaze {
namespace {

using Index = std::uint32_t;

bool is_free(const Travelling& state, Index who, const Vector3d& way) {
  return !state.world.sweep(core_of(state.body(who)), way, Stops::bodies);
}

// Returns the straight path to the stop position before a target.
Vector3d way_to(const Travelling& state, Index who, const Focus& target) {
  const Vector3d& feet = state.bodies.position[who];
  Vector3d way = target.place - feet;
  const double distance = level_length(way);
  const double stop = state.chase_stop(who, *target.agent);
  const double share = distance > stop ? 1.0 - stop / distance : 0.0;
  way = {way.x() * share, way.y() * share, way.z() + *state.kind(who).move->hover_height};
  return way;
}

// Returns the height to move to. Paths are valid at the agent's own height alone, so that the agent
// returns there when the straight path to its target is blocked.
double wanted_height(const Travelling& state, Index who) {
  const double own = state.bodies.post[who].z();
  if (state.minds.mode[who] != Mode::chase) return own;
  const auto target = focus_of(state, who);
  if (!target || !target->agent) return own;
  const Vector3d way = way_to(state, who, *target);
  return is_free(state, who, way) ? state.bodies.position[who].z() + way.z() : own;
}

double within_bounds(const Level& level, double height) {
  if (level.ground_height) height = std::max(height, *level.ground_height);
  if (!level.bounds) return height;
  if (level.bounds->low) height = std::max(height, *level.bounds->low);
  if (level.bounds->high) height = std::min(height, *level.bounds->high);
  return height;
}

// Returns how far a body can rise before it touches a solid. It stops `kContactGap` before.
double free_part(const Travelling& state, Index who, double rise) {
  const auto touch = state.world.sweep(core_of(state.body(who)), {0.0, 0.0, rise}, Stops::bodies);
  if (!touch) return rise;
  const double length = std::max(0.0, std::abs(rise) * touch->share - 2.0 * kContactGap);
  return rise < 0.0 ? -length : length;
}

// Returns whether a rise leads into another body. Bodies that overlap already do not count.
bool meets_somebody(Travelling& state, Index who, double rise) {
  const Cylinder body = state.body(who);
  Cylinder there = body;
  there.feet.z() += rise;
  const auto others = bodies_in_the_way(state, who, std::abs(rise));
  return std::any_of(others.begin(), others.end(), [&](const Cylinder& other) {
    return bodies_overlap(state.plane(), there, other) &&
           !bodies_overlap(state.plane(), body, other);
  });
}

}  // namespace

void climb(Travelling& state, Index who) {
  const Move& move = *state.kind(who).move;
  if (move.climb_speed == 0.0 || move.gait != Gait::hover || state.plane() == Plane::upright)
    return;
  double& height = state.bodies.position[who].z();
  const double most = move.climb_speed / state.level().ticks_per_second;
  const double wanted = within_bounds(state.level(), wanted_height(state, who));
  if (wanted == height) return;
  const double rise = std::clamp(wanted - height, -most, most);
  const double part = free_part(state, who, rise);
  if (part == 0.0 || meets_somebody(state, who, part)) return;
  height = part == wanted - height ? wanted : height + part;
}

}  // namespace gaze
