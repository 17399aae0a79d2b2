#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "file/node.hpp"
#include "values/key.hpp"

namespace gaze {

/// Stands for a name that nothing has: a fault tells so already, and nothing else follows from it.
inline constexpr std::uint32_t kNoSuch = 0xFFFFFFFF;

/// What reading a level shares: where faults and origins go.
struct ReadContext {
  Faults faults;
  Origins origins;
};

/// Reads the keys of one table, as the list of its keys says. Every key that is asked for is known;
/// `finish` reports the others. What is missing or wrong gives what is taken if it is left out, and
/// what is wrong a fault.
class TableReader {
 public:
  /// `path` names the table in messages and origins; empty for the whole file. Asking for a key
  /// that is not in the list throws std::logic_error.
  TableReader(ReadContext& context, const Node& table, std::string path, const KeyTable& keys);

  const Node* find(const std::string& key);
  const Node* need(const std::string& key, std::string_view what);

  /// A number that the key may have; nothing if it is left out, or wrong.
  std::optional<double> number(const std::string& key);
  std::optional<std::int64_t> whole(const std::string& key);
  bool truth(const std::string& key, bool fallback = false);
  std::string text(const std::string& key, const std::string& fallback);
  std::string needed_name(const std::string& key);
  std::vector<std::string> names(const std::string& key);

  /// The index of the text among the words of the key; nothing if it is left out, or none of them.
  std::optional<std::size_t> known_word(const std::string& key);
  /// The indices of a list of its words; `what` is what one of them is.
  std::vector<std::size_t> words(const std::string& key, std::string_view what);

  /// As many numbers as the key has; nothing if it is left out, or wrong.
  std::optional<std::vector<double>> numbers(const std::string& key);

  /// The index of a name that was defined elsewhere; `kNoSuch` with a fault if there is none such.
  std::uint32_t reference(const std::string& key, const std::vector<std::string>& names,
                          std::string_view what);
  std::uint32_t reference(const Node& node, const std::vector<std::string>& names,
                          std::string_view what);

  /// A number of a table of free names.
  std::optional<double> number_at(const Node& node, const std::string& path,
                                  const Allowed& allowed);
  std::optional<std::int64_t> whole_at(const Node& node, const std::string& path,
                                       const Allowed& allowed);

  /// Numbers of a list of that length.
  std::optional<std::vector<double>> numbers(const Node& node, const std::string& path,
                                             std::size_t count, const Allowed& allowed);

  /// Items of a list; none if it is something else.
  const std::vector<Node>& items(const std::string& key, std::size_t most);

  void fault(const Place& place, std::string message) {
    context_.faults.add(place, std::move(message));
  }
  void finish();

  const std::string& path() const { return path_; }
  std::string path_of(const std::string& key) const;
  const Key& key(const std::string& name) const { return keys_.key(name); }
  const Node& table() const { return table_; }
  ReadContext& context() { return context_; }

 private:
  ReadContext& context_;
  const Node& table_;
  std::string path_;
  const KeyTable& keys_;
  std::vector<std::string> known_;
};

}  // namespace gaze
