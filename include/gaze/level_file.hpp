#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/error.hpp"
#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/setting.hpp"

/// Reading level files. docs/level-file.md is the reference of their keys.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// What is read at most, beside what a level may have at most; more is an error that names the
/// limit.
struct ReadLimits : LevelLimits {
  static constexpr std::uintmax_t file_bytes = 32U << 20U;
};

/// Reads a level and everything that it includes. All or nothing.
/// @throws LevelError with all faults of all files.
[[nodiscard]] Level read_level(const std::filesystem::path& file,
                               const std::vector<Setting>& settings = {});

/// The same from text; `name` stands for the file in messages, and includes are beside it.
[[nodiscard]] Level read_level_text(std::string_view text, const std::string& name,
                                    const std::vector<Setting>& settings = {});

}  // namespace gaze
GAZE_PUBLIC_END
