#pragma once

#include <csignal>

#include "commands.hpp"
#include "gaze/tools/study.hpp"

namespace gaze::cli {

/// While it lives, Ctrl-C ends the study that goes on instead of the command, and on a terminal
/// what goes on shows how far it is.
class Studying {
 public:
  /// @param what  What there are many of: "runs".
  Studying(const Streams& streams, const char* what);
  Studying(const Studying&) = delete;
  Studying& operator=(const Studying&) = delete;
  ~Studying();

  [[nodiscard]] const StudyOptions& options() const { return options_; }
  /// True if somebody has ended it; then that is told. The status of the command is `ended_early`
  /// then.
  [[nodiscard]] bool was_ended();

 private:
  bool goes_on(std::size_t done, std::size_t all);

  const Streams& streams_;
  const char* what_;
  StudyOptions options_;
  std::size_t done_ = 0;
  std::size_t all_ = 0;
  double begun_ = 0.0;  ///< Seconds.
  double shown_ = 0.0;
  bool has_line_ = false;
  struct sigaction before_ {};
};

/// Reads the level of a call with more values set.
[[nodiscard]] LevelSource source_of(const LevelOptions& options);

}  // namespace gaze::cli
