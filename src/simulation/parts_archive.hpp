#pragma once

#include "level/archive.hpp"
#include "simulation/state.hpp"

/// What of each part of a running game goes into a save. Every function takes a part to pieces by a
/// structured binding, which compiles only as long as it names all members: what a new member means
/// for saves has to be said here. Scratch memory, and what each step makes anew, stays out.
namespace gaze {

/// Writes a running game.
class GameSaver : public Saver {
 public:
  using Saver::Saver;

  void text_of(std::string_view text) {
    std::string copy(text);
    archive(*this, copy);
  }
  void noise(NoiseName& name) { number(name.id); }
  void attack(AttackId& attack) {
    number(attack.kind);
    number(attack.number);
  }
  void agent(std::uint32_t& who) { number(who); }
  void index(std::uint32_t& number_of, std::size_t) { number(number_of); }
};

/// Reads one into a game that has just begun, whose lists have the right lengths.
class GameLoader : public Loader {
 public:
  GameLoader(std::string_view bytes, Simulation::State& state) : Loader(bytes), state_(state) {}

  /// A text that lives as long as the game.
  std::string_view kept_text();
  void noise(NoiseName& name);
  void attack(AttackId& attack);
  /// An agent that there is.
  void agent(std::uint32_t& who) { index(who, state_.agent_count()); }
  void index(std::uint32_t& number_of, std::size_t count) {
    number(number_of);
    if (number_of >= count) throw Damaged{};
  }

 private:
  Simulation::State& state_;
};

/// Lists that have one item for each of something: their length is not written.
template <typename Archive, typename... Lists>
void archive_items(Archive& to, Lists&... lists) {
  const auto items = [&](auto& list) {
    for (auto& item : list) archive(to, item);
  };
  (items(lists), ...);
}

template <typename Archive>
void archive_text(Archive& to, std::string_view& text) {
  if constexpr (Archive::kLoads) {
    text = to.kept_text();
  } else {
    to.text_of(text);
  }
}

template <typename Archive>
void members(Archive& to, AttackId& attack) {
  to.attack(attack);
}

template <typename Archive>
void archive_agent(Archive& to, std::optional<std::uint32_t>& who) {
  if constexpr (requires { to.strike_agent(who); }) return to.strike_agent(who);
  bool is_there = who.has_value();
  archive(to, is_there);
  if constexpr (Archive::kLoads) {
    who.reset();
    if (is_there) who = 0;
  }
  if (who) to.agent(*who);
}

/// A list of structs; each is handed on.
template <typename Archive, typename T, typename One>
void archive_list(Archive& to, std::vector<T>& list, One&& one) {
  if constexpr (requires { to.strike(list, one); }) return to.strike(list, one);
  const std::size_t count = to.size(list.size(), 1);
  if constexpr (Archive::kLoads) list.resize(count);
  for (T& item : list) one(item);
}

template <typename Archive>
void archive_agents(Archive& to, std::vector<std::uint32_t>& agents) {
  archive_list(to, agents, [&](std::uint32_t& who) { to.agent(who); });
}

// The vocabulary of several parts.

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
         damage, health, score, side, projectile, team, host_id, is_outside, place, from, mode_to] =
      event;
  archive_all(to, what, tick, agent, other, solid, zone, teller, by);
  archive_text(to, attack);
  archive_text(to, noise);
  archive_all(to, distance, angle_deg, damage, health, score, side, projectile, team, host_id,
              is_outside, place, from, mode_to);
}

template <typename Archive>
void members(Archive& to, Contact& contact) {
  auto& [other, state, by, is_seen, is_near, is_touched, gathered, rate, since, remember, forget_at,
         hurt_at, last_place, last_motion] = contact;
  to.agent(other);
  archive_all(to, state, by, is_seen, is_near, is_touched, gathered, rate, since, remember,
              forget_at, hurt_at, last_place, last_motion);
}

template <typename Archive>
void members(Archive& to, Clue& clue) {
  auto& [place, noise, since, forget_at, distance] = clue;
  archive(to, place);
  archive_text(to, noise);
  archive_all(to, since, forget_at, distance);
}

// Parts that everybody may read.

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
                head_deg, post, placed_facing, rest_facing, is_airborne, has_come, trigger);
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
void members(Archive& to, TurnedBack& turned) {
  auto& [until, held] = turned;
  archive_all(to, until, held);
}

template <typename Archive>
void members(Archive& to, Pending& pending) {
  auto& [who, rule, due] = pending;
  to.agent(who);
  archive_all(to, rule, due);
}

template <typename Archive>
void members(Archive& to, Minds& minds) {
  auto& [awake, mode, mode_since, target, has_target, urged, lasted, turned_back, pending] = minds;
  archive_items(to, awake, mode, mode_since, target, has_target, urged, lasted, turned_back);
  archive(to, pending);
}

template <typename Archive>
void members(Archive& to, Knowledge& knowledge) {
  auto& [contacts, clue, feelers, is_still, dimness, tags] = knowledge;
  archive_items(to, contacts, clue, feelers, is_still, dimness, tags);
}

// What stages tell each other.

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
  auto& [who, what, thing, noise, place, reach] = deed;
  to.agent(who);
  archive_all(to, what, thing, noise, place, reach);
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
void members(Archive& to, Told& told) {
  auto& [news, noises, last_noise, sudden, courses, pushes, placed, changed_tags, changed_solids,
         modes, wakes, made, arrivals, hands, deeds, gone, comings] = told;
  archive_items(to, news, last_noise);
  archive_all(to, noises, sudden, courses, pushes, placed, changed_solids, modes, made, hands,
              deeds, comings);
  for (auto* agents : {&changed_tags, &wakes, &arrivals, &gone}) archive_agents(to, *agents);
}

