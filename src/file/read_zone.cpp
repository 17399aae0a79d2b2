#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "file/names.hpp"
#include "file/read.hpp"

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
  TableReader reader(context, table, is_named ? "zone." + id->text : "zone");
  Zone zone;
  zone.place = table.place;
  zone.id = reader.needed_name("id");
  zone.outline = read_plan_points(reader, "outline", ReadLimits::outline_points);
  if (level.plane != Plane::upright) {
    zone.base = reader.number("base", level.ground_height.value_or(0.0), kCoordinate);
    zone.height = reader.number("height", 2.5, {0.0, ReadLimits::coordinate, "m", true});
  }
  zone.tags = read_tags(reader, "tags");
  zone.dimness = reader.number("dimness", 0.0, kShare);
  zone.triggered_by = reader.names("triggered_by");
  zone.grants = read_tags(reader, "grants");
  zone.takes = read_tags(reader, "takes");
  zone.tells = read_agent_list(reader, "tells", ids);
  zone.wakes = read_agent_list(reader, "wakes", ids);
  zone.once = reader.boolean("once", false);
  zone.cost = reader.number("cost", 1.0, {0.1, 100.0, ""});
  zone.closed_to = reader.names("closed_to");
  reader.finish();
  const Node* outline = table.find("outline");
  if (outline == nullptr || zone.outline.size() != outline->items.size()) return std::nullopt;
  if (!check_outline(reader, zone.outline)) return std::nullopt;
  return zone;
}

/// Everything that one name after another is looked up in.
class References {
 public:
  References(ReadContext& context, const Level& level) : context_(context), level_(level) {
    for (const Kind& kind : level.kinds) tags_.insert(kind.tags.begin(), kind.tags.end());
    for (const Zone& zone : level.zones) tags_.insert(zone.grants.begin(), zone.grants.end());
    for (const Agent& agent : level.agents) agents_.push_back(agent.id);
  }

  void check() {
    std::set<std::uint32_t> done;
    for (const Agent& agent : level_.agents) {
      if (agent.kind < level_.kinds.size() && done.insert(agent.kind).second) check_kind(agent);
    }
    std::vector<std::string> anybody(tags_.begin(), tags_.end());
    for (const Team& team : level_.teams) anybody.push_back(team.name);
    for (const Kind& kind : level_.kinds) anybody.push_back(kind.name);
    for (const Zone& zone : level_.zones) {
      const std::vector<std::string> tags(tags_.begin(), tags_.end());
      for (const std::string& tag : zone.takes) need(tags, tag, "tag", zone_place(zone, "takes"));
      for (const std::string& name : zone.triggered_by) {
        need(anybody, name, "team, kind or tag", zone_place(zone, "triggered_by"));
      }
      for (const std::string& name : zone.closed_to) {
        need(anybody, name, "team, kind or tag", zone_place(zone, "closed_to"));
      }
    }
    for (const Solid& solid : level_.solids) {
      const auto place = level_.origin(fmt::format("door.{}.opens_for", solid.id));
      for (const std::string& name : solid.door.opens_for) {
        need(anybody, name, "team, kind or tag", place.value_or(solid.place));
      }
    }
    check_starts(anybody);
    if (tags_.size() > 64) {
      context_.faults.add(level_.agents.empty() ? Place{} : level_.agents[0].place,
                          fmt::format("{} different tags; at most 64 are allowed", tags_.size()));
    }
  }

 private:
  void check_kind(const Agent& agent) {
    const Kind& kind = level_.kind_of(agent);
    const std::vector<std::string> tags(tags_.begin(), tags_.end());
    const auto place = [&](const std::string& key) {
      return level_.origin(agent, key).value_or(kind.place);
    };
    std::vector<std::string> anybody = agents_;
    anybody.insert(anybody.end(), tags_.begin(), tags_.end());
    for (const Team& team : level_.teams) anybody.push_back(team.name);
    for (const Kind& other : level_.kinds) anybody.push_back(other.name);
    for (const std::string& name : kind.move.follows) {
      need(anybody, name, "agent, kind, team or tag", place("move.follows"));
    }
    if (kind.wander && !kind.wander->area.empty()) {
      std::vector<std::string> zones;
      for (const Zone& zone : level_.zones) zones.push_back(zone.id);
      need(zones, kind.wander->area, "zone", place("wander.area"));
    }
    for (const std::string& tag : kind.choose.tags) need(tags, tag, "tag", place("choose.tags"));
    for (const Rule& rule : kind.when.rules) {
      const std::string key = fmt::format("when.{}", name_of(rule.cause));
      const std::string name = rule.name.empty() ? "any" : rule.name;
      for (const std::string& id : rule.reaction.wakes) {
        const auto plain = level_.origin(agent, key + ".wakes");
        need(agents_, id, "agent", plain ? *plain : place(fmt::format("{}.{}.wakes", key, name)));
      }
    }
  }

  void check_starts(std::vector<std::string> anybody) {
    anybody.insert(anybody.end(), agents_.begin(), agents_.end());
    std::vector<std::string> kinds = agents_;
    for (std::size_t i = 0; i < level_.named_kinds; ++i) kinds.push_back(level_.kinds[i].name);
    for (const Start& start : level_.starts) {
      const auto place = [&](const std::string& key) {
        return level_.origin(fmt::format("start.{}.{}", start.id, key)).value_or(start.place);
      };
      need(kinds, start.kind, "kind or agent", place("kind"));
      if (start.apart_from.empty()) continue;
      need(anybody, start.apart_from, "agent, kind, team or tag", place("apart_from"));
    }
  }

  Place zone_place(const Zone& zone, const std::string& key) const {
    return level_.origin(fmt::format("zone.{}.{}", zone.id, key)).value_or(zone.place);
  }

  void need(const std::vector<std::string>& names, const std::string& name, std::string_view what,
            const Place& place) {
    if (std::find(names.begin(), names.end(), name) != names.end()) return;
    context_.faults.add(place,
                        fmt::format("there is no {} '{}'{}", what, name, suggestion(name, names)));
  }

  ReadContext& context_;
  const Level& level_;
  std::set<std::string> tags_;
  std::vector<std::string> agents_;
};

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
  }
  for (const Zone& zone : level.zones) {
    for (const std::uint32_t agent : zone.wakes) {
      if (agent < level.agents.size()) woken.insert(level.agents[agent].id);
    }
  }
  if (woken.empty()) return;
  for (Agent& agent : level.agents) agent.is_asleep |= woken.contains(agent.id);
}

// One kind's speed may be a share of that of one that is a share itself.
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

void check_references(ReadContext& context, const Level& level) {
  References(context, level).check();
}

}  // namespace gaze
