#include <algorithm>
#include <cmath>

#include "simulation/stages.hpp"

/// Things: carried, thrown, dropped and broken.
namespace gaze {
namespace {

using Index = std::uint32_t;

std::optional<Index> carried_of(const Simulation::State& state, Index who, Index kind) {
  for (const Index thing : state.fixed.things) {
    if (state.lives.presence[thing] != Presence::carried || state.lives.carrier[thing] != who)
      continue;
    if (state.kind(thing).name == state.level().kinds[kind].name) return thing;
  }
  return std::nullopt;
}

bool take_from_pocket(Simulation::State& state, Index who, Index kind) {
  const std::vector<Pocket>& carries = state.kind(who).carries;
  for (std::size_t i = 0; i < carries.size(); ++i) {
    if (carries[i].kind != kind || state.fights.pockets[who][i] == 0) continue;
    --state.fights.pockets[who][i];
    return true;
  }
  return false;
}

// To land there; what is too far off is thrown as far as it goes, at half a right angle.
Vector3d throwing(const Simulation::State& state, const Attack& flight, const Vector3d& hand,
                  const Vector3d& place) {
  const Vector3d still{0.0, 0.0, 0.0};
  const double gravity = state.level().gravity * flight.gravity_share;
  const auto lob =
      aim_lob(hand, place, still, flight.speed, gravity, flight.aim == Attack::Aim::high_lob);
  if (lob) return lob->velocity;
  if (!(gravity > 0.0)) {
    const auto straight = aim_lead(hand, place, still, flight.speed);
    return straight ? straight->velocity : still;
  }
  const Vector3d way = place - hand;
  const double length = std::sqrt(way.x() * way.x() + way.y() * way.y());
  if (length == 0.0) return {0.0, 0.0, flight.speed};
  const double part = flight.speed * std::sqrt(0.5);
  return {way.x() / length * part, way.y() / length * part, part};
}

void break_it(Simulation::State& state, const Shell& shell, const Vector3d& place) {
  if (shell.thing) return defeat(state, *shell.thing, shell.shooter, shell.met_at);
  const Kind& kind = state.level().kinds[shell.thing_kind];
  for (const Attack& attack : kind.attacks) {
    if (attack.name == kind.defeat.attack) {
      blast(state, shell.shooter, shell.shooter, attack, place, attack.range, shell.met_at);
    }
  }
}

}  // namespace

// Metres between two bodies, across and upwards, whichever is more; 0 where they overlap.
double gap_between(const Simulation::State& state, std::uint32_t who, std::uint32_t thing) {
  const double across =
      level_distance(state.plane(), state.bodies.position[who], state.bodies.position[thing]) -
      state.kind(who).radius - state.kind(thing).radius;
  const double above =
      state.bodies.position[thing].z() - state.bodies.position[who].z() - state.kind(who).height;
  const double below =
      state.bodies.position[who].z() - state.bodies.position[thing].z() - state.kind(thing).height;
  return std::max({0.0, across, above, below});
}

Vector3d hand_of(const Simulation::State& state, Index who) {
  constexpr double kHandHeight = 0.8;  // of the height
  return state.bodies.position[who] + Vector3d{0.0, 0.0, kHandHeight * state.kind(who).height};
}

bool take(Simulation::State& state, Index who, Index thing) {
  const Kind& kind = state.kind(thing);
  const bool is_there =
      kind.thing && state.lives.presence[thing] == Presence::here && state.lives.alive[thing];
  if (!is_there || gap_between(state, who, thing) > kind.thing->take_reach) return false;
  state.lives.presence[thing] = Presence::carried;
  state.lives.carrier[thing] = who;
  state.lives.alive[thing] = 0;
  state.tell(Event::What::took, who).other = AgentId{thing};
  return true;
}

bool throw_thing(Simulation::State& state, Index who, Index kind, const Vector3d& place) {
  const auto carried = carried_of(state, who, kind);
  if (!carried && !take_from_pocket(state, who, kind)) return false;
  const Kind& values = carried ? state.kind(*carried) : state.level().kinds[kind];
  const Attack& flight = values.thing->flight;
  Shell shell;
  shell.shooter = who;
  shell.attack = &flight;
  shell.thing = carried;
  shell.thing_kind = kind;
  shell.number = state.fights.shells_made++;
  shell.lifetime = state.moments(flight.lifetime);
  shell.position = shell.origin = hand_of(state, who);
  shell.velocity =
      throwing(state, flight, shell.position, place + Vector3d{0.0, 0.0, flight.radius});
  shell.bounces_left = flight.bounces;
  state.fights.thrown.push_back(shell);
  if (carried) state.lives.presence[*carried] = Presence::thrown;
  Event& event = tell_attack(state, Event::What::fired, who, flight);
  event.projectile = shell.number;
  event.place = shell.position;
  return true;
}

void drop_all(Simulation::State& state, Index who) {
  for (const Index thing : state.fixed.things) {
    if (state.lives.presence[thing] != Presence::carried || state.lives.carrier[thing] != who)
      continue;
    state.lives.presence[thing] = Presence::here;
    state.lives.alive[thing] = 1;
    state.bodies.position[thing] = state.bodies.previous[thing] = state.bodies.position[who];
    state.bodies.is_airborne[thing] = 1;
  }
}

void land(Simulation::State& state, const Shell& shell, const Vector3d& place) {
  if (shell.thing) {
    const Index thing = *shell.thing;
    const Vector3d feet = place - Vector3d{0.0, 0.0, state.kind(thing).radius};
    state.bodies.position[thing] = state.bodies.previous[thing] = feet;
    state.lives.presence[thing] = Presence::here;
    state.lives.alive[thing] = 1;
    state.bodies.is_airborne[thing] = 1;
    state.ways.velocity[thing] = {0.0, 0.0, 0.0};
  }
  if (state.level().kinds[shell.thing_kind].thing->breaks) break_it(state, shell, place);
}

void carry(Simulation::State& state) {
  for (const Index thing : state.fixed.things) {
    if (state.lives.presence[thing] != Presence::carried) continue;
    state.bodies.position[thing] = state.bodies.previous[thing] =
        hand_of(state, state.lives.carrier[thing]);
  }
}

void set_up_things(Simulation::State& state) {
  const Index count = static_cast<Index>(state.level().agents.size());
  state.lives.carrier.resize(count);
  state.fights.pockets.resize(count);
  for (Index who = 0; who < count; ++who) {
    if (state.kind(who).thing) state.fixed.things.push_back(who);
    for (const Pocket& pocket : state.kind(who).carries)
      state.fights.pockets[who].push_back(pocket.count);
  }
}

}  // namespace gaze
