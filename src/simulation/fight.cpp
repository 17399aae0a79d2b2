#include "combat/cooldown.hpp"
#include "simulation/stages.hpp"

/// The fighting of one step, from shells to healing.
namespace gaze {
namespace {

using Index = std::uint32_t;

void show_projectiles(Simulation::State& state) {
  state.fights.projectiles.clear();
  for (const Shell& shell : state.fights.shells) {
    state.fights.projectiles.push_back({{shell.shooter},
                                        shell.attack->name,
                                        shell.position,
                                        shell.velocity,
                                        shell.attack->radius,
                                        shell.number});
  }
}

bool has_attack(const Kind& kind, Attack::How how) {
  return std::any_of(kind.attacks.begin(), kind.attacks.end(),
                     [&](const Attack& attack) { return attack.how == how; });
}

}  // namespace

Event& tell_attack(Simulation::State& state, Event::What what, Index who, const Attack& attack) {
  Event& event = state.tell(what, who);
  event.attack = attack.name;
  return event;
}

bool may_harm(const Simulation::State& state, Index who, Index other) {
  return is_hostile(state.level(), state.kind(who).team, state.kind(other).team);
}

bool can_hurt(const Simulation::State& state, Index by, const Attack& attack, Index victim) {
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

Vector3d motion_of(const Simulation::State& state, Index who) {
  return (state.bodies.position[who] - state.bodies.previous[who]) * state.level().ticks_per_second;
}

void set_up_fights(Simulation::State& state) {
  const std::size_t count = state.level().agents.size();
  state.fights.grace_until.assign(count, kAlwaysReady);
  state.lives.hurt_at.assign(count, kAlwaysReady);
  state.fights.last_blast.resize(count);
  state.bodies.trigger.resize(count);
  state.bodies.leader.resize(count);
  state.ways.pushed.assign(count, Vector3d{0.0, 0.0, 0.0});
  for (Index who = 0; who < count; ++who) {
    const Kind& kind = state.kind(who);
    if (has_attack(kind, Attack::How::touch)) state.fixed.touchers.push_back(who);
    if (kind.heals > 0.0) state.fixed.healers.push_back(who);
    state.fixed.uses_beams |= has_attack(kind, Attack::How::beam);
    state.fixed.tallest = std::max(state.fixed.tallest, kind.height);
  }
}

// Shells of earlier steps fly before this step's leave their muzzles, so that these start with the
// next one. Blows fall together at the end, against the health that everybody began with.
void fight(Simulation::State& state) {
  state.fights.blows.clear();
  state.fights.somebody_caught = false;
  fly_shells(state);
  make_attacks(state);
  make_touches(state);
  let_go_of_what_is_due(state);
  state.fights.shells.insert(state.fights.shells.end(), state.fights.thrown.begin(),
                             state.fights.thrown.end());
  state.fights.pierced.resize(state.fights.shells.size());
  state.fights.thrown.clear();
  shine_beams(state);
  deal_blows(state);
  heal(state);
  bring_back(state);
  judge_round(state);
  show_projectiles(state);
}

}  // namespace gaze
