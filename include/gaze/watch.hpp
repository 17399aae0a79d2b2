#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/simulation.hpp"

/// Watching what one agent perceives of another over a stretch of a run.
namespace gaze {

struct WatchRow {
  double seconds = 0.0;
  Mode mode = Mode::post;
  Awareness awareness = Awareness::unaware;
  std::optional<Sense> by;  ///< Once noticed.
  Verdict verdict;          ///< Without tests for an agent without sight.
  double distance = 0.0;    ///< Between the feet, in all three axes, metres: also without sight.
  std::string broke;        ///< What passed in the row before and fails now, or the other way.
};

/// Collects rows; each says which limits were crossed since the one before.
class Watch {
 public:
  Watch(AgentId agent, AgentId other) : agent_(agent), other_(other) {}

  void add(const Simulation& simulation);
  const std::vector<WatchRow>& rows() const { return rows_; }

 private:
  AgentId agent_;
  AgentId other_;
  std::vector<WatchRow> rows_;
};

}  // namespace gaze
