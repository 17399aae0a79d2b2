#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/figure.hpp"
#include "gaze/public.hpp"
#include "gaze/tools/study.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// What led to a number, in words: one line for each event that made it, with its place, and at the
/// decisive moment what one knew of the other.
struct Explained {
  double seconds = 0.0;
  std::string what;     ///< "pruner-1 notices collector by sight ...".
  std::string where;    ///< "collector at [1.50, 4.00]".
  std::string verdict;  ///< Why it was seen then, or not; may be empty.
};

/// What came of an expectation.
struct ExpectResult {
  Expectation expectation;
  Figure figure;
  bool holds = false;
  std::size_t held = 0;                       ///< In so many runs.
  std::vector<std::optional<double>> values;  ///< By run.
  std::vector<std::uint64_t> seeds;           ///< The same.
  /// The first run that fails; if none does, the first of all.
  std::size_t told = 0;
  /// By how much the number of that run misses its limit; nothing if it keeps it, or is none.
  std::optional<double> missed_by;
  std::vector<Explained> reasons;  ///< Of that run, if it fails.
  double wall_seconds = 0.0;       ///< That its runs took, all together.
};

/// True if a number, or none, is as expected.
[[nodiscard]] bool is_kept(const Expectation& expectation, const Figure& figure,
                           const std::optional<double>& value);

/// "at least 4 s", "4 to 9 m", "never".
[[nodiscard]] std::string limit_text(const Expectation& expectation, const Figure& figure);

/// Plays a level as its expectations ask for. Those whose runs were not all played before the study
/// was ended are left out.
/// @param only  The ids of some of them; empty: all. Throws UsageError for an id that there is not.
[[nodiscard]] std::vector<ExpectResult> expect(const LevelSource& source,
                                               std::span<const std::string> only = {},
                                               const StudyOptions& options = {});

}  // namespace gaze
GAZE_PUBLIC_END
