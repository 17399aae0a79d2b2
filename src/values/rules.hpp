#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"

/// What values of one part have to have in common, beyond the range of each. The reader of files
/// and `validate` go by the same rules.
namespace gaze {

/// A rule that is not kept: at which value it is told, and how that goes on after the value's path:
/// "is 3; at least the range of 5 m is allowed".
struct Broken {
  std::string key;
  std::string what;
};

[[nodiscard]] std::vector<Broken> broken_rules(const Sight& sight);
[[nodiscard]] std::vector<Broken> broken_rules(const Scan& scan);
[[nodiscard]] std::vector<Broken> broken_rules(const Head& head);
[[nodiscard]] std::vector<Broken> broken_rules(const Attack& attack);
[[nodiscard]] std::vector<Broken> broken_rules(const Thing& thing);
[[nodiscard]] std::vector<Broken> broken_rules(const Move& move);
[[nodiscard]] std::vector<Broken> broken_rules(const Kind& kind);
[[nodiscard]] std::vector<Broken> broken_rules(const Agent& agent);
[[nodiscard]] std::vector<Broken> broken_rules(const Solid& solid);
[[nodiscard]] std::vector<Broken> broken_rules(const Zone& zone);
[[nodiscard]] std::vector<Broken> broken_rules(const Link& link);
[[nodiscard]] std::vector<Broken> broken_rules(const Start& start);
[[nodiscard]] std::vector<Broken> broken_rules(const Bounds& bounds);
[[nodiscard]] std::vector<Broken> broken_rules(const Figure& figure);
[[nodiscard]] std::vector<Broken> broken_rules(const Expectation& expectation);

/// Of what has no such rules.
template <typename Part>
std::vector<Broken> broken_rules(const Part&) {
  return {};
}

}  // namespace gaze
