#pragma once

#include <string>

#include "values/key.hpp"

/// How keys are described to people.
namespace gaze {

/// "above 0 to 360 degrees", "whole, 1 to 1000", "\"sweep\", \"round\"".
[[nodiscard]] std::string type_text(const Key& key);
/// What is taken if it is left out.
[[nodiscard]] std::string left_out_text(const Key& key);

}  // namespace gaze
