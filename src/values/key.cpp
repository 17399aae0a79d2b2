#include "values/key.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace gaze {
namespace {

bool is_too_small(const Allowed& allowed, double value) {
  return allowed.low == 0.0 && value > 0.0 && value < Allowed::kLeastAboveZero;
}

}  // namespace

bool Allowed::reaches_to(double value) const {
  return std::isfinite(value) && (above_low ? value > low : value >= low) && value <= 2.0 * high;
}

bool Allowed::holds(double value) const {
  return reaches_to(value) && value <= high && !is_too_small(*this, value);
}

std::string Allowed::text_for(double value) const {
  const std::string tail = unit.empty() ? "" : fmt::format(" {}", unit);
  if (is_too_small(*this, value)) return fmt::format("the least above 0 is 0.000001{}", tail);
  return above_low ? fmt::format("above {} to {}{} is allowed", low, high, tail)
                   : fmt::format("{} to {}{} is allowed", low, high, tail);
}

const Key* KeyTable::find(std::string_view wanted) const {
  const auto it =
      std::find_if(keys.begin(), keys.end(), [&](const Key& key) { return key.name == wanted; });
  return it == keys.end() ? nullptr : &*it;
}

const Key& KeyTable::key(std::string_view wanted) const {
  const Key* found = find(wanted);
  if (found == nullptr) throw std::logic_error(fmt::format("{} has no key {}", title, wanted));
  return *found;
}

bool KeyTable::knows(std::string_view wanted) const {
  if (find(wanted) != nullptr) return true;
  const std::vector<std::string> tables = split(parts);
  return std::find(tables.begin(), tables.end(), wanted) != tables.end();
}

bool is_for(const Key& key, std::string_view way) {
  constexpr std::string_view kAllBut = "all but ";
  if (key.only_for.empty()) return true;
  const bool is_named = key.only_for.find(way) != std::string_view::npos;
  return key.only_for.starts_with(kAllBut) ? !is_named : is_named;
}

std::vector<std::string> split(std::string_view text) {
  std::vector<std::string> parts;
  while (!text.empty()) {
    const std::size_t end = std::min(text.find('|'), text.size());
    parts.emplace_back(text.substr(0, end));
    text.remove_prefix(std::min(end + 1, text.size()));
  }
  return parts;
}

std::vector<std::string> words_of(const Key& key) {
  return split(key.words);
}

std::optional<std::size_t> index_of_word(const Key& key, std::string_view text) {
  std::string_view rest = key.words;
  for (std::size_t index = 0; !rest.empty(); ++index) {
    const std::size_t end = std::min(rest.find('|'), rest.size());
    if (rest.substr(0, end) == text) return index;
    rest.remove_prefix(std::min(end + 1, rest.size()));
  }
  return std::nullopt;
}

}  // namespace gaze
