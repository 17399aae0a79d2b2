#pragma once

#include <cstdint>
#include <string_view>

#include "gaze/level.hpp"

namespace gaze {

/// The index of the kind of that name. Throws UsageError, with the nearest name, if there is none.
[[nodiscard]] std::uint32_t kind_called(const Level& level, std::string_view name);

}  // namespace gaze
