#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "gaze/tools/level_keys.hpp"
#include "values/keys.hpp"

/// How the path of a setting goes on.
namespace gaze {
namespace {

using Paths = std::vector<std::string>;

// "kind" and "pruner.sight" of "kind.pruner.sight".
std::pair<std::string_view, std::string_view> first_and_rest(std::string_view path) {
  const std::size_t dot = std::min(path.find('.'), path.size());
  return {path.substr(0, dot), path.substr(std::min(dot + 1, path.size()))};
}

Paths keys_of(const KeyTable& table) {
  Paths names;
  for (const Key& key : table.keys) {
    if (key.name != "like" && key.name != "id") names.emplace_back(key.name);
  }
  for (const std::string& part : split(table.parts)) names.push_back(part + ".");
  return names;
}

// The names that stand in a part of the file: "pruner" in "kind".
Paths names_in(const Level& level, std::string_view part) {
  const std::string stem = fmt::format("{}.", part);
  std::set<std::string> names;
  for (auto it = level.origins.lower_bound(stem);
       it != level.origins.end() && it->first.starts_with(stem); ++it) {
    names.insert(
        fmt::format("{}.", first_and_rest(std::string_view(it->first).substr(stem.size())).first));
  }
  return {names.begin(), names.end()};
}

bool is_written(const Level& level, std::string_view part, std::string_view name) {
  const std::string stem = fmt::format("{}.{}.", part, name);
  const auto it = level.origins.lower_bound(stem);
  return it != level.origins.end() && it->first.starts_with(stem);
}

// The kind of that name, or that of an agent: for copies that of the first.
const Kind* kind_of(const Level& level, std::string_view part, std::string_view name) {
  if (part == "agent") {
    const std::string copies = fmt::format("{}-", name);
    const auto agent = std::find_if(
        level.agents.begin(), level.agents.end(),
        [&](const Agent& one) { return one.id == name || one.id.starts_with(copies); });
    return agent == level.agents.end() ? nullptr : &level.kind_of(*agent);
  }
  const auto kind = std::find_if(level.kinds.begin(), level.kinds.end(),
                                 [&](const Kind& one) { return one.name == name; });
  return part != "kind" || kind == level.kinds.end() ? nullptr : &*kind;
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

template <typename Things>
Paths names_of(const Things& things) {
  Paths names;
  for (const auto& thing : things) names.push_back(thing.name + ".");
  return names;
}

// What stands in a table of a kind: "sight", "attack", "attack.shears".
Paths in_kind(const Kind& kind, std::string_view path) {
  const auto [part, name] = first_and_rest(path);
  const KeyTable* table = table_of_kind(part);
  if (table == nullptr) return {};
  if (!table->is_named()) return name.empty() ? keys_of(*table) : Paths{};
  if (!name.empty()) return table == &kAttackKeys ? keys_of_attack(kind, name) : keys_of(*table);
  return table == &kAttackKeys ? names_of(kind.attacks) : names_of(kind.feelers);
}

Paths below(const Level& level, std::string_view path) {
  if (path.empty()) return keys_of(kLevelKeys);
  const auto [part, rest] = first_and_rest(path);
  const KeyTable* table = table_of_level(part);
  if (table == nullptr) return {};
  if (!table->is_named()) return rest.empty() ? keys_of(*table) : Paths{};
  if (rest.empty()) return names_in(level, part);
  const auto [name, inside] = first_and_rest(rest);
  const Kind* kind = kind_of(level, part, name);
  const bool has_kind = part == "kind" || part == "agent";
  if (has_kind ? kind == nullptr : !is_written(level, part, name)) return {};
  if (!inside.empty()) return has_kind ? in_kind(*kind, inside) : Paths{};
  Paths keys = keys_of(*table);
  if (part == "agent") {
    const Paths more = keys_of(kKindKeys);
    keys.insert(keys.end(), more.begin(), more.end());
  }
  return keys;
}

}  // namespace

std::vector<std::string> complete_path(const Level& level, std::string_view text) {
  const std::size_t dot = text.rfind('.');
  const std::size_t stem = dot == std::string_view::npos ? 0 : dot + 1;
  std::vector<std::string> paths;
  for (const std::string& name : below(level, text.substr(0, stem == 0 ? 0 : dot))) {
    if (!name.starts_with(text.substr(stem))) continue;
    paths.push_back(fmt::format("{}{}", text.substr(0, stem), name));
  }
  return paths;
}

}  // namespace gaze
