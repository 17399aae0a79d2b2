#include "combat/make_fights.hpp"

#include <algorithm>

#include "combat/cooldown.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

void equip(Fights& fights, const Kind& kind, std::uint32_t who) {
  fights.grace_until[who] = kAlwaysReady;
  fights.ready.resize(who, kind.attacks.size());
  std::transform(kind.attacks.begin(), kind.attacks.end(), fights.ready[who].begin(),
                 [](const Attack& attack) {
                   return Readiness{kAlwaysReady, attack.ammunition};
                 });
  fights.pockets.resize(who, kind.carries.size());
  std::transform(kind.carries.begin(), kind.carries.end(), fights.pockets[who].begin(),
                 [](const Pocket& pocket) { return pocket.count; });
}

}  // namespace

void add_agents(Lives& lives, const Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  for (std::size_t who = lives.health.size(); who < count; ++who) {
    const Agent& agent = level.agents[who];
    lives.health.push_back(level.kind_of(agent).health);
    lives.alive.push_back(!agent.is_spare);
    lives.presence.push_back(agent.is_spare ? Presence::away : Presence::here);
  }
  lives.carrier.resize(count);
  lives.hurt_at.resize(count, kAlwaysReady);
  lives.defeated_by.resize(count);
  lives.returns_at.resize(count, kNeverReady);
}

void add_agents(Fights& fights, const Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  const std::size_t first = fights.ready.size();
  fights.grace_until.resize(count);
  fights.last_blast.resize(count);
  fights.touches.resize(count);
  for (std::size_t who = first; who < count; ++who) {
    fights.ready.add();
    fights.pockets.add();
    equip(fights, level.kind_of(level.agents[who]), static_cast<Index>(who));
  }
  fights.next_left.resize(fixed.pools.size());
}

Lives make_lives(const Fixed& fixed) {
  Lives lives;
  add_agents(lives, fixed);
  return lives;
}

Fights make_fights(const Fixed& fixed) {
  Fights fights;
  add_agents(fights, fixed);
  add_solids(fights, *fixed.level);
  return fights;
}

void add_solids(Fights& fights, const Level& level) {
  const auto breaks = [](const Solid& solid) { return solid.health > 0.0; };
  if (std::none_of(level.solids.begin(), level.solids.end(), breaks)) return;
  for (std::size_t i = fights.solid_health.size(); i < level.solids.size(); ++i) {
    fights.solid_health.push_back(level.solids[i].health);
  }
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

void change_kind(Lives& lives, Fights& fights, const Fixed& fixed, std::uint32_t who) {
  const Kind& kind = fixed.level->kind_of(fixed.level->agents[who]);
  lives.health[who] = std::min(lives.health[who], kind.health);
  equip(fights, kind, who);
  std::erase_if(fights.releases, [&](const Release& one) { return one.who == who; });
  std::erase_if(fights.beams, [&](const Beam& one) { return one.who == who; });
  fights.next_left.resize(fixed.pools.size());
}

}  // namespace gaze
