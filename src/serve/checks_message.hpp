#pragma once

#include <string>

#include "serve/checker.hpp"

namespace gaze::serve {

/// The message `checks`: findings, each with the place in the plan that it is about if it is about
/// one, and expectations with what led to those that fail.
[[nodiscard]] std::string checks_message(const Checked& checked, const Level& level);

}  // namespace gaze::serve
