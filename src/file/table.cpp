#include "file/table.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "file/key_homes.hpp"
#include "level/spelling.hpp"

namespace gaze {

namespace {

bool is_too_small(const Allowed& allowed, double value) {
  return allowed.low == 0.0 && value > 0.0 && value < Allowed::kLeastAboveZero;
}

}  // namespace

bool Allowed::holds(double value) const {
  return std::isfinite(value) && (above_low ? value > low : value >= low) && value <= high &&
         !is_too_small(*this, value);
}

std::string Allowed::text_for(double value) const {
  const std::string tail = unit.empty() ? "" : fmt::format(" {}", unit);
  if (is_too_small(*this, value)) return fmt::format("the least above 0 is 0.000001{}", tail);
  return above_low ? fmt::format("above {} to {}{} is allowed", low, high, tail)
                   : fmt::format("{} to {}{} is allowed", low, high, tail);
}

TableReader::TableReader(ReadContext& context, const Node& table, std::string path)
    : context_(context), table_(table), path_(std::move(path)) {}

std::string TableReader::path_of(const std::string& key) const {
  return path_.empty() ? key : path_ + "." + key;
}

const Node* TableReader::find(const std::string& key) {
  if (std::find(known_.begin(), known_.end(), key) == known_.end()) known_.push_back(key);
  const Node* node = table_.find(key);
  if (node != nullptr && node->type != Node::Type::table) {
    context_.origins[path_of(key)] = node->place;
  }
  return node;
}

const Node* TableReader::need(const std::string& key, std::string_view what) {
  const Node* node = find(key);
  if (node == nullptr) {
    fault(table_.place, fmt::format("{} is missing: {} must be given", path_of(key), what));
  }
  return node;
}

std::optional<double> TableReader::checked_number(const Node& node, const std::string& path,
                                                  const Allowed& allowed) {
  if (node.type != Node::Type::number && node.type != Node::Type::integer) {
    fault(node.place, fmt::format("{} is {}; a number is needed", path, found(node)));
    return std::nullopt;
  }
  if (!allowed.holds(node.number)) {
    fault(node.place,
          fmt::format("{} is {}; {}", path, found(node), allowed.text_for(node.number)));
    return std::nullopt;
  }
  return node.number;
}

std::optional<double> TableReader::optional_number(const std::string& key, const Allowed& allowed) {
  const Node* node = find(key);
  return node == nullptr ? std::nullopt : checked_number(*node, path_of(key), allowed);
}

double TableReader::number(const std::string& key, double fallback, const Allowed& allowed) {
  return optional_number(key, allowed).value_or(fallback);
}

double TableReader::needed_number(const std::string& key, const Allowed& allowed) {
  const Node* node = need(key, "a number");
  // Any allowed value keeps faults that would only follow from this one away.
  if (node == nullptr) return allowed.high;
  return checked_number(*node, path_of(key), allowed).value_or(allowed.high);
}

std::int64_t TableReader::integer(const std::string& key, std::int64_t fallback, std::int64_t low,
                                  std::int64_t high) {
  const Node* node = find(key);
  if (node == nullptr) return fallback;
  if (node->type != Node::Type::integer) {
    fault(node->place,
          fmt::format("{} is {}; a whole number is needed", path_of(key), found(*node)));
    return fallback;
  }
  if (node->integer < low || node->integer > high) {
    fault(node->place,
          fmt::format("{} is {}; {} to {} is allowed", path_of(key), node->integer, low, high));
    return fallback;
  }
  return node->integer;
}

Duration TableReader::duration(const std::string& key, double fallback, const Allowed& allowed) {
  return Duration::from_seconds(number(key, fallback, allowed));
}

bool TableReader::boolean(const std::string& key, bool fallback) {
  const Node* node = find(key);
  if (node == nullptr) return fallback;
  if (node->type == Node::Type::boolean) return node->boolean;
  fault(node->place, fmt::format("{} is {}; true or false is needed", path_of(key), found(*node)));
  return fallback;
}

std::string TableReader::text(const std::string& key, const std::string& fallback) {
  const Node* node = find(key);
  if (node == nullptr) return fallback;
  if (node->type == Node::Type::text) return node->text;
  fault(node->place, fmt::format("{} is {}; text is needed", path_of(key), found(*node)));
  return fallback;
}

std::string TableReader::needed_name(const std::string& key) {
  const Node* node = need(key, "a name");
  if (node == nullptr) return {};
  if (node->type != Node::Type::text) {
    fault(node->place, fmt::format("{} is {}; a name is needed", path_of(key), found(*node)));
    return {};
  }
  if (!is_name(node->text)) {
    fault(node->place, fmt::format("{} is {}; letters, digits, _ and - are allowed", path_of(key),
                                   found(*node)));
    return {};
  }
  return node->text;
}

std::vector<std::string> TableReader::names(const std::string& key) {
  std::vector<std::string> result;
  for (const Node& item : items(key, ReadLimits::list_items)) {
    if (item.type == Node::Type::text) {
      result.push_back(item.text);
    } else {
      fault(item.place, fmt::format("{} holds {}; names are needed", path_of(key), found(item)));
    }
  }
  return result;
}

std::optional<std::size_t> TableReader::word(const std::string& key,
                                             const std::vector<std::string>& words) {
  const Node* node = find(key);
  if (node == nullptr) return std::nullopt;
  if (node->type == Node::Type::text) {
    const auto it = std::find(words.begin(), words.end(), node->text);
    if (it != words.end()) return static_cast<std::size_t>(it - words.begin());
  }
  const std::string hint = node->type == Node::Type::text ? suggestion(node->text, words) : "";
  fault(node->place, fmt::format("{} is {}; allowed: \"{}\"{}", path_of(key), found(*node),
                                 fmt::join(words, "\", \""), hint));
  return std::nullopt;
}

std::uint32_t TableReader::reference(const Node& node, const std::vector<std::string>& names,
                                     std::string_view what) {
  if (node.type != Node::Type::text) {
    fault(node.place, fmt::format("{} is needed, but this is {}", what, found(node)));
    return kNoSuch;
  }
  const auto it = std::find(names.begin(), names.end(), node.text);
  if (it != names.end()) return static_cast<std::uint32_t>(it - names.begin());
  fault(node.place,
        fmt::format("there is no {} '{}'{}", what, node.text, suggestion(node.text, names)));
  return kNoSuch;
}

std::uint32_t TableReader::reference(const std::string& key, const std::vector<std::string>& names,
                                     std::string_view what) {
  const Node* node = need(key, fmt::format("a {}", what));
  return node == nullptr ? kNoSuch : reference(*node, names, what);
}

std::optional<std::vector<double>> TableReader::numbers(const Node& node, const std::string& path,
                                                        std::size_t count, const Allowed& allowed) {
  if (node.type != Node::Type::array || node.items.size() != count) {
    fault(node.place, fmt::format("{} is {}; {} numbers are needed", path, found(node), count));
    return std::nullopt;
  }
  std::vector<double> values;
  for (const Node& item : node.items) {
    const auto value = checked_number(item, path, allowed);
    if (!value) return std::nullopt;
    values.push_back(*value);
  }
  return values;
}

const std::vector<Node>& TableReader::items(const std::string& key, std::size_t most) {
  static const std::vector<Node> kNone;
  const Node* node = find(key);
  if (node == nullptr) return kNone;
  if (node->type != Node::Type::array) {
    fault(node->place, fmt::format("{} is {}; a list is needed", path_of(key), found(*node)));
    return kNone;
  }
  if (node->items.size() > most) {
    fault(node->place, fmt::format("{} has {} items; at most {} are allowed", path_of(key),
                                   node->items.size(), most));
    return kNone;
  }
  return node->items;
}

void TableReader::finish() {
  for (const Node::Entry& entry : table_.entries) {
    if (std::find(known_.begin(), known_.end(), entry.key) != known_.end()) continue;
    const std::string where = path_.empty() ? "" : " in " + path_;
    std::string hint = home_of_key(entry.key, path_);
    if (hint.empty()) hint = suggestion(entry.key, known_);
    const std::string allowed =
        hint.empty() ? fmt::format("; allowed: {}", fmt::join(known_, ", ")) : hint;
    fault(entry.place, fmt::format("unknown key '{}'{}{}", entry.key, where, allowed));
  }
}

}  // namespace gaze
