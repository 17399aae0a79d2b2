#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "gaze/simulation.hpp"

namespace gaze::serve {

/// What somebody does with a thing, once.
struct HandDeed {
  enum class What : std::uint8_t { take, throw_, drop };
  What what = What::take;         ///< Of things to take the nearest one.
  Vector3d place{0.0, 0.0, 0.0};  ///< To throw to.
};

/// What it means for an agent at the current moment; nothing if there is nothing to do it with.
[[nodiscard]] std::optional<TrackDeed> meant(const Simulation& game, AgentId agent,
                                             const HandDeed& deed);

/// One change of what the hand does, before the step from its tick to the next.
struct Input {
  std::int64_t tick = 0;
  std::string agent;
  std::optional<Steering> steering;  ///< From now on; nothing, and no deed: it is let go.
  std::optional<HandDeed> deed;
};

/// All that was done by hand in a play, in order of time. With the level it makes the play.
class Inputs {
 public:
  [[nodiscard]] bool empty() const { return hands_.empty(); }

  /// Adds one, later than or at the tick of the last. Who does something has to be steered. Who is
  /// steered as before adds nothing.
  void add(const Input& input);
  /// Forgets what was done at that tick and later.
  void cut(std::int64_t tick);

  /// The same at other steps a second: each at the tick nearest to its time.
  [[nodiscard]] Inputs at_rate(int before, int now) const;

  /// Does what is to be done before the step from the current tick on. What the level has no
  /// longer, or no longer allows, is left out. O(log n) for each agent that is steered.
  void apply(Simulation& game) const;

  /// How an agent is steered at a tick, if it is.
  [[nodiscard]] std::optional<Steering> steering(const std::string& agent, std::int64_t tick) const;

 private:
  struct Steered {
    std::int64_t tick = 0;
    std::optional<Steering> steering;
  };
  struct Done {
    std::int64_t tick = 0;
    HandDeed deed;
  };
  /// What was done with one agent.
  struct Hand {
    std::vector<Steered> steered;
    std::vector<Done> done;
  };

  static const Steered* last(const Hand& hand, std::int64_t tick);

  std::map<std::string, Hand> hands_;
};

}  // namespace gaze::serve
