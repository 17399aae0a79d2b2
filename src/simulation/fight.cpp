#include "combat/cooldown.hpp"
#include "simulation/state.hpp"

/// Attacks: when they are pulled, and what each blow or shot of them does once it is due.
namespace gaze {
namespace {

using Index = std::uint32_t;

Moment in_moments(const Simulation::State& state, Duration duration) {
  return moments_of(duration, state.level->ticks_per_second);
}

std::optional<Launch> shot_at(const Simulation::State& state, Index who, const Attack& attack,
                              Index target) {
  return can_shoot(state.world, attack, state.fighter(who), state.fighter(target),
                   motion_of(state, target), state.level->gravity);
}

bool can_make(const Simulation::State& state, Index who, const Attack& attack, Index target) {
  const Fighter fighter = state.fighter(who);
  const Fighter other = state.fighter(target);
  switch (attack.how) {
    case Attack::How::strike:
      return can_strike(state.world, attack, fighter, other);
    case Attack::How::shot:
      return shot_at(state, who, attack, target).has_value();
    case Attack::How::beam:
      return is_aimed_at(state.plane(), attack, fighter, other) &&
             state.world.is_clear(
                 BallPath{{muzzle_of(state.plane(), attack, fighter), other.middle()},
                          attack.radius},
                 Stops::shots);
    case Attack::How::burst:
      return plane_distance(state.plane(), fighter.feet, other.feet) <= attack.range;
    default:
      return false;  // who touches it is hurt without its doing
  }
}

// Takes from its ammunition, and from then on it reloads if nothing is left.
// @return How many of the blows or shots of a pull there are.
int use_ammunition(const Simulation::State& state, const Attack& attack, Readiness& ready,
                   Moment pulled) {
  const int wanted = attack.how == Attack::How::shot ? attack.burst : 1;
  if (attack.ammunition == 0) return wanted;
  const int used = std::min(wanted, ready.left);
  ready.left -= used;
  if (ready.left > 0) return used;
  const Moment last = pulled + in_moments(state, attack.wind_up) +
                      (used - 1) * in_moments(state, attack.burst_interval);
  ready.at =
      attack.reload ? std::max(ready.at, last + in_moments(state, *attack.reload)) : kNeverReady;
  ready.left = attack.ammunition;
  return used;
}

void pull(Simulation::State& state, Index who, Index attack, std::optional<Index> target,
          Moment pulled) {
  const Attack& values = state.attack(who, attack);
  Event& event = tell_attack(state, Event::What::attacked, who, attack);
  if (target) {
    event.other = AgentId{*target};
    event.distance = plane_distance(state.plane(), state.position[who], state.position[*target]);
  }
  const int count = use_ammunition(state, values, state.ready[who][attack], pulled);
  for (int i = 0; i < count; ++i) {
    const Moment due =
        pulled + in_moments(state, values.wind_up) + i * in_moments(state, values.burst_interval);
    state.releases.push_back({who, attack, target, due, due > state.now()});
  }
}

void pull_all_due(Simulation::State& state, Index who, Index attack, std::optional<Index> target) {
  Readiness& ready = state.ready[who][attack];
  while (const auto pulled = take_pull(ready.at, state.now(), state.limit(who).cooldowns[attack])) {
    pull(state, who, attack, target, *pulled);
  }
  state.urged[who] &= ~(std::uint64_t{1} << attack);
}

// With nobody to aim at only what goes along the facing can be used.
void attack_with(Simulation::State& state, Index who, Index attack, std::optional<Index> target) {
  const Attack& values = state.attack(who, attack);
  if (state.ready[who][attack].at > state.now()) return;
  const bool needs_none = values.how == Attack::How::shot || values.how == Attack::How::beam ||
                          values.how == Attack::How::burst;
  if (target ? can_make(state, who, values, *target) : needs_none) {
    pull_all_due(state, who, attack, target);
  }
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
      if (target || is_urged) attack_with(state, who, attack, target);
    }
  }
}

// On the sides that the attack names; whoever drives them.
void make_touches(Simulation::State& state) {
  for (const Index who : state.touchers) {
    const Kind& kind = state.kind(who);
    if (!state.is_up(who) || kind.team == kNoTeam) continue;
    for (const Index other : state.foes_of[kind.team]) {
      if (!state.alive[other]) continue;
      const auto side =
          touched_side(state.plane(), state.body(who), state.facing[who], state.body(other));
      if (!side) continue;
      for (Index attack = 0; attack < kind.attacks.size(); ++attack) {
        const Attack& values = kind.attacks[attack];
        const bool is_meant =
            values.how == Attack::How::touch && values.sides.test(static_cast<std::size_t>(*side));
        if (is_meant) pull_all_due(state, who, attack, other);
      }
    }
  }
}

void hit(Simulation::State& state, const Release& release) {
  Event& event = tell_attack(state, Event::What::hit, release.who, release.attack);
  event.other = AgentId{*release.target};
  event.place = state.fighter(*release.target).middle();
  state.blows.push_back(
      {release.who, *release.target, release.attack, 1.0, state.fighter(release.who).middle()});
}

