#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/public.hpp"
#include "gaze/tools/study.hpp"
#include "gaze/track.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// Where somebody is to get unnoticed.
struct SneakTask {
  std::string agent;             ///< Who goes.
  Vector3d to{0.0, 0.0, 0.0};    ///< On the floor; in levels seen from above.
  std::optional<Vector3d> from;  ///< Else from where it begins.
  std::string body;              ///< The kind whose body, speed and looks it has; else its own.
  /// About so far apart are the places looked at, metres; else 0.25, or more in large levels.
  std::optional<double> spot;
  bool names_change = true;  ///< Looks for the least change that opens a barrier: takes longer.
};

/// What keeps anybody from getting there unnoticed.
struct SneakBarrier {
  std::string watcher;
  Vector3d place{0.0, 0.0, 0.0};  ///< The first that cannot be passed on the shortest way there.
  double from = 0.0;              ///< Seconds: for so long the watcher surely sees that place.
  double to = 0.0;
  std::string zone;  ///< That tells the watcher of whoever steps into it; empty: it sees the place.
  bool is_tried = false;       ///< What follows was looked for to the end.
  bool opens_without = false;  ///< If the zone told nobody, a way would open.
  /// The watcher's range at which a way opens, found by lowering that alone; nothing: none does.
  std::optional<double> range;
  double range_now = 0.0;
};

/// The answer. A way has been played, and nobody noticed; that there is none has been proven,
/// within the seconds of the level: even if only what watchers surely see is shut, none leads
/// there.
struct Sneak {
  enum class Outcome { found, none, undecided };
  Outcome outcome = Outcome::undecided;
  std::string reason;                  ///< Why it is undecided.
  Track track;                         ///< The way, if there is one.
  double seconds = 0.0;                ///< That it takes.
  double most_evidence = 0.0;          ///< That anybody gathered on the way, as played, [0, 1).
  std::string by;                      ///< Who that was.
  std::vector<SneakBarrier> barriers;  ///< If there is none.
  std::size_t tries = 0;               ///< So many ways were played.
};

/// Searches space and time over the floor on which a body can walk, with what watchers would notice
/// shut: by sight, where evidence gathers as in play, by nearness, and by hearing quiet steps. It
/// walks quietly, at full speed, or waits. As long as nobody notices, watchers are where they would
/// be without it; the way found is played, and where play disagrees the search goes on without that
/// place at that time.
/// Throws UsageError for an agent or kind that there is not, places off the floor, and levels seen
/// from the side.
[[nodiscard]] Sneak sneak(const Level& level, const SneakTask& task,
                          const StudyOptions& options = {});

/// A track as a file: "time,x,y,z,does".
[[nodiscard]] std::string track_csv(const Track& track);

}  // namespace gaze
GAZE_PUBLIC_END
