#pragma once

#include <cstdint>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/level_file.hpp"

namespace gaze {

/// A value of a level file that keeps its place, also when it is copied or merged.
struct Node {
  enum class Type { boolean, integer, number, text, array, table, other };
  struct Entry;

  Type type = Type::table;
  Place place;
  bool boolean = false;
  std::int64_t integer = 0;
  double number = 0.0;  ///< Of integers too.
  std::string text;     ///< Of `other`: what it is.
  std::vector<Node> items;
  std::vector<Entry> entries;  ///< In the order of the file.

  const Node* find(std::string_view key) const;
  Node& put(const std::string& key, Node value, const Place& key_place);
};

struct Node::Entry {
  std::string key;
  Place place;
  Node value;
};

/// Collects what is wrong; the same fault at the same place counts once.
class Faults {
 public:
  void add(const Place& place, std::string message);

  /// Adds the faults of one kind, or of one agent's, that is called `path` in them. What was wrong
  /// with a value that it inherited is known already, only under another path.
  void add_inherited(Faults other, const std::string& path);

  bool empty() const { return faults_.empty(); }
  /// True if something is wrong with a value already, or with one that lies in it.
  bool has_in(const Node& node) const;
  std::size_t count() const { return faults_.size(); }
  std::vector<Fault> take();

 private:
  std::vector<Fault> faults_;
  std::set<std::pair<Place, std::string>> inherited_;  ///< Messages without their paths.
};

/// Parses TOML. A syntax error becomes a fault and nothing is returned.
[[nodiscard]] std::optional<Node> parse_toml(std::string_view text, const std::string& file,
                                             Faults& faults);

/// The whole text of a file within the limits; else a fault at 1:1.
[[nodiscard]] std::optional<std::string> read_text(const std::filesystem::path& file,
                                                   Faults& faults);

/// Own values over inherited ones, key by key; arrays are replaced whole.
[[nodiscard]] Node merge(const Node& inherited, const Node& own);

/// A value as it stands in a file, on one line.
[[nodiscard]] std::string toml_of(const Node& node);

/// "a number, 3.5", "text, \"3.5\"", ...: what a message says was found.
[[nodiscard]] std::string found(const Node& node);

}  // namespace gaze
