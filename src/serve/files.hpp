#pragma once

#include <filesystem>
#include <map>
#include <vector>

#include "gaze/level.hpp"

namespace gaze::serve {

/// The files that a level was read from, to see when somebody has saved one.
class WatchedFiles {
 public:
  /// @param also  Of a level that could not be read: where its faults are.
  void watch(const std::filesystem::path& file, const Level* level, const std::vector<Fault>& also);
  /// True if one of them is not as it was when this was last asked.
  [[nodiscard]] bool have_changed();
  [[nodiscard]] std::vector<std::filesystem::path> all() const;

 private:
  struct Stamp {
    std::filesystem::file_time_type time{};
    std::uintmax_t size = 0;
    bool operator==(const Stamp&) const = default;
  };
  static Stamp stamp_of(const std::filesystem::path& file);

  std::map<std::filesystem::path, Stamp> files_;
};

/// The files that a level is made of: its own and those that it includes.
[[nodiscard]] std::vector<std::filesystem::path> files_of(const std::filesystem::path& file,
                                                          const Level& level);

}  // namespace gaze::serve
