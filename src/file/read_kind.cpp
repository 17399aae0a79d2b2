#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "file/read.hpp"

namespace gaze {
namespace {

constexpr Allowed kPoints{0.0, 1e9, "points"};
constexpr Allowed kRate{0.0, 36'000.0, "degrees/s"};

void read_muzzle(TableReader& reader, Attack& attack, double height) {
  attack.aim_tolerance =
      Angle::from_degrees(reader.number("aim_tolerance", 3.0, {0.0, 180.0, "degrees"}));
  attack.muzzle = read_offset(reader, "muzzle", {0.0, 0.0, height / 2.0});
  attack.fire_reach = reader.number("fire_reach", 0.0, kReach);
}

// Without gravity of its own nothing comes down in an arc.
void read_aim(TableReader& reader, Attack& attack) {
  const auto aim = reader.word("aim", {"direct", "lead", "lob", "high lob", "ahead"});
  attack.aim = static_cast<Attack::Aim>(aim.value_or(0));
  const bool is_lob = is_lobbed(attack);
  attack.gravity_share = reader.number("gravity_share", is_lob ? 1.0 : 0.0, {-10.0, 10.0, ""});
  if (is_lob && !(attack.gravity_share > 0.0)) {
    const Node* share = reader.table().find("gravity_share");
    reader.fault(share->place, fmt::format("{} is {:g}; a lob needs more than 0",
                                           reader.path_of("gravity_share"), attack.gravity_share));
  }
}

void read_bounces(TableReader& reader, Attack& attack) {
  attack.bounces = static_cast<int>(reader.integer("bounces", 0, 0, 1000));
  attack.bounce_loss = reader.number("bounce_loss", 0.0, kShare);
  if (attack.bounces == 0 || attack.radius > 0.0) return;
  reader.fault(
      reader.table().find("bounces")->place,
      reader.path_of("bounces") + " needs a radius above 0: a point has no side to bounce off by");
}

void read_shot(TableReader& reader, Attack& attack, double height) {
  attack.speed = reader.needed_number("speed", {0.0, 10'000.0, "m/s", true});
  attack.radius = reader.number("radius", 0.05, {0.0, 100.0, "m"});
  read_aim(reader, attack);
  read_muzzle(reader, attack, height);
  // An arc takes longer than the straight way, and ends where it comes down.
  constexpr double kLobLifetime = 30.0;
  const double straight = std::min(attack.range / attack.speed, kSeconds.high);
  attack.lifetime = reader.duration("lifetime", is_lobbed(attack) ? kLobLifetime : straight,
                                    {0.0, kSeconds.high, "s", true});
  attack.noise_reach = reader.number("noise_reach", 0.0, kReach);
  attack.burst = static_cast<int>(reader.integer("burst", 1, 1, 1000));
  attack.burst_interval = reader.duration("burst_interval", 0.1, kSeconds);
  attack.spread = Angle::from_degrees(reader.number("spread", 0.0, {0.0, 360.0, "degrees"}));
  read_bounces(reader, attack);
  attack.pierce = static_cast<int>(reader.integer("pierce", 0, 0, kMostPierced));
  attack.drag = reader.number("drag", 0.0, {0.0, 100.0, "a second"});
  attack.homing_rate = Angle::from_degrees(reader.number("homing_rate", 0.0, kRate));
  attack.blast_radius = reader.number("blast_radius", 0.0, kReach);
  attack.blast_fall_off = reader.number("blast_fall_off", 1.0, kShare);
}

void read_beam(TableReader& reader, Attack& attack, double height) {
  attack.radius = reader.number("thickness", 0.0, {0.0, 100.0, "m"}) / 2.0;
  attack.hold = reader.duration("hold", 0.0, kSeconds);
  read_muzzle(reader, attack, height);
}

void read_own_keys(TableReader& reader, Attack& attack, double height) {
  switch (attack.how) {
    case Attack::How::strike:
      attack.arc = Angle::from_degrees(reader.number("arc", 360.0, kFullAngle));
      break;
    case Attack::How::shot:
      read_shot(reader, attack, height);
      break;
    case Attack::How::beam:
      read_beam(reader, attack, height);
      break;
    case Attack::How::touch:
      attack.sides = read_sides(reader);
      break;
    case Attack::How::burst:
      attack.blast_fall_off = reader.number("blast_fall_off", 1.0, kShare);
      break;
  }
}

Attack read_attack(ReadContext& context, const Node& table, const std::string& name,
                   const std::string& path, double height) {
  TableReader reader(context, table, path);
  Attack attack;
  attack.name = name;
  const std::vector<std::string> ways{"strike", "shot", "beam", "touch", "burst"};
  reader.need("how", fmt::format("\"{}\"", fmt::join(ways, "\", \"")));
  const auto how = reader.word("how", ways);
  attack.how = static_cast<Attack::How>(how.value_or(0));
  if (attack.how != Attack::How::touch) attack.range = reader.needed_number("range", kRange);
  attack.damage = reader.needed_number("damage", kPoints);
  reader.need("cooldown", "a number of seconds");
  attack.cooldown = reader.duration("cooldown", 1.0, {0.001, kSeconds.high, "s"});
  attack.wind_up = reader.duration("wind_up", 0.0, kSeconds);
  attack.ammunition = static_cast<int>(reader.integer("ammunition", 0, 0, 1'000'000));
  if (reader.find("reload") != nullptr) attack.reload = reader.duration("reload", 0.0, kSeconds);
  attack.push = reader.number("push", 0.0, {0.0, 1000.0, "m/s"});
  attack.damage_kind = reader.text("damage_kind", "");
  read_own_keys(reader, attack, height);
  // Without knowing how, there is no telling which keys are right.
  if (how) reader.finish();
  return attack;
}

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
      "team",    "radius", "height",   "health", "body_points", "visibility", "still_visibility",
      "mass",    "grace",  "resist",   "tags",   "sight",       "scan",       "head",
      "hearing", "feeler", "nearness", "touch",  "hurt",        "tell",       "choose",
      "move",    "wander", "attack",   "when"};
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
  kind.mass = reader.number("mass", 1.0, {0.0, 1e6, "", true});
  kind.grace = reader.duration("grace", 0.0, kSeconds);
  kind.resist = read_resist(context, reader);
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
