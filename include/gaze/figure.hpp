#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/error.hpp"
#include "gaze/happening.hpp"
#include "gaze/public.hpp"
#include "gaze/time.hpp"

/// What a designer measures in a run, and what is expected of it.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// Events of one sort, of somebody and about somebody. A name means an agent, a kind, a team, or
/// whoever holds a tag then; empty: anybody.
struct EventPick {
  Happening event = Happening::noticed;
  std::string by;  ///< Who did or felt it.
  std::string of;  ///< Whom it concerns.
};

/// Numbers that events carry.
enum class Carried : std::uint8_t { damage, health, distance, angle, score };
inline constexpr std::array<std::string_view, 5> kCarriedNames{"damage", "health", "distance",
                                                               "angle", "score"};

/// What can be measured at any moment. Distances are between the feet, in all three axes, metres;
/// angles from where it looks, degrees; `visible` is the share of body points in sight; `evidence`
/// of sight, [0, 1]; the speed is of the last step, metres a second. The first four are of one
/// agent and another, of whom both are in play.
enum class Quantity : std::uint8_t {
  distance,
  angle,
  visible,
  evidence,
  health,
  speed,
  score,
  seen_by,  ///< By so many; of those who look for it, unless it is said of whom.
};
inline constexpr std::array<std::string_view, 8> kQuantityNames{
    "distance", "angle", "visible", "evidence", "health", "speed", "score", "seen by"};

/// What somebody may be in: seen or noticed by anybody (of those who look for it, unless it is said
/// by whom), or a mode of its own.
enum class Situation : std::uint8_t {
  seen,
  unseen,
  noticed,
  post,
  patrol,
  chase,
  investigate,
  search,
  return_,
  wander,
  follow,
  flee,
};
inline constexpr std::array<std::string_view, 12> kSituationNames{
    "seen",        "unseen", "noticed", "post",   "patrol", "chase",
    "investigate", "search", "return",  "wander", "follow", "flee"};

/// One number taken from a run. Exactly one of the members from `first` to `between` says which.
/// The time of what does not occur, and what is measured of nobody, is none; the number and the sum
/// of what does not occur are 0. Where several agents are meant, `least` and `most` are of
/// all of them, `mean`, `start` and `end` of their means, and `share` of the time in which any of
/// them is so.
struct Figure {
  std::string name;
  std::optional<Happening> first;  ///< When, seconds.
  std::optional<Happening> last;
  std::optional<Happening> count;
  std::optional<Carried> sum;      ///< Over all of `event`.
  std::optional<Happening> event;  ///< Of `sum` alone.
  std::optional<Quantity> least;
  std::optional<Quantity> most;
  std::optional<Quantity> mean;
  std::optional<Quantity> start;
  std::optional<Quantity> end;
  std::optional<Situation> share;  ///< [0, 1]
  /// Two: seconds from the first of the one to the first of the other at that time or after it.
  std::vector<EventPick> between;
  std::string by;                ///< As in EventPick; empty: anybody.
  std::string of;                ///< The same.
  std::optional<Duration> from;  ///< The time that counts; left out: all of the run.
  std::optional<Duration> to;
  Place place;
};

/// A test of a level: what a figure has to be, in a run or in so many.
struct Expectation {
  std::string id;
  std::string figure;  ///< Of the level, or one that every player has: "collector.health".
  std::optional<double> at_least;
  std::optional<double> at_most;
  std::optional<double> exactly;
  bool never = false;                      ///< The figure is none.
  int runs = 1;                            ///< With the seeds from 1 on; one: with the level's.
  double of_runs = 1.0;                    ///< In this share of them it has to hold, (0, 1].
  std::map<std::string, std::string> set;  ///< Values by path, as TOML, for this test alone.
  Place place;
};

struct Level;

/// The figures of a level, and before them those that each of its players has: the agents with a
/// driver other than their mind. "PLAYER.first-noticed", "PLAYER.first-hurt", "PLAYER.health",
/// "PLAYER.defeated", "PLAYER.caught", "PLAYER.warning" (from being noticed to the first hurt) and
/// "PLAYER.seen-share".
[[nodiscard]] std::vector<Figure> all_figures(const Level& level);

/// What the number is: "s", "m", "degrees", "m/s", "points", or empty for counts and shares.
[[nodiscard]] std::string_view unit_of(const Figure& figure);

}  // namespace gaze
GAZE_PUBLIC_END
