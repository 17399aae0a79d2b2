#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "gaze/navigation.hpp"
#include "gaze/simulation.hpp"
#include "gaze/tools/sneak.hpp"
#include "study/play_runs.hpp"

/// How a way that nobody notices is searched for: places of a floor, at moments that lie so far
/// apart that a body at full speed gets just from one place to the next.
namespace gaze {

constexpr std::uint32_t kNoSpot = 0xFFFFFFFF;

/// The places of a floor: squares in rows about the start, which is in the middle of one of them.
/// Where floors lie above each other a square has a place for each. By place, if nothing else is
/// said.
struct SneakFloor {
  Vector2d low{0.0, 0.0};  ///< The middle of the first square.
  double size = 0.25;      ///< Of a square, metres.
  int columns = 0;
  int rows = 0;
  double climb = 0.0;  ///< So far up or down a body gets on the way to a neighbour, at most.
  std::vector<std::uint32_t> first;  ///< By square: its first place; one more at the end.
  std::vector<int> column;
  std::vector<int> row;
  std::vector<double> height;        ///< Of the floor in the middle of the place.
  std::vector<double> spread;        ///< So much higher or lower than that it is elsewhere in it,
  std::vector<double> spread_about;  ///< and in it and its neighbours.
  std::vector<std::optional<MeshPlace>> stands;  ///< Where a body stands in the middle, if it can.
  /// To which place it can go straight on, by direction.
  std::vector<std::array<std::uint32_t, 8>> joins;

  std::size_t count() const { return column.size(); }
  std::size_t squares() const { return static_cast<std::size_t>(columns) * std::size_t(rows); }
  std::size_t at(int x, int y) const {
    return static_cast<std::size_t>(y) * std::size_t(columns) + std::size_t(x);
  }
  std::size_t square(std::uint32_t spot) const { return at(column[spot], row[spot]); }
  std::uint32_t first_of_row(int y) const { return first[at(0, y)]; }

  Vector3d place(std::uint32_t spot) const {
    return {low.x() + column[spot] * size, low.y() + row[spot] * size, height[spot]};
  }

  /// Calls `each(other)` for a place and all to which a body may get from it over one square.
  template <typename Each>
  void for_near(std::uint32_t spot, const Each& each) const {
    const int west = std::max(0, column[spot] - 1);
    const int east = std::min(columns - 1, column[spot] + 1);
    for (int y = std::max(0, row[spot] - 1); y <= std::min(rows - 1, row[spot] + 1); ++y) {
      const std::uint32_t end = first[at(east, y) + 1];
      for (std::uint32_t other = first[at(west, y)]; other < end; ++other) {
        const double gap = std::abs(height[other] - height[spot]) - spread[other] - spread[spot];
        if (gap <= climb) each(other);
      }
    }
  }
};

/// To the neighbours in the order of `joins`: east, north-east, and so on round.
inline constexpr std::array<std::array<int, 2>, 8> kNeighbours{
    {{1, 0}, {1, 1}, {0, 1}, {-1, 1}, {-1, 0}, {-1, -1}, {0, -1}, {1, -1}}};

/// A watcher as it would be without anybody to notice.
struct WatcherAt {
  Looker looker;
  std::vector<BallPath> feelers;  ///< Up to what they meet.
  bool is_up = false;
  bool has_kept_still = false;      ///< Since the moment before.
  std::vector<char> zone_is_spent;  ///< By zone: it is triggered no more.
};

/// One that might notice.
struct Watcher {
  AgentId agent;
  std::string id;
  Kind kind;
  double ebb = 0.0;            ///< Evidence lost in one moment unseen; 1: all of it.
  std::vector<WatcherAt> at;   ///< By moment.
  bool has_moved = false;      ///< Since the last of them; while they are collected.
  bool may_turn_away = false;  ///< Whether it looks for whoever goes may change by a zone's tags.
};

/// Who goes, and how it looks to watchers.
struct Sneaker {
  Kind kind;
  std::vector<char> triggers;  ///< By zone: its steps into it set it off.
  double speed = 0.0;
  int ticks = 1;  ///< From one moment to the next.
};

/// How far a watcher can perceive anything, however it stands.
[[nodiscard]] double reach_of(const Watcher& watcher, const Level& level, const Sneaker& sneaker);

[[nodiscard]] double heard_from(const Kind& watcher, const Sneaker& sneaker);

/// How much a search has looked, and how much it may.
class SneakEffort {
 public:
  explicit SneakEffort(const StudyOptions& options) : options_(options), crew_(options.threads) {}

