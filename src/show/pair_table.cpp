#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <set>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/spelling.hpp"

namespace gaze {
namespace {

std::string harms_text(const PairFigures& pair) {
  std::vector<std::string> texts;
  for (const PairFigures::Harm& harm : pair.harms) texts.push_back(harm_text(harm));
  return texts.empty() ? "-" : fmt::format("{}", fmt::join(texts, ", "));
}

std::string gap_text(const PairFigures& pair) {
  if (!pair.gain) return "-";
  return (*pair.gain > 0.0 ? "+" : "") + number_text(*pair.gain);
}

}  // namespace

std::string pair_table(std::span<const Finding> findings, std::size_t columns) {
  std::size_t by = 2;
  std::size_t whom = 4;
  for (const Finding& finding : findings) {
    if (!finding.pair) continue;
    by = std::max(by, finding.pair->by.size());
    whom = std::max(whom, finding.pair->whom.size());
  }
  const auto row = [&](auto&&... cells) {
    return wrapped(fmt::format("{:<{}}  {:<{}} {:>6} {:>6} {:>7} {:>8} {:>7}  {}\n", cells...),
                   columns, by + whom + 42);
  };
  std::string text;
  std::set<std::string> told;  // agents with values of their own may fare as their kind does
  for (const Finding& finding : findings) {
    if (!finding.pair || !told.insert(finding.message).second) continue;
    const PairFigures& pair = *finding.pair;
    const auto& away = pair.running_away;
    text += row(pair.by, by, pair.whom, whom, number_text(pair.health),
                away ? number_text(away->from) + " m" : "-", away ? number_text(away->lost) : "-",
                !away           ? "-"
                : away->seconds ? number_text(*away->seconds) + " s"
                                : "never",
                gap_text(pair), harms_text(pair));
  }
  if (text.empty()) return text;
  return "\n" +
         row("by", by, "whom", whom, "health", "runs", "loses", "away in", "gap/s",
             "defeated, if all of it hits") +
         text +
         wrapped(
             "(runs, loses, away in: turns and runs straight away from so near, loses at most so "
             "much, and is out of reach then; gap/s: metres by which the gap grows each second of "
             "a chase straight away, below 0 it is caught up with)\n",
             columns, 1);
}

}  // namespace gaze
