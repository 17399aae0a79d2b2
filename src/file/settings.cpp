#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "file/read.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

std::pair<std::string_view, std::string_view> split_at_dot(std::string_view path) {
  const std::size_t dot = path.find('.');
  if (dot == std::string_view::npos) return {path, {}};
  return {path.substr(0, dot), path.substr(dot + 1)};
}

void set_places(Node& node, const Place& place) {
  node.place = place;
  for (Node& item : node.items) set_places(item, place);
  for (Node::Entry& entry : node.entries) {
    entry.place = place;
    set_places(entry.value, place);
  }
}

// A name may begin with a digit, but does not go on like this.
bool looks_like_number(std::string_view text) {
  if (!text.empty() && (text.front() == '-' || text.front() == '+')) text.remove_prefix(1);
  return !text.empty() && (std::isdigit(static_cast<unsigned char>(text.front())) != 0) &&
         text.find_first_not_of("0123456789.eE+-_") == std::string_view::npos;
}

std::optional<Node> parse_value(const Setting& setting, const Place& place, Faults& faults) {
  Faults ignored;
  auto parsed = parse_toml("value = " + setting.value, place.file, ignored);
  if (parsed && parsed->entries.size() == 1) {
    Node value = *parsed->find("value");
    set_places(value, place);
    return value;
  }
  if (setting.value.find_first_of("\"'[]{}=\n") != std::string::npos || setting.value.empty()) {
    faults.add(place, fmt::format("'{}={}' has no TOML value", setting.path, setting.value));
    return std::nullopt;
  }
  if (looks_like_number(setting.value)) {
    faults.add(place,
               fmt::format("'{}={}' is no number that TOML can hold", setting.path, setting.value));
    return std::nullopt;
  }
  Node text;
  text.type = Node::Type::text;
  text.text = setting.value;
  text.place = place;
  return text;
}

Node* find_by_id(Node& list, std::string_view id) {
  for (Node& item : list.items) {
    const Node* own = item.find("id");
    if (own != nullptr && own->type == Node::Type::text && own->text == id) return &item;
  }
  return nullptr;
}

// "pruner-1-3" is the third copy of "pruner-1", if that has as many.
bool is_copy(const Node& agents, std::string_view id) {
  const std::size_t dash = id.rfind('-');
  if (dash == std::string_view::npos) return false;
  Node list = agents;
  const Node* base = find_by_id(list, id.substr(0, dash));
  const Node* copies = base == nullptr ? nullptr : base->find("copies");
  if (copies == nullptr || copies->type != Node::Type::integer) return false;
  for (std::int64_t n = 1; n <= std::min<std::int64_t>(copies->integer, 10'000); ++n) {
    if (std::to_string(n) == id.substr(dash + 1)) return true;
  }
  return false;
}

std::vector<std::string> ids_of(const Node& list) {
  std::vector<std::string> ids;
  for (const Node& item : list.items) {
    const Node* id = item.find("id");
    if (id != nullptr) ids.push_back(id->text);
  }
  return ids;
}

std::vector<std::string> keys_of(const Node& table) {
  std::vector<std::string> keys;
  for (const Node::Entry& entry : table.entries) keys.push_back(entry.key);
  return keys;
}

class Setter {
 public:
  Setter(Node& root, Faults& faults) : root_(root), faults_(faults) {}

  void set(const Setting& setting, const Place& place) {
    const auto value = parse_value(setting, place, faults_);
    if (!value) return;
    const auto [first, rest] = split_at_dot(setting.path);
    const KeyTable* table = table_of_level(first);
    if (table != nullptr && table->is_listed()) {
      set_in_list(std::string(first), rest, *value);
    } else if (table != nullptr && table->is_named()) {
      set_in_table(std::string(first), rest, *value);
    } else {
      put_at(root_, setting.path, *value);
    }
  }

  CopySettings take_copies() { return std::move(copies_); }

 private:
  void set_in_table(const std::string& table, std::string_view path, const Node& value) {
    const auto [name, rest] = split_at_dot(path);
    const Node* named = root_.find(table);
    const Node* found_node = named == nullptr ? nullptr : named->find(name);
    if (found_node != nullptr && rest.empty()) return whole(table, name, value);
    if (found_node == nullptr) {
      const auto known = named == nullptr ? std::vector<std::string>{} : keys_of(*named);
      faults_.add(value.place, fmt::format("there is no {} '{}' to set a value of{}", table, name,
                                           suggestion(name, known)));
      return;
    }
    put_at(root_, fmt::format("{}.{}", table, path), value);
  }

  void set_in_list(const std::string& list, std::string_view path, const Node& value) {
    const auto [id, rest] = split_at_dot(path);
    for (Node::Entry& entry : root_.entries) {
      if (entry.key != list) continue;
      if (Node* item = find_by_id(entry.value, id)) {
        return rest.empty() ? whole(list, id, value) : put_at(*item, rest, value);
      }
      if (rest.empty()) continue;
      if (list == "agent" && is_copy(entry.value, id)) {
        copies_[std::string(id)].emplace_back(std::string(rest), value);
        return;
      }
    }
    const Node* items = root_.find(list);
    const auto known = items == nullptr ? std::vector<std::string>{} : ids_of(*items);
    faults_.add(value.place, fmt::format("there is no {} '{}' to set a value of{}", list, id,
                                         suggestion(id, known)));
  }

  void whole(std::string_view what, std::string_view name, const Node& value) {
    faults_.add(value.place, fmt::format("{0}.{1} is a table; one of its keys is set, as "
                                         "{0}.{1}.KEY=VALUE",
                                         what, name));
  }

  Node& root_;
  Faults& faults_;
  CopySettings copies_;
};

}  // namespace

void put_at(Node& table, std::string_view path, const Node& value) {
  const auto [key, rest] = split_at_dot(path);
  if (rest.empty()) {
    table.put(std::string(key), value, value.place);
    return;
  }
  for (Node::Entry& entry : table.entries) {
    if (entry.key == key && entry.value.type == Node::Type::table) {
      return put_at(entry.value, rest, value);
    }
  }
  Node below;
  below.place = value.place;
  put_at(table.put(std::string(key), std::move(below), value.place), rest, value);
}

CopySettings apply_settings(Node& root, const std::vector<Setting>& settings, Faults& faults) {
  Setter setter(root, faults);
  for (const Setting& setting : settings) setter.set(setting, {setting.said_as, 0, 0});
  return setter.take_copies();
}

}  // namespace gaze
