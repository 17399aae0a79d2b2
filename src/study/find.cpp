#include <algorithm>
#include <cmath>

#include "gaze/tools/expect.hpp"
#include "gaze/tools/vary.hpp"
#include "study/play_points.hpp"

/// Where a wish begins or ceases to hold.
namespace gaze {
namespace {

class LimitFinder {
 public:
  LimitFinder(const LevelSource& source, Search& search, const StudyOptions& options)
      : source_(source), search_(search), options_(options) {}

  void find(double low, double high) {
    constexpr int kParts = 16;
    is_of_whole_numbers_ = takes_whole_numbers_alone(low, high);
    std::vector<double> values;
    for (int i = 0; i <= kParts; ++i) {
      double value = low + (high - low) * i / kParts;
      if (is_of_whole_numbers_) value = std::round(value);
      if (values.empty() || value > values.back()) values.push_back(value);
    }
    search_.tried = play(values);
    search_.is_whole = search_.tried.size() == values.size();
    for (std::size_t i = 0; i + 1 < search_.tried.size() && search_.is_whole; ++i) {
      if (search_.tried[i].holds == search_.tried[i + 1].holds) continue;
      search_.limits.push_back(narrowed({search_.tried[i], search_.tried[i + 1]}));
    }
  }

 private:
  bool takes_whole_numbers_alone(double low, double high) const {
    if (low != std::floor(low) || high != std::floor(high)) return false;
    try {
      static_cast<void>(source_({{search_.path, value_text(low + 0.5), "--over " + search_.path}}));
      return false;
    } catch (const LevelError&) {
      return true;
    }
  }

  std::vector<Tried> play(const std::vector<double>& values) {
    std::vector<std::vector<PathValue>> settings;
    settings.reserve(values.size());
    for (const double value : values) settings.push_back({{search_.path, value_text(value)}});
    PointPlayer player(source_, {&search_.figure, 1}, search_.wish.runs, options_);
    auto played = player.play(settings);
    std::vector<Tried> tried;
    for (std::size_t i = 0; i < values.size(); ++i) {
      if (played[i]) tried.push_back(judged(values[i], std::move(played[i]->front())));
    }
    return tried;
  }

  Tried judged(double value, std::vector<std::optional<double>> numbers) const {
    Expectation wish;
    wish.at_least = search_.wish.at_least;
    wish.at_most = search_.wish.at_most;
    Tried tried{value, std::move(numbers), 0.0, false};
    std::size_t held = 0;
    for (const auto& number : tried.numbers) {
      held += is_kept(wish, search_.figure, number) ? 1 : 0;
    }
    const auto runs = static_cast<double>(tried.numbers.size());
    constexpr double kRounding = 1e-9;
    tried.share = static_cast<double>(held) / runs;
    tried.holds = static_cast<double>(held) >= search_.wish.of_runs * runs - kRounding;
    return tried;
  }

  Limit narrowed(Limit limit) {
    while (limit.after.value - limit.before.value > search_.width) {
      double between = (limit.before.value + limit.after.value) / 2.0;
      // With no more digits than the width needs, so that limits read well.
      const double digits = std::pow(10.0, -std::floor(std::log10(search_.width / 2.0)));
      between = std::round(between * digits) / digits;
      if (is_of_whole_numbers_) {
        between = std::floor((limit.before.value + limit.after.value) / 2.0);
      }
      if (!(between > limit.before.value && between < limit.after.value)) break;
      auto tried = play({between});
      if (tried.empty()) {
        search_.is_whole = false;
        break;
      }
      (tried.front().holds == limit.before.holds ? limit.before : limit.after) =
          std::move(tried.front());
    }
    return limit;
  }

  const LevelSource& source_;
  Search& search_;
  const StudyOptions& options_;
  bool is_of_whole_numbers_ = false;
};

}  // namespace

Search find(const LevelSource& source, const std::string& path, double low, double high,
            const Wish& wish, std::optional<double> width, const StudyOptions& options) {
  if (!(low < high)) throw UsageError("a range goes up, from a lower to a higher value");
  if (!wish.at_least && !wish.at_most) throw UsageError("there is no limit that is wished for");
  if (width && !(*width > 0.0)) throw UsageError("a width is above 0");
  Search search;
  search.path = path;
  search.wish = wish;
  search.figure = figure_called(source({}), wish.figure);
  search.width = width.value_or((high - low) / 1000.0);
  LimitFinder(source, search, options).find(low, high);
  return search;
}

}  // namespace gaze
