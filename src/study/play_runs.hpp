#pragma once

#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <atomic>
#include <mutex>
#include <optional>
#include <span>
#include <vector>

#include "gaze/prepared.hpp"
#include "gaze/tools/figures.hpp"
#include "gaze/tools/study.hpp"

namespace gaze {

using FigureNumbers = std::vector<std::optional<double>>;

/// Plays a level to its end, and takes figures.
[[nodiscard]] FigureNumbers play_run(const Prepared& prepared, std::span<const Figure> figures);

/// Counts what is done, and asks whether to go on.
class Account {
 public:
  Account(std::size_t all, const StudyOptions& options) : all_(all), options_(options) {}

  bool goes_on() const { return goes_on_.load(std::memory_order_relaxed); }
  void count_one() {
    const std::lock_guard lock(mutex_);
    ++done_;
    if (options_.goes_on && !options_.goes_on(done_, all_)) goes_on_ = false;
  }

 private:
  std::size_t all_;
  const StudyOptions& options_;
  std::mutex mutex_;
  std::size_t done_ = 0;
  std::atomic<bool> goes_on_{true};
};

/// Calls `each(i)` once for all numbers below a count, on as many threads as asked for, in any
/// order. It may throw. @return By number, whether it was done before the study was ended.
template <typename Each>
std::vector<char> for_all(std::size_t count, const StudyOptions& options, Each&& each) {
  std::vector<char> is_done(count, 0);
  Account account(count, options);
  // As many as asked for, be there as many cores or not.
  std::optional<tbb::global_control> limit;
  if (options.threads > 0) {
    limit.emplace(tbb::global_control::max_allowed_parallelism, options.threads);
  }
  const int threads =
      options.threads == 0 ? tbb::task_arena::automatic : static_cast<int>(options.threads);
  tbb::task_arena(threads).execute([&] {
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, count, 1),
        [&](const tbb::blocked_range<std::size_t>& range) {
          for (std::size_t i = range.begin(); i < range.end() && account.goes_on(); ++i) {
            each(i);
            is_done[i] = 1;
            account.count_one();
          }
        },
        tbb::simple_partitioner());
  });
  return is_done;
}

}  // namespace gaze
