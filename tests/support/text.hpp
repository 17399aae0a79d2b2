#pragma once

#include <cstddef>
#include <string>

namespace gaze::testing {

/// How often a part stands in a text.
inline std::size_t count_of(const std::string& text, const std::string& part) {
  std::size_t count = 0;
  for (auto at = text.find(part); at != std::string::npos; at = text.find(part, at + 1)) ++count;
  return count;
}

}  // namespace gaze::testing
