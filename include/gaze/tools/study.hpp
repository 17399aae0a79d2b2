#pragma once

#include <cstddef>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/setting.hpp"

/// What all studies have in common: they play many runs, on all cores.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Gives the level with values set: reads a file anew, or changes a level that a program has made.
/// Throws what `read_level` throws. Asked from one thread at a time.
using LevelSource = std::function<Level(const std::vector<Setting>&)>;

/// How a study is played. What it finds does not depend on it, but for a study that is ended early.
struct StudyOptions {
  unsigned threads = 0;  ///< So many at once; 0: as many as there are cores.
  /// Called after each run and now and then during runs, one thread at a time: how many runs are
  /// done, and of how many. False ends the study with the runs that are done.
  std::function<bool(std::size_t done, std::size_t all)> goes_on;
};

/// The numbers of many runs, or of some of them: those in which a figure was not none.
struct Spread {
  std::size_t runs = 0;  ///< All that were played.
  std::size_t some = 0;  ///< In which there was a number; without any the rest means nothing.
  double least = 0.0;
  double low = 0.0;     ///< A quarter lies below it (nearest rank),
  double median = 0.0;  ///< a half,
  double high = 0.0;    ///< and three quarters.
  double most = 0.0;
  double mean = 0.0;
};

[[nodiscard]] Spread spread_of(const std::vector<std::optional<double>>& values);

}  // namespace gaze
GAZE_PUBLIC_END
