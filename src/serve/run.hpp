#pragma once

#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "gaze/simulation.hpp"
#include "gaze/tools/figures.hpp"
#include "serve/inputs.hpp"

namespace gaze::serve {

/// So many ticks lie between two samples of trails.
[[nodiscard]] std::int64_t trail_step(const Level& level);

/// Where all agents were, ten times a second.
class TrailLog {
 public:
  void add(const Simulation& game);
  void cut(std::int64_t tick);

  /// The places of an agent from a tick up to another, in the plan.
  [[nodiscard]] std::vector<Vector2d> of(AgentId agent, std::int64_t from, std::int64_t to) const;

 private:
  struct Sample {
    std::int64_t tick = 0;
    std::vector<std::pair<AgentId, Eigen::Vector2f>> places;
  };
  std::vector<Sample> samples_;
};

/// What is left of a play after another took its place.
struct Past {
  std::shared_ptr<const Simulation> last;  ///< For names.
  std::int64_t end = 0;
  std::vector<Event> events;
  TrailLog trails;
  std::vector<Figure> figures;
  std::vector<FigureValue> values;
};

/// One play of a level: what the hand did, and all that came of it. Every moment of it can be gone
/// back to, exactly: snapshots are kept, and the steps from the nearest one are played again.
class Run {
 public:
  Run(std::shared_ptr<const Prepared> prepared, Inputs inputs);

  [[nodiscard]] const Simulation& game() const { return game_; }  ///< At the current moment.
  [[nodiscard]] const Inputs& inputs() const { return inputs_; }
  [[nodiscard]] std::int64_t end() const { return end_; }  ///< So far it has been played.
  /// Those up to the end. They live as long as the run.
  [[nodiscard]] const std::vector<Event>& events() const { return events_; }
  [[nodiscard]] const TrailLog& trails() const { return trails_; }
  [[nodiscard]] const std::vector<Figure>& figures() const { return figures_; }
  /// What the figures come to, up to the end.
  [[nodiscard]] std::vector<FigureValue> figure_values() const { return measures_->values(); }

  /// Plays one tick: as before, or a new one after the end. If the tick throws, the game is
  /// unchanged and the inputs of that tick are removed.
  void step();
  /// To any tick from 0 to the end; beyond it the run is played on.
  void go_to(std::int64_t tick);
  /// From the current moment on something else is done: what came later is forgotten.
  void change(Input input);

  /// A game at another moment of this run, to look at.
  [[nodiscard]] Simulation at(std::int64_t tick) const;

  /// How many events were left each time that later ones were forgotten.
  [[nodiscard]] const std::vector<std::size_t>& cuts() const { return cuts_; }

  [[nodiscard]] Past past() const;

 private:
  void take_back_step();
  void note();
  void keep_snapshot();
  void forget_later();
  void measure_anew();

  std::shared_ptr<const Prepared> prepared_;
  Inputs inputs_;
  Simulation game_;
  std::int64_t end_ = 0;
  std::map<std::int64_t, std::shared_ptr<const Simulation>> snapshots_;
  std::vector<Event> events_;
  std::vector<std::size_t> cuts_;
  TrailLog trails_;
  std::vector<Figure> figures_;
  std::optional<Figures> measures_;
};

}  // namespace gaze::serve
