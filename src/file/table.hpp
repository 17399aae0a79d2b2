#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "file/node.hpp"

namespace gaze {

/// Stands for a name that nothing has: a fault tells so already, and nothing else follows from it.
inline constexpr std::uint32_t kNoSuch = 0xFFFFFFFF;

/// The numbers that a key may have. Between 0 and a millionth there is none where 0 is the lowest:
/// what is so small, a length or a speed, is a slip of the pen, and quotients of it have no end.
struct Allowed {
  static constexpr double kLeastAboveZero = 1e-6;
  double low = 0.0;
  double high = 0.0;
  std::string_view unit;   ///< "m", "degrees", ...; may be empty.
  bool above_low = false;  ///< `low` itself is not allowed.

  bool holds(double value) const;
  std::string text_for(double value) const;  ///< Why it does not hold that.
};

/// What reading a level shares: where faults and origins go.
struct ReadContext {
  Faults faults;
  Origins origins;
};

/// Reads the keys of one table. Every key that is asked for is known; `finish` reports the others.
/// What is missing or wrong gives the fallback, and what is wrong a fault.
class TableReader {
 public:
  /// `path` names the table in messages and origins; empty for the whole file.
  TableReader(ReadContext& context, const Node& table, std::string path);

  const Node* find(const std::string& key);
  const Node* need(const std::string& key, std::string_view what);

  double number(const std::string& key, double fallback, const Allowed& allowed);
  double needed_number(const std::string& key, const Allowed& allowed);
  std::int64_t integer(const std::string& key, std::int64_t fallback, std::int64_t low,
                       std::int64_t high);
  std::optional<double> optional_number(const std::string& key, const Allowed& allowed);
  Duration duration(const std::string& key, double fallback, const Allowed& allowed);
  bool boolean(const std::string& key, bool fallback);
  std::string text(const std::string& key, const std::string& fallback);
  std::string needed_name(const std::string& key);
  std::vector<std::string> names(const std::string& key);

  /// The index of the text among the words; nothing if it is missing.
  std::optional<std::size_t> word(const std::string& key, const std::vector<std::string>& words);

  /// The index of a name that was defined elsewhere; `kNoSuch` with a fault if there is none such.
  std::uint32_t reference(const std::string& key, const std::vector<std::string>& names,
                          std::string_view what);
  std::uint32_t reference(const Node& node, const std::vector<std::string>& names,
                          std::string_view what);

  /// Numbers of a list of that length.
  std::optional<std::vector<double>> numbers(const Node& node, const std::string& path,
                                             std::size_t count, const Allowed& allowed);

  /// Items of a list; none if it is something else.
  const std::vector<Node>& items(const std::string& key, std::size_t most);

  void fault(const Place& place, std::string message) {
    context_.faults.add(place, std::move(message));
  }
  void finish();

  std::string path_of(const std::string& key) const;
  const Node& table() const { return table_; }
  ReadContext& context() { return context_; }

 private:
  std::optional<double> checked_number(const Node& node, const std::string& path,
                                       const Allowed& allowed);

  ReadContext& context_;
  const Node& table_;
  std::string path_;
  std::vector<std::string> known_;
};

}  // namespace gaze
