#include "study/play_runs.hpp"

#include <algorithm>

namespace gaze {

std::optional<FigureNumbers> play_run(const Prepared& prepared, std::span<const Figure> figures,
                                      Account& account) {
  Simulation simulation(prepared);
  Figures measures(simulation, figures);
  const bool is_whole =
      play_to_end(simulation, account, [&](const Simulation& game) { measures.add(game); });
  if (!is_whole) return std::nullopt;
  FigureNumbers numbers;
  for (const FigureValue& value : measures.values()) numbers.push_back(value.value);
  return numbers;
}

Spread spread_of(const std::vector<std::optional<double>>& values) {
  std::vector<double> some;
  for (const std::optional<double>& value : values) {
    if (value) some.push_back(*value);
  }
  std::sort(some.begin(), some.end());
  Spread spread;
  spread.runs = values.size();
  spread.some = some.size();
  if (some.empty()) return spread;
  const auto rank = [&](double share) {
    const auto at = static_cast<std::size_t>(std::ceil(share * static_cast<double>(some.size())));
    return some[std::max<std::size_t>(at, 1) - 1];
  };
  spread.least = some.front();
  spread.low = rank(0.25);
  spread.median = rank(0.5);
  spread.high = rank(0.75);
  spread.most = some.back();
  for (const double value : some) spread.mean += value / static_cast<double>(some.size());
  return spread;
}

}  // namespace gaze
