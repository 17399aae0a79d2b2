#pragma once

#include <optional>
#include <string_view>

#include "gaze/level.hpp"

namespace gaze {

/// More parts than any key of a level has. A parser turns each into a table in a table, and what is
/// nested without end runs out of stack.
constexpr int kMostKeyParts = 8;

/// Where a text first has a dotted key of more parts, if anywhere (file left empty). Looks at dots
/// outside of strings and comments; says nothing about whether the text is TOML.
[[nodiscard]] std::optional<Place> find_endless_key(std::string_view text);

}  // namespace gaze