// Senses.

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
  touches.go_through([&](std::vector<Touches::Touching>& list) { archive(to, list); });
}

template <typename Archive>
void members(Archive& to, Senses& senses) {
  auto& [was_near, zones_of, zone_spent, touches, alarms, crowd, perceived, candidates, near_bodies,
         heard, hearing] = senses;
  archive_items(to, was_near, zones_of, zone_spent);
  archive_all(to, touches, alarms);
  static_cast<void>(std::tie(crowd, perceived, candidates, near_bodies, heard, hearing));
}

// Travel.

template <typename Archive>
void members(Archive& to, Progress& progress) {
  auto& [best, since, told] = progress;
  archive_all(to, best, since, told);
}

template <typename Archive>
void members(Archive& to, Course& course) {
  auto& [next, backwards, is_new, wait_until, progress] = course;
  archive_all(to, next, backwards, is_new, wait_until, progress);
}

template <typename Archive>
void members(Archive& to, InLine& line) {
  auto& [place, head] = line;
  archive(to, place);
  to.agent(head);
}

template <typename Archive>
void members(Archive& to, InTheWay& way) {
  auto& [who, at] = way;
  to.agent(who);
  archive(to, at);
}

template <typename Archive>
void members(Archive& to, Path::Leg& leg) {
  auto& [to_point, link] = leg;
  archive_all(to, to_point, link);
}

template <typename Archive>
void members(Archive& to, Route& route) {
  auto& [points, links, next_link, next, goal, outcome, is_made, own_face, goal_face, was_pushed,
         avoided, avoided_count, is_asked, asked_goal, progress] = route;
  archive_all(to, points, links, next_link, next, goal, outcome, is_made, own_face, goal_face,
              was_pushed, avoided, avoided_count, is_asked, asked_goal, progress);
  if (is_made && (next > points.size() || next_link > links.size())) throw Damaged{};
  if (avoided_count > avoided.size()) throw Damaged{};
}

template <typename Archive>
void members(Archive& to, Arc& arc) {
  auto& [from, end, up, gravity, seconds] = arc;
  archive_all(to, from, end, up, gravity, seconds);
}

template <typename Archive>
void members(Archive& to, Leap& leap) {
  auto& [what, arc, speed, start, end] = leap;
  archive_all(to, what, arc, speed, start, end);
}

template <typename Archive>
void members(Archive& to, TrackDeed& deed) {
  auto& [what, name, place, reach] = deed;
  archive_all(to, what, name, place, reach);
}

template <typename Archive>
void members(Archive& to, Steering& steering) {
  auto& [way, aim, is_plan_aim, fires, is_quiet, hops, deeds] = steering;
  archive_all(to, way, aim, is_plan_aim, fires, is_quiet, hops, deeds);
}

template <typename Archive>
void members(Archive& to, BodySize& body) {
  auto& [radius, height, step_height, slope, hop_height, hop_length, drop_height, altitude, closed,
         opens] = body;
  archive_all(to, radius, height, step_height, slope, hop_height, hop_length, drop_height, altitude,
              closed, opens);
}

template <typename Archive>
void members(Archive& to, Ways& ways) {
  auto& [course, left_course, home, wander_goal, script_facing, quiet, steering, stride_left,
         has_no_start, is_just_placed, has_settled, highest_of_fall, velocity, air_share, hangs,
         leap, rests_until, pushed, mesh_of, route, asked, together, starts, searches_left, finder,
         walkers, strayed, pace, pace_length, gathered, wish, next_wish, line, next_line, is_on_way,
         goes_on_way, fastest, keep_apart, neighbours, in_the_way, avoided] = ways;
  archive_items(to, course, left_course, home, wander_goal, script_facing, quiet, steering,
                stride_left, is_just_placed, has_settled, highest_of_fall, velocity, air_share,
                hangs, leap, rests_until, pushed);
  archive_items(to, mesh_of, route, pace, pace_length, gathered, wish, next_wish, line, next_line,
                is_on_way, goes_on_way);
  archive_agents(to, has_no_start);
  archive_agents(to, asked);
  archive_all(to, searches_left, strayed, fastest);
  static_cast<void>(
      std::tie(together, starts, finder, walkers, keep_apart, neighbours, in_the_way, avoided));
}

// Combat.

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
  auto& [who, attack, at, from, until, body, solid, length, owed] = beam;
  to.agent(who);
  archive_all(to, attack, at, from, until);
  archive_agent(to, body);
  archive_all(to, solid, length, owed);
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
         thrown, projectiles, hittable, most_moved, highest, beams, beam_rays, pockets, next_left,
         returning, solid_health] = fights;
  for (auto& own : ready) archive_items(to, own);
  archive(to, releases);
  archive_items(to, grace_until, last_blast);
  archive_all(to, touches, somebody_caught, shells, pierced, thrown, projectiles, most_moved,
              highest, beams, beam_rays);
  for (auto& own : pockets) archive_items(to, own);
  archive_items(to, next_left);
  archive_agents(to, returning);
  archive_items(to, solid_health);
  if (pierced.size() != shells.size()) throw Damaged{};
  static_cast<void>(std::tie(blows, hittable));
}

}  // namespace gaze
