#pragma once

#include <string>
#include <string_view>

namespace gaze {

/// Where a key of a kind belongs that was written in another of its tables: "; it belongs in
/// [kind.pruner.move]". Empty if it is no such key, or `path` is no table of a kind or an agent.
[[nodiscard]] std::string home_of_key(std::string_view key, std::string_view path);

}  // namespace gaze
