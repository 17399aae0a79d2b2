#include "agents/pools.hpp"

#include <algorithm>
#include <set>
#include <string>

#include "level/figures.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

/// Calls `use(kind, attack, count)` for everything that an agent of a kind may leave behind: at its
/// defeat, without an attack, or where what it fires or throws ends.
template <typename Use>
void for_each_leftover(const Level& level, Index own, Use&& use) {
  const Kind& kind = level.kinds[own];
  const auto of = [&](const Attack& attack, const AttackId& id) {
    if (attack.leaves) use(*attack.leaves, std::optional(id), static_cast<Index>(attack.keeps));
  };
  if (kind.defeat.leaves) use(*kind.defeat.leaves, std::optional<AttackId>{}, Index{1});
  for (Index i = 0; i < kind.attacks.size(); ++i) of(kind.attacks[i], {own, i});
  if (kind.thing) of(kind.thing->flight, {own, AttackId::kFlight});
  for (const Pocket& pocket : kind.carries) {
    of(level.kinds[pocket.kind].thing->flight, {pocket.kind, AttackId::kFlight});
  }
}

std::string free_id(std::string id, const IsTaken& is_taken) {
  while (is_taken(id)) id += "-left";
  return id;
}

bool leaves_anything(const Level& level, Index kind) {
  bool any = false;
  for_each_leftover(level, kind, [&](Index, const auto&, Index) { any = true; });
  return any;
}

}  // namespace

void add_pools(Level& level, std::vector<Pool>& pools, Index owner, const IsTaken& is_taken) {
  const Index own = level.agents[owner].kind;
  const bool has_some = std::any_of(pools.begin(), pools.end(), [&](const Pool& pool) {
    return pool.owner == owner && pool.kind == own;
  });
  if (has_some) return;  // it has been of that kind before
  for_each_leftover(
      level, own, [&](Index kind, const std::optional<AttackId>& attack, Index count) {
        pools.push_back({owner, own, attack, static_cast<Index>(level.agents.size()), count});
        for (Index i = 1; i <= count; ++i) {
          const Agent& of = level.agents[owner];
          const std::string id = of.id + "-" + level.kinds[kind].name;
          Agent agent;
          agent.id = free_id(count > 1 ? id + "-" + std::to_string(i) : id, is_taken);
          agent.kind = kind;
          agent.is_spare = true;
          agent.driver = Driver::mind;
          agent.position = of.position;
          agent.facing = of.facing;
          agent.place = of.place;
          level.agents.push_back(std::move(agent));
        }
      });
}

std::shared_ptr<const Level> with_pools(std::shared_ptr<const Level> level,
                                        std::vector<Pool>& pools) {
  const auto is_spare = [](const Agent& agent) { return agent.is_spare; };
  const auto leaves = [&](const Agent& agent) { return leaves_anything(*level, agent.kind); };
  const std::vector<Agent>& agents = level->agents;
  const bool any_spare = std::any_of(agents.begin(), agents.end(), is_spare);
  if (!any_spare && std::none_of(agents.begin(), agents.end(), leaves)) return level;
  auto extended = std::make_shared<Level>(*level);
  std::vector<std::string> gone;
  for (const Agent& agent : agents) {
    if (agent.is_spare) gone.push_back(agent.id);
  }
  std::erase_if(extended->agents, is_spare);
  if (any_spare) drop_figures_of_nobody(*extended, gone);
  std::set<std::string> ids;
  for (const Agent& agent : extended->agents) ids.insert(agent.id);
  const auto placed = static_cast<Index>(extended->agents.size());
  for (Index owner = 0; owner < placed; ++owner) {
    add_pools(*extended, pools, owner,
              [&](const std::string& id) { return !ids.insert(id).second; });
  }
  return extended;
}

}  // namespace gaze
