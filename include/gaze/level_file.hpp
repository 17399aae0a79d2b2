#pragma once

#include <filesystem>
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/version.hpp"

/// Reading level files. docs/level-file.md is the reference of their keys.
namespace GAZE_FACE gaze {

/// One thing that is wrong with a file, and where.
struct Fault {
  Place place;
  std::string message;

  std::string text() const;  ///< "FILE:LINE:COLUMN: error: MESSAGE"
};

/// A level could not be read. Holds every fault that was found; `what()` is the first one's text.
class LevelError : public std::runtime_error {
 public:
  explicit LevelError(std::vector<Fault> faults);
  const std::vector<Fault>& faults() const { return faults_; }

 private:
  std::vector<Fault> faults_;
};

/// A value changed for one reading: "kind.pruner.sight.range" and "6". The value is TOML; text may
/// go without quotes.
struct Setting {
  std::string path;
  std::string value;
  std::string said_as = "--set " + path;  ///< Of faults with it: their place.
};

/// What is read at most; more is an error that names the limit.
struct ReadLimits {
  static constexpr std::uintmax_t file_bytes = 32U << 20U;
  static constexpr std::size_t agents = 100'000;
  static constexpr std::size_t triangles = 200'000;  ///< Of one mesh.
  static constexpr std::size_t solids = 200'000;
  static constexpr std::size_t outline_points = 500;
  static constexpr std::size_t path_points = 10'000;
  static constexpr std::size_t list_items =
      10'000;                                     ///< Of kinds, patrols, scripts, copies, includes.
  static constexpr double coordinate = 20'000.0;  ///< Metres from the origin, on each axis.
};

/// Reads a level and everything that it includes. All or nothing.
/// @throws LevelError with all faults of all files.
[[nodiscard]] Level read_level(const std::filesystem::path& file,
                               const std::vector<Setting>& settings = {});

/// The same from text; `name` stands for the file in messages, and includes are beside it.
[[nodiscard]] Level read_level_text(std::string_view text, const std::string& name,
                                    const std::vector<Setting>& settings = {});

}  // namespace gaze
