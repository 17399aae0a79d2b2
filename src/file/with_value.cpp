#include "gaze/tools/with_value.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "file/node.hpp"
#include "file/read.hpp"
#include "file/value_text.hpp"
#include "values/keys.hpp"

namespace gaze {
namespace {

std::pair<std::string, std::string> split_first(const std::string& path) {
  const std::size_t dot = path.find('.');
  if (dot == std::string::npos) return {path, ""};
  return {path.substr(0, dot), path.substr(dot + 1)};
}

const Node* item_called(const Node& list, const std::string& id) {
  for (const Node& item : list.items) {
    const Node* own = item.find("id");
    if (own != nullptr && own->type == Node::Type::text && own->text == id) return &item;
  }
  return nullptr;
}

/// A value on its way down from the root: the tables that there are, and what is left of the path.
struct Way {
  std::vector<std::pair<const Node*, std::string>> tables;  ///< Each with the path from it on.
  const Node* value = nullptr;                              ///< If it is there.
};

Way way_to(const Node& root, const std::string& path) {
  Way way;
  const Node* at = &root;
  std::string rest = path;
  const KeyTable* table = table_of_level(split_first(path).first);
  if (table != nullptr && table->is_listed()) {
    const auto [list, below] = split_first(path);
    const auto [id, inside] = split_first(below);
    const Node* items = root.find(list);
    at = items == nullptr ? nullptr : item_called(*items, id);
    rest = inside;
  }
  while (at != nullptr && at->type == Node::Type::table) {
    way.tables.emplace_back(at, rest);
    const auto [key, below] = split_first(rest);
    at = at->find(key);
    rest = below;
    if (below.empty()) {
      way.value = at;
      break;
    }
  }
  return way;
}

bool is_alike(const Node& a, const Node& b) {
  if (a.type == Node::Type::table && b.type == Node::Type::table) {
    return a.entries.size() == b.entries.size() &&
           std::all_of(a.entries.begin(), a.entries.end(), [&](const Node::Entry& entry) {
             const Node* same = b.find(entry.key);
             return same != nullptr && is_alike(entry.value, *same);
           });
  }
  if (a.type == Node::Type::array && b.type == Node::Type::array) {
    return std::equal(a.items.begin(), a.items.end(), b.items.begin(), b.items.end(), is_alike);
  }
  const bool is_number = a.type == Node::Type::integer || a.type == Node::Type::number;
  const bool is_number_too = b.type == Node::Type::integer || b.type == Node::Type::number;
  if (is_number && is_number_too) return a.number == b.number;
  return a.type == b.type && toml_of(a) == toml_of(b);
}

/// Tries one way after the other to write a value into a text.
class ValueWriter {
 public:
  ValueWriter(std::string_view text, const std::string& name, const Setting& setting)
      : text_(text), name_(name), setting_(setting) {
    Faults faults;
    const auto root = parse_toml(text_, name_, faults);
    if (!root) throw LevelError(faults.take());
    root_ = wanted_ = *root;
    const CopySettings copies = apply_settings(wanted_, {setting}, faults);
    if (!faults.empty()) throw LevelError(faults.take());
    if (!copies.empty()) {
      throw UsageError(
          fmt::format("'{}' is of one of several copies, which has no place of its own in the file",
                      setting.path));
    }
  }

  std::string write() const {
    const Way way = way_to(root_, setting_.path);
    const std::string value = toml_of(*way_to(wanted_, setting_.path).value);
    if (way.value != nullptr) return checked(written_over(*way.value, value));
    for (auto it = way.tables.rbegin(); it != way.tables.rend(); ++it) {
      const std::string entry = fmt::format("{} = {}", it->second, value);
      const auto text = put_into(*it->first, entry);
      if (text && says_what_is_wanted(*text)) return *text;
    }
    fail();
  }

 private:
  [[noreturn]] void fail() const {
    throw UsageError(fmt::format("there is no place for '{}' in {}", setting_.path, name_));
  }

  bool says_what_is_wanted(const std::string& text) const {
    Faults faults;
    const auto root = parse_toml(text, name_, faults);
    return root && is_alike(*root, wanted_);
  }

  std::string checked(std::string text) const {
    if (!says_what_is_wanted(text)) fail();
    return text;
  }

  std::size_t at(const Node& node) const { return offset_of(text_, node.place); }

  // A whole number stays written as the other was: 9.0, then 6.0.
  std::string written_over(const Node& old, std::string value) const {
    const std::size_t begin = at(old);
    const std::size_t end = end_of_value(text_, begin);
    const bool had_point = text_.substr(begin, end - begin).find('.') != std::string_view::npos;
    const bool is_whole = value.find_first_not_of("-0123456789") == std::string::npos;
    if (old.type == Node::Type::number && had_point && is_whole) value += ".0";
    return std::string(text_.substr(0, begin)) + value + std::string(text_.substr(end));
  }

  std::optional<std::string> put_into(const Node& table, const std::string& entry) const {
    if (&table == &root_) return put_line(table, begin_of(text_), entry);
    const std::size_t begin = at(table);
    if (begin >= text_.size()) return std::nullopt;
    if (text_[begin] == '{') return put_into_inline(table, begin, entry);
    if (text_[begin] == '[' && is_first_on_line(text_, begin)) {
      return put_line(table, next_line(text_, begin), entry);
    }
    return std::nullopt;  // it is there by the keys of others alone
  }

  std::string put_into_inline(const Node& table, std::size_t begin,
                              const std::string& entry) const {
    const std::size_t brace = end_of_value(text_, begin) - 1;
    if (table.entries.empty()) return spliced(brace, " " + entry + " ");
    const std::size_t last = text_.find_last_not_of(" \t", brace - 1) + 1;
    return spliced(last, ", " + entry);
  }

  /// Where a line may be put in, and how it is indented.
  struct Spot {
    std::size_t offset = 0;
    std::string indent;
  };

  // Behind the last line of the table's own values; those that it has by dotted keys count too.
  void find_last(const Node& table, Spot& spot) const {
    for (const Node::Entry& own : table.entries) {
      const std::size_t value = at(own.value);
      if (value >= text_.size()) continue;
      const bool is_table = own.value.type == Node::Type::table;
      if (is_table && text_[value] != '{' && text_[value] != '[') find_last(own.value, spot);
      const std::size_t next = next_line(text_, end_of_value(text_, value));
      if (is_first_on_line(text_, value) || next <= spot.offset) continue;
      spot.offset = next;
      const std::size_t start = text_.rfind('\n', offset_of(text_, own.place)) + 1;
      spot.indent = text_.substr(start, text_.find_first_not_of(" \t", start) - start);
    }
  }

  std::string put_line(const Node& table, std::size_t at_least, const std::string& entry) const {
    Spot spot{at_least, ""};
    find_last(table, spot);
    const std::string end = text_.find("\r\n") == std::string_view::npos ? "\n" : "\r\n";
    const bool is_open = spot.offset > begin_of(text_) && text_[spot.offset - 1] != '\n';
    return spliced(spot.offset, (is_open ? end : "") + spot.indent + entry + (is_open ? "" : end));
  }

  std::string spliced(std::size_t offset, const std::string& more) const {
    return std::string(text_.substr(0, offset)) + more + std::string(text_.substr(offset));
  }

  std::string_view text_;
  const std::string& name_;
  const Setting& setting_;
  Node root_;
  Node wanted_;
};

}  // namespace

std::string with_value(std::string_view text, const std::string& name, const Setting& setting) {
  return ValueWriter(text, name, setting).write();
}

}  // namespace gaze
