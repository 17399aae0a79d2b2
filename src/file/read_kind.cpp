#include <fmt/format.h>

#include <algorithm>

#include "file/read.hpp"

namespace gaze {
namespace {

constexpr Allowed kRange{0.0, 2.0 * ReadLimits::coordinate, "m", true};
constexpr Allowed kFullAngle{0.0, 360.0, "degrees", true};

std::optional<Sight> read_sight(ReadContext& context, const Node& table, const std::string& path,
                                double height) {
  TableReader reader(context, table, path);
  Sight sight;
  sight.range = reader.needed_number("range", kRange);
  sight.field_of_view = Angle::from_degrees(reader.needed_number("field_of_view", kFullAngle));
  const auto keep_range = reader.optional_number("keep_range", kRange);
  sight.keep_range = keep_range.value_or(sight.range);
  sight.eye_height = reader.number("eye_height", 0.9 * height, {0.0, 1000.0, "m"});
  sight.notice_time = reader.duration("notice_time", 0.0, kSeconds);
  sight.remember = reader.duration("remember", 0.0, kSeconds);
  reader.finish();
  if (keep_range && table.find("range") != nullptr && sight.keep_range < sight.range) {
    reader.fault(table.find("keep_range")->place,
                 fmt::format("{}.keep_range is {}; at least the range of {} m is allowed", path,
                             sight.keep_range, sight.range));
  }
  return sight;
}

Move read_move(ReadContext& context, const Node& table, const std::string& path, double height) {
  TableReader reader(context, table, path);
  Move move;
  const auto gait = reader.word("gait", {"fixed", "walk"});
  move.gait = gait == std::size_t{0} ? Gait::fixed : Gait::walk;
  move.speed = reader.number("speed", 2.0, {0.0, 1000.0, "m/s"});
  move.turn_rate =
      Angle::from_degrees(reader.number("turn_rate", 360.0, {0.0, 36'000.0, "degrees/s"}));
  move.stop_distance = reader.optional_number("stop_distance", {0.0, 1000.0, "m"});
  move.step_height = reader.number("step_height", std::min(0.3, height / 2.0), {0.0, 1000.0, "m"});
  reader.finish();
  const Node* step = table.find("step_height");
  if (step != nullptr && !(move.step_height < height)) {
    reader.fault(step->place,
                 fmt::format("{}.step_height is {}; below the height of {} m is allowed", path,
                             move.step_height, height));
  }
  return move;
}

void read_shot(TableReader& reader, Attack& attack, double height) {
  attack.speed = reader.needed_number("speed", {0.0, 10'000.0, "m/s", true});
  attack.radius = reader.number("radius", 0.05, {0.0, 100.0, "m"});
  attack.gravity_share = reader.number("gravity_share", 0.0, {-10.0, 10.0, ""});
  attack.aim_tolerance =
      Angle::from_degrees(reader.number("aim_tolerance", 3.0, {0.0, 180.0, "degrees"}));
  const double flight = std::min(attack.range / attack.speed, kSeconds.high);
  attack.lifetime = reader.duration("lifetime", flight, {0.0, kSeconds.high, "s", true});
  attack.muzzle = {0.0, 0.0, height / 2.0};
  const Node* muzzle = reader.find("muzzle");
  if (muzzle == nullptr) return;
  if (const auto place = reader.numbers(*muzzle, reader.path_of("muzzle"), 3, kOffset)) {
    attack.muzzle = {(*place)[0], (*place)[1], (*place)[2]};
  }
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

bool is_table(TableReader& reader, const Node& node, const std::string& path) {
  if (node.type == Node::Type::table) return true;
  reader.fault(node.place, fmt::format("{} is {}; a table is needed", path, found(node)));
  return false;
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

When read_when(ReadContext& context, const Node& table, const std::string& path) {
  static const std::vector<std::string> kModes{"post", "patrol", "chase", "return"};
  TableReader reader(context, table, path);
  const auto mode = [&](const std::string& key, const std::vector<std::string>& words) {
    const auto word = reader.word(key, words);
    return word ? std::optional(static_cast<Mode>(*word)) : std::nullopt;
  };
  When when;
  when.sees = mode("sees", kModes);
  when.loses = mode("loses", kModes);
  when.forgets = mode("forgets", kModes).value_or(Mode::return_);
  when.idle = mode("idle", {"post", "patrol"});
  reader.finish();
  return when;
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
  static const std::vector<std::string> kKeys{"team",  "radius", "height", "health", "body_points",
                                              "sight", "move",   "attack", "when"};
  return kKeys;
}

Kind read_kind(ReadContext& context, const Node& table, const std::string& name,
               const std::string& path, const Names& names) {
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
  const Node* sight = reader.find("sight");
  if (sight != nullptr && is_table(reader, *sight, reader.path_of("sight"))) {
    kind.sight = read_sight(context, *sight, reader.path_of("sight"), kind.height);
  }
  const Node* move = reader.find("move");
  if (move != nullptr && is_table(reader, *move, reader.path_of("move"))) {
    kind.move = read_move(context, *move, reader.path_of("move"), kind.height);
  }
  read_attacks(context, reader, kind);
  const Node* when = reader.find("when");
  if (when != nullptr && is_table(reader, *when, reader.path_of("when"))) {
    kind.when = read_when(context, *when, reader.path_of("when"));
  }
  reader.finish();
  return kind;
}

}  // namespace gaze
