#include "level/named_kind.hpp"

#include <fmt/format.h>

#include <string>
#include <vector>

#include "level/spelling.hpp"

namespace gaze {

std::uint32_t kind_called(const Level& level, std::string_view name) {
  const std::size_t named = level.named_kinds == 0 ? level.kinds.size() : level.named_kinds;
  std::vector<std::string> names;
  for (std::uint32_t i = 0; i < named; ++i) {
    if (level.kinds[i].name == name) return i;
    names.push_back(level.kinds[i].name);
  }
  throw UsageError(fmt::format("there is no kind '{}'{}", name, suggestion(name, names)));
}

}  // namespace gaze
