#include "study/play_points.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "study/play_runs.hpp"

namespace gaze {
namespace {

/// So many levels are made ready at once; each may hold meshes of megabytes.
constexpr std::size_t kBatch = 64;

}  // namespace

std::string value_text(double value) {
  if (value == std::floor(value) && std::abs(value) < 1e15)
    return fmt::format("{:.0f}", value + 0.0);
  return fmt::format("{}", value);
}

// What is wrong says with which values: they may be right each for itself.
Level PointPlayer::read(const std::vector<Setting>& settings) {
  const std::lock_guard lock(reading_);
  try {
    return source_(settings);
  } catch (const LevelError& error) {
    std::string with;
    for (const Setting& one : settings) {
      with += fmt::format("{}{} = {}", with.empty() ? "with " : ", ", one.path, one.value);
    }
    std::vector<Fault> faults = error.faults();
    for (Fault& fault : faults) fault.message = fmt::format("{}: {}", with, fault.message);
    throw LevelError(std::move(faults));
  }
}

std::vector<std::optional<PointPlayer::Numbers>> PointPlayer::play(
    const std::vector<std::vector<PathValue>>& combinations) {
  std::vector<std::optional<Numbers>> all(combinations.size());
  const std::size_t runs = combinations.size() * runs_;
  std::size_t before = 0;
  bool goes_on = true;
  StudyOptions counted = options_;
  counted.goes_on = [&](std::size_t done, std::size_t) {
    goes_on = !options_.goes_on || options_.goes_on(before + done, runs);
    return goes_on;
  };
  StudyOptions silent;
  silent.threads = options_.threads;
  for (std::size_t first = 0; first < combinations.size() && goes_on; first += kBatch) {
    const std::size_t count = std::min(kBatch, combinations.size() - first);
    std::vector<std::optional<Prepared>> levels(count);
    for_all(count, silent, [&](std::size_t i, Account&) {
      std::vector<Setting> settings;
      for (const PathValue& one : combinations[first + i]) {
        settings.push_back({one.path, one.value, fmt::format("--over {}", one.path)});
      }
      levels[i].emplace(read(settings));
      return true;
    });
    std::vector<Numbers> numbers(
        count, Numbers(figures_.size(), std::vector<std::optional<double>>(runs_)));
    const auto is_done = for_all(count * runs_, counted, [&](std::size_t i, Account& account) {
      const std::size_t point = i / runs_;
      const std::size_t run = i % runs_;
      const Prepared& level = *levels[point];
      const auto found = play_run(runs_ == 1 ? level : level.with_seed(run + 1), figures_, account);
      if (!found) return false;
      for (std::size_t f = 0; f < found->size(); ++f) numbers[point][f][run] = (*found)[f];
      return true;
    });
    before += count * runs_;
    for (std::size_t point = 0; point < count; ++point) {
      const auto begin = is_done.begin() + static_cast<std::ptrdiff_t>(point * runs_);
      const bool is_whole = std::all_of(begin, begin + static_cast<std::ptrdiff_t>(runs_),
                                        [](char done) { return done != 0; });
      if (is_whole) all[first + point] = std::move(numbers[point]);
    }
  }
  return all;
}

}  // namespace gaze
