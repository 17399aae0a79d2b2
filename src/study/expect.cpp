#include "gaze/tools/expect.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>

#include "level/numbers.hpp"
#include "level/spelling.hpp"
#include "study/play_runs.hpp"

namespace gaze {
namespace {

/// `exactly` is meant to this, in the unit of the figure.
constexpr double kExact = 1e-6;

// What does not come comes later than any limit.
bool never_comes(const Figure& figure) {
  return figure.first.has_value() || !figure.between.empty();
}

std::optional<double> missed_by(const Expectation& expectation, double value) {
  if (expectation.at_least && value < *expectation.at_least) return *expectation.at_least - value;
  if (expectation.at_most && value > *expectation.at_most) return value - *expectation.at_most;
  if (expectation.exactly && std::abs(value - *expectation.exactly) > kExact) {
    return std::abs(value - *expectation.exactly);
  }
  return std::nullopt;
}

std::string where_text(const Simulation& game, AgentId who) {
  return fmt::format("{} at {}", game.id_of(who),
                     place_text(game.level().plane, game.state(who).position));
}

Explained explained(const Simulation& game, const std::string& what, AgentId who,
                    const std::optional<AgentId>& other) {
  Explained line;
  line.seconds = game.seconds();
  line.what = what;
  line.where = where_text(game, who);
  if (!other) return line;
  line.where += ", " + where_text(game, *other);
  const auto has_sight = [&](AgentId one) {
    return game.level().kind_of(game.level().agents[one.index]).sight.has_value();
  };
  if (has_sight(who)) {
    line.verdict = explain(game.look(who, *other));
  } else if (has_sight(*other)) {
    line.verdict = explain(game.look(*other, who));
  }
  return line;
}

// What a figure goes by: its own events, or where it is of health all that took some.
Figure with_events(const Figure& figure) {
  const bool is_of_health = figure.least == Quantity::health || figure.most == Quantity::health ||
                            figure.mean == Quantity::health || figure.start == Quantity::health ||
                            figure.end == Quantity::health;
  if (!is_of_health) return figure;
  Figure hurts;
  hurts.count = Happening::hurt;
  hurts.by = figure.by;
  hurts.from = figure.from;
  hurts.to = figure.to;
  return hurts;
}

/// Collects what led to a figure.
class Reasons {
 public:
  Reasons(const Simulation& game, const Figure& figure)
      : figure_(figure), goes_by_(with_events(figure)), measures_(game, {&goes_by_, 1}) {}

  void add(const Simulation& game) {
    measures_.add(game);
    const FigureValue value = measures_.values().front();
    if (value.tick && value.tick != at_) {
      at_ = value.tick;
      moment_ = explained(game, describe(figure_), *value.by, value.of);
    }
    if (goes_by_.last && !value.events.empty()) known_ = 0;
    for (; known_ < value.events.size(); ++known_) {
      const Event& event = value.events[known_];
      if (event.tick != game.tick()) continue;
      if (goes_by_.last) lines_.clear();
      lines_.push_back(explained(game, game.describe(event), event.agent, event.other));
    }
  }

  // The last of many events decide.
  std::vector<Explained> take() {
    constexpr std::size_t kMostTold = 8;
    if (lines_.size() > kMostTold) lines_.erase(lines_.begin(), lines_.end() - kMostTold);
    if (moment_) lines_.push_back(*moment_);
    return std::move(lines_);
  }

 private:
  const Figure& figure_;
  Figure goes_by_;
  Figures measures_;
  std::size_t known_ = 0;  ///< Of the events.
  std::optional<std::int64_t> at_;
  std::optional<Explained> moment_;
  std::vector<Explained> lines_;
};

// Plays a run once more, and tells what made its number.
std::vector<Explained> reasons_of(const Prepared& prepared, const Figure& figure,
                                  Account& account) {
  Simulation game(prepared);
  Reasons reasons(game, figure);
  play_to_end(game, account, [&](const Simulation& now) { reasons.add(now); });
  return reasons.take();
}

Level level_with(const LevelSource& source, const Expectation& expectation) {
  std::vector<Setting> settings;
  for (const auto& [path, value] : expectation.set) {
    settings.push_back({path, value, fmt::format("expect.{}.set", expectation.id)});
  }
  return source(settings);
}

/// The runs of one expectation among all.
struct Task {
  ExpectResult result;
  Prepared prepared;
  std::size_t first = 0;  ///< Of all runs.

