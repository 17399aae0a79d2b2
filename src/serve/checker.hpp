#pragma once

#include <atomic>
#include <memory>
#include <mutex>
#include <string>
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
  Checker() = default;
  ~Checker() { stop(); }
  Checker(const Checker&) = delete;
  Checker& operator=(const Checker&) = delete;

  /// Begins anew with a level; what was going on is given up.
  void check(Level level, LevelSource source);
  void stop();

  /// Counts up with each answer.
  [[nodiscard]] int revision() const { return revision_.load(); }
  [[nodiscard]] Checked checked() const;

 private:
  void work(const Level& level, const LevelSource& source);
  void tell(Checked checked);

  mutable std::mutex mutex_;
  Checked checked_;
  std::atomic<int> revision_{0};
  std::atomic<bool> ends_{false};
  std::thread thread_;
};

}  // namespace gaze::serve