// Evenly over the cap of the sphere that a cone cuts out (Archimedes: evenly along its axis); seen
// from the side evenly over the angle.
Vector3d spread(Simulation::State& state, Index who, const Attack& attack,
                const Vector3d& velocity) {
  if (attack.spread.degrees() == 0.0) return velocity;
  if (state.plane() == Plane::upright) {
    const double turn = (random_share(state, who) - 0.5) * attack.spread.degrees();
    const Vector2d way =
        turned(plan_part(state.plane(), velocity), sine_cosine(Angle::from_degrees(turn)));
    return {way.x(), velocity.y(), way.y()};
  }
  const double along =
      1.0 - random_share(state, who) * (1.0 - sine_cosine(attack.spread.half()).cosine);
  const double across = std::sqrt(std::max(0.0, 1.0 - along * along));
  const SineCosine round = sine_cosine(Angle::from_degrees(360.0 * random_share(state, who)));
  const double level = std::sqrt(velocity.x() * velocity.x() + velocity.y() * velocity.y());
  const double speed = std::sqrt(level * level + velocity.z() * velocity.z());
  const Vector3d left = level > 0.0 ? Vector3d{-velocity.y() / level, velocity.x() / level, 0.0}
                                    : Vector3d{0.0, 1.0, 0.0};
  const Vector3d up{-velocity.z() * left.y() / speed, velocity.z() * left.x() / speed,
                    level / speed};
  return velocity * along + (left * round.cosine + up * round.sine) * (across * speed);
}

void shoot(Simulation::State& state, const Release& release) {
  const Attack& attack = state.attack(release.who, release.attack);
  const Fighter shooter = state.fighter(release.who);
  std::optional<Launch> launch;
  if (release.target && state.alive[*release.target]) {
    launch = launch_at(state.plane(), attack, shooter, state.fighter(*release.target),
                       motion_of(state, *release.target), state.level->gravity);
  }
  const Vector3d ahead = ahead_of(state.plane(), shooter) * attack.speed;
  fire_shell(state, release.who, release.attack,
             spread(state, release.who, attack, launch ? launch->velocity : ahead), release.target);
}

void let_go(Simulation::State& state, const Release& release) {
  const Attack& attack = state.attack(release.who, release.attack);
  switch (attack.how) {
    case Attack::How::shot:
      return shoot(state, release);
    case Attack::How::beam:
      return light_beam(state, release);
    case Attack::How::burst:
      return blast(state, release.who, release.attack, state.fighter(release.who).middle(),
                   attack.range);
    default:
      // Who has stepped back since is not hit.
      if (!state.alive[*release.target]) return;
      if (release.is_late && attack.how == Attack::How::strike &&
          !can_make(state, release.who, attack, *release.target)) {
        return;
      }
      return hit(state, release);
  }
}

void let_go_of_what_is_due(Simulation::State& state) {
  for (const Release& release : state.releases) {
    if (release.due <= state.now() && state.is_up(release.who)) let_go(state, release);
  }
  std::erase_if(state.releases, [&](const Release& release) {
    return release.due <= state.now() || !state.is_up(release.who);
  });
}

void show_projectiles(Simulation::State& state) {
  state.projectiles.clear();
  for (const Shell& shell : state.shells) {
    const Attack& attack = state.attack(shell.shooter, shell.attack);
    state.projectiles.push_back(
        {{shell.shooter}, attack.name, shell.position, shell.velocity, attack.radius});
  }
}

}  // namespace

Event& tell_attack(Simulation::State& state, Event::What what, Index who, Index attack) {
  Event& event = state.tell(what, who);
  event.attack = state.attack(who, attack).name;
  return event;
}

bool may_harm(const Simulation::State& state, Index who, Index other) {
  return is_hostile(*state.level, state.kind(who).team, state.kind(other).team);
}

Vector3d motion_of(const Simulation::State& state, Index who) {
  return (state.position[who] - state.previous[who]) * state.level->ticks_per_second;
}

void set_up_fights(Simulation::State& state) {
  const std::size_t count = state.level->agents.size();
  state.grace_until.assign(count, kAlwaysReady);
  state.last_blast.resize(count);
  state.pushed.assign(count, Vector3d{0.0, 0.0, 0.0});
  for (Index who = 0; who < count; ++who) {
    const std::vector<Attack>& attacks = state.kind(who).attacks;
    const bool touches = std::any_of(attacks.begin(), attacks.end(), [](const Attack& attack) {
      return attack.how == Attack::How::touch;
    });
    if (touches) state.touchers.push_back(who);
    state.uses_beams |= std::any_of(attacks.begin(), attacks.end(), [](const Attack& attack) {
      return attack.how == Attack::How::beam;
    });
    state.tallest = std::max(state.tallest, state.kind(who).height);
  }
}

// Shells of earlier steps fly before this step's leave their muzzles, so that these start with the
// next one. Blows fall together at the end, against the health that everybody began with.
void fight(Simulation::State& state) {
  state.blows.clear();
  fly_shells(state);
  make_attacks(state);
  make_touches(state);
  let_go_of_what_is_due(state);
  shine_beams(state);
  deal_blows(state);
  show_projectiles(state);
}

}  // namespace gaze
