#include "combat/make_fights.hpp"

#include <algorithm>
#include <set>
#include <string>

#include "combat/cooldown.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

/// Calls `use(kind, attack, count)` for everything that an agent of a kind may leave behind: at its
/// defeat, without an attack, or where what it fires or throws ends.
template <typename Use>
void for_each_leftover(const Level& level, const Kind& kind, Use&& use) {
  const auto of_flight = [&](const Attack& attack) {
    if (attack.leaves) use(*attack.leaves, &attack, static_cast<Index>(attack.keeps));
  };
  if (kind.defeat.leaves) use(*kind.defeat.leaves, nullptr, Index{1});
  for (const Attack& attack : kind.attacks) of_flight(attack);
  if (kind.thing) of_flight(kind.thing->flight);
  for (const Pocket& pocket : kind.carries) of_flight(level.kinds[pocket.kind].thing->flight);
}

std::string free_id(std::set<std::string>& ids, std::string id) {
  while (!ids.insert(id).second) id += "-left";
  return id;
}

void add_leftovers(Fights& fights, const Fixed& fixed) {
  const Level& level = *fixed.level;
  Index next = static_cast<Index>(fixed.placed);
  for (Index owner = 0; owner < level.agents.size(); ++owner) {
    for_each_leftover(level, level.kind_of(level.agents[owner]),
                      [&](std::uint32_t, const Attack* attack, Index count) {
                        fights.leftovers.push_back({owner, attack, next, count, 0});
                        next += count;
                      });
  }
}

void equip(Fights& fights, const Kind& kind, std::uint32_t who) {
  fights.grace_until[who] = kAlwaysReady;
  fights.ready[who].clear();
  for (const Attack& attack : kind.attacks) {
    fights.ready[who].push_back({kAlwaysReady, attack.ammunition});
  }
  fights.pockets[who].clear();
  for (const Pocket& pocket : kind.carries) fights.pockets[who].push_back(pocket.count);
}

}  // namespace

// In the order of owners, so that those of one of its sources lie together. The level of a
// simulation holds its leftovers already: they are made anew.
std::shared_ptr<const Level> with_leftovers(std::shared_ptr<const Level> level) {
  const auto is_leftover = [](const Agent& agent) { return agent.is_leftover; };
  if (std::any_of(level->agents.begin(), level->agents.end(), is_leftover)) {
    auto as_written = std::make_shared<Level>(*level);
    std::erase_if(as_written->agents, is_leftover);
    level = std::move(as_written);
  }
  const auto leaves = [&](const Agent& agent) {
    bool any = false;
    for_each_leftover(*level, level->kind_of(agent),
                      [&](std::uint32_t, const Attack*, Index) { any = true; });
    return any;
  };
  if (std::none_of(level->agents.begin(), level->agents.end(), leaves)) return level;
  auto extended = std::make_shared<Level>(*level);
  std::vector<Agent>& agents = extended->agents;
  std::set<std::string> ids;
  for (const Agent& agent : agents) ids.insert(agent.id);
  for (std::size_t owner = 0; owner < agents.size(); ++owner) {
    for_each_leftover(*extended, extended->kind_of(agents[owner]),
                      [&](std::uint32_t kind, const Attack*, Index count) {
                        for (Index i = 1; i <= count; ++i) {
                          Agent agent;
                          agent.id = agents[owner].id + "-" + extended->kinds[kind].name;
                          agent.id = free_id(
                              ids, count > 1 ? agent.id + "-" + std::to_string(i) : agent.id);
                          agent.kind = kind;
                          agent.is_leftover = true;
                          agent.position = agents[owner].position;
                          agent.facing = agents[owner].facing;
                          agent.place = agents[owner].place;
                          agents.push_back(std::move(agent));
                        }
                      });
  }
  return extended;
}

Lives make_lives(const Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  Lives lives;
  for (const Agent& agent : level.agents) {
    lives.health.push_back(level.kind_of(agent).health);
    lives.alive.push_back(!agent.is_leftover);
    lives.presence.push_back(agent.is_leftover ? Presence::away : Presence::here);
  }
  lives.carrier.resize(count);
  lives.hurt_at.assign(count, kAlwaysReady);
  lives.defeated_by.resize(count);
  lives.returns_at.assign(count, kNeverReady);
  return lives;
}

Fights make_fights(const Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  Fights fights;
  fights.ready.resize(count);
  fights.grace_until.resize(count);
  fights.pockets.resize(count);
  fights.last_blast.resize(count);
  fights.touches = Touches(count);
  for (Index who = 0; who < count; ++who) equip(fights, level.kind_of(level.agents[who]), who);
  add_leftovers(fights, fixed);
  const auto breaks = [](const Solid& solid) { return solid.health > 0.0; };
  if (std::any_of(level.solids.begin(), level.solids.end(), breaks)) {
    for (const Solid& solid : level.solids) fights.solid_health.push_back(solid.health);
  }
  return fights;
}

void reset(Lives& lives, Fights& fights, const Fixed& fixed, std::uint32_t who) {
  const Kind& kind = fixed.level->kind_of(fixed.level->agents[who]);
  lives.health[who] = kind.health;
  lives.alive[who] = 1;
  lives.presence[who] = Presence::here;
  lives.hurt_at[who] = kAlwaysReady;
  equip(fights, kind, who);
  fights.touches.reset(who);
}

}  // namespace gaze
