#include "combat/cooldown.hpp"
#include "combat/flight.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

const Attack& attack_of(const Simulation::State& state, Index who, Index attack) {
  return state.kind(who).attacks[attack];
}

Event& tell_attack(Simulation::State& state, Event::What what, Index who, Index attack) {
  Event& event = state.tell(what, who);
  event.attack = attack_of(state, who, attack).name;
  return event;
}

void strike(Simulation::State& state, Index who, Index target, Index attack) {
  Event& event = tell_attack(state, Event::What::hit, who, attack);
  event.other = AgentId{target};
  event.place = state.fighter(target).middle();
  state.blows.push_back({who, target, attack});
}

void shoot(Simulation::State& state, Index who, Index target, Index attack) {
  const Attack& values = attack_of(state, who, attack);
  const Fighter shooter = state.fighter(who);
  Shell shell;
  shell.shooter = who;
  shell.attack = attack;
  shell.position = muzzle_place(state.plane(), shooter, values.muzzle);
  shell.velocity = launch_velocity(state.plane(), values, shooter, state.fighter(target));
  state.shells.push_back(shell);
  Event& event = tell_attack(state, Event::What::fired, who, attack);
  event.other = AgentId{target};
  event.place = shell.position;
}

void attack_with(Simulation::State& state, Index who, Index target, Index attack) {
  Moment& ready = state.ready[who][attack];
  if (ready > state.now()) return;
  const Attack& values = attack_of(state, who, attack);
  const bool is_strike = values.how == Attack::How::strike;
  const Fighter fighter = state.fighter(who);
  const Fighter other = state.fighter(target);
  if (!(is_strike ? can_strike(state.world, values, fighter, other)
                  : can_shoot(state.world, values, fighter, other))) {
    return;
  }
  const Moment cooldown = state.limit(who).cooldowns[attack];
  for (int pulls = take_pulls(ready, state.now(), cooldown); pulls > 0; --pulls) {
    Event& event = tell_attack(state, Event::What::attacked, who, attack);
    event.other = AgentId{target};
    event.distance = fight_distance(state.plane(), fighter, other);
    (is_strike ? strike : shoot)(state, who, target, attack);
  }
}

bool may_attack(const Simulation::State& state, Index who) {
  return state.alive[who] && state.agent(who).driver == Driver::mind &&
         state.mode[who] != Mode::return_;
}

void make_attacks(Simulation::State& state) {
  for (Index who = 0; who < state.agent_count(); ++who) {
    const auto target = state.target_agent(who);
    if (!target || !may_attack(state, who) || !state.alive[*target]) continue;
    for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
      attack_with(state, who, *target, attack);
    }
  }
}

/// What a shell meets first on its way through one step.
struct Meeting {
  double share = 1.0;
  std::optional<SolidId> solid;
  std::optional<Index> body;
};

bool passes(const Simulation::State& state, const Shell& shell, Index other) {
  if (!state.alive[other] || other == shell.shooter) return true;
  const std::uint32_t team = state.kind(shell.shooter).team;
  return team != kNoTeam && team == state.kind(other).team;
}

Meeting first_meeting(const Simulation::State& state, const Shell& shell, const BallPath& ball,
                      double part_of_step) {
  Meeting meeting;
  if (const auto touch = state.world.first_touch(ball, Stops::shots)) {
    meeting.share = touch->share;
    meeting.solid = touch->solid;
  }
  if (state.level->ground_height) {
    const auto share = first_touch_of_floor(ball, *state.level->ground_height);
    if (share && *share < meeting.share) meeting = {*share, std::nullopt, std::nullopt};
  }
  for (Index other = 0; other < state.agent_count(); ++other) {
    if (passes(state, shell, other)) continue;
    const Kind& kind = state.kind(other);
    const Vector3d motion = (state.position[other] - state.previous[other]) * part_of_step;
    const auto share = first_touch(ball, {state.previous[other], kind.radius, kind.height}, motion);
    if (share && *share < meeting.share) meeting = {*share, std::nullopt, other};
  }
  return meeting;
}

void end_flight(Simulation::State& state, Shell& shell, const Meeting& meeting,
                const BallPath& ball) {
  shell.is_spent = true;
  Event& event = tell_attack(state, Event::What::hit, shell.shooter, shell.attack);
  event.place = ball.path.from + (ball.path.to - ball.path.from) * meeting.share;
  event.solid = meeting.solid;
  if (!meeting.body) return;
  event.other = AgentId{*meeting.body};
  const bool hurts =
      is_hostile(*state.level, state.kind(shell.shooter).team, state.kind(*meeting.body).team);
  if (hurts) state.blows.push_back({shell.shooter, *meeting.body, shell.attack});
}

void fly(Simulation::State& state, Shell& shell) {
  const Attack& attack = attack_of(state, shell.shooter, shell.attack);
  const Moment left = state.limit(shell.shooter).lifetimes[shell.attack] - shell.age;
  const Moment flown = std::min(left, kMomentsPerTick);
  const double part_of_step = static_cast<double>(flown) / kMomentsPerTick;
  const double seconds = part_of_step / state.level->ticks_per_second;
  const double fall = state.level->gravity * attack.gravity_share;
  BallPath ball{{shell.position, shell.position + shell.velocity * seconds}, attack.radius};
  ball.path.to.z() -= fall * seconds * seconds / 2.0;
  const Meeting meeting = first_meeting(state, shell, ball, part_of_step);
  if (meeting.share < 1.0) return end_flight(state, shell, meeting, ball);
  shell.position = ball.path.to;
  shell.velocity.z() -= fall * seconds;
  shell.age += flown;
  shell.is_spent = flown == left;
}

void deal(Simulation::State& state, const Blow& blow) {
  const Attack& attack = attack_of(state, blow.by, blow.attack);
  const double lost = std::min(attack.damage, state.health[blow.victim]);
  if (!(lost > 0.0)) return;
  state.health[blow.victim] -= lost;
  Event& event = state.tell(Event::What::hurt, blow.victim);
  event.other = AgentId{blow.by};
  event.attack = attack.name;
  event.damage = lost;
  event.health = state.health[blow.victim];
  if (event.health > 0.0) return;
  state.alive[blow.victim] = 0;
  state.tell(Event::What::defeated, blow.victim).other = AgentId{blow.by};
  state.change_mode(blow.victim, Mode::out);
  state.contacts[blow.victim].clear();
  state.target[blow.victim].reset();
}

void show_projectiles(Simulation::State& state) {
  state.projectiles.clear();
  for (const Shell& shell : state.shells) {
    const Attack& attack = attack_of(state, shell.shooter, shell.attack);
    state.projectiles.push_back(
        {{shell.shooter}, attack.name, shell.position, shell.velocity, attack.radius});
  }
}

}  // namespace

// Shells of earlier steps fly before this step's leave their muzzles, so that these start with the
// next one. Blows fall together at the end, against the health that everybody began with.
void fight(Simulation::State& state) {
  state.blows.clear();
  for (Shell& shell : state.shells) fly(state, shell);
  std::erase_if(state.shells, [](const Shell& shell) { return shell.is_spent; });
  make_attacks(state);
  for (const Blow& blow : state.blows) deal(state, blow);
  show_projectiles(state);
}

}  // namespace gaze
