#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace gaze::serve {

/// Returns JSON as one line of text. Bytes that are not UTF-8, which TOML may let through, become
/// U+FFFD.
[[nodiscard]] std::string json_text(const nlohmann::ordered_json& json);

}  // namespace gaze::serve
