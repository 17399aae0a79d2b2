#include <algorithm>
#include <cmath>

#include "combat/damage.hpp"
#include "combat/shells.hpp"
#include "combat/things.hpp"

/// Things: carried, thrown, dropped and broken.
namespace gaze {
namespace {

using Index = std::uint32_t;

std::optional<Index> carried_of(const Fighting& state, Index who, Index kind) {
  for (const Index thing : state.fixed.things) {
    if (state.lives.presence[thing] != Presence::carried || state.lives.carrier[thing] != who)
      continue;
    if (state.links(thing).named == state.fixed.links.kinds[kind].named) return thing;
  }
  return std::nullopt;
}

bool take_from_pocket(Fighting& state, Index who, Index kind) {
  const std::vector<Pocket>& carries = state.kind(who).carries;
  for (std::size_t i = 0; i < carries.size(); ++i) {
    if (carries[i].kind != kind || state.fights.pockets[who][i] == 0) continue;
    --state.fights.pockets[who][i];
    return true;
  }
  return false;
}

// The velocity with which a thing lands at a place. If the place is too far away, the thing is
// thrown as far as it goes, at half a right angle.
Vector3d throwing(const Fighting& state, const Attack& flight, const Vector3d& hand,
                  const Vector3d& place) {
  const Vector3d still{0.0, 0.0, 0.0};
  const double gravity = state.level().gravity * *flight.gravity_share;
  const auto lob =
      aim_lob(hand, place, still, flight.speed, gravity, flight.aim == Attack::Aim::high_lob);
  if (lob) return lob->velocity;
  if (!(gravity > 0.0)) {
    const auto straight = aim_lead(hand, place, still, flight.speed);
    return straight ? straight->velocity : still;
  }
  const Vector3d way = place - hand;
  const double length = level_length(way);
  if (length == 0.0) return {0.0, 0.0, flight.speed};
  const double part = flight.speed * std::sqrt(0.5);
  return {way.x() / length * part, way.y() / length * part, part};
}

// A thing out of a pocket is no agent. Only the attack of its defeat remains where its flight ends.
void attack_where_it_ends(Fighting& state, const Shell& shell, const Vector3d& place) {
  const Index number = state.fixed.links.kinds[shell.thing_kind].at_defeat;
  if (number == kNothing) return;
  const AttackId attack{shell.thing_kind, number};
  if (const Attack& values = state.attack(attack); values.how == Attack::How::shot) {
    const Vector3d ahead = ahead_of(state.plane(), values, fighter_of(state, shell.shooter));
    return scatter(state, shell.shooter, attack, place, ahead);
  }
  const double radius = state.attack(attack).range;
  blast(state, shell.shooter, shell.shooter, attack, place, radius, shell.met_at);
}

// If an agent cannot take a thing, or does not have one, its script goes on without it.
void use_hand(Fighting& state, const HandWish& wish) {
  if (wish.what == HandWish::What::drop) return drop_all(state, wish.who, wish.feet);
  if (wish.what == HandWish::What::throw_) {
    if (throw_thing(state, wish.who, wish.feet, wish.thing, wish.place)) return;
    Event& event = state.tell(Event::What::blocked, wish.who);
    event.place = wish.place;
    event.attack = state.fixed.links.kinds[wish.thing].name;
    return;
  }
  const bool is_somebody = wish.thing != kNothing;
  if (is_somebody && take(state, wish.who, wish.feet, wish.thing)) return;
  Event& event = state.tell(Event::What::blocked, wish.who);
  event.place = is_somebody ? state.bodies.position[wish.thing] : wish.place;
  if (!is_somebody) return;
  event.other = state.id_of(wish.thing);
  event.distance = gap_between(state, wish.who, wish.feet, wish.thing);
}

}  // namespace

bool take(Fighting& state, Index who, const Vector3d& feet, Index thing) {
  if (!may_take(state, who, feet, thing)) return false;
  if (state.kind(thing).thing->is_used_up()) {
    use_up(state, who, thing);
    return true;
  }
  state.lives.presence[thing] = Presence::carried;
  state.lives.carrier[thing] = who;
  state.lives.alive[thing] = 0;
  state.tell(Event::What::took, who).other = state.id_of(thing);
  return true;
}

bool throw_thing(Fighting& state, Index who, const Vector3d& feet, Index kind,
                 const Vector3d& place) {
  const auto carried = carried_of(state, who, kind);
  if (!carried && !take_from_pocket(state, who, kind)) return false;
  const Kind& values = carried ? state.kind(*carried) : state.level().kinds[kind];
  const Attack& flight = values.thing->flight;
  Shell shell;
  shell.shooter = who;
  const Index its_kind = carried ? state.fixed.kind_index[*carried] : kind;
  shell.attack = {its_kind, AttackId::kFlight};
  shell.thing = carried;
  shell.thing_kind = kind;
  shell.noise = state.fixed.links.kinds[its_kind].flight_noise;
  shell.number = state.shells_made++;
  shell.lifetime = state.moments(*flight.lifetime);
  shell.position = shell.origin = hand_of(state, who, feet);
  shell.velocity =
      throwing(state, flight, shell.position, place + Vector3d{0.0, 0.0, *flight.radius});
  shell.bounces_left = flight.bounces;
  state.fights.thrown.push_back(shell);
  if (carried) state.lives.presence[*carried] = Presence::thrown;
  Event& event = tell_attack(state, Event::What::fired, who, shell.attack);
  event.projectile = shell.number;
  event.place = shell.position;
  event.angle_deg = angle_of(plan_part(state.plane(), shell.velocity)).degrees();
  return true;
}

void drop_all(Fighting& state, Index who, const Vector3d& feet) {
  for (const Index thing : state.fixed.things) {
    const bool is_its =
        state.lives.presence[thing] == Presence::carried && state.lives.carrier[thing] == who;
    if (!is_its) continue;
    state.lives.presence[thing] = Presence::here;
    state.told.placed.push_back({thing, feet, true});
  }
}

void land(Fighting& state, const Shell& shell, const Vector3d& place) {
  const bool breaks = state.level().kinds[shell.thing_kind].thing->breaks;
  if (shell.thing) {
    const Index thing = *shell.thing;
    const Vector3d feet = place - Vector3d{0.0, 0.0, state.kind(thing).radius};
    state.lives.presence[thing] = Presence::here;
    state.told.placed.push_back({thing, feet, !breaks});
    if (breaks) defeat(state, thing, feet, shell.shooter, shell.met_at);
  } else if (breaks) {
    attack_where_it_ends(state, shell, place);
  }
}

// Things come back into play only when nothing more can happen to them in this stage. So no order
// decides whether a blow finds them there.
void release_things(Fighting& state) {
  for (const Placed& placed : state.told.placed) {
    if (placed.is_released) state.lives.alive[placed.who] = 1;
  }
}

void use_hands(Fighting& state) {
  for (const HandWish& wish : state.told.hands) {
    if (state.is_up(wish.who)) use_hand(state, wish);
  }
  state.told.hands.clear();
}

}  // namespace gaze