  /// @return False if the search is to end: it has looked enough, or the host ends it.
  bool goes_on(std::size_t done, std::size_t all);
  void count(std::uint64_t looks) { looks_ += looks; }

  bool is_ended() const { return is_ended_; }  ///< By the host.
  bool is_used_up() const { return looks_ > kMostLooks; }

  /// Calls `each(row)` for all rows of a floor, in any order, on as many threads as asked for.
  template <typename Each>
  void for_rows(const SneakFloor& floor, const Each& each) {
    constexpr std::size_t kWorthSharing = 8'000;
    if (floor.count() < kWorthSharing) {
      for (int row = 0; row < floor.rows; ++row) each(row);
    } else {
      crew_.share(static_cast<std::size_t>(floor.rows), 8,
                  [&](std::size_t row) { each(static_cast<int>(row)); });
    }
  }

  static constexpr std::uint64_t kMostLooks = 60'000'000;

 private:
  const StudyOptions& options_;
  Crew crew_;
  std::uint64_t looks_ = 0;
  bool is_ended_ = false;
};

/// All observers, for each tick of the search.
[[nodiscard]] std::vector<Watcher> watchers_of(const Level& level, AgentId who,
                                               const Sneaker& sneaker, std::size_t moments,
                                               SneakEffort& effort);

/// A box outside of which nobody perceives anything, and nothing stands: whoever goes out of it
/// gets nowhere sooner, since a way along its edge is as short.
struct SneakExtent {
  Vector2d low{0.0, 0.0};
  Vector2d high{0.0, 0.0};
};

[[nodiscard]] SneakExtent extent_of(const NavigationMesh& mesh, const Level& level,
                                    const std::vector<Watcher>& watchers, const Sneaker& sneaker,
                                    const Vector3d& start, const Vector3d& goal);

/// @param size  Of a place.
[[nodiscard]] SneakFloor sneak_floor(const NavigationMesh& mesh, const Vector3d& start,
                                     const SneakExtent& extent, double size, SneakEffort& effort);

/// What the watchers perceive at one moment of the places that were asked for.
struct Seen {
  std::vector<std::uint32_t> row;    ///< By place: from 1 on; 0: nobody perceives it.
  std::vector<float> gain;           ///< By row and watcher.
  std::vector<std::uint8_t> whole;   ///< The same.
  std::vector<std::uint32_t> spots;  ///< By row, from 1 on.
};

/// What they perceive: as it is in the middle of each place, or what is certain wherever in the
/// place the body is. Places are looked at when they are asked for; what a watcher sees that keeps
/// still is remembered.
enum class Certainty { middle, surely };
class Perception {
 public:
  Perception(const SneakFloor& floor, const World& world, const Level& level,
             const std::vector<Watcher>& watchers, const Sneaker& sneaker, Certainty certainty,
             SneakEffort& effort);
  ~Perception();
  Perception(const Perception&) = delete;
  Perception& operator=(const Perception&) = delete;

  /// @param near  By square: whether its places are asked for.
  void look(std::uint32_t moment, std::span<const std::uint8_t> near, Seen& seen);
  [[nodiscard]] float gain(std::size_t watcher, std::uint32_t moment, std::uint32_t spot) const;

 private:
  struct Eyes;
  std::unique_ptr<Eyes> eyes_;
};

/// A place at a moment.
struct Step {
  std::uint32_t moment = 0;
  std::uint32_t spot = 0;
};

/// The soonest way over the places, or where it ends.
struct SneakSearch {
  std::vector<Step> way;              ///< From the start on; empty if there is none.
  std::vector<std::uint8_t> reached;  ///< By place: at some moment.
  bool is_whole = true;               ///< False if it was ended before.
};

/// @param shut  Places at moments that are not to be used.
[[nodiscard]] SneakSearch search_strictly(const SneakFloor& floor, Perception& perception,
                                          const std::vector<Watcher>& watchers, std::size_t moments,
                                          std::uint32_t start, std::uint32_t goal,
                                          std::span<const Step> shut, SneakEffort& effort);

/// Over all that may be possible, where each watcher gathers no more than it must on the way that
/// is best for it: if this finds none, there is none.
[[nodiscard]] SneakSearch search_loosely(const SneakFloor& floor, Perception& perception,
                                         const std::vector<Watcher>& watchers, std::size_t moments,
                                         std::uint32_t start, std::uint32_t goal,
                                         SneakEffort& effort);

}  // namespace gaze
