#pragma once

#include <array>
#include <filesystem>
#include <string>
#include <vector>

#include "gaze/level_file.hpp"
#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// A value that two level files do not have alike.
struct ValueDifference {
  std::string path;                   ///< "kind.pruner.sight.range"
  std::array<std::string, 2> values;  ///< As TOML; empty where it is left out.
  std::array<std::string, 2> places;  ///< "FILE:LINE:COLUMN", or the option that set it.
};

/// What two level files say differently, with what they include and with values set; in the order
/// of the first, and then what only the second has. Throws LevelError for files that are not TOML.
[[nodiscard]] std::vector<ValueDifference> differences(const std::filesystem::path& one,
                                                       const std::vector<Setting>& one_settings,
                                                       const std::filesystem::path& other,
                                                       const std::vector<Setting>& other_settings);

}  // namespace gaze
GAZE_PUBLIC_END
