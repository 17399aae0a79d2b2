#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/acquaintance.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

/// Watching what one agent perceives of another over a stretch of a run.
GAZE_PUBLIC_BEGIN
namespace gaze {

struct WatchRow {
  double seconds = 0.0;
  Mode mode = Mode::post;
  Awareness awareness = Awareness::unaware;
  std::optional<Sense> by;                 ///< Once noticed.
  Verdict verdict;                         ///< Without tests for an agent without sight.
  std::optional<NearnessAnswer> nearness;  ///< If it has that sense.
  std::optional<NoiseAnswer> noise;        ///< If it hears: the last noise that the other made.
  double distance = 0.0;  ///< Between the feet, in all three axes, metres: also without sight.
  std::string broke;      ///< What passed in the row before and fails now, or the other way.
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

/// What came of a whole run: when one agent noticed the other, or what kept it from that.
struct Overview {
  struct Noticed {
    double from = 0.0;  ///< Seconds: the first row at which it did.
    double to = 0.0;    ///< Seconds: the last row at which it still did.
    std::optional<Sense> by;
  };
  /// A test of sight over all rows.
  struct Test {
    std::string name;
    double failed = 0.0;  ///< Seconds.
    double best = 0.0;    ///< What was measured where it came nearest to passing, or passed best.
    double limit = 0.0;   ///< The limit at that moment.
    double at = 0.0;      ///< Seconds: when that was.
  };
  double seconds = 0.0;  ///< Of all rows.
  std::vector<Noticed> noticed;
  std::vector<Test> tests;              ///< Range, field of view, up and down; without sight none.
  double hidden = 0.0;                  ///< Seconds without a line of sight.
  std::vector<std::string> solids;      ///< What was in the way, each once.
  std::vector<std::string> hindrances;  ///< Why it did not look for the other at all, each once.
  double seen = 0.0;        ///< Seconds: the longest time for which all tests passed on end.
  double seen_from = 0.0;   ///< Seconds: when that began.
  double evidence = 0.0;    ///< The most that it gathered, [0, 1].
  double nearest = 0.0;     ///< Metres between the feet where they were nearest.
  double nearest_at = 0.0;  ///< Seconds: when that was.
};

/// Looks over a run step by step, and keeps what came of it.
class Overlook {
 public:
  Overlook(AgentId agent, AgentId other) : agent_(agent), other_(other) {}

  /// To be called at each tick.
  void add(const Simulation& simulation);
  const Overview& so_far() const { return all_; }

 private:
  void add_noticed(const WatchRow& row);
  void add_sight(const WatchRow& row);
  void add_test(const char* name, double value, double limit, bool pass, const WatchRow& row);

  AgentId agent_;
  AgentId other_;
  Overview all_;
  double step_ = 0.0;  ///< Seconds.
  double seen_from_ = 0.0;
  bool is_first_ = true;
  bool was_noticed_ = false;
  bool was_seen_ = false;
};

}  // namespace gaze
GAZE_PUBLIC_END
