#include "gaze/tools/vary.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>
#include <tuple>
#include <utility>

#include "study/play_points.hpp"

namespace gaze {
namespace {

std::optional<double> number_of(const std::string& text) {
  double value = 0.0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  const bool is_whole = error == std::errc{} && end == text.data() + text.size();
  return is_whole && std::isfinite(value) ? std::optional(value) : std::nullopt;
}

std::vector<std::string> parts_of(const std::string& text, char separator) {
  std::vector<std::string> parts{""};
  for (const char c : text) {
    if (c == separator) {
      parts.emplace_back();
    } else {
      parts.back() += c;
    }
  }
  return parts;
}

constexpr std::size_t kMostValues = 10'000;

// LOW, LOW + STEP, ... up to HIGH, which belongs to it but for rounding.
void add_range(Axis& axis, const std::string& text, double low, double high, double step) {
  if (!(step > 0.0) || !(high >= low)) {
    throw UsageError(fmt::format("--over {}: a range goes up, by a step above 0", text));
  }
  const double count = std::floor((high - low) / step + 1e-9) + 1.0;
  if (!(count <= static_cast<double>(kMostValues))) {
    throw UsageError(
        fmt::format("--over {} has {:.0f} values; {} are allowed", text, count, kMostValues));
  }
  for (double i = 0.0; i < count; ++i) {
    // To a millionth of the step, so that 0.1 three times is 0.3 and reads so.
    const double digits = std::pow(10.0, 6.0 - std::floor(std::log10(step)));
    const double value = std::round((low + i * step) * digits) / digits;
    axis.values.push_back(value_text(value));
    axis.numbers.push_back(*number_of(axis.values.back()));
  }
}

// Numbers are played in rising order, however they are listed.
void sort_by_number(Axis& axis) {
  std::vector<std::pair<double, std::string>> both;
  for (std::size_t i = 0; i < axis.numbers.size(); ++i) {
    both.emplace_back(axis.numbers[i], axis.values[i]);
  }
  std::stable_sort(both.begin(), both.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  for (std::size_t i = 0; i < both.size(); ++i) {
    std::tie(axis.numbers[i], axis.values[i]) = both[i];
  }
}

/// Figures at one value of the only axis.
struct Sample {
  double value = 0.0;
  std::vector<std::vector<std::optional<double>>> values;  ///< By figure, by run.
};

// The median; none counts as larger than any number if most runs have none.
std::optional<double> middle_of(const std::vector<std::optional<double>>& values) {
  const Spread spread = spread_of(values);
  if (2 * spread.some < spread.runs || spread.some == 0) return std::nullopt;
  return spread.median;
}

/// Looks for jumps between neighbours.
class Jumps {
 public:
  Jumps(const LevelSource& source, const Variation& variation, const StudyOptions& options)
      : source_(source), variation_(variation), options_(options) {
    for (const VaryPoint& point : variation.points) {
      samples_.push_back({variation.axes[0].numbers[point.at[0]], point.values});
    }
  }

  std::vector<Jump> find() {
    std::vector<Jump> jumps;
    for (std::size_t figure = 0; figure < variation_.figures.size(); ++figure) {
      for (const std::size_t i : candidates(figure)) {
        narrow(figure, samples_[i], samples_[i + 1], jumps);
      }
    }
    return jumps;
  }

 private:
  static constexpr double kFarMore = 4.0;  // than usual between neighbours

  std::optional<double> middle(std::size_t figure, const Sample& sample) const {
    return middle_of(sample.values[figure]);
  }

  // Neighbours between which it changes far more than usual, and by a good part of all its changes.
  std::vector<std::size_t> candidates(std::size_t figure) const {
    std::vector<double> changes;
    double low = std::numeric_limits<double>::infinity();
    double high = -low;
    for (std::size_t i = 0; i < samples_.size(); ++i) {
      const auto here = middle(figure, samples_[i]);
      if (!here) continue;
      low = std::min(low, *here);
      high = std::max(high, *here);
      if (i + 1 == samples_.size()) continue;
      if (const auto next = middle(figure, samples_[i + 1])) {
        changes.push_back(std::abs(*next - *here));
      }
    }
    double usual = 0.0;
    if (changes.size() > 2) {  // of one or two none is usual
      std::nth_element(changes.begin(), changes.begin() + std::ptrdiff_t(changes.size() / 2),
                       changes.end());
      usual = changes[changes.size() / 2];
    }
    std::vector<std::size_t> found;
    for (std::size_t i = 0; i + 1 < samples_.size(); ++i) {
      const auto here = middle(figure, samples_[i]);
      const auto next = middle(figure, samples_[i + 1]);
      if (here.has_value() != next.has_value()) found.push_back(i);
      if (!here || !next) continue;
      const double change = std::abs(*next - *here);
      if (change > kFarMore * usual && change > 0.1 * (high - low)) found.push_back(i);
    }
    return found;
  }

  double change(std::size_t figure, const Sample& a, const Sample& b) const {
    const auto first = middle(figure, a);
    const auto second = middle(figure, b);
    if (first.has_value() != second.has_value()) return std::numeric_limits<double>::infinity();
    return first ? std::abs(*second - *first) : 0.0;
  }

  /// How far the values between two neighbours are halved.
  struct Halving {
    std::size_t figure = 0;
    double least_change = 0.0;  ///< Of a part that is halved further.
    double digits = 1.0;        ///< Values are whole multiples of 1 / digits.
  };

  void narrow(std::size_t figure, const Sample& low, const Sample& high, std::vector<Jump>& jumps) {
    constexpr int kHalvings = 6;
    constexpr double kGoodPart = 0.25;  // a slope spreads its change over 64 parts
    // With no more digits than the last of them needs, so that jumps read well.
    const double least = (high.value - low.value) / (1 << kHalvings);
    const Halving halving{figure, kGoodPart * change(figure, low, high),
                          std::pow(10.0, -std::floor(std::log10(least)))};
    halve(halving, low, high, kHalvings, jumps);
  }

  // Halves what lies between, and goes on in each half with a good part of the change.
  void halve(const Halving& halving, const Sample& low, const Sample& high, int times,
             std::vector<Jump>& jumps) {
    const std::size_t figure = halving.figure;
    const double between =
        std::round((low.value + high.value) / 2.0 * halving.digits) / halving.digits;
    const bool is_between = between > low.value && between < high.value;
    const auto played = times > 0 && is_between ? play(between) : std::nullopt;
    if (!played) {  // narrow enough, whole numbers alone, or ended
      jumps.push_back({figure, low.value, high.value, middle(figure, low), middle(figure, high)});
      return;
    }
    if (change(figure, low, *played) >= halving.least_change) {
      halve(halving, low, *played, times - 1, jumps);
    }
    if (change(figure, *played, high) >= halving.least_change) {
      halve(halving, *played, high, times - 1, jumps);
    }
  }

  std::optional<Sample> play(double value) {
    try {
      PointPlayer player(source_, variation_.figures, variation_.runs, options_);
      auto points = player.play({{{variation_.axes[0].path, value_text(value)}}});
      if (!points.front()) return std::nullopt;
      return Sample{value, std::move(*points.front())};
    } catch (const LevelError&) {
      return std::nullopt;
    }
  }

  const LevelSource& source_;
  const Variation& variation_;
  const StudyOptions& options_;
  std::vector<Sample> samples_;
};

}  // namespace

Axis axis_of(const std::string& text) {
  const std::size_t equals = text.find('=');
  if (equals == std::string::npos || equals == 0 || equals + 1 == text.size()) {
    throw UsageError(fmt::format("--over {} is neither PATH=LOW:HIGH:STEP nor PATH=A,B,C", text));
  }
  Axis axis;
  axis.path = text.substr(0, equals);
  const std::string values = text.substr(equals + 1);
  const std::vector<std::string> ends = parts_of(values, ':');
  if (ends.size() > 1) {
    std::vector<double> numbers;
    for (const std::string& end : ends) {
      if (const auto number = number_of(end)) numbers.push_back(*number);
    }
    if (ends.size() != 3 || numbers.size() != 3) {
      throw UsageError(fmt::format("--over {}: a range is LOW:HIGH:STEP, three numbers", text));
    }
    add_range(axis, text, numbers[0], numbers[1], numbers[2]);
    return axis;
  }
  axis.values = parts_of(values, ',');
  for (const std::string& value : axis.values) {
    if (value.empty()) throw UsageError(fmt::format("--over {} has a value that is empty", text));
    if (const auto number = number_of(value)) axis.numbers.push_back(*number);
  }
  if (axis.numbers.size() != axis.values.size()) axis.numbers.clear();
  sort_by_number(axis);
  return axis;
}

Variation vary(const LevelSource& source, std::span<const Axis> axes,
               std::span<const std::string> figures, std::size_t runs,
               const StudyOptions& options) {
  if (axes.empty() || axes.size() > 2) throw UsageError("one or two values are varied at once");
  if (figures.empty()) throw UsageError("there is no figure to look at");
  Variation variation;
  variation.axes.assign(axes.begin(), axes.end());
  variation.runs = runs;
  const Level level = source({});
  for (const std::string& name : figures) variation.figures.push_back(figure_called(level, name));
  std::vector<std::vector<std::size_t>> places;
  std::vector<std::vector<PathValue>> settings;
  for (std::size_t i = 0; i < axes[0].values.size(); ++i) {
    const std::size_t others = axes.size() == 2 ? axes[1].values.size() : 1;
    for (std::size_t k = 0; k < others; ++k) {
      places.push_back({i});
      settings.push_back({{axes[0].path, axes[0].values[i]}});
      if (axes.size() == 1) continue;
      places.back().push_back(k);
      settings.back().push_back({axes[1].path, axes[1].values[k]});
    }
  }
  PointPlayer player(source, variation.figures, runs, options);
  auto played = player.play(settings);
  for (std::size_t i = 0; i < places.size(); ++i) {
    if (played[i]) variation.points.push_back({places[i], std::move(*played[i])});
  }
  variation.is_whole = variation.points.size() == places.size();
  const bool can_jump = axes.size() == 1 && !axes[0].numbers.empty() && variation.is_whole;
  if (can_jump) variation.jumps = Jumps(source, variation, options).find();
  return variation;
}

}  // namespace gaze
