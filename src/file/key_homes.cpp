#include "file/key_homes.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <vector>

#include "values/keys.hpp"

namespace gaze {
namespace {

// "kind.pruner" of "kind.pruner.sight"; empty if the path is that of something else.
std::string_view owner_of(std::string_view path) {
  if (!path.starts_with("kind.") && !path.starts_with("agent.")) return {};
  const std::size_t name = path.find('.') + 1;
  return path.substr(0, path.find('.', name));
}

// "sight" of "kind.pruner.sight", "attack" of "kind.pruner.attack.shears", nothing of the kind
// itself.
std::string_view part_of(std::string_view path, std::string_view owner) {
  if (path.size() <= owner.size()) return {};
  const std::string_view rest = path.substr(owner.size() + 1);
  return rest.substr(0, rest.find('.'));
}

// As it stands in the file: "[kind.pruner.sight]" for "kind.NAME.sight".
std::string title_in(const KeyTable& table, std::string_view owner) {
  constexpr std::string_view kKind = "kind.NAME";
  return fmt::format("[{}{}]", owner, table.name.substr(kKind.size()));
}

}  // namespace

std::string home_of_key(std::string_view key, std::string_view path) {
  const std::string_view owner = owner_of(path);
  if (owner.empty()) return {};
  const std::string_view part = part_of(path, owner);
  std::vector<const KeyTable*> tables{&kKindKeys};
  for (const std::string& name : split(kKindKeys.parts)) tables.push_back(table_of_kind(name));
  std::vector<std::string> homes;
  for (const KeyTable* table : tables) {
    if (table->find(key) == nullptr) continue;
    const bool is_own = part.empty() ? table == &kKindKeys : table == table_of_kind(part);
    if (is_own) return {};  // of this table, but not as the rest of it is
    homes.push_back(title_in(*table, owner));
  }
  if (homes.empty()) return {};
  return fmt::format("; it belongs in {}", fmt::join(homes, " or "));
}

}  // namespace gaze
