#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <limits>

#include "file/read.hpp"

/// Attacks, one table each.
namespace gaze {
namespace {

void read_muzzle(TableReader& reader, Attack& attack, double height) {
  attack.aim_tolerance = reader.degrees("aim_tolerance");
  attack.muzzle = read_offset(reader, "muzzle", {0.0, 0.0, height / 2.0});
  attack.fire_reach = reader.number("fire_reach");
}

// Without gravity of its own nothing comes down in an arc.
void read_gravity(TableReader& reader, Attack& attack) {
  const bool is_lob = is_lobbed(attack);
  attack.gravity_share = reader.number("gravity_share", is_lob ? 1.0 : 0.0);
  if (is_lob && !(attack.gravity_share > 0.0)) {
    const Node* share = reader.table().find("gravity_share");
    reader.fault(share->place, fmt::format("{} is {:g}; a lob needs more than 0",
                                           reader.path_of("gravity_share"), attack.gravity_share));
  }
}

void read_aim(TableReader& reader, Attack& attack) {
  attack.aim = reader.word_as<Attack::Aim>("aim");
  read_gravity(reader, attack);
  const double radius = reader.number("mirror_radius", attack.range);
  if (attack.aim == Attack::Aim::mirror) attack.mirror_radius = radius;
}

// Reads along which feeler of its kind an attack goes, instead of along the facing.
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
  attack.friends = reader.word_as<Attack::Friends>("friends");
}

void read_bounces(TableReader& reader, Attack& attack) {
  attack.bounces = static_cast<int>(reader.whole("bounces"));
  attack.bounce_loss = reader.number("bounce_loss");
  if (attack.bounces == 0 || attack.radius > 0.0) return;
  reader.fault(
      reader.table().find("bounces")->place,
      reader.path_of("bounces") + " needs a radius above 0: a point has no side to bounce off by");
}

void read_leftovers(TableReader& reader, Attack& attack, const Names& names) {
  const Node* leaves = reader.find("leaves");
  attack.keeps = static_cast<int>(reader.whole("keeps"));
  if (leaves != nullptr) {
    const auto kind_index = reader.reference(*leaves, names.kinds, "kind");
    if (kind_index != kNoSuch) attack.leaves = kind_index;
  } else if (const Node* keeps = reader.table().find("keeps")) {
    reader.fault(keeps->place, reader.path_of("keeps") + " needs leaves: what it leaves behind");
  }
}

// How it flies, and what it does where it meets something.
void read_flight(TableReader& reader, Attack& attack, const Names& names) {
  // An arc takes longer than the straight way, and ends where it comes down.
  constexpr double kLobLifetime = 30.0;
  const double straight = std::min(attack.range / attack.speed, kSeconds.high);
  attack.lifetime = reader.duration("lifetime", is_lobbed(attack) ? kLobLifetime : straight);
  attack.noise_reach = reader.number("noise_reach");
  read_bounces(reader, attack);
  attack.pierce = static_cast<int>(reader.whole("pierce"));
  attack.drag = reader.number("drag");
  attack.blast_radius = reader.number("blast_radius", 0.0);
  attack.blast_fall_off = reader.number("blast_fall_off");
  read_leftovers(reader, attack, names);
}

void read_shot(TableReader& reader, Attack& attack, const Kind& kind, const Names& names) {
  attack.speed = reader.needed_number("speed");
  attack.radius = reader.number("radius");
  read_aim(reader, attack);
  read_ahead(reader, attack, kind.feelers);
  read_muzzle(reader, attack, kind.height);
  read_friends(reader, attack);
  attack.burst = static_cast<int>(reader.whole("burst"));
  attack.burst_interval = reader.duration("burst_interval");
  attack.spread = reader.degrees("spread");
  attack.homing_rate = reader.degrees("homing_rate");
  read_flight(reader, attack, names);
}

void read_beam(TableReader& reader, Attack& attack, const Kind& kind) {
  attack.radius = reader.number("thickness") / 2.0;
  attack.hold = reader.duration("hold");
  read_ahead(reader, attack, kind.feelers);
  read_muzzle(reader, attack, kind.height);
  read_friends(reader, attack);
}

void read_own_keys(TableReader& reader, Attack& attack, const Kind& kind, const Names& names) {
  switch (attack.how) {
    case Attack::How::strike:
      attack.arc = reader.degrees("arc");
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
      attack.blast_fall_off = reader.number("blast_fall_off");
      read_friends(reader, attack);
      break;
    case Attack::How::catch_:
      break;
  }
}

void read_condition(TableReader& reader, Attack& attack) {
  if (attack.how != Attack::How::touch) attack.min_range = reader.number("min_range");
  const Node* node = reader.find("at_health");
  if (node == nullptr) return;
  const auto between = reader.numbers("at_health");
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
  attack.push = reader.number("push");
  attack.damage_kind = reader.text("damage_kind", "");
  const bool has_distance = attack.how == Attack::How::strike || attack.how == Attack::How::shot ||
                            attack.how == Attack::How::beam;
  if (!has_distance) return;
  attack.far_damage = reader.number("far_damage");
  attack.fade_from = reader.number("fade_from");
}

void read_range(TableReader& reader, Attack& attack) {
  if (attack.how == Attack::How::touch) return;
  const bool is_catch = attack.how == Attack::How::catch_;
  attack.range =
      is_catch ? reader.optional_number("range").value_or(0.0) : reader.needed_number("range");
}

Attack read_attack(ReadContext& context, const Node& table, const std::string& name,
                   const std::string& path, const Kind& kind, const Names& names) {
  TableReader reader(context, table, path, kAttackKeys);
  Attack attack;
  attack.name = name;
  reader.need("how", fmt::format("\"{}\"", fmt::join(words_of(reader.key("how")), "\", \"")));
  const auto how = reader.word("how");
  attack.how = static_cast<Attack::How>(how.value_or(0));
  read_range(reader, attack);
  if (attack.how != Attack::How::catch_) {
    attack.damage = reader.needed_number("damage");
    reader.need("cooldown", "a number of seconds");
  }
  attack.cooldown = reader.duration("cooldown", 1.0);
  attack.wind_up = reader.duration("wind_up");
  attack.ammunition = static_cast<int>(reader.whole("ammunition"));
  if (reader.find("reload") != nullptr) attack.reload = reader.duration("reload", 0.0);
  read_effect(reader, attack);
  read_condition(reader, attack);
  read_own_keys(reader, attack, kind, names);
  // Without knowing how, there is no telling which keys are right.
  if (how) reader.finish();
  return attack;
}

// A thing that is thrown flies like a shot, and its landing is heard by the name of its kind.
Thing read_thing(ReadContext& context, const Node& table, const std::string& path, const Kind& kind,
                 const Names& names) {
  TableReader reader(context, table, path, kThingKeys);
  Thing thing;
  thing.breaks = reader.truth("breaks");
  thing.take_reach = reader.number("take_reach");
  Attack& flight = thing.flight;
  flight.name = kind.name;
  flight.how = Attack::How::shot;
  flight.speed = reader.number("speed");
  flight.radius = kind.radius;
  flight.aim = Attack::Aim::lob;
  const auto aim = reader.word("aim");
  if (aim == std::size_t{1}) flight.aim = Attack::Aim::high_lob;
  read_gravity(reader, flight);
  flight.range = kReach.high;
  flight.damage = reader.number("damage");
  flight.push = reader.number("push");
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
  for (const Node::Entry& entry : carries->entries) {
    Node name = entry.value;
    name.type = Node::Type::text;
    name.text = entry.key;
    name.place = entry.place;
    const std::uint32_t kind_index = reader.reference(name, names.kinds, "kind");
    const std::string own_path = carries_path + "." + entry.key;
    context.origins[own_path] = entry.value.place;
    const auto count = reader.whole_at(entry.value, own_path, reader.key("carries").allowed);
    if (kind_index == kNoSuch) continue;
    kind.carries.push_back({kind_index, static_cast<int>(count.value_or(0))});
  }
}

void read_defeat(ReadContext& context, TableReader& reader, Kind& kind, const Names& names) {
  const Node* table = reader.find("defeat");
  const std::string path = reader.path_of("defeat");
  if (table == nullptr || !is_table(reader, *table, path)) return;
  TableReader own(context, *table, path, kDefeatKeys);
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
  defeat.score = own.number("score");
  if (own.find("respawn") != nullptr) {
    defeat.respawn = own.duration("respawn", 0.0);
  }
  defeat.tells = own.names("tells");
  defeat.wakes = own.names("wakes");
  own.finish();
}

}  // namespace gaze
