#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/time.hpp"

/// How agents get about, as a designer sets it.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// How it moves.
enum class Gait {
  fixed,
  walk,
  hop,    ///< In hops, resting in between.
  hover,  ///< Through the air, at a height of its own.
  drop,   ///< Hangs, and falls once it does anything but wait.
};
enum class RouteStyle { path, straight };

/// True for gaits that get from place to place.
[[nodiscard]] constexpr bool travels(Gait gait) {
  return gait != Gait::fixed && gait != Gait::drop;
}

/// Where a walker looks.
enum class Face {
  target,         ///< At its target in the modes that act on one, else where it goes.
  travel,         ///< Where it goes; standing, at its target.
  always_target,  ///< At its target whatever it does.
  keep,           ///< Always as it was placed.
};

/// Where a chaser runs to.
enum class ChaseStyle {
  at,     ///< To where its target is.
  ahead,  ///< To where they meet if the target keeps its course.
};

/// To where it flees within the circle about its post.
enum class FleeStyle {
  far_side,      ///< To the side that lies away from whom it flees.
  out_of_sight,  ///< To where that cannot see it, if there is such a place; else to the far side.
};

/// The centre of the circle that it flees in.
enum class FleeFrom {
  post,
  here,  ///< Its position: it flees on and on.
};

/// What it does if no way leads to its goal.
enum class NoPath {
  nearest,  ///< Goes to the nearest place that can be reached.
  wait,     ///< Stands until there is one.
  give_up,  ///< Forgets about it.
};

struct Move {
  Gait gait = Gait::walk;
  double speed = 2.0;  ///< Metres a second; of a hopper on average, as its hops have it.
  Angle turn_rate = Angle::from_degrees(360.0);  ///< A second.
  std::optional<double> stop_distance;  ///< Metres, centre to centre; else the sum of both radii.
  std::optional<double> step_height;    ///< Metres; else 0.3, or half the height if that is less.
  double step_reach = 0.0;              ///< Of the noise "step" as it walks; 0: none.
  double quiet_reach = 0.0;             ///< The same while it walks quietly.
  double stride = 0.75;                 ///< Metres from one such noise to the next, above 0.
  double search_radius = 3.0;           ///< Metres about the place that it searches.
  RouteStyle route = RouteStyle::path;
  Angle slope = Angle::from_degrees(40.0);  ///< Steepest that it walks on, [0, 90).
  double repath_distance = 1.0;             ///< A target that has moved so far is searched anew.
  Duration stuck_time = Duration::from_seconds(1.5);  ///< Without progress: it searches anew.
  NoPath no_path = NoPath::nearest;
  double acceleration = 0.0;  ///< Metres a second squared; 0: at full speed at once.
  Face face = Face::target;
  ChaseStyle chase = ChaseStyle::at;
  double keep_away = 0.0;  ///< Metres from its target that it holds; 0: it closes in.
  double pace = 0.0;       ///< Share of the speed of `pace_of`; 0: `speed` was given itself.
  std::string pace_of;     ///< A kind.
  std::vector<std::string> follows;    ///< Agents, kinds, teams or tags: whom it stays by.
  double follow_distance = 2.0;        ///< Metres, centre to centre.
  std::optional<double> follow_start;  ///< Farther off than that it sets out, metres; left out:
                                       ///< 1.25 times `follow_distance`.
  std::optional<double> idle_speed;    ///< In its idle mode and on the way back, metres a second;
                                       ///< left out: `speed`.
  double flee_distance = 8.0;          ///< Radius of the circle about its post, metres.
  FleeStyle flee_to = FleeStyle::far_side;
  FleeFrom flee_from = FleeFrom::post;
  /// Of the top of a hop above where it begins, metres; 0: none. Else 0.5 for the gait hop, and 0.
  std::optional<double> hop_height;
  std::optional<double> hop_length;  ///< Of a hop in the plan, at most, metres; else 2 hop_height.
  std::optional<Duration> hop_rest;  ///< Between two hops; else 0.5 s for the gait hop, and 0.
  /// How deep it drops from a ledge, metres; else hop_height. Of what hangs: above `at`; else 2 in
  /// ground levels.
  std::optional<double> drop_height;
  std::optional<double> hover_height;  ///< Above `at`, metres; else 1.5 for hover in ground levels.
  /// Hoverers: vertical speed to `hover_height` above the feet of a chased target, m/s, >= 0. At 0
  /// the height never changes. Not used in upright levels.
  double climb_speed = 0.0;
  /// Gait hop: hops on the spot below a chased target that it cannot get nearer to.
  bool hops_in_place = false;
  /// Of what is fixed: how far it turns from its placed facing, degrees from -180 to 180,
  std::array<double, 2> turn_limits{-180.0, 180.0};
  /// and how far its shots and beams rise, degrees from -90 to 90.
  std::array<double, 2> tilt_limits{-90.0, 90.0};
};

/// How it goes about when it has nothing else to do.
struct Wander {
  enum class Style {
    to_and_fro,  ///< Straight ahead, and back from walls and ledges.
    free,        ///< From place to place of an area.
  };
  Style style = Style::to_and_fro;
  std::string area;  ///< A zone; empty: within 5 m of where it was placed.
  Duration pause = Duration::from_seconds(0.3);  ///< Before it turns or goes on.
};

}  // namespace gaze
GAZE_PUBLIC_END
