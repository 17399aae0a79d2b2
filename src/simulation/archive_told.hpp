#pragma once

#include "simulation/archive_everyone.hpp"

/// What stages tell each other, and what senses remember, in a save.
namespace gaze {

template <typename Archive>
void members(Archive& to, News& news) {
  auto& [fired, due, forgot] = news;
  archive_all(to, fired, due, forgot);
}

template <typename Archive>
void members(Archive& to, MadeNoise& made) {
  auto& [noise, name, maker, tick] = made;
  archive_all(to, noise, name);
  archive_agent(to, maker);
  archive(to, tick);
}

template <typename Archive>
void members(Archive& to, Perceived& perceived) {
  auto& [who, other, sense, remember, place, teller] = perceived;
  to.agent(who);
  to.agent(other);
  archive_all(to, sense, remember, place);
  archive_agent(to, teller);
}

template <typename Archive>
void members(Archive& to, CourseChange& change) {
  auto& [who, what, turn, mode] = change;
  to.agent(who);
  archive_all(to, what, turn, mode);
}

template <typename Archive>
void members(Archive& to, ModeChange& change) {
  auto& [who, mode] = change;
  to.agent(who);
  archive(to, mode);
}

template <typename Archive>
void members(Archive& to, HandWish& wish) {
  auto& [who, what, thing, place, feet] = wish;
  to.agent(who);
  archive_all(to, what, thing, place, feet);
}

template <typename Archive>
void members(Archive& to, Deed& deed) {
  auto& [who, what, thing, noise, place, reach, feet] = deed;
  to.agent(who);
  archive_all(to, what, thing, noise, place, reach, feet);
}

template <typename Archive>
void members(Archive& to, Push& push) {
  auto& [who, velocity] = push;
  to.agent(who);
  archive(to, velocity);
}

template <typename Archive>
void members(Archive& to, Placed& placed) {
  auto& [who, feet, is_released] = placed;
  to.agent(who);
  archive_all(to, feet, is_released);
}

template <typename Archive>
void members(Archive& to, Coming& coming) {
  auto& [who, feet, facing] = coming;
  to.agent(who);
  archive_all(to, feet, facing);
}

template <typename Archive>
void members(Archive& to, Made& made) {
  auto& [who, attack] = made;
  to.agent(who);
  archive(to, attack);
}

template <typename Archive>
void members(Archive& to, Locked& locked) {
  auto& [who, target] = locked;
  to.agent(who);
  to.agent(target);
}

template <typename Archive>
void members(Archive& to, Told& told) {
  auto& [news, noises, last_noise, sudden, courses, pushes, placed, locked, changed_tags,
         changed_solids, modes, wakes, made, arrivals, hands, deeds, gone, comings] = told;
  archive_items(to, news);
  archive_all(to, last_noise, noises, sudden, courses, pushes, placed, locked, changed_solids,
              modes, made, hands, deeds, comings);
  for (auto* agents : {&changed_tags, &wakes, &arrivals, &gone}) archive_agents(to, *agents);
}

template <typename Archive>
void members(Archive& to, Alarm& alarm) {
  auto& [hearer, from, about, due, remember, place] = alarm;
  to.agent(hearer);
  to.agent(from);
  to.agent(about);
  archive_all(to, due, remember, place);
}

template <typename Archive>
void members(Archive& to, Touches::Touching& touching) {
  auto& [other, side] = touching;
  to.agent(other);
  archive(to, side);
}

template <typename Archive>
void members(Archive& to, Touches& touches) {
  archive(to, touches.all());
}

template <typename Archive>
void members(Archive& to, MetOnce& met) {
  auto& [other] = met;
  to.agent(other);
}

template <typename Archive>
void members(Archive& to, Lost& lost) {
  auto& [other, at, held_for] = lost;
  to.agent(other);
  archive_all(to, at, held_for);
}

template <typename Archive>
void members(Archive& to, Senses& senses) {
  auto& [met_once, lost, zones_of, zone_spent, touches, alarms, crowd, perceived, by_target,
         candidates, zones, near_bodies, heard, hearing] = senses;
  archive_items(to, zone_spent);
  archive_all(to, met_once, lost, zones_of, touches, alarms);
  static_cast<void>(
      std::tie(crowd, perceived, by_target, candidates, zones, near_bodies, heard, hearing));
}

}  // namespace gaze
