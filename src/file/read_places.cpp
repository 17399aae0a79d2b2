#include "file/field_reader.hpp"

/// Zones, links and start places.
namespace gaze {

void read_zones(ReadContext& context, TableReader& top, const Names& names, Level& level) {
  std::vector<std::string> ids;
  for (const Agent& agent : level.agents) ids.push_back(agent.id);
  const Scope scope{names, level.plane, nullptr, &ids};
  for (const Node& table : top.items("zone", LevelLimits::list_items)) {
    if (!is_table(top, table, "zone")) continue;
    Zone zone;
    zone.place = table.place;
    FieldReader(context, table, path_by_id(table, "zone"), kZoneKeys, scope).read(zone);
    level.zones.push_back(std::move(zone));
  }
}

// Links name heights even where points have none.
void read_links(ReadContext& context, TableReader& top, const Names& names, Level& level) {
  const Scope scope{names, level.plane, nullptr, nullptr};
  for (const Node& table : top.items("link", LevelLimits::list_items)) {
    if (!is_table(top, table, "link")) continue;
    Link link;
    link.place = table.place;
    FieldReader(context, table, path_by_id(table, "link"), kLinkKeys, scope).read(link);
    if (level.plane == Plane::upright) link.from.y() = link.to.y() = 0.0;
    level.links.push_back(std::move(link));
  }
}

void read_starts(ReadContext& context, TableReader& top, const Names& names, Level& level) {
  const Scope scope{names, level.plane, nullptr, nullptr};
  for (const Node& table : top.items("start", LevelLimits::list_items)) {
    if (!is_table(top, table, "start")) continue;
    Start start;
    start.place = table.place;
    FieldReader(context, table, path_by_id(table, "start"), kStartKeys, scope).read(start);
    level.starts.push_back(std::move(start));
  }
}

}  // namespace gaze
