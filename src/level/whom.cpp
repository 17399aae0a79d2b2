#include "level/whom.hpp"

#include <algorithm>

namespace gaze {
namespace {

bool holds(std::span<const std::string> names, std::string_view name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

}  // namespace

std::vector<std::string> tag_names(const Level& level) {
  std::vector<std::string> names;
  const auto add = [&](const std::vector<std::string>& tags) {
    for (const std::string& tag : tags) {
      if (!holds(names, tag)) names.push_back(tag);
    }
  };
  for (const Kind& kind : level.kinds) add(kind.tags);
  for (const Zone& zone : level.zones) add(zone.grants);
  return names;
}

std::uint64_t tag_bits(std::span<const std::string> tag_names, std::span<const std::string> tags) {
  std::uint64_t bits = 0;
  for (std::size_t i = 0; i < tag_names.size() && i < 64; ++i) {
    if (holds(tags, tag_names[i])) bits |= std::uint64_t{1} << i;
  }
  return bits;
}

std::vector<std::string_view> kind_names(const Level& level, const Kind& kind) {
  std::vector<std::string_view> names;
  const Kind* at = &kind;
  while (names.size() <= level.kinds.size()) {
    names.push_back(at->name);
    const auto base = std::find_if(level.kinds.begin(), level.kinds.end(),
                                   [&](const Kind& other) { return other.name == at->like; });
    if (at->like.empty() || base == level.kinds.end()) break;
    at = &*base;
  }
  return names;
}

bool is_of_kind(const Level& level, const Kind& kind, std::string_view name) {
  const auto names = kind_names(level, kind);
  return std::find(names.begin(), names.end(), name) != names.end();
}

Whom::Whom(const Level& level, std::span<const std::string> names,
           std::span<const std::string> tag_names)
    : is_empty_(names.empty()), tags_(tag_bits(tag_names, names)) {
  if (is_empty_) return;
  for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
    if (holds(names, level.agents[i].id)) agents_.push_back(i);
  }
  for (const Kind& kind : level.kinds) {
    const auto own = kind_names(level, kind);
    const bool is_named = std::any_of(own.begin(), own.end(),
                                      [&](std::string_view name) { return holds(names, name); });
    const bool is_team =
        kind.team < level.teams.size() && holds(names, level.teams[kind.team].name);
    kinds_.push_back(is_named || is_team ? 1 : 0);
  }
}

bool Whom::means(const Somebody& who) const {
  if ((who.tags & tags_) != 0) return true;
  if (who.kind < kinds_.size() && kinds_[who.kind] != 0) return true;
  return std::binary_search(agents_.begin(), agents_.end(), who.agent);
}

}  // namespace gaze
