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
  for (const Node::Entry& entry : table->entries) {
    const std::string own_path = path + "." + entry.key;
    context.origins[own_path] = entry.value.place;
    resist[entry.key] =
        reader.number_at(entry.value, own_path, reader.key("resist").allowed).value_or(0.0);
  }
  return resist;
}

// Factors of the damage by the side that is hit.
std::array<double, 6> read_side_factors(ReadContext& context, TableReader& reader) {
  std::array<double, 6> factors{1, 1, 1, 1, 1, 1};
  const Node* table = reader.find("side_factors");
  const std::string path = reader.path_of("side_factors");
  if (table == nullptr || !is_table(reader, *table, path)) return factors;
  TableReader own(context, *table, path, kSideFactorKeys);
  for (std::size_t side = 0; side < factors.size(); ++side) {
    factors[side] = own.number(kSideNames[side]);
  }
  own.finish();
  return factors;
}

SolidTo read_solid_to(TableReader& reader) {
  if (reader.find("solid_to") == nullptr) return {};
  SolidTo solid_to{false, false};
  for (const std::size_t word : reader.words("solid_to", "group")) {
    (word == 0 ? solid_to.friends : solid_to.foes) = true;
  }
  return solid_to;
}

void read_body(ReadContext& context, TableReader& reader, Kind& kind) {
  kind.radius = reader.number("radius");
  kind.height = reader.number("height");
  kind.health = reader.number("health");
  kind.solid_to = read_solid_to(reader);
  kind.mass = reader.number("mass");
  kind.grace = reader.duration("grace");
  kind.resist = read_resist(context, reader);
  kind.side_factors = read_side_factors(context, reader);
  kind.heals = reader.number("heals");
  kind.heals_after = reader.duration("heals_after");
}

std::vector<double> read_body_points(TableReader& reader) {
  const Key& key = reader.key("body_points");
  const std::vector<Node>& items = reader.items("body_points", key.count);
  const Node* node = reader.table().find("body_points");
  if (node == nullptr || node->type != Node::Type::array) return {0.0, 0.5, 1.0};
  if (items.empty()) {
    reader.fault(node->place, reader.path_of("body_points") + " is empty; 1 to 32 are allowed");
  }
  return reader.numbers(*node, reader.path_of("body_points"), node->items.size(), key.allowed)
      .value_or(std::vector<double>{0.5});
}

}  // namespace

const std::vector<std::string>& kind_keys() {
  static const std::vector<std::string> kKeys = [] {
    std::vector<std::string> keys = split(kKindKeys.parts);
    for (const Key& key : kKindKeys.keys) {
      if (key.name != "like") keys.emplace_back(key.name);
    }
    return keys;
  }();
  return kKeys;
}

Kind read_kind(ReadContext& context, const Node& table, const std::string& name,
               const std::string& path, const Names& names, Plane plane) {
  TableReader reader(context, table, path, kKindKeys);
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
  kind.visibility = reader.number("visibility");
  kind.still_visibility = reader.number("still_visibility", kind.visibility);
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
