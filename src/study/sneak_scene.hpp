#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/world.hpp"
#include "study/sneak.hpp"

/// All that a search for a way that nobody notices goes by: who goes, where, past whom, and when.
namespace gaze {

/// The level with whoever goes driven from outside, with the body that is asked for.
struct SneakLevel {
  Level level;
  std::uint32_t who = 0;
};

class SneakScene {
 public:
  /// Throws UsageError for an agent or kind that there is not, and places off the floor.
  SneakScene(const Level& given, const SneakTask& task, SneakEffort& effort);

  /// Whether there are not too many places and moments for a search.
  bool fits() const { return floor.columns > 0; }
  double seconds_of(std::uint32_t moment) const;
  /// In the square of a place that at its height; kNoSpot if there is none.
  std::uint32_t spot_of(const Vector3d& place) const;
  /// Whether a body gets straight on from the middle of a place to the goal, which is close to it.
  bool leads_to_goal(std::uint32_t spot) const;
  /// The nearest place whose middle does.
  std::optional<std::uint32_t> spot_before_goal() const;
  bool is_goal_reachable() const;
  /// Why it cannot be proven that there is no way, whatever is searched; empty: it can.
  std::string doubt() const;
  /// What shuts the start off from the goal now and may open or break in play; empty: nothing does.
  std::string what_may_open() const;
  /// The same scene over the floor without the solids that may go in play and the areas that may
  /// open; watchers still look at those solids. Nothing if there are none.
  std::optional<SneakScene> opened() const;

  const SneakTask& task;
  SneakEffort& effort;
  SneakLevel own;
  World world;
  Sneaker sneaker;
  NavigationMesh mesh;
  Vector3d start{0.0, 0.0, 0.0};
  Vector3d goal{0.0, 0.0, 0.0};
  SneakFloor floor;
  std::size_t moments = 0;
  std::vector<Watcher> watchers;

 private:
  void lay_out();
  void cover_floor(double size);
};

/// An agent that blocks the path.
struct BodyInTheWay {
  Vector3d place{0.0, 0.0, 0.0};
  double radius = 0.0;  ///< Metres.
  bool stays = false;   ///< True if it moves only after noticing an agent.
};

/// Failure of a path in a run: the sneaking agent is noticed, defeated or blocked.
struct Mishap {
  double seconds = 0.0;
  std::optional<BodyInTheWay> in_the_way;
};

/// Runs `result.track` and records the most evidence that any agent gathers. Returns the first
/// failure, or nothing.
[[nodiscard]] std::optional<Mishap> play_way(const SneakScene& scene, Sneak& result);

/// The places on the shortest way that cannot be reached, the first that somebody surely sees, with
/// all that do, and for each the least change of it alone that opens a way.
void name_barriers(Sneak& result, const SneakScene& scene, const SneakSearch& loose,
                   const Perception& sure);

/// Searches once, over the places that the task names.
[[nodiscard]] Sneak sneak_once(const SneakScene& scene);

}  // namespace gaze
