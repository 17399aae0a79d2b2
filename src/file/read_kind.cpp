#include <fmt/format.h>

#include <algorithm>

#include "file/read.hpp"

namespace gaze {
namespace {

// Shares of the damage of some kinds that is taken off; below 0 more is done.
std::map<std::string, double> read_resist(ReadContext& context, TableReader& reader) {
  std::map<std::string, double> resist;
  const Node* table = reader.find("resist");
  const std::string path = reader.path_of("resist");
  if (table == nullptr || !is_table(reader, *table, path)) return resist;
  TableReader own(context, *table, path);
  for (const Node::Entry& entry : table->entries) {
    resist[entry.key] = own.number(entry.key, 0.0, {-100.0, 1.0, ""});
  }
  return resist;
}

// Factors of the damage by the side that is hit.
std::array<double, 6> read_side_factors(ReadContext& context, TableReader& reader) {
  std::array<double, 6> factors{1, 1, 1, 1, 1, 1};
  const Node* table = reader.find("side_factors");
  const std::string path = reader.path_of("side_factors");
  if (table == nullptr || !is_table(reader, *table, path)) return factors;
  TableReader own(context, *table, path);
  for (std::size_t side = 0; side < factors.size(); ++side) {
    factors[side] = own.number(kSideNames[side], 1.0, {0.0, 1000.0, ""});
  }
  own.finish();
  return factors;
}

SolidTo read_solid_to(TableReader& reader) {
  if (reader.find("solid_to") == nullptr) return {};
  SolidTo solid_to{false, false};
  const std::vector<std::string> kWords{"friends", "foes"};
  for (const Node& item : reader.items("solid_to", kWords.size())) {
    const auto word = reader.reference(item, kWords, "group");
    solid_to.friends |= word == 0;
    solid_to.foes |= word == 1;
  }
  return solid_to;
}

void read_body(ReadContext& context, TableReader& reader, Kind& kind) {
  kind.radius = reader.number("radius", 0.3, kSize);
  kind.height = reader.number("height", 1.7, kSize);
  kind.health = reader.number("health", 100.0, {0.0, 1e9, "points", true});
  kind.solid_to = read_solid_to(reader);
  kind.mass = reader.number("mass", 1.0, {0.0, 1e6, "", true});
  kind.grace = reader.duration("grace", 0.0, kSeconds);
  kind.resist = read_resist(context, reader);
  kind.side_factors = read_side_factors(context, reader);
  kind.heals = reader.number("heals", 0.0, kPoints);
  kind.heals_after = reader.duration("heals_after", 0.0, kSeconds);
}

std::vector<double> read_body_points(TableReader& reader) {
  const std::vector<Node>& items = reader.items("body_points", 32);
  const Node* node = reader.table().find("body_points");
  if (node == nullptr || node->type != Node::Type::array) return {0.0, 0.5, 1.0};
  if (items.empty()) {
    reader.fault(node->place, reader.path_of("body_points") + " is empty; 1 to 32 are allowed");
  }
  return reader.numbers(*node, reader.path_of("body_points"), node->items.size(), {0.0, 1.0, ""})
      .value_or(std::vector<double>{0.5});
}

}  // namespace

const std::vector<std::string>& kind_keys() {
  static const std::vector<std::string> kKeys{"team",         "radius",
                                              "height",       "health",
                                              "solid_to",     "mass",
                                              "grace",        "resist",
                                              "side_factors", "heals",
                                              "heals_after",  "body_points",
                                              "visibility",   "still_visibility",
                                              "tags",         "sight",
                                              "scan",         "head",
                                              "hearing",      "feeler",
                                              "nearness",     "touch",
                                              "hurt",         "tell",
                                              "choose",       "move",
                                              "wander",       "attack",
                                              "thing",        "carries",
                                              "defeat",       "when"};
  return kKeys;
}

Kind read_kind(ReadContext& context, const Node& table, const std::string& name,
               const std::string& path, const Names& names, Plane plane) {
  TableReader reader(context, table, path);
  Kind kind;
  kind.name = name;
  kind.place = table.place;
  const Node* like = reader.find("like");
  if (like != nullptr && like->type == Node::Type::text) kind.like = like->text;
  if (const Node* team = reader.find("team")) {
    kind.team = reader.reference(*team, names.teams, "team");
  }
  read_body(context, reader, kind);
  kind.body_points = read_body_points(reader);
  kind.move.step_height = std::min(0.3, kind.height / 2.0);
  kind.visibility = reader.number("visibility", 1.0, {0.0, 100.0, ""});
  kind.still_visibility = reader.number("still_visibility", kind.visibility, {0.0, 100.0, ""});
  kind.tags = read_tags(reader, "tags");
  read_senses(context, reader, kind, names, plane);
  const Node* move = reader.find("move");
  if (move != nullptr && is_table(reader, *move, reader.path_of("move"))) {
    kind.move = read_move(context, *move, reader.path_of("move"), kind.height, plane);
  }
  const Node* wander = reader.find("wander");
  if (wander != nullptr && is_table(reader, *wander, reader.path_of("wander"))) {
    kind.wander = read_wander(context, *wander, reader.path_of("wander"));
  }
  read_attacks(context, reader, kind, names);
  read_things(context, reader, kind, names);
  read_defeat(context, reader, kind, names);
  const Node* when = reader.find("when");
  if (when != nullptr && is_table(reader, *when, reader.path_of("when"))) {
    kind.when = read_when(context, *when, reader.path_of("when"), kind, names);
  }
  reader.finish();
  return kind;
}

}  // namespace gaze
