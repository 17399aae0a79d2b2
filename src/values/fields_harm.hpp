#pragma once

#include <concepts>
#include <type_traits>

#include "gaze/kind.hpp"

/// The fields of attacks and of what is thrown; `fields.hpp` says how lists of fields are read.
namespace gaze {

/// T, const or not.
template <typename T, typename Of>
concept Is = std::same_as<std::remove_const_t<T>, Of>;

/// What a shot and a thing that is thrown have in common.
template <typename Visit, Is<Attack> Of>
void flight_fields(Visit& visit, Of& flight) {
  visit("gravity_share", flight.gravity_share);
  visit("lifetime", flight.lifetime);
  visit("noise_reach", flight.noise_reach);
  visit("bounces", flight.bounces);
  visit("bounce_loss", flight.bounce_loss);
  visit("pierce", flight.pierce);
  visit("drag", flight.drag);
  visit("blast_radius", flight.blast_radius);
  visit("blast_fall_off", flight.blast_fall_off);
  visit.kind("leaves", flight.leaves);
  visit("keeps", flight.keeps);
  visit.needs("keeps", "leaves", "what it leaves behind");
}

/// What shots and beams have in common.
template <typename Visit, Is<Attack> Of>
void aimed_fields(Visit& visit, Of& attack) {
  visit.along("along", attack.toward, attack.tilt);
  visit("aim_tolerance", attack.aim_tolerance);
  visit("muzzle", attack.muzzle);
  visit("fire_reach", attack.fire_reach);
  visit("friends", attack.friends);
}

template <typename Visit, Is<Attack> Of>
void effect_fields(Visit& visit, Of& attack) {
  using How = Attack::How;
  const bool catches = attack.how == How::catch_;
  if (attack.how != How::touch) visit("min_range", attack.min_range);
  visit.pair("at_health", attack.health_low, attack.health_high);
  if (attack.how == How::strike || attack.how == How::shot || attack.how == How::beam) {
    visit("far_damage", attack.far_damage);
    visit("fade_from", attack.fade_from);
  }
  if (!catches) visit("push", attack.push);
  if (!catches) visit.text("damage_kind", attack.damage_kind);
}

template <typename Visit, Is<Attack> Of>
void fields_of_shot(Visit& visit, Of& attack) {
  visit("speed", attack.speed);
  visit("radius", attack.radius);
  visit("aim", attack.aim);
  visit("mirror_radius", attack.mirror_radius);
  aimed_fields(visit, attack);
  visit("burst", attack.burst);
  visit("burst_interval", attack.burst_interval);
  visit("spread", attack.spread);
  visit("spread_rises", attack.spread_rises);
  visit("homing_rate", attack.homing_rate);
  flight_fields(visit, attack);
}

template <typename Visit, Is<Attack> Of>
void fields_of_way(Visit& visit, Of& attack) {
  switch (attack.how) {
    case Attack::How::strike:
      visit("arc", attack.arc);
      break;
    case Attack::How::shot:
      fields_of_shot(visit, attack);
      break;
    case Attack::How::beam:
      visit.half("thickness", attack.radius);
      visit("hold", attack.hold);
      visit("aim", attack.aim);
      visit("mirror_radius", attack.mirror_radius);
      visit("locks_on", attack.locks_on);
      aimed_fields(visit, attack);
      break;
    case Attack::How::touch:
      visit("sides", attack.sides);
      break;
    case Attack::How::burst:
      visit("blast_fall_off", attack.blast_fall_off);
      visit("friends", attack.friends);
      break;
    case Attack::How::catch_:
      break;
  }
}

template <typename Visit, Is<Attack> Of>
void fields(Visit& visit, Of& attack) {
  using How = Attack::How;
  visit("how", attack.how);
  if (attack.how == How::catch_) {
    visit.may_be("range", attack.range);
    visit.may_be("cooldown", attack.cooldown);
  } else {
    if (attack.how != How::touch) visit("range", attack.range);
    visit("damage", attack.damage);
    visit("cooldown", attack.cooldown);
  }
  visit("wind_up", attack.wind_up);
  visit("ammunition", attack.ammunition);
  visit("reload", attack.reload);
  effect_fields(visit, attack);
  fields_of_way(visit, attack);
}

template <typename Visit, Is<Thing> Of>
void fields(Visit& visit, Of& thing) {
  auto& flight = thing.flight;
  visit("breaks", thing.breaks);
  visit("take_reach", thing.take_reach);
  visit.names("picked_up_by", thing.picked_up_by);
  visit("heals", thing.heals);
  visit.names("refills", thing.refills);
  visit("speed", flight.speed);
  visit.lob("aim", flight.aim);
  visit("damage", flight.damage);
  visit("push", flight.push);
  visit.text("damage_kind", flight.damage_kind);
  visit("friends", flight.friends);
  flight_fields(visit, flight);
}

}  // namespace gaze
