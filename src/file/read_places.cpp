#include <fmt/format.h>

#include "file/read.hpp"

/// Links and start places.
namespace gaze {
namespace {

std::string path_of(const Node& table, const std::string& what) {
  const Node* id = table.find("id");
  const bool is_named = id != nullptr && id->type == Node::Type::text;
  return is_named ? what + "." + id->text : what;
}

// Links name heights even where points have none.
std::optional<Link> read_link(ReadContext& context, const Node& table, Plane plane) {
  TableReader reader(context, table, path_of(table, "link"), kLinkKeys);
  Link link;
  link.place = table.place;
  link.id = reader.needed_name("id");
  const auto from = read_point3(reader, "from");
  const auto to = read_point3(reader, "to");
  link.both_ways = reader.truth("both_ways");
  reader.finish();
  if (!from || !to) return std::nullopt;
  link.from = *from;
  link.to = *to;
  if (plane == Plane::upright) link.from.y() = link.to.y() = 0.0;
  if (link.from != link.to) return link;
  reader.fault(table.find("to")->place,
               fmt::format("{} is where the link begins; it leads nowhere", reader.path_of("to")));
  return std::nullopt;
}

std::optional<Start> read_start(ReadContext& context, const Node& table) {
  TableReader reader(context, table, path_of(table, "start"), kStartKeys);
  Start start;
  start.place = table.place;
  start.id = reader.needed_name("id");
  start.kind = reader.needed_name("kind");
  start.outline = read_plan_points(reader, "outline", ReadLimits::outline_points);
  if (reader.find("apart_from") != nullptr) start.apart_from = reader.needed_name("apart_from");
  start.distance = reader.number("distance");
  start.out_of_sight = reader.truth("out_of_sight");
  reader.finish();
  for (const char* key : {"distance", "out_of_sight"}) {
    const Node* given = table.find(key);
    if (given == nullptr || !start.apart_from.empty()) continue;
    reader.fault(given->place, fmt::format("{} needs apart_from: whom", reader.path_of(key)));
  }
  const Node* outline = table.find("outline");
  if (outline == nullptr || start.outline.size() != outline->items.size()) return std::nullopt;
  if (!check_outline(reader, start.outline)) return std::nullopt;
  return start;
}

}  // namespace

void read_links(ReadContext& context, TableReader& top, Level& level) {
  for (const Node& table : top.items("link", ReadLimits::list_items)) {
    if (!is_table(top, table, "link")) continue;
    if (const auto link = read_link(context, table, level.plane)) level.links.push_back(*link);
  }
}

void read_starts(ReadContext& context, TableReader& top, Level& level) {
  for (const Node& table : top.items("start", ReadLimits::list_items)) {
    if (!is_table(top, table, "start")) continue;
    if (const auto start = read_start(context, table)) level.starts.push_back(*start);
  }
}

}  // namespace gaze
