#include <fmt/format.h>

#include <algorithm>

#include "file/read.hpp"

namespace gaze {
namespace {

void read_shot(TableReader& reader, Attack& attack, double height) {
  attack.speed = reader.needed_number("speed", {0.0, 10'000.0, "m/s", true});
  attack.radius = reader.number("radius", 0.05, {0.0, 100.0, "m"});
  attack.gravity_share = reader.number("gravity_share", 0.0, {-10.0, 10.0, ""});
  attack.aim_tolerance =
      Angle::from_degrees(reader.number("aim_tolerance", 3.0, {0.0, 180.0, "degrees"}));
  const double flight = std::min(attack.range / attack.speed, kSeconds.high);
  attack.lifetime = reader.duration("lifetime", flight, {0.0, kSeconds.high, "s", true});
  attack.muzzle = read_offset(reader, "muzzle", {0.0, 0.0, height / 2.0});
  attack.noise_reach = reader.number("noise_reach", 0.0, kReach);
  attack.fire_reach = reader.number("fire_reach", 0.0, kReach);
}

Attack read_attack(ReadContext& context, const Node& table, const std::string& name,
                   const std::string& path, double height) {
  TableReader reader(context, table, path);
  Attack attack;
  attack.name = name;
  reader.need("how", "\"strike\" or \"shot\"");
  const auto how = reader.word("how", {"strike", "shot"});
  attack.how = how == std::size_t{1} ? Attack::How::shot : Attack::How::strike;
  attack.range = reader.needed_number("range", kRange);
  attack.damage = reader.needed_number("damage", {0.0, 1e9, "points"});
  reader.need("cooldown", "a number of seconds");
  attack.cooldown = reader.duration("cooldown", 1.0, {0.001, kSeconds.high, "s"});
  if (attack.how == Attack::How::shot) {
    read_shot(reader, attack, height);
  } else {
    attack.arc = Angle::from_degrees(reader.number("arc", 360.0, kFullAngle));
  }
  // Without knowing how, there is no telling which keys are right.
  if (how) reader.finish();
  return attack;
}

void read_attacks(ReadContext& context, TableReader& reader, Kind& kind) {
  const Node* attacks = reader.find("attack");
  const std::string path = reader.path_of("attack");
  if (attacks == nullptr || !is_table(reader, *attacks, path)) return;
  for (const Node::Entry& entry : attacks->entries) {
    const Node& node = entry.value;
    const std::string own_path = path + "." + entry.key;
    if (node.type == Node::Type::boolean && !node.boolean) continue;  // taken away
    if (!is_table(reader, node, own_path)) continue;
    kind.attacks.push_back(read_attack(context, node, entry.key, own_path, kind.height));
  }
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
  static const std::vector<std::string> kKeys{
      "team",  "radius", "height", "health", "body_points", "visibility", "still_visibility",
      "tags",  "sight",  "scan",   "head",   "hearing",     "feeler",     "nearness",
      "touch", "hurt",   "tell",   "choose", "move",        "wander",     "attack",
      "when"};
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
  kind.radius = reader.number("radius", 0.3, kSize);
  kind.height = reader.number("height", 1.7, kSize);
  kind.health = reader.number("health", 100.0, {0.0, 1e9, "points", true});
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
  read_attacks(context, reader, kind);
  const Node* when = reader.find("when");
  if (when != nullptr && is_table(reader, *when, reader.path_of("when"))) {
    kind.when = read_when(context, *when, reader.path_of("when"), kind, names);
  }
  reader.finish();
  return kind;
}

}  // namespace gaze
