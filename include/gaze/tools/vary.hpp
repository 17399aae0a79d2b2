#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "gaze/figure.hpp"
#include "gaze/public.hpp"
#include "gaze/tools/study.hpp"

/// What figures come to when values are varied.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// A value that is varied, and all that it is set to, in order.
struct Axis {
  std::string path;                 ///< "kind.pruner.sight.range"
  std::vector<std::string> values;  ///< TOML.
  std::vector<double> numbers;      ///< The same, if all of them are numbers; else empty.
};

/// "PATH=LOW:HIGH:STEP" or "PATH=A,B,C". Throws UsageError where it is neither, and for more than
/// 10,000 values.
[[nodiscard]] Axis axis_of(const std::string& text);

/// What came of one combination of values.
struct VaryPoint {
  std::vector<std::size_t> at;                             ///< By axis, which of its values.
  std::vector<std::vector<std::optional<double>>> values;  ///< By figure, by run.
};

/// Where a figure changes at once: between two values of an axis that lie close together.
struct Jump {
  std::size_t figure = 0;
  double from = 0.0;             ///< The last value before it that was played,
  double to = 0.0;               ///< and the first after it.
  std::optional<double> before;  ///< The median of the figure there; nothing: none.
  std::optional<double> after;
};

struct Variation {
  std::vector<Axis> axes;  ///< One or two.
  std::vector<Figure> figures;
  std::size_t runs = 1;           ///< At each point: with seeds from 1 on, or one with the level's.
  std::vector<VaryPoint> points;  ///< Those that were played, the first axis outermost.
  std::vector<Jump> jumps;        ///< Along an axis of numbers, if it is the only one.
  bool is_whole = true;           ///< False if the study was ended before.
};

/// Plays all combinations of the values of one or two axes, each `runs` times. Where a figure
/// changes far more between two neighbours than elsewhere, or begins or ceases to be none, the
/// values between them are halved six times, to tell a jump from a slope.
/// Throws UsageError for a figure that there is not, and LevelError for a value that is not
/// allowed.
[[nodiscard]] Variation vary(const LevelSource& source, std::span<const Axis> axes,
                             std::span<const std::string> figures, std::size_t runs = 1,
                             const StudyOptions& options = {});

/// A wish for a figure, by one value.
struct Wish {
  std::string figure;
  std::optional<double> at_least;
  std::optional<double> at_most;
  std::size_t runs = 1;
  double of_runs = 1.0;  ///< In this share of them it has to be so.
};

/// What was played for one value.
struct Tried {
  double value = 0.0;
  std::vector<std::optional<double>> numbers;  ///< Of the figure, by run.
  double share = 0.0;                          ///< Of the runs that are as wished.
  bool holds = false;
};

/// Where a wish begins or ceases to hold: between two values that were both played.
struct Limit {
  Tried before;
  Tried after;
};

struct Search {
  std::string path;
  Figure figure;
  Wish wish;
  std::vector<Tried> tried;   ///< All that was played evenly over the range, in order.
  std::vector<Limit> limits;  ///< In order.
  double width = 0.0;         ///< Limits are so narrow at most, or between two whole numbers.
  bool is_whole = true;       ///< False if the study was ended before.
};

/// Looks for the values at which a wish begins or ceases to hold: 17 values evenly over the range,
/// and halving between neighbours of which one holds and the other does not, down to `width`, or
/// else to a thousandth of the range. What holds between two that hold, or does not between two
/// that do not, for less than a sixteenth of the range, is not found.
[[nodiscard]] Search find(const LevelSource& source, const std::string& path, double low,
                          double high, const Wish& wish, std::optional<double> width = {},
                          const StudyOptions& options = {});

}  // namespace gaze
GAZE_PUBLIC_END
