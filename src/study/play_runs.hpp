#pragma once

#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <atomic>
#include <mutex>
#include <optional>
#include <span>
#include <thread>
#include <vector>

#include "gaze/prepared.hpp"
#include "gaze/tools/figures.hpp"
#include "gaze/tools/study.hpp"

#if defined(__has_feature)
#if __has_feature(thread_sanitizer)
#define GAZE_THREADS_ARE_WATCHED
#endif
#endif

namespace gaze {

using FigureNumbers = std::vector<std::optional<double>>;

/// Counts what is done, and asks whether to go on.
class Account {
 public:
  Account(std::size_t all, const StudyOptions& options) : all_(all), options_(options) {}

  bool goes_on() const { return goes_on_.load(std::memory_order_relaxed); }
  void count_one() {
    const std::lock_guard lock(mutex_);
    ++done_;
    ask();
  }
  /// Returns whether the study continues. Called during a run.
  bool asks() {
    const std::lock_guard lock(mutex_);
    ask();
    return goes_on();
  }

 private:
  void ask() {
    if (options_.goes_on && !options_.goes_on(done_, all_)) goes_on_ = false;
  }

  std::size_t all_;
  const StudyOptions& options_;
  std::mutex mutex_;
  std::size_t done_ = 0;
  std::atomic<bool> goes_on_{true};
};

/// Plays a level to its end, and calls `each(simulation)` at its beginning and after each step.
/// @return False if the study was cancelled.
template <typename Each>
bool play_to_end(Simulation& simulation, Account& account, const Each& each) {
  constexpr std::int64_t kTicksBetween = 256;
  const Level& level = simulation.level();
  const std::int64_t last = nearest_tick(level.seconds, level.ticks_per_second);
  each(simulation);
  while (simulation.tick() < last) {
    if (simulation.tick() % kTicksBetween == 0 && !account.asks()) return false;
    simulation.step();
    each(simulation);
  }
  return true;
}

/// Plays a level to its end. @return Its figures; nothing if the study was cancelled.
[[nodiscard]] std::optional<FigureNumbers> play_run(const Prepared& prepared,
                                                    std::span<const Figure> figures,
                                                    Account& account);

/// As many threads as asked for, be there as many cores or not; 0: as many as there are cores.
class Crew {
 public:
  explicit Crew(unsigned threads)
      : arena_(threads == 0 ? tbb::task_arena::automatic : static_cast<int>(threads)) {
    if (threads > 0) limit_.emplace(tbb::global_control::max_allowed_parallelism, threads);
  }

  /// Calls `each(i)` once for all numbers below a count, in any order, so many in a row. It may
  /// throw.
  template <typename Each>
  void share(std::size_t count, std::size_t in_a_row, const Each& each) {
#ifdef GAZE_THREADS_ARE_WATCHED
    // The thread sanitizer does not see by what TBB's threads wait for each other, and would take
    // all that one hands to the next for a race.
    std::atomic<std::size_t> next{0};
    const auto work = [&] {
      for (std::size_t i = next.fetch_add(in_a_row); i < count; i = next.fetch_add(in_a_row)) {
        for (std::size_t k = i; k < std::min(count, i + in_a_row); ++k) each(k);
      }
    };
    std::vector<std::thread> threads;
    for (int i = 0; i < arena_.max_concurrency(); ++i) threads.emplace_back(work);
    for (std::thread& thread : threads) thread.join();
#else
    arena_.execute([&] {
      tbb::parallel_for(
          tbb::blocked_range<std::size_t>(0, count, in_a_row),
          [&](const tbb::blocked_range<std::size_t>& range) {
            for (std::size_t i = range.begin(); i < range.end(); ++i) each(i);
          },
          tbb::simple_partitioner());
    });
#endif
  }

 private:
  std::optional<tbb::global_control> limit_;
  tbb::task_arena arena_;
};

/// Calls `each(i, account)` once for each number i below a count, on `options.threads` threads, in
/// any order. `each` returns false if it was cancelled, and may throw.
/// @return For each number, whether its call was completed.
template <typename Each>
std::vector<char> for_all(std::size_t count, const StudyOptions& options, Each&& each) {
  std::vector<char> is_done(count, 0);
  Account account(count, options);
  Crew(options.threads).share(count, 1, [&](std::size_t i) {
    if (!account.goes_on()) return;
    if (!each(i, account)) return;
    is_done[i] = 1;
    account.count_one();
  });
  return is_done;
}

}  // namespace gaze
