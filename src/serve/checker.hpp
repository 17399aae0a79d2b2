#pragma once

#include <atomic>
#include <condition_variable>
#include <mutex>
#include <optional>
#include <thread>
#include <vector>

#include "gaze/tools/expect.hpp"
#include "gaze/tools/finding.hpp"

namespace gaze::serve {

/// What is known of a level beside its play.
struct Checked {
  bool is_done = false;
  std::vector<Finding> findings;
  std::vector<ExpectResult> expectations;
};

/// Judges a level and plays its expectations beside the play, in a thread of its own.
class Checker {
 public:
  Checker();
  ~Checker();  ///< Cancels the check and waits for it: at most one part of `judge`, or 256 ticks.
  Checker(const Checker&) = delete;
  Checker& operator=(const Checker&) = delete;

  /// Begins anew with a level, at once; what was going on is given up.
  void check(Level level, LevelSource source);

  /// Counts up with each answer.
  [[nodiscard]] int revision() const { return revision_.load(); }
  [[nodiscard]] Checked checked() const;

 private:
  struct Job {
    Level level;
    LevelSource source;
    int number = 0;
  };

  void run();
  void work(const Job& job);
  [[nodiscard]] bool is_current(const Job& job) const { return wanted_.load() == job.number; }
  void tell(const Job& job, Checked checked);

  mutable std::mutex mutex_;
  std::condition_variable comes_;
  std::optional<Job> next_;
  Checked checked_;
  std::atomic<int> wanted_{0};  ///< The number of the last job; below 0: it ends.
  std::atomic<int> revision_{0};
  std::thread thread_;
};

}  // namespace gaze::serve
