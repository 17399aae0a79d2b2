#pragma once

#include <string>

#include "serve/session.hpp"

namespace gaze::serve {

/// The numbers of all kinds, and of agents that have some of their own, as the message `values`:
/// with unit, range, default, meaning, and the place where each was set.
[[nodiscard]] std::string values_message(const Session& session);

}  // namespace gaze::serve
