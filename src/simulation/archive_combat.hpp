#pragma once

#include "simulation/archive_everyone.hpp"

/// What combat knows, in a save.
namespace gaze {

template <typename Archive>
void members(Archive& to, Readiness& readiness) {
  auto& [at, left] = readiness;
  archive_all(to, at, left);
}

template <typename Archive>
void members(Archive& to, Aimed& aimed) {
  auto& [agent, place, is_plan] = aimed;
  archive_agent(to, agent);
  archive_all(to, place, is_plan);
}

template <typename Archive>
void members(Archive& to, Release& release) {
  auto& [who, attack, at, due, is_late] = release;
  to.agent(who);
  archive_all(to, attack, at, due, is_late);
}

template <typename Archive>
void members(Archive& to, Shell& shell) {
  auto& [shooter, attack, thing, thing_kind, noise, number, lifetime, origin, position, velocity,
         age, target, has_landed, is_spent, met_at, clear_steps, bounces_left, pierced_count] =
      shell;
  to.agent(shooter);
  archive(to, attack);
  archive_agent(to, thing);
  archive_all(to, thing_kind, noise, number, lifetime, origin, position, velocity, age);
  archive_agent(to, target);
  archive_all(to, has_landed, is_spent, met_at, clear_steps, bounces_left, pierced_count);
}

template <typename Archive>
void members(Archive& to, Beam& beam) {
  auto& [who, attack, at, from, until, body, solid, length, end, owed] = beam;
  to.agent(who);
  archive_all(to, attack, at, from, until);
  archive_agent(to, body);
  archive_all(to, solid, length, end, owed);
}

template <typename Archive>
void members(Archive& to, Projectile& shot) {
  auto& [shooter, attack, position, velocity, radius, number] = shot;
  archive(to, shooter);
  archive_text(to, attack);
  archive_all(to, position, velocity, radius, number);
}

template <typename Archive>
void members(Archive& to, BeamRay& ray) {
  auto& [who, attack, from, end, radius] = ray;
  archive(to, who);
  archive_text(to, attack);
  archive_all(to, from, end, radius);
}

template <typename Archive>
void members(Archive& to, BlastMade& made) {
  auto& [attack, place, radius, tick] = made;
  archive_text(to, attack);
  archive_all(to, place, radius, tick);
}

// Blows fall in the step in which they come up, so that there are none between two steps. Which
// agents are kept for what may be left behind follows from the level.
template <typename Archive>
void members(Archive& to, Fights& fights) {
  auto& [ready, releases, blows, grace_until, last_blast, touches, somebody_caught, shells, pierced,
         thrown, not_fired, projectiles, hittable, pickers, most_moved, highest, beams, beam_rays,
         pockets, next_left, returning, solid_health] = fights;
  for (Readiness& one : ready.items()) archive(to, one);
  archive(to, releases);
  archive_items(to, grace_until);
  archive_all(to, last_blast, touches, somebody_caught, shells, pierced, thrown, not_fired,
              projectiles, most_moved);
  archive_infinite(to, highest);
  archive_all(to, beams, beam_rays);
  for (int& left : pockets.items()) archive(to, left);
  archive_items(to, next_left);
  archive_agents(to, returning);
  archive_items(to, solid_health);
  if (pierced.size() != shells.size()) throw Damaged{};
  static_cast<void>(std::tie(blows, hittable, pickers));
}

}  // namespace gaze
