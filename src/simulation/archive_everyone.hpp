#pragma once

#include "simulation/game_archive.hpp"

/// What all rooms may read, in a save; see game_archive.hpp.
namespace gaze {

template <typename Archive>
void members(Archive& to, AgentId& id) {
  archive_all(to, id.index, id.generation);
}

template <typename Archive>
void members(Archive& to, Pool& pool) {
  auto& [owner, kind, attack, first, count] = pool;
  archive_all(to, owner, kind, attack, first, count);
}

template <typename Archive>
void members(Archive& to, SolidId& id) {
  archive(to, id.index);
}

template <typename Archive>
void members(Archive& to, Noise& noise) {
  auto& [place, reach] = noise;
  archive_all(to, place, reach);
}

template <typename Archive>
void members(Archive& to, NoiseName& name) {
  to.noise(name);
}

template <typename Archive>
void members(Archive& to, Event& event) {
  auto& [what, tick, agent, other, solid, zone, teller, by, attack, noise, distance, angle_deg,
         damage, health, gained, score, side, projectile, team, host_id, is_outside, place, from,
         mode_to] = event;
  archive_all(to, what, tick, agent, other, solid, zone, teller, by);
  archive_text(to, attack);
  archive_text(to, noise);
  archive_all(to, distance, angle_deg, damage, health, gained, score, side, projectile, team,
              host_id, is_outside, place, from, mode_to);
}

template <typename Archive>
void members(Archive& to, Contact& contact) {
  auto& [other, state, by, is_seen, is_near, is_touched, gathered, rate, since, remember, forget_at,
         perceived_at, held_for, hurt_at, last_place, last_motion] = contact;
  to.agent(other);
  archive_all(to, state, by, is_seen, is_near, is_touched, gathered, rate, since, remember,
              forget_at, perceived_at, held_for, hurt_at, last_place, last_motion);
}

template <typename Archive>
void members(Archive& to, Clue& clue) {
  auto& [place, noise, since, forget_at, distance] = clue;
  archive(to, place);
  archive_text(to, noise);
  archive_all(to, since, forget_at, distance);
}

template <typename Archive>
void members(Archive& to, Trigger& trigger) {
  auto& [aim, is_plan, attacks, fires, until] = trigger;
  archive_all(to, aim, is_plan, attacks, fires, until);
}

template <typename Archive>
void members(Archive& to, Bodies& bodies) {
  auto& [position, previous, last_move, seen_position, facing, head, previous_head, head_deg, post,
         placed_facing, rest_facing, is_airborne, has_come, trigger, leader] = bodies;
  archive_items(to, position, previous, last_move, seen_position, facing, head, previous_head,
                head_deg, post, placed_facing, rest_facing, is_airborne, has_come);
  archive(to, trigger);
  for (auto& who : leader) archive_agent(to, who);
}

template <typename Archive>
void members(Archive& to, Lives& lives) {
  auto& [health, alive, presence, carrier, hurt_at, defeated_by, returns_at] = lives;
  archive_items(to, health, alive, presence);
  for (std::uint32_t& who : carrier) to.agent(who);
  archive_items(to, hurt_at);
  for (auto& who : defeated_by) archive_agent(to, who);
  archive_items(to, returns_at);
}

template <typename Archive>
void members(Archive& to, Pending& pending) {
  auto& [who, rule, due] = pending;
  to.agent(who);
  archive_all(to, rule, due);
}

template <typename Archive>
void members(Archive& to, Minds& minds) {
  auto& [awake, mode, mode_since, target, has_target, urged, lasted, pending] = minds;
  archive_items(to, awake, mode, mode_since, target, has_target, urged, lasted);
  archive(to, pending);
}

template <typename Archive>
void members(Archive& to, Knowledge& knowledge) {
  auto& [contacts, clue, feelers, is_still, dimness, tags] = knowledge;
  archive_items(to, contacts, feelers, is_still, dimness, tags);
  archive(to, clue);
}

}  // namespace gaze
