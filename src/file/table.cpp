#include "file/table.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <stdexcept>

#include "file/key_homes.hpp"
#include "level/spelling.hpp"

namespace gaze {

TableReader::TableReader(ReadContext& context, const Node& table, std::string path,
                         const KeyTable& keys)
    : context_(context), table_(table), path_(std::move(path)), keys_(keys) {}

std::string TableReader::path_of(const std::string& key) const {
  return path_.empty() ? key : path_ + "." + key;
}

const Node* TableReader::find(const std::string& key) {
  if (!keys_.knows(key)) throw std::logic_error(fmt::format("{} has no key {}", path_, key));
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

std::optional<double> TableReader::number_at(const Node& node, const std::string& path,
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

std::optional<std::int64_t> TableReader::whole_at(const Node& node, const std::string& path,
                                                  const Allowed& allowed) {
  if (node.type != Node::Type::integer) {
    fault(node.place, fmt::format("{} is {}; a whole number is needed", path, found(node)));
    return std::nullopt;
  }
  if (!allowed.holds(node.number)) {
    const std::string most =
        allowed.high < kWithoutEnd ? fmt::format("to {:.0f} is", allowed.high) : "and up are";
    fault(node.place,
          fmt::format("{} is {}; {:.0f} {} allowed", path, node.integer, allowed.low, most));
    return std::nullopt;
  }
  return node.integer;
}

std::optional<double> TableReader::number(const std::string& key) {
  const Node* node = find(key);
  return node == nullptr ? std::nullopt : number_at(*node, path_of(key), keys_.key(key).allowed);
}

std::optional<std::int64_t> TableReader::whole(const std::string& key) {
  const Node* node = find(key);
  return node == nullptr ? std::nullopt : whole_at(*node, path_of(key), keys_.key(key).allowed);
}

bool TableReader::truth(const std::string& key, bool fallback) {
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
  for (const Node& item : items(key, LevelLimits::list_items)) {
    if (item.type == Node::Type::text) {
      result.push_back(item.text);
    } else {
      fault(item.place, fmt::format("{} holds {}; names are needed", path_of(key), found(item)));
    }
  }
  return result;
}

std::optional<std::size_t> TableReader::known_word(const std::string& name) {
  const Key& key = keys_.key(name);
  const Node* node = find(name);
  if (node == nullptr) return std::nullopt;
  const bool is_text = node->type == Node::Type::text;
  if (const auto index = is_text ? index_of_word(key, node->text) : std::nullopt) return index;
  const std::vector<std::string> words = words_of(key);
  const std::string hint = is_text ? suggestion(node->text, words) : "";
  fault(node->place, fmt::format("{} is {}; allowed: \"{}\"{}", path_of(name), found(*node),
                                 fmt::join(words, "\", \""), hint));
  return std::nullopt;
}

std::vector<std::size_t> TableReader::words(const std::string& name, std::string_view what) {
  const std::vector<std::string> words = words_of(keys_.key(name));
  std::vector<std::size_t> indices;
  for (const Node& item : items(name, words.size())) {
    const std::uint32_t index = reference(item, words, what);
    if (index != kNoSuch) indices.push_back(index);
  }
  return indices;
}

std::optional<std::vector<double>> TableReader::numbers(const std::string& name) {
  const Key& key = keys_.key(name);
  const Node* node = find(name);
  if (node == nullptr) return std::nullopt;
  return numbers(*node, path_of(name), key.count, key.allowed);
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
    const auto value = number_at(item, path, allowed);
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

bool is_table(TableReader& reader, const Node& node, const std::string& path) {
  if (node.type == Node::Type::table) return true;
  reader.fault(node.place, fmt::format("{} is {}; a table is needed", path, found(node)));
  return false;
}

}  // namespace gaze
