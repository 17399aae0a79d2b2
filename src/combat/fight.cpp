#include "combat/cooldown.hpp"
#include "combat/damage.hpp"
#include "combat/fighting.hpp"
#include "combat/pulls.hpp"
#include "combat/shells.hpp"

/// The fighting of one step, from shells to healing.
namespace gaze {
namespace {

using Index = std::uint32_t;

void show_projectiles(Fighting& state) {
  state.fights.projectiles.clear();
  for (const Shell& shell : state.fights.shells) {
    state.fights.projectiles.push_back({state.id_of(shell.shooter), state.name_of(shell.attack),
                                        shell.position, shell.velocity,
                                        *state.attack(shell.attack).radius, shell.number});
  }
}

}  // namespace

Fighter fighter_of(const Everyone& all, Index who) {
  return fighter_of(all.plane(), all.kind(who), all.bodies.position[who], all.bodies.facing[who]);
}

Event& tell_attack(const Teller& state, Event::What what, Index who, const AttackId& attack) {
  Event& event = state.tell(what, who);
  event.attack = state.name_of(attack);
  return event;
}

bool may_harm(const Everyone& state, Index who, Index other) {
  return is_hostile(state.level(), state.kind(who).team, state.kind(other).team);
}

bool can_hurt(const Everyone& state, Index by, const Attack& attack, Index victim) {
  if (victim == by) return false;
  if (state.kind(victim).thing || may_harm(state, by, victim)) return true;
  const std::uint32_t team = state.kind(by).team;
  return attack.friends == Attack::Friends::hurt && team != kNoTeam &&
         team == state.kind(victim).team;
}

double damage_share(const Attack& attack, double distance) {
  if (attack.far_damage == 1.0) return 1.0;
  const double faded = distance / attack.range - attack.fade_from;
  if (!(faded > 0.0)) return 1.0;
  const double share =
      attack.fade_from < 1.0 ? std::min(1.0, faded / (1.0 - attack.fade_from)) : 1.0;
  return 1.0 - (1.0 - attack.far_damage) * share;
}

// Shells of earlier steps fly before those of this step leave their muzzles, so that these begin to
// fly with the next step. Blows fall together at the end, against the health that everybody had at
// the start.
void fight(Fighting& state) {
  state.fights.somebody_caught = false;
  fly_shells(state);
  make_attacks(state);
  make_touches(state);
  let_go_of_what_is_due(state);
  shine_beams(state);
  deal_blows(state);
  heal(state);
  state.fights.shells.insert(state.fights.shells.end(), state.fights.thrown.begin(),
                             state.fights.thrown.end());
  state.fights.pierced.resize(state.fights.shells.size());
  state.fights.thrown.clear();
  show_projectiles(state);
}

}  // namespace gaze
