#include "combat/pulls.hpp"
#include "combat/cooldown.hpp"
#include "combat/shells.hpp"
#include "gaze/sides.hpp"
#include "geometry/rolling.hpp"

/// When attacks are pulled: by minds, by touch, and by agents that a script or the host drives.
namespace gaze {
namespace {

using Index = std::uint32_t;
using How = Attack::How;

Moment in_moments(const Fighting& state, Duration duration) {
  return state.moments(duration);
}

// When a blow or shot of a pull is due.
Moment due_of(const Fighting& state, const Attack& attack, Moment pulled, int number) {
  return pulled + in_moments(state, attack.wind_up) +
         number * in_moments(state, attack.burst_interval);
}

// Takes what a pull needs from the ammunition of an attack. If nothing is left, the attack reloads
// from then on.
// @return How many of the blows or shots of a pull there are.
int use_ammunition(const Fighting& state, const Attack& attack, Readiness& ready, Moment pulled) {
  const int wanted = attack.how == How::shot ? attack.burst : 1;
  if (attack.ammunition == 0) return wanted;
  const int used = std::min(wanted, ready.left);
  ready.left -= used;
  if (ready.left > 0) return used;
  const Moment last = due_of(state, attack, pulled, used - 1);
  ready.at =
      attack.reload ? std::max(ready.at, last + in_moments(state, *attack.reload)) : kNeverReady;
  ready.left = attack.ammunition;
  return used;
}

void pull(Fighting& state, Index who, Index attack, const Aimed& at, Moment pulled) {
  const Attack& values = state.attack(who, attack);
  Event& event = tell_attack(state, Event::What::attacked, who, state.attack_id(who, attack));
  if (at.agent) {
    event.other = state.id_of(*at.agent);
    event.distance =
        plane_distance(state.plane(), state.bodies.position[who], state.bodies.position[*at.agent]);
  }
  const int count = use_ammunition(state, values, state.fights.ready[who][attack], pulled);
  for (int i = 0; i < count; ++i) {
    const Moment due = due_of(state, values, pulled, i);
    state.fights.releases.push_back({who, attack, at, due, due > state.now()});
  }
}

void pull_all_due(Fighting& state, Index who, Index attack, const Aimed& at,
                  Moment until = kNeverReady) {
  Readiness& ready = state.fights.ready[who][attack];
  while (ready.at <= until) {
    const auto pulled = take_pull(ready.at, state.now(), state.limit(who).cooldowns[attack]);
    if (!pulled) break;
    pull(state, who, attack, at, *pulled);
  }
  state.told.made.push_back({who, attack});
}

bool can_make(const Everyone& state, Index who, const Attack& attack, Index target) {
  const Attempt attempt = attempt_of(state, who, attack, target);
  return is_far_enough(attempt) && gets_there(state, who, attempt);
}

// Without anybody to aim at, only attacks that go along the facing can be made.
void attack_with(Fighting& state, Index who, Index attack, std::optional<Index> target) {
  const Attack& values = state.attack(who, attack);
  if (values.how == How::touch) return;  // who touches it is hurt without its doing
  if (state.fights.ready[who][attack].at > state.now()) return;
  const bool needs_none =
      values.how == How::shot || values.how == How::beam || values.how == How::burst;
  if (!is_fit(state, who, values)) return;
  const bool is_possible = target ? can_make(state, who, values, *target) : needs_none;
  if (is_possible) pull_all_due(state, who, attack, {target, std::nullopt, false});
}

// Fires a beam that locks on at the first enemy that its ray meets. Senses play no part.
void lock_on(Fighting& state, Index who, Index attack) {
  const Attack& values = state.attack(who, attack);
  if (state.fights.ready[who][attack].at > state.now() || !is_fit(state, who, values)) return;
  const auto target = enemy_on_ray(state, who, attack);
  if (!target || !can_make(state, who, values, *target)) return;
  pull_all_due(state, who, attack, {target, std::nullopt, false});
}

void attack_by_mind(Fighting& state, Index who) {
  if (state.minds.mode[who] == Mode::return_ || state.minds.mode[who] == Mode::flee) return;
  for (const Index attack : state.limit(who).locking) lock_on(state, who, attack);
  auto target = state.target_agent(who);
  if (target && !state.lives.alive[*target]) target.reset();
  if (!target && state.minds.urged[who] == 0) return;
  for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
    const std::uint64_t bit = std::uint64_t{1} << attack;
    const bool is_urged = (state.minds.urged[who] & bit) != 0;
    if (state.attack(who, attack).locks_on && !is_urged) continue;
    if (!is_urged && (state.limit(who).urged_only & bit) != 0) continue;
    if (target || is_urged) attack_with(state, who, attack, target);
  }
}

// The nearest of those whom an agent can strike. Of equally near ones it is the first in the file.
std::optional<Index> strikable(const Everyone& state, Index who, const Attack& attack) {
  std::optional<Index> best;
  double nearest = attack.range;
  const std::uint32_t team = state.kind(who).team;
  if (team == kNoTeam) return best;
  for (const Index foe : state.fixed.foes_of[team]) {
    if (!state.lives.alive[foe]) continue;
    const double distance =
        plane_distance(state.plane(), state.bodies.position[who], state.bodies.position[foe]);
    if (distance > nearest || (best && distance == nearest)) continue;
    if (!can_reach(attempt_of(state, who, attack, foe))) continue;
    best = foe;
    nearest = distance;
  }
  return best;
}

bool is_turned_to_aim(const Everyone& state, Index who, const Attack& attack,
                      const std::optional<Vector3d>& aim) {
  if (!aim || attack.aim == Attack::Aim::ahead) return true;
  Fighter there;
  there.feet = *aim;
  const Fighter own = fighter_of(state, who);
  return is_facing(state.plane(), own, there, aim_limit(attack, own));
}

// Attacks as the trigger says, whether that hits anybody or not: that is for the driver to know.
void attack_by_trigger(Fighting& state, Index who, Index attack, const Trigger& trigger) {
  const Attack& values = state.attack(who, attack);
  if (values.how == How::touch || values.how == How::catch_) return;
  if (state.fights.ready[who][attack].at > state.now() || !is_fit(state, who, values)) return;
  Aimed at{std::nullopt, trigger.aim, trigger.is_plan};
  if (values.how == How::strike) {
    at = {strikable(state, who, values), std::nullopt, false};
    if (!at.agent) return;
  } else if (values.how != How::burst && !is_turned_to_aim(state, who, values, trigger.aim)) {
    return;
  }
  pull_all_due(state, who, attack, at, trigger.until);
}

void attack_as_driven(Fighting& state, Index who) {
  const Trigger* trigger = state.bodies.trigger[who];
  if (trigger == nullptr || !trigger->fires) return;
  for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
    if ((trigger->attacks >> attack & 1U) != 0) attack_by_trigger(state, who, attack, *trigger);
  }
}

