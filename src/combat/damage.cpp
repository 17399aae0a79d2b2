#include "combat/damage.hpp"
#include "combat/attempt.hpp"
#include "gaze/sides.hpp"
#include "geometry/polygon.hpp"
#include "world/distances.hpp"

/// What blows and blasts do to bodies and to what breaks.
namespace gaze {
namespace {

using Index = std::uint32_t;

// A victim knows who has hurt it, if its kind has that sense or reacts to being hurt.
void feel_hurt(Fighting& state, Index who, std::optional<Index> by) {
  const Kind& kind = state.kind(who);
  state.fire(who, Cause::hurt);
  const std::vector<Rule>& rules = kind.when.rules;
  const bool reacts = std::any_of(rules.begin(), rules.end(),
                                  [](const Rule& rule) { return rule.cause == Cause::hurt; });
  if (!by || (!kind.hurt && !reacts)) return;
  const Duration remember = kind.hurt ? kind.hurt->remember : HurtSense{}.remember;
  state.told.sudden.push_back(
      {who, *by, Sense::hurt, state.moments(remember), state.bodies.position[*by], std::nullopt});
}

double damage_of(const Fighting& state, const Blow& blow, Side side) {
  const Kind& kind = state.kind(blow.victim);
  const Attack& attack = state.attack(blow.attack);
  return attack.damage * blow.share * share_taken(kind, attack.damage_kind) *
         kind.side_factors[static_cast<std::size_t>(side)];
}

// The push is level, away from where the blow came from.
void push(Fighting& state, const Blow& blow) {
  const Attack& attack = state.attack(blow.attack);
  if (attack.push == 0.0 || !travels(state.kind(blow.victim).move->gait)) return;
  Vector3d away = state.middle(blow.victim) - blow.from;
  away.z() = 0.0;
  if (state.plane() == Plane::upright) away.y() = 0.0;
  const double length = level_length(away);
  if (length == 0.0) return;
  const double speed = attack.push * blow.share / state.kind(blow.victim).mass;
  state.told.pushes.push_back({blow.victim, away * (speed / length)});
}

// The grace after a hit counts from the moment of that hit, at any rate of steps. It does not keep
// off other hits of the very same moment.
bool is_spared(const Fighting& state, Index who, Moment when) {
  return when < state.fights.grace_until[who] && when != state.lives.hurt_at[who];
}

void deal(Fighting& state, const Blow& blow) {
  const Index who = blow.victim;
  if (!state.lives.alive[who] || is_spared(state, who, blow.when)) return;
  push(state, blow);
  const Side side = side_towards(state.plane(), state.body(who), state.bodies.facing[who], blow.at);
  const double lost = std::min(damage_of(state, blow, side), state.lives.health[who]);
  if (!(lost > 0.0)) return;
  state.lives.health[who] -= lost;
  state.fights.grace_until[who] = blow.when + state.limit(who).grace;
  state.lives.hurt_at[who] = blow.when;
  Event& event = state.tell(Event::What::hurt, who);
  event.other = state.id_of(blow.by);
  event.attack = state.name_of(blow.attack);
  event.damage = lost;
  event.health = state.lives.health[who];
  event.side = side;
  event.place = state.bodies.position[who];
  if (event.health > 0.0) {
    feel_hurt(state, who, blow.by);
  } else {
    defeat(state, who, state.bodies.position[who], blow.by, blow.when);
  }
}

}  // namespace

void blast(Fighting& state, Index by, Index maker, const AttackId& id, const Vector3d& place,
           double radius, Moment when) {
  const Attack& attack = state.attack(id);
  tell_attack(state, Event::What::blast, maker, id).place = place;
  state.fights.last_blast.set(maker, {state.name_of(id), place, radius, state.clock.tick});
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (!state.lives.alive[who] || who == maker || !can_hurt(state, by, attack, who)) continue;
    const double share = blast_share(state.world, attack, place, radius, state.body(who),
                                     state.kind(who).body_points);
    if (share > 0.0) state.fights.blows.push_back({by, who, id, share, place, place, when});
  }
  if (state.fights.solid_health.empty()) return;
  for (Index solid = 0; solid < state.level().solids.size(); ++solid) {
    const Solid& values = state.level().solids[solid];
    if (!(values.health > 0.0)) continue;
    const double share = blast_share(attack, radius, distance_to(state.plane(), values, place));
    if (!(share > 0.0)) continue;
    wear_down(state, solid, attack.damage * share, by, nearest_point(state.plane(), values, place));
  }
}

// An agent that is defeated may burst, and so add to the blows that are being dealt.
void deal_blows(Fighting& state) {
  for (std::size_t i = 0; i < state.fights.blows.size(); ++i) state.fights.blows[i].number = i;
  std::sort(state.fights.blows.begin(), state.fights.blows.end(), [](const Blow& a, const Blow& b) {
    return a.when != b.when ? a.when < b.when : a.number < b.number;
  });
  for (std::size_t i = 0; i < state.fights.blows.size(); ++i) {
    const Blow blow = state.fights.blows[i];
    deal(state, blow);
  }
  state.fights.blows.clear();
}

// Only the part of the step counts that lies after the wait since the last hurt.
void heal(Fighting& state) {
  for (const Index who : state.fixed.healers) {
    const Kind& kind = state.kind(who);
    if (!state.lives.alive[who] || state.lives.health[who] >= kind.health) continue;
    const Moment from =
        std::max(state.step_start(), state.lives.hurt_at[who] + state.limit(who).heals_after);
    if (from >= state.now()) continue;
    const double seconds = static_cast<double>(state.now() - from) / double(kMomentsPerTick) /
                           state.level().ticks_per_second;
    state.lives.health[who] = std::min(kind.health, state.lives.health[who] + kind.heals * seconds);
  }
}

void hurt(Fighting& state, Index who, double points, std::optional<Index> by) {
  double& health = state.lives.health[who];
  const double lost = std::min(points, health);
  if (!(lost > 0.0)) return;
  health -= lost;
  state.lives.hurt_at[who] = state.now();
  Event& event = state.tell(Event::What::hurt, who);
  if (by) event.other = state.id_of(*by);
  event.damage = lost;
  event.health = health;
  event.place = state.bodies.position[who];
  if (health > 0.0) {
    feel_hurt(state, who, by);
  } else {
    defeat(state, who, state.bodies.position[who], by, state.now());
    deal_blows(state);
  }
}

void set_gone(Fighting& state, Index solid, bool is_gone) {
  const Solid& values = state.level().solids[solid];
  if (values.health > 0.0) state.fights.solid_health[solid] = is_gone ? 0.0 : values.health;
  state.world.set_gone({solid}, is_gone);
  state.told.changed_solids.push_back(solid);
  look_ahead_again(state.fights);
}

void look_ahead_again(Fights& fights) {
  for (Shell& shell : fights.shells) shell.clear_steps = 0;
}

void wear_down(Fighting& state, std::uint32_t solid, double damage, std::uint32_t by,
               const Vector3d& place) {
  const bool may_break = solid < state.fights.solid_health.size();  // what is the host's does not
  if (!may_break || !(state.level().solids[solid].health > 0.0)) return;
  if (state.world.is_gone({solid})) return;
  state.fights.solid_health[solid] = std::max(0.0, state.fights.solid_health[solid] - damage);
  if (state.fights.solid_health[solid] > 0.0) return;
  Event& event = state.tell(Event::What::broke, by);
  event.solid = SolidId{solid};
  event.place = place;
  state.world.set_gone({solid}, true);
  state.told.changed_solids.push_back(solid);
  look_ahead_again(state.fights);
}

}  // namespace gaze
