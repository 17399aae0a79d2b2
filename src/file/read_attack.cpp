#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <limits>

#include "file/read.hpp"

/// Attacks, one table each.
namespace gaze {
namespace {

constexpr Allowed kRate{0.0, 36'000.0, "degrees/s"};

void read_muzzle(TableReader& reader, Attack& attack, double height) {
  attack.aim_tolerance =
      Angle::from_degrees(reader.number("aim_tolerance", 3.0, {0.0, 180.0, "degrees"}));
  attack.muzzle = read_offset(reader, "muzzle", {0.0, 0.0, height / 2.0});
  attack.fire_reach = reader.number("fire_reach", 0.0, kReach);
}

// Without gravity of its own nothing comes down in an arc.
void read_gravity(TableReader& reader, Attack& attack) {
  const bool is_lob = is_lobbed(attack);
  attack.gravity_share = reader.number("gravity_share", is_lob ? 1.0 : 0.0, {-10.0, 10.0, ""});
  if (is_lob && !(attack.gravity_share > 0.0)) {
    const Node* share = reader.table().find("gravity_share");
    reader.fault(share->place, fmt::format("{} is {:g}; a lob needs more than 0",
                                           reader.path_of("gravity_share"), attack.gravity_share));
  }
}

void read_aim(TableReader& reader, Attack& attack) {
  const auto aim = reader.word("aim", {"direct", "lead", "lob", "high lob", "ahead", "mirror"});
  attack.aim = static_cast<Attack::Aim>(aim.value_or(0));
  read_gravity(reader, attack);
  const double radius = reader.number("mirror_radius", attack.range, kReach);
  if (attack.aim == Attack::Aim::mirror) attack.mirror_radius = radius;
}

// Along a feeler of its own instead of the facing.
void read_ahead(TableReader& reader, Attack& attack, const std::vector<Feeler>& feelers) {
  const Node* along = reader.find("along");
  if (along == nullptr) return;
  std::vector<std::string> names;
  names.reserve(feelers.size());
  for (const Feeler& feeler : feelers) names.push_back(feeler.name);
  const std::uint32_t number = reader.reference(*along, names, "feeler");
  if (number >= feelers.size()) return;
  attack.toward = feelers[number].toward;
  attack.tilt = feelers[number].tilt;
}

void read_friends(TableReader& reader, Attack& attack) {
  attack.friends =
      static_cast<Attack::Friends>(reader.word("friends", {"pass", "stop", "hurt"}).value_or(0));
}

void read_bounces(TableReader& reader, Attack& attack) {
  attack.bounces = static_cast<int>(reader.integer("bounces", 0, 0, 1000));
  attack.bounce_loss = reader.number("bounce_loss", 0.0, kShare);
  if (attack.bounces == 0 || attack.radius > 0.0) return;
  reader.fault(
      reader.table().find("bounces")->place,
      reader.path_of("bounces") + " needs a radius above 0: a point has no side to bounce off by");
}

void read_leftovers(TableReader& reader, Attack& attack, const Names& names) {
  if (const Node* leaves = reader.find("leaves")) {
    const auto kind_index = reader.reference(*leaves, names.kinds, "kind");
    if (kind_index != kNoSuch) attack.leaves = kind_index;
    attack.keeps = static_cast<int>(reader.integer("keeps", 4, 1, 64));
  }
}

// How it flies, and what it does where it meets something.
void read_flight(TableReader& reader, Attack& attack, const Names& names) {
  // An arc takes longer than the straight way, and ends where it comes down.
  constexpr double kLobLifetime = 30.0;
  const double straight = std::min(attack.range / attack.speed, kSeconds.high);
  attack.lifetime = reader.duration("lifetime", is_lobbed(attack) ? kLobLifetime : straight,
                                    {0.0, kSeconds.high, "s", true});
  attack.noise_reach = reader.number("noise_reach", 0.0, kReach);
  read_bounces(reader, attack);
  attack.pierce = static_cast<int>(reader.integer("pierce", 0, 0, kMostPierced));
  attack.drag = reader.number("drag", 0.0, {0.0, 100.0, "a second"});
  attack.blast_radius = reader.number("blast_radius", 0.0, kReach);
  attack.blast_fall_off = reader.number("blast_fall_off", 1.0, kShare);
  read_leftovers(reader, attack, names);
}

void read_shot(TableReader& reader, Attack& attack, const Kind& kind, const Names& names) {
  attack.speed = reader.needed_number("speed", {0.0, 10'000.0, "m/s", true});
  attack.radius = reader.number("radius", 0.05, {0.0, 100.0, "m"});
  read_aim(reader, attack);
  read_ahead(reader, attack, kind.feelers);
  read_muzzle(reader, attack, kind.height);
  read_friends(reader, attack);
  attack.burst = static_cast<int>(reader.integer("burst", 1, 1, 1000));
  attack.burst_interval = reader.duration("burst_interval", 0.1, kSeconds);
  attack.spread = Angle::from_degrees(reader.number("spread", 0.0, {0.0, 360.0, "degrees"}));
  attack.homing_rate = Angle::from_degrees(reader.number("homing_rate", 0.0, kRate));
  read_flight(reader, attack, names);
}

void read_beam(TableReader& reader, Attack& attack, const Kind& kind) {
  attack.radius = reader.number("thickness", 0.0, {0.0, 100.0, "m"}) / 2.0;
  attack.hold = reader.duration("hold", 0.0, kSeconds);
  read_ahead(reader, attack, kind.feelers);
  read_muzzle(reader, attack, kind.height);
  read_friends(reader, attack);
}

void read_own_keys(TableReader& reader, Attack& attack, const Kind& kind, const Names& names) {
  switch (attack.how) {
    case Attack::How::strike:
      attack.arc = Angle::from_degrees(reader.number("arc", 360.0, kFullAngle));
      break;
    case Attack::How::shot:
      read_shot(reader, attack, kind, names);
      break;
    case Attack::How::beam:
      read_beam(reader, attack, kind);
      break;
    case Attack::How::touch:
      attack.sides = read_sides(reader);
      break;
    case Attack::How::burst:
      attack.blast_fall_off = reader.number("blast_fall_off", 1.0, kShare);
      read_friends(reader, attack);
      break;
    case Attack::How::catch_:
      break;
  }
}

void read_condition(TableReader& reader, Attack& attack) {
  if (attack.how != Attack::How::touch) attack.min_range = reader.number("min_range", 0.0, kReach);
  const Node* node = reader.find("at_health");
  if (node == nullptr) return;
  const auto between = reader.numbers(*node, reader.path_of("at_health"), 2, kShare);
  if (!between) return;
  attack.health_low = (*between)[0];
  attack.health_high = (*between)[1];
  if (attack.health_low <= attack.health_high) return;
  reader.fault(node->place,
               fmt::format("{} is [{:g}, {:g}]; the lesser share comes first",
                           reader.path_of("at_health"), attack.health_low, attack.health_high));
}

void read_effect(TableReader& reader, Attack& attack) {
  if (attack.how == Attack::How::catch_) return;
  attack.push = reader.number("push", 0.0, {0.0, 1000.0, "m/s"});
  attack.damage_kind = reader.text("damage_kind", "");
  const bool has_distance = attack.how == Attack::How::strike || attack.how == Attack::How::shot ||
                            attack.how == Attack::How::beam;
  if (!has_distance) return;
  attack.far_damage = reader.number("far_damage", 1.0, kShare);
  attack.fade_from = reader.number("fade_from", 0.0, kShare);
}

void read_range(TableReader& reader, Attack& attack) {
  if (attack.how == Attack::How::touch) return;
  const bool is_catch = attack.how == Attack::How::catch_;
  attack.range = is_catch ? reader.optional_number("range", kRange).value_or(0.0)
                          : reader.needed_number("range", kRange);
}

Attack read_attack(ReadContext& context, const Node& table, const std::string& name,
                   const std::string& path, const Kind& kind, const Names& names) {
  TableReader reader(context, table, path);
  Attack attack;
  attack.name = name;
  const std::vector<std::string> ways{"strike", "shot", "beam", "touch", "burst", "catch"};
  reader.need("how", fmt::format("\"{}\"", fmt::join(ways, "\", \"")));
  const auto how = reader.word("how", ways);
  attack.how = static_cast<Attack::How>(how.value_or(0));
  read_range(reader, attack);
  const Allowed cooldown{0.001, kSeconds.high, "s"};
  if (attack.how != Attack::How::catch_) {
    attack.damage = reader.needed_number("damage", kPoints);
    reader.need("cooldown", "a number of seconds");
  }
  attack.cooldown = reader.duration("cooldown", 1.0, cooldown);
  attack.wind_up = reader.duration("wind_up", 0.0, kSeconds);
  attack.ammunition = static_cast<int>(reader.integer("ammunition", 0, 0, 1'000'000));
  if (reader.find("reload") != nullptr) attack.reload = reader.duration("reload", 0.0, kSeconds);
  read_effect(reader, attack);
  read_condition(reader, attack);
  read_own_keys(reader, attack, kind, names);
  // Without knowing how, there is no telling which keys are right.
  if (how) reader.finish();
  return attack;
}

// Thrown from the hand, it flies like a shot and is heard by the name of its kind.
Thing read_thing(ReadContext& context, const Node& table, const std::string& path, const Kind& kind,
                 const Names& names) {
  TableReader reader(context, table, path);
  Thing thing;
  thing.breaks = reader.boolean("breaks", false);
  thing.take_reach = reader.number("take_reach", 0.5, {0.0, 1000.0, "m"});
  Attack& flight = thing.flight;
  flight.name = kind.name;
  flight.how = Attack::How::shot;
  flight.speed = reader.number("speed", 9.0, {0.0, 10'000.0, "m/s", true});
  flight.radius = kind.radius;
  flight.aim = Attack::Aim::lob;
  const auto aim = reader.word("aim", {"lob", "high lob"});
  if (aim == std::size_t{1}) flight.aim = Attack::Aim::high_lob;
  read_gravity(reader, flight);
  flight.range = kReach.high;
  flight.damage = reader.number("damage", 0.0, kPoints);
  flight.push = reader.number("push", 0.0, {0.0, 1000.0, "m/s"});
  flight.damage_kind = reader.text("damage_kind", "");
  read_friends(reader, flight);
  read_flight(reader, flight, names);
  reader.finish();
  return thing;
}

}  // namespace

void read_attacks(ReadContext& context, TableReader& reader, Kind& kind, const Names& names) {
  const Node* attacks = reader.find("attack");
  const std::string path = reader.path_of("attack");
  if (attacks == nullptr || !is_table(reader, *attacks, path)) return;
  for (const Node::Entry& entry : attacks->entries) {
    const Node& node = entry.value;
    const std::string own_path = path + "." + entry.key;
    if (node.type == Node::Type::boolean && !node.boolean) continue;  // taken away
    if (!is_table(reader, node, own_path)) continue;
    kind.attacks.push_back(read_attack(context, node, entry.key, own_path, kind, names));
  }
}

void read_things(ReadContext& context, TableReader& reader, Kind& kind, const Names& names) {
  const Node* thing = reader.find("thing");
  const std::string path = reader.path_of("thing");
  if (thing != nullptr && is_table(reader, *thing, path)) {
    kind.thing = read_thing(context, *thing, path, kind, names);
  }
  const Node* carries = reader.find("carries");
  const std::string carries_path = reader.path_of("carries");
  if (carries == nullptr || !is_table(reader, *carries, carries_path)) return;
  TableReader own(context, *carries, carries_path);
  for (const Node::Entry& entry : carries->entries) {
    Node name = entry.value;
    name.type = Node::Type::text;
    name.text = entry.key;
    name.place = entry.place;
    const std::uint32_t kind_index = own.reference(name, names.kinds, "kind");
    const auto count = own.integer(entry.key, 0, 0, 1'000'000);
    if (kind_index != kNoSuch) kind.carries.push_back({kind_index, static_cast<int>(count)});
  }
}

void read_defeat(ReadContext& context, TableReader& reader, Kind& kind, const Names& names) {
  const Node* table = reader.find("defeat");
  const std::string path = reader.path_of("defeat");
  if (table == nullptr || !is_table(reader, *table, path)) return;
  TableReader own(context, *table, path);
  Defeat& defeat = kind.defeat;
  if (const Node* leaves = own.find("leaves")) {
    const bool is_nothing = leaves->type == Node::Type::boolean && !leaves->boolean;
    const auto kind_index = is_nothing ? kNoSuch : own.reference(*leaves, names.kinds, "kind");
    if (kind_index != kNoSuch) defeat.leaves = kind_index;
  }
  if (const Node* attack = own.find("attack")) {
    std::vector<std::string> bursts;
    for (const Attack& one : kind.attacks) {
      if (one.how == Attack::How::burst) bursts.push_back(one.name);
    }
    const auto index = own.reference(*attack, bursts, "burst among its attacks called");
    if (index < bursts.size()) defeat.attack = bursts[index];
  }
  defeat.score = own.number("score", 0.0, {-1e9, 1e9, "points"});
  if (own.find("respawn") != nullptr) {
    defeat.respawn = own.duration("respawn", 0.0, {0.001, kSeconds.high, "s"});
  }
  defeat.tells = own.names("tells");
  defeat.wakes = own.names("wakes");
  own.finish();
}

}  // namespace gaze
