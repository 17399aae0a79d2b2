#include "level/whom.hpp"

#include <algorithm>
#include <unordered_map>

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

std::vector<std::uint32_t> bases_of(const Level& level) {
  std::unordered_map<std::string_view, std::uint32_t> numbers;
  for (std::uint32_t i = 0; i < level.kinds.size(); ++i)
    numbers.try_emplace(level.kinds[i].name, i);
  std::vector<std::uint32_t> bases;
  bases.reserve(level.kinds.size());
  for (const Kind& kind : level.kinds) {
    const auto base = kind.like.empty() ? numbers.end() : numbers.find(kind.like);
    bases.push_back(base == numbers.end() ? kNoBase : base->second);
  }
  return bases;
}

bool is_of_kind(const Level& level, std::span<const std::uint32_t> bases, const Kind& kind,
                std::string_view name) {
  auto at = static_cast<std::uint32_t>(&kind - level.kinds.data());
  for (; at != kNoBase; at = bases[at]) {
    if (level.kinds[at].name == name) return true;
  }
  return false;
}

Whom::Whom(const Level& level, std::span<const std::string> names,
           std::span<const std::string> tag_names)
    : is_empty_(names.empty()), tags_(tag_bits(tag_names, names)) {
  if (is_empty_) return;
  for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
    if (holds(names, level.agents[i].id)) agents_.push_back(i);
  }
  for (const Kind& kind : level.kinds) kinds_.push_back(holds(names, kind.name) ? 1 : 0);
  name_all_like_them(bases_of(level));
  for (std::uint32_t i = 0; i < level.kinds.size(); ++i) {
    const std::uint32_t team = level.kinds[i].team;
    if (team < level.teams.size() && holds(names, level.teams[team].name)) kinds_[i] = 1;
  }
}

// Each row of kinds that are like each other is walked once.
void Whom::name_all_like_them(std::span<const std::uint32_t> bases) {
  std::vector<char> is_known(kinds_.size(), 0);
  std::vector<std::uint32_t> row;
  for (std::uint32_t i = 0; i < kinds_.size(); ++i) {
    row.clear();
    std::uint32_t at = i;
    for (; at != kNoBase && !is_known[at] && kinds_[at] == 0; at = bases[at]) {
      is_known[at] = 1;
      row.push_back(at);
    }
    const bool is_named = at != kNoBase && kinds_[at] != 0;
    for (const std::uint32_t kind : row) kinds_[kind] = is_named ? 1 : 0;
  }
}

bool Whom::means(const Somebody& who) const {
  if ((who.tags & tags_) != 0) return true;
  if (who.kind < kinds_.size() && kinds_[who.kind] != 0) return true;
  return std::binary_search(agents_.begin(), agents_.end(), who.agent);
}

}  // namespace gaze