void attack_as_mirror(Fighting& state, Index who) {
  const auto& leader = state.bodies.leader[who];
  const Trigger* trigger = leader ? state.bodies.trigger[*leader] : nullptr;
  if (trigger == nullptr || !trigger->fires) return;
  for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
    if (state.attack(who, attack).aim != Attack::Aim::mirror) continue;
    attack_by_trigger(state, who, attack, *trigger);
  }
}

// Answers no for most bodies at little cost.
bool is_near_piece(const Segment& piece, double radius, const Cylinder& body) {
  const Vector3d middle = (piece.from + piece.to) / 2.0;
  const Vector3d way = piece.to - piece.from;
  const double x = body.feet.x() - middle.x();
  const double y = body.feet.y() - middle.y();
  const double reach = level_length(way) / 2.0 + radius + body.radius;
  return x * x + y * y <= reach * reach * (1.0 + 1e-9);
}

}  // namespace

bool is_fit(const Everyone& state, Index who, const Attack& attack) {
  const double health = state.lives.health[who] / state.kind(who).health;
  return health >= attack.health_low && health <= attack.health_high;
}

Attempt attempt_of(const Everyone& state, Index who, const Attack& attack, Index target) {
  return {state.world,
          attack,
          fighter_of(state, who),
          fighter_of(state, target),
          state.motion_of(target),
          state.level().gravity};
}

bool gets_there(const Everyone& state, Index who, const Attempt& attempt) {
  return can_reach(attempt) && !friend_in_the_way(state, who, attempt);
}

std::optional<Index> friend_in_the_way(const Everyone& state, Index who, const Attempt& attempt) {
  const Attack& attack = attempt.attack;
  const std::uint32_t team = state.kind(who).team;
  if (attack.friends == Attack::Friends::pass || team == kNoTeam) return std::nullopt;
  const auto way = way_of(attempt);
  if (!way) return std::nullopt;
  const Vector3d muzzle = muzzle_of(state.plane(), attack, attempt.by);
  const Vector3d still{0.0, 0.0, 0.0};
  std::optional<Index> found;
  along_flight(attack, muzzle, *way, attempt.gravity, [&](const Segment& piece) {
    for (Index other = 0; other < state.agent_count() && !found; ++other) {
      const bool is_friend =
          other != who && state.lives.alive[other] && state.kind(other).team == team;
      if (is_friend && is_near_piece(piece, *attack.radius, state.body(other)) &&
          first_touch(BallPath{piece, *attack.radius}, state.body(other), still)) {
        found = other;
      }
    }
    return !found;
  });
  return found;
}

void make_attacks(Fighting& state) {
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.is_up(who)) continue;
    if (state.fixed.driver[who] != Driver::mind) {
      attack_as_driven(state, who);
    } else if (state.minds.mode[who] == Mode::mirror) {
      attack_as_mirror(state, who);
    } else {
      attack_by_mind(state, who);
    }
  }
}

bool strikes_with(const Everyone& state, Index who, const Attack& attack, Side side) {
  const bool lies = state.kind(who).move->gait == Gait::drop &&
                    state.bodies.position[who].z() >= state.bodies.previous[who].z();
  return attack.how == How::touch && attack.sides.test(static_cast<std::size_t>(side)) &&
         !(lies && side == Side::bottom);
}

// Attacks by touch are made on the sides that they name, whoever drives the agent.
void make_touches(Fighting& state) {
  for (const Index who : state.fixed.touchers) {
    const Kind& kind = state.kind(who);
    if (!state.is_up(who) || kind.team == kNoTeam) continue;
    state.fights.touches.forget_gone(state, who);
    for (const Index other : state.fixed.foes_of[kind.team]) {
      if (!state.lives.alive[other]) continue;
      const auto side = state.fights.touches.note(state, who, other);
      if (!side) continue;
      for (Index attack = 0; attack < kind.attacks.size(); ++attack) {
        const Attack& values = kind.attacks[attack];
        if (strikes_with(state, who, values, *side) && is_fit(state, who, values)) {
          pull_all_due(state, who, attack, {other, std::nullopt, false});
        }
      }
    }
  }
}

}  // namespace gaze
