#pragma once

#include <string>
#include <vector>

#include "serve/run.hpp"

namespace gaze::serve {

/// What one agent measured of another over the last minute of a play.
class History {
 public:
  /// Of a pair anew. Throws UsageError for agents that there are not.
  void begin(const Run& run, std::string agent, std::string other);
  /// Goes on to the end of the play, if that has gone on.
  void go_on(const Simulation& game);
  /// True if the play has gone on by more than one sample since it was last looked at.
  [[nodiscard]] bool has_missed(const Run& run) const;
  [[nodiscard]] std::string message() const;

 private:
  void add(const Simulation& game);
  void forget_old(std::int64_t now, int ticks_per_second);

  std::string agent_;
  std::string other_;
  std::vector<std::int64_t> ticks_;
  std::vector<double> distance_;
  std::vector<double> angle_;
  std::vector<double> visible_;
  std::vector<double> evidence_;
  double range_ = 0.0;
  double half_field_ = 0.0;
};

}  // namespace gaze::serve
