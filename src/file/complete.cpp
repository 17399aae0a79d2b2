#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <span>

#include "file/keys.hpp"
#include "gaze/tools/level_keys.hpp"

/// How the path of a setting goes on.
namespace gaze {
namespace {

using Paths = std::vector<std::string>;

Paths keys_of(const KeyTable& table) {
  Paths names;
  for (const Key& key : table.keys) {
    if (key.name != "like" && key.name != "id") names.emplace_back(key.name);
  }
  return names;
}

void add_parts(Paths& names, const KeyTable& table) {
  for (const std::string& part : split(table.parts)) names.push_back(part + ".");
}

template <typename Things, typename NameOf>
Paths names_of(const Things& things, NameOf&& name_of) {
  Paths names;
  for (const auto& thing : things) names.push_back(name_of(thing) + ".");
  return names;
}

Paths ids_of(const Level& level, Solid::Form form) {
  Paths ids;
  for (const Solid& solid : level.solids) {
    if (solid.form == form) ids.push_back(solid.id + ".");
  }
  return ids;
}

// Brick is there without being in the file.
Paths materials_of(const Level& level) {
  Paths names;
  for (const Material& material : level.materials) {
    if (level.origin(fmt::format("material.{}.stops", material.name))) {
      names.push_back(material.name + ".");
    }
  }
  return names;
}

const Kind* kind_called(const Level& level, std::string_view name) {
  for (const Kind& kind : level.kinds) {
    if (kind.name == name) return &kind;
  }
  return nullptr;
}

// An attack has the keys of its way to harm.
Paths keys_of_attack(const Kind& kind, std::string_view name) {
  const std::vector<std::string> ways = words_of(kAttackKeys.key("how"));
  Paths names;
  for (const Attack& attack : kind.attacks) {
    if (attack.name != name) continue;
    for (const Key& key : kAttackKeys.keys) {
      if (is_for(key, ways[static_cast<std::size_t>(attack.how)])) names.emplace_back(key.name);
    }
  }
  return names;
}

// What stands in a kind or an agent below "kind.NAME".
Paths inside_of(const Kind& kind, std::string_view rest) {
  const std::size_t dot = std::min(rest.find('.'), rest.size());
  const KeyTable* table = table_of_kind(rest.substr(0, dot));
  if (table == nullptr) return {};
  const bool is_named = table->name.ends_with(".ANY");
  if (table == &kAttackKeys && dot < rest.size()) return keys_of_attack(kind, rest.substr(dot + 1));
  if (!is_named || dot < rest.size()) return keys_of(*table);
  const auto by_name = [](const auto& thing) { return thing.name; };
  return rest == "attack" ? names_of(kind.attacks, by_name) : names_of(kind.feelers, by_name);
}

Paths of_kind(const Level& level, std::string_view path) {
  const std::size_t dot = std::min(path.find('.'), path.size());
  const Kind* kind = kind_called(level, path.substr(0, dot));
  if (kind == nullptr) return {};
  if (dot < path.size()) return inside_of(*kind, path.substr(dot + 1));
  Paths names = keys_of(kKindKeys);
  add_parts(names, kKindKeys);
  return names;
}

Paths of_agent(const Level& level, std::string_view path) {
  const std::size_t dot = std::min(path.find('.'), path.size());
  const auto agent = std::find_if(level.agents.begin(), level.agents.end(),
                                  [&](const Agent& one) { return one.id == path.substr(0, dot); });
  if (agent == level.agents.end()) return {};
  if (dot < path.size()) return inside_of(level.kind_of(*agent), path.substr(dot + 1));
  Paths names = keys_of(kAgentKeys);
  const Paths more = keys_of(kKindKeys);
  names.insert(names.end(), more.begin(), more.end());
  add_parts(names, kKindKeys);
  return names;
}

constexpr std::array<std::pair<std::string_view, Solid::Form>, 7> kForms{
    {{"wall", Solid::Form::wall},
     {"block", Solid::Form::block},
     {"door", Solid::Form::door},
     {"floor", Solid::Form::floor},
     {"ramp", Solid::Form::ramp},
     {"stairs", Solid::Form::stairs},
     {"mesh", Solid::Form::mesh}}};

// The names in a table of the level: "kind", "agent", "wall".
Paths in_part(const Level& level, std::string_view part) {
  const auto by_name = [](const auto& thing) { return thing.name; };
  const auto by_id = [](const auto& thing) { return thing.id; };
  const std::span<const Kind> kinds(level.kinds.data(), level.named_kinds);
  if (part == "kind") return names_of(kinds, by_name);
  if (part == "agent") return names_of(level.agents, by_id);
  if (part == "team") return names_of(level.teams, by_name);
  if (part == "material") return materials_of(level);
  if (part == "zone") return names_of(level.zones, by_id);
  if (part == "link") return names_of(level.links, by_id);
  if (part == "start") return names_of(level.starts, by_id);
  if (part == "round") return keys_of(kRoundKeys);
  if (part == "bounds") return keys_of(kBoundsKeys);
  for (const auto& [name, form] : kForms) {
    if (part == name) return ids_of(level, form);
  }
  return {};
}

Paths below(const Level& level, std::string_view parent) {
  if (parent.empty()) {
    Paths names = keys_of(kLevelKeys);
    add_parts(names, kLevelKeys);
    return names;
  }
  const std::size_t dot = parent.find('.');
  if (dot == std::string_view::npos) return in_part(level, parent);
  const std::string_view part = parent.substr(0, dot);
  if (part == "kind") return of_kind(level, parent.substr(dot + 1));
  if (part == "agent") return of_agent(level, parent.substr(dot + 1));
  if (parent.find('.', dot + 1) != std::string_view::npos) return {};
  for (const KeyTable* table : all_key_tables()) {
    if (table->name.substr(0, table->name.find('.')) == part) return keys_of(*table);
  }
  return {};
}

}  // namespace

std::vector<std::string> complete_path(const Level& level, std::string_view text) {
  const std::size_t dot = text.rfind('.');
  const std::size_t stem = dot == std::string_view::npos ? 0 : dot + 1;
  const std::string_view parent = text.substr(0, stem == 0 ? 0 : dot);
  std::vector<std::string> paths;
  for (const std::string& name : below(level, parent)) {
    if (!name.starts_with(text.substr(stem))) continue;
    paths.push_back(fmt::format("{}{}", text.substr(0, stem), name));
  }
  return paths;
}

}  // namespace gaze
