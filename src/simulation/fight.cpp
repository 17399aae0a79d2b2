#include "combat/cooldown.hpp"
#include "geometry/rolling.hpp"
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

void launch(Simulation::State& state, Index who, Index attack, const Vector3d& velocity,
            std::optional<Index> target) {
  const Attack& values = attack_of(state, who, attack);
  Shell shell;
  shell.shooter = who;
  shell.attack = attack;
  shell.position =
      offset_place(state.plane(), state.position[who], state.facing[who], values.muzzle);
  shell.velocity = velocity;
  state.shells.push_back(shell);
  Event& event = tell_attack(state, Event::What::fired, who, attack);
  if (target) event.other = AgentId{*target};
  event.place = shell.position;
  state.make_noise(shell.position, values.fire_reach, "shot", who);
}

void shoot(Simulation::State& state, Index who, Index target, Index attack) {
  const Vector3d velocity = launch_velocity(state.plane(), attack_of(state, who, attack),
                                            state.fighter(who), state.fighter(target));
  launch(state, who, attack, velocity, target);
}

// With nobody to aim at, along the facing.
void shoot_ahead(Simulation::State& state, Index who, Index attack) {
  const Attack& values = attack_of(state, who, attack);
  Moment& ready = state.ready[who][attack];
  if (values.how != Attack::How::shot || ready > state.now()) return;
  const Vector3d ahead = from_plan(state.plane(), {state.facing[who], 0.0});
  const Moment cooldown = state.limit(who).cooldowns[attack];
  for (int pulls = take_pulls(ready, state.now(), cooldown); pulls > 0; --pulls) {
    tell_attack(state, Event::What::attacked, who, attack);
    launch(state, who, attack, ahead * values.speed, std::nullopt);
  }
  state.urged[who] &= ~(std::uint64_t{1} << attack);
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
    event.distance = plane_distance(state.plane(), fighter.feet, other.feet);
    (is_strike ? strike : shoot)(state, who, target, attack);
  }
  state.urged[who] &= ~(std::uint64_t{1} << attack);
}

bool may_attack(const Simulation::State& state, Index who) {
  return state.is_up(who) && state.driver[who] == Driver::mind &&
         state.mode[who] != Mode::return_ && state.mode[who] != Mode::flee;
}

void make_attacks(Simulation::State& state) {
  for (Index who = 0; who < state.agent_count(); ++who) {
    auto target = state.target_agent(who);
    if (target && !state.alive[*target]) target.reset();
    if ((!target && state.urged[who] == 0) || !may_attack(state, who)) continue;
    for (Index attack = 0; attack < state.kind(who).attacks.size(); ++attack) {
      const std::uint64_t bit = std::uint64_t{1} << attack;
      const bool is_urged = (state.urged[who] & bit) != 0;
      if (!is_urged && (state.limit(who).urged_only & bit) != 0) continue;
      if (target) {
        attack_with(state, who, *target, attack);
      } else if (is_urged) {
        shoot_ahead(state, who, attack);
      }
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
  state.make_noise(event.place, attack_of(state, shell.shooter, shell.attack).noise_reach,
                   attack_of(state, shell.shooter, shell.attack).name, shell.shooter);
  if (meeting.solid) {
    const double damage = attack_of(state, shell.shooter, shell.attack).damage;
    return wear_down(state, meeting.solid->index, damage, shell.shooter);
  }
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

// Who is hurt knows by whom, if its kind has that sense or reacts to it.
void feel_hurt(Simulation::State& state, const Blow& blow) {
  const Kind& kind = state.kind(blow.victim);
  state.fire(blow.victim, Cause::hurt, "");
  const std::vector<Rule>& rules = kind.when.rules;
  const bool reacts = std::any_of(rules.begin(), rules.end(),
                                  [](const Rule& rule) { return rule.cause == Cause::hurt; });
  if (!kind.hurt && !reacts) return;
  const Duration remember = kind.hurt ? kind.hurt->remember : HurtSense{}.remember;
  state.sudden.push_back({blow.victim, blow.by, Sense::hurt,
                          moments_of(remember, state.level->ticks_per_second),
                          state.position[blow.by], std::nullopt});
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
  if (event.health > 0.0) return feel_hurt(state, blow);
  state.alive[blow.victim] = 0;
  state.tell(Event::What::defeated, blow.victim).other = AgentId{blow.by};
  state.change_mode(blow.victim, Mode::out);
  state.contacts[blow.victim].clear();
  state.target[blow.victim].reset();
  state.has_target[blow.victim] = 0;
  state.clue[blow.victim].reset();
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
