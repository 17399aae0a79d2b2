#include "combat/meeting.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/rolling.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

bool has_pierced(const Fighting& state, const Shell& shell, Index other) {
  if (shell.pierced_count == 0) return false;
  const Pierced& pierced =
      state.fights.pierced[static_cast<std::size_t>(&shell - state.fights.shells.data())];
  const auto end = pierced.begin() + shell.pierced_count;
  return std::find(pierced.begin(), end, other) != end;
}

bool passes(const Fighting& state, const Shell& shell, Index other) {
  if (!state.lives.alive[other] || other == shell.shooter) return true;
  if (has_pierced(state, shell, other)) return true;
  const std::uint32_t team = state.kind(shell.shooter).team;
  return state.attack(shell.attack).friends == Attack::Friends::pass && team != kNoTeam &&
         team == state.kind(other).team;
}

// Both move within a step: each body evenly from where it was at the tick before.
void meet_bodies(const Fighting& state, const Shell& shell, const BallPath& ball,
                 const Stretch& stretch, Meeting& meeting) {
  const Vector3d middle = (ball.path.from + ball.path.to) / 2.0;
  const Vector3d way = ball.path.to - ball.path.from;
  if (std::min(ball.path.from.z(), ball.path.to.z()) - ball.radius > state.fights.highest) return;
  const double extent = state.plane() == Plane::upright ? state.fixed.tallest : 0.0;
  const double reach =
      length_of(way) / 2.0 + ball.radius + state.fixed.widest + extent + state.fights.most_moved;
  state.fights.hittable.near(middle, reach, [&](Index other, double) {
    if (passes(state, shell, other)) return;
    const Kind& kind = state.kind(other);
    const Vector3d step = state.bodies.position[other] - state.bodies.previous[other];
    const Cylinder body{state.bodies.previous[other] + step * stretch.from, kind.radius,
                        kind.height};
    const auto share = first_touch(ball, body, step * (stretch.to - stretch.from));
    const bool is_first =
        share && (*share < meeting.share ||
                  (*share == meeting.share && meeting.body && other < *meeting.body));
    if (is_first) meeting = {*share, std::nullopt, other, {0.0, 0.0, 0.0}, 0};
  });
}

}  // namespace

Meeting first_meeting(const Fighting& state, const Shell& shell, const BallPath& ball,
                      const Stretch& stretch, bool is_clear) {
  Meeting meeting;
  if (!is_clear) {
    if (const auto touch = state.world.first_touch(ball, Stops::shots)) {
      meeting = {touch->share, touch->solid, std::nullopt, touch->normal, touch->host_id};
    }
  }
  if (state.level().ground_height) {
    const auto share = first_touch_of_floor(ball, *state.level().ground_height);
    if (share && *share < meeting.share) {
      meeting = {*share, std::nullopt, std::nullopt, {0.0, 0.0, 1.0}, 0};
    }
  }
  meet_bodies(state, shell, ball, stretch, meeting);
  return meeting;
}

Event& tell_hit(const Fighting& state, const Shell& shell, const Meeting& meeting,
                const Vector3d& place) {
  Event& event = tell_attack(state, Event::What::hit, shell.shooter, shell.attack);
  event.place = place;
  event.solid = meeting.solid;
  event.host_id = meeting.host_id;
  if (meeting.body) event.other = state.id_of(*meeting.body);
  event.projectile = shell.number;
  return event;
}

void look_who_can_be_hit(Fighting& state) {
  state.fights.most_moved = 0.0;
  state.fights.highest = -std::numeric_limits<double>::infinity();
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.lives.alive[who]) continue;
    const double feet = std::max(state.bodies.position[who].z(), state.bodies.previous[who].z());
    state.fights.highest = std::max(state.fights.highest, feet + state.kind(who).height);
    const Vector3d moved = state.bodies.position[who] - state.bodies.previous[who];
    state.fights.most_moved = std::max(
        {state.fights.most_moved, std::abs(moved.x()), std::abs(moved.y()), std::abs(moved.z())});
  }
  state.fights.hittable.rebuild(state.plane(), state.bodies.position, state.lives.alive);
}

}  // namespace gaze
