#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "file/read.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

std::vector<std::string> agent_ids(const Level& level) {
  std::vector<std::string> ids;
  for (const Agent& agent : level.agents) ids.push_back(agent.id);
  return ids;
}

std::vector<std::uint32_t> read_agent_list(TableReader& reader, const std::string& key,
                                           const std::vector<std::string>& ids) {
  std::vector<std::uint32_t> agents;
  for (const Node& item : reader.items(key, ReadLimits::list_items)) {
    agents.push_back(reader.reference(item, ids, "agent"));
  }
  return agents;
}

std::optional<Zone> read_zone(ReadContext& context, const Node& table, const Level& level,
                              const std::vector<std::string>& ids) {
  const Node* id = table.find("id");
  const bool is_named = id != nullptr && id->type == Node::Type::text;
  TableReader reader(context, table, is_named ? "zone." + id->text : "zone", kZoneKeys);
  Zone zone;
  zone.place = table.place;
  zone.id = reader.needed_name("id");
  zone.outline = read_plan_points(reader, "outline", ReadLimits::outline_points);
  if (level.plane != Plane::upright) {
    zone.base = reader.number("base", level.ground_height.value_or(0.0));
    zone.height = reader.number("height");
  }
  zone.tags = read_tags(reader, "tags");
  zone.dimness = reader.number("dimness");
  zone.triggered_by = reader.names("triggered_by");
  zone.grants = read_tags(reader, "grants");
  zone.takes = read_tags(reader, "takes");
  zone.tells = read_agent_list(reader, "tells", ids);
  zone.wakes = read_agent_list(reader, "wakes", ids);
  zone.once = reader.truth("once");
  zone.cost = reader.number("cost");
  zone.closed_to = reader.names("closed_to");
  reader.finish();
  const Node* outline = table.find("outline");
  if (outline == nullptr || zone.outline.size() != outline->items.size()) return std::nullopt;
  if (!check_outline(reader, zone.outline)) return std::nullopt;
  return zone;
}

}  // namespace

void read_zones(ReadContext& context, TableReader& top, Level& level) {
  const std::vector<Node>& tables = top.items("zone", ReadLimits::list_items);
  if (tables.empty()) return;
  const std::vector<std::string> ids = agent_ids(level);
  for (const Node& table : tables) {
    if (!is_table(top, table, "zone")) continue;
    if (const auto zone = read_zone(context, table, level, ids)) level.zones.push_back(*zone);
  }
}

void put_to_sleep(Level& level) {
  std::set<std::string> woken;
  for (const Agent& agent : level.agents) {
    if (agent.kind >= level.kinds.size()) continue;
    for (const Rule& rule : level.kind_of(agent).when.rules) {
      woken.insert(rule.reaction.wakes.begin(), rule.reaction.wakes.end());
    }
    const Defeat& defeat = level.kind_of(agent).defeat;
    woken.insert(defeat.wakes.begin(), defeat.wakes.end());
  }
  for (const Zone& zone : level.zones) {
    for (const std::uint32_t agent : zone.wakes) {
      if (agent < level.agents.size()) woken.insert(level.agents[agent].id);
    }
  }
  if (woken.empty()) return;
  for (Agent& agent : level.agents) agent.is_asleep |= woken.contains(agent.id);
}

// The speed of a kind may be a share of that of another kind, whose speed is a share of a third
// one's.
void set_paces(ReadContext& context, Level& level) {
  std::vector<std::string> names;
  for (std::size_t i = 0; i < level.named_kinds; ++i) names.push_back(level.kinds[i].name);
  for (Kind& kind : level.kinds) {
    double share = 1.0;
    const Kind* at = &kind;
    for (std::size_t depth = 0; !at->move.pace_of.empty(); ++depth) {
      const auto it = std::find(names.begin(), names.end(), at->move.pace_of);
      const Place place =
          level.origin(fmt::format("kind.{}.move.pace_of", at->name)).value_or(at->place);
      if (it == names.end()) {
        context.faults.add(place, fmt::format("there is no kind '{}'{}", at->move.pace_of,
                                              suggestion(at->move.pace_of, names)));
        return;
      }
      if (depth > level.kinds.size()) {
        context.faults.add(place, fmt::format("the paces of kinds go in a circle: that of {} "
                                              "depends on itself",
                                              kind.name));
        return;
      }
      share *= at->move.pace;
      at = &level.kinds[static_cast<std::size_t>(it - names.begin())];
    }
    if (at != &kind && kind.move.gait != Gait::hop) kind.move.speed = share * at->move.speed;
  }
}

}  // namespace gaze