  Prepared run(std::size_t number) const {
    return result.seeds.size() == 1 ? prepared : prepared.with_seed(result.seeds[number]);
  }
};

Task task_of(const LevelSource& source, const Expectation& expectation) {
  const Level level = level_with(source, expectation);
  ExpectResult result;
  result.expectation = expectation;
  result.figure = figure_called(level, expectation.figure);
  const auto runs = static_cast<std::size_t>(expectation.runs);
  result.values.resize(runs);
  for (std::size_t i = 0; i < runs; ++i) result.seeds.push_back(runs == 1 ? level.seed : i + 1);
  return {std::move(result), Prepared(level), 0};
}

void judge(Task& task, Account& account) {
  ExpectResult& result = task.result;
  const Expectation& expectation = result.expectation;
  std::optional<std::size_t> failing;
  for (std::size_t i = 0; i < result.values.size(); ++i) {
    const bool is_right = is_kept(expectation, result.figure, result.values[i]);
    result.held += is_right ? 1 : 0;
    if (!is_right && !failing) failing = i;
  }
  const auto runs = static_cast<double>(result.values.size());
  // A share in decimals may lie beside its number of runs by rounding.
  constexpr double kRounding = 1e-9;
  result.holds = static_cast<double>(result.held) >= expectation.of_runs * runs - kRounding;
  result.told = failing.value_or(0);
  if (!failing) return;
  const auto& value = result.values[*failing];
  if (value) result.missed_by = missed_by(expectation, *value);
  if (!result.holds) result.reasons = reasons_of(task.run(*failing), result.figure, account);
}

std::vector<Expectation> chosen(const Level& level, std::span<const std::string> only) {
  std::vector<std::string> known;
  for (const Expectation& one : level.expectations) known.push_back(one.id);
  for (const std::string& id : only) {
    if (std::find(known.begin(), known.end(), id) != known.end()) continue;
    throw UsageError(fmt::format("there is no expectation '{}'{}", id, suggestion(id, known)));
  }
  std::vector<Expectation> result;
  for (const Expectation& one : level.expectations) {
    const bool is_chosen =
        only.empty() || std::find(only.begin(), only.end(), one.id) != only.end();
    if (is_chosen) result.push_back(one);
  }
  return result;
}

}  // namespace

bool is_kept(const Expectation& expectation, const Figure& figure,
             const std::optional<double>& value) {
  if (expectation.never) return !value;
  if (value) return !missed_by(expectation, *value);
  return never_comes(figure) && !expectation.at_most && !expectation.exactly;
}

std::string limit_text(const Expectation& expectation, const Figure& figure) {
  if (expectation.never) return "never";
  const std::string_view unit = unit_of(figure);
  const std::string after = unit.empty() ? "" : fmt::format(" {}", unit);
  std::string text;
  const auto add = [&](const char* what, const std::optional<double>& limit) {
    if (!limit) return;
    text += fmt::format("{}{} {}{}", text.empty() ? "" : ", ", what, *limit, after);
  };
  add("at least", expectation.at_least);
  add("at most", expectation.at_most);
  add("exactly", expectation.exactly);
  return text;
}

std::vector<ExpectResult> expect(const LevelSource& source, std::span<const std::string> only,
                                 const StudyOptions& options) {
  std::vector<Task> tasks;
  for (const Expectation& one : chosen(source({}), only)) tasks.push_back(task_of(source, one));
  std::vector<std::pair<std::size_t, std::size_t>> runs;  // task, run of it
  for (std::size_t t = 0; t < tasks.size(); ++t) {
    tasks[t].first = runs.size();
    for (std::size_t i = 0; i < tasks[t].result.values.size(); ++i) runs.emplace_back(t, i);
  }
  std::vector<double> taken(runs.size());
  const auto is_done = for_all(runs.size(), options, [&](std::size_t i, Account& account) {
    const auto begin = std::chrono::steady_clock::now();
    Task& task = tasks[runs[i].first];
    const std::size_t run = runs[i].second;
    const auto numbers = play_run(task.run(run), {&task.result.figure, 1}, account);
    if (!numbers) return false;
    task.result.values[run] = numbers->front();
    taken[i] = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    return true;
  });
  Account account(runs.size(), options);  // for the runs that are played once more
  std::vector<ExpectResult> results;
  for (Task& task : tasks) {
    const std::size_t end = task.first + task.result.values.size();
    const auto first = is_done.begin() + static_cast<std::ptrdiff_t>(task.first);
    if (std::count(first, is_done.begin() + static_cast<std::ptrdiff_t>(end), 0) > 0) continue;
    for (std::size_t i = task.first; i < end; ++i) task.result.wall_seconds += taken[i];
    judge(task, account);
    results.push_back(std::move(task.result));
  }
  return results;
}

}  // namespace gaze
