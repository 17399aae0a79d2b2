#pragma once

#include <mutex>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/tools/figures.hpp"
#include "gaze/tools/study.hpp"

namespace gaze {

/// A value by its path.
struct PathValue {
  std::string path;
  std::string value;  ///< TOML.
};

/// A number as TOML, as short as it can be.
[[nodiscard]] std::string value_text(double value);

/// Plays a level with many combinations of values, each so many times.
class PointPlayer {
 public:
  /// By figure, by run.
  using Numbers = std::vector<std::vector<std::optional<double>>>;

  PointPlayer(const LevelSource& source, std::span<const Figure> figures, std::size_t runs,
              const StudyOptions& options)
      : source_(source), figures_(figures), runs_(runs), options_(options) {}

  /// By combination; nothing for those that were not played to the end before the study was ended.
  /// Throws LevelError for a value that is not allowed.
  std::vector<std::optional<Numbers>> play(const std::vector<std::vector<PathValue>>& combinations);

 private:
  Level read(const std::vector<Setting>& settings);

  const LevelSource& source_;
  std::span<const Figure> figures_;
  std::size_t runs_;
  const StudyOptions& options_;
  std::mutex reading_;
};

}  // namespace gaze
