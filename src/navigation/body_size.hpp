#pragma once

#include "gaze/navigation.hpp"
#include "level/openings.hpp"

namespace gaze {

/// The body of an agent of that kind that holds these tags now.
[[nodiscard]] BodySize body_size(const Level& level, const Openings& openings, const Somebody& who);

}  // namespace gaze
