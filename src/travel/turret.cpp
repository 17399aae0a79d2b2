#include <algorithm>
#include <cmath>

#include "geometry/signed_turn.hpp"
#include "travel/modes.hpp"
#include "travel/turn.hpp"

/// What is fixed and turns: within limits, and as a friend does.
namespace gaze {
namespace {
using Index = std::uint32_t;
}  // namespace

// It never turns through directions outside its limits, even where that would be shorter.
void turn_turret(Travelling& state, Index who, const Vector2d& wanted) {
  const double most = state.limit(who).turret_turn_deg;
  Vector2d& facing = state.bodies.facing[who];
  if (most == 0.0) {
    facing = turn_toward(facing, wanted, state.limit(who).turn);
    return;
  }
  if (dot(wanted, wanted) == 0.0) return;
  const auto [low, high] = state.kind(who).move->turn_limits;
  const Vector2d& placed = state.bodies.placed_facing[who];
  const double from = signed_turn(placed, facing);
  const double to = std::clamp(signed_turn(placed, wanted), low, high);
  const double turn = std::clamp(to - from, -most, most);
  if (turn == 0.0) return;
  facing = turned(placed, sine_cosine(Angle::from_degrees(from + turn)));
}

std::optional<Index> mirrored(const Everyone& state, Index who) {
  double radius = 0.0;
  for (const Attack& attack : state.kind(who).attacks) {
    if (attack.aim == Attack::Aim::mirror) radius = std::max(radius, *attack.mirror_radius);
  }
  std::optional<Index> nearest;
  const std::uint32_t team = state.kind(who).team;
  for (Index other = 0; other < state.agent_count() && team != kNoTeam; ++other) {
    const bool is_leader = other != who && state.fixed.driver[other] != Driver::mind &&
                           state.kind(other).team == team && state.is_up(other);
    if (!is_leader) continue;
    const double distance = plane_distance(state.plane(), state.bodies.position[who],
                                           state.bodies.seen_position[other]);
    if (distance > radius || (nearest && distance == radius)) continue;
    radius = distance;
    nearest = other;
  }
  return nearest;
}

// It turns to what its friend aims at, or else as the friend faces. Without a friend it stands as
// it was placed.
FacingWish mirror(Travelling& state, Index who) {
  state.bodies.leader[who] = mirrored(state, who);
  if (!state.bodies.leader[who]) return {std::nullopt, state.bodies.rest_facing[who]};
  const Trigger* trigger = state.bodies.trigger[*state.bodies.leader[who]];
  if (trigger != nullptr && trigger->aim) return {trigger->aim, std::nullopt};
  return {std::nullopt, state.bodies.facing[*state.bodies.leader[who]]};
}

}  // namespace gaze
