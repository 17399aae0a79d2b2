#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/error.hpp"
#include "gaze/figure.hpp"
#include "gaze/kind.hpp"
#include "gaze/public.hpp"
#include "gaze/solid.hpp"
#include "gaze/track.hpp"

/// What a designer wrote, as plain values. `read_level` makes a Level from a file; a program may as
/// well fill one in by itself. The comments give units and ranges; the reader enforces them.
GAZE_PUBLIC_BEGIN
namespace gaze {

enum class Driver { mind, script, host, track };
enum class PatrolStyle { round, to_and_fro };

struct Team {
  std::string name;
  std::vector<std::uint32_t> hostile;  ///< Teams that its agents look for and may harm.
  Place place;
};

struct ScriptStep {
  enum class What { go, wait, face, noise, quiet, hop, repeat, take, throw_, drop, aim };
  What what = What::wait;
  Vector3d place{0.0, 0.0, 0.0};  ///< go, throw, aim
  std::optional<double> speed;    ///< go: metres a second; else the speed of the kind.
  Duration duration;              ///< wait; aim: for so long it fires, once turned there
  Angle facing;                   ///< face: turns to it, at its turn rate, and goes on.
  std::string noise;              ///< noise: its name.
  double reach = 0.0;             ///< noise: metres, above 0.
  bool quiet = true;              ///< quiet: from here on, or no longer.
  std::string name;               ///< take: of an agent; aim: of an attack, or empty for all.
  std::uint32_t kind = 0;         ///< throw: index in Level::kinds.
  Place written;
};

/// What an agent does at a point of its patrol.
struct PatrolStop {
  Duration wait;
  std::optional<Angle> look;  ///< Where it looks meanwhile.
};

struct Agent {
  std::string id;
  std::uint32_t kind = 0;  ///< Index in Level::kinds; its own if it changes values of its kind.
  std::optional<Driver> driver;      ///< Else its track or script, if it has one, and its mind.
  Vector3d position{0.0, 0.0, 0.0};  ///< Of the feet.
  Angle facing;
  std::vector<Vector3d> patrol;
  std::vector<PatrolStop> stops;  ///< By patrol point; empty: it goes on at once.
  PatrolStyle patrol_style = PatrolStyle::round;
  std::vector<ScriptStep> script;
  std::shared_ptr<const Track> track;  ///< Instead of a script; then it begins where that begins.
  /// Until woken it perceives nothing and does nothing. What something wakes begins asleep.
  bool is_asleep = false;
  /// True for agents that a simulation keeps for what others may leave behind, and for those that
  /// the host has taken out. A game that begins has none of them.
  bool is_spare = false;
  Place place;
};

/// An area with properties of its own, and a trigger for those who step into it.
struct Zone {
  std::string id;
  std::vector<Vector2d> outline;  ///< Plan points; closed.
  std::optional<double> base;     ///< Metres, not in upright levels; else the ground.
  double height = 2.5;            ///< Metres, above 0.
  std::vector<std::string> tags;
  double dimness = 0.0;                   ///< Share of evidence that it takes, [0, 1].
  std::vector<std::string> triggered_by;  ///< Agents, teams, kinds or tags; empty: anybody.
  std::vector<std::string> grants;        ///< Tags that who triggers it gets.
  std::vector<std::string> takes;         ///< Tags that who triggers it loses.
  std::vector<std::uint32_t> tells;       ///< Agents that are told who triggered it.
  std::vector<std::uint32_t> wakes;       ///< Agents that it switches on.
  bool once = false;                      ///< Triggered the first time only.
  double cost = 1.0;                      ///< Of a metre in it, for the choice of ways; above 0.
  std::vector<std::string> closed_to;  ///< Agents, teams, kinds or tags: who does not walk there.
  Place place;
};

/// A way that a designer made between two places: a ladder, a slide.
struct Link {
  std::string id;
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};
  bool both_ways = false;
  Place place;
};

/// Where agents begin, drawn by the level's seed.
struct Start {
  std::string id;
  std::string kind;               ///< Or the id of one agent.
  std::vector<Vector2d> outline;  ///< Plan points; closed.
  std::string apart_from;         ///< Agents, or those of a kind, team or tag; empty: nobody.
  double distance = 0.0;          ///< Metres from these, at least.
  bool out_of_sight = false;      ///< Of these.
  Place place;
};

/// Where a level ends: what leaves it is gone. A shot is lost where it gets out; a body that stands
/// outside after a step is defeated by nobody, or put back to where it began.
struct Bounds {
  std::vector<Vector2d> outline;  ///< Plan points, closed; empty: no end sideways.
  std::optional<double> low;      ///< Metres; none: it has no end downwards.
  std::optional<double> high;     ///< Metres; none: it has no end upwards.
  bool puts_back = false;
  Place place;
};

/// When a round of the level is over.
struct Round {
  bool ends_when_caught = false;
  std::vector<std::uint32_t> ends_without;  ///< Teams: once all of one are out.
  bool resets = false;                      ///< Then all begin again; else play stops.
  Place place;

  bool can_end() const { return ends_when_caught || !ends_without.empty(); }
};

/// Where values were written, by their path: "kind.pruner.sight.range", "agent.pruner-1.facing",
/// "wall.north-bench.height", "seconds".
using Origins = std::map<std::string, Place, std::less<>>;

/// How much a level may have at most.
struct LevelLimits {
  static constexpr std::size_t agents = 100'000;
  static constexpr std::size_t triangles = 200'000;  ///< Of one mesh.
  static constexpr std::size_t solids = 200'000;
  static constexpr std::size_t outline_points = 500;
  static constexpr std::size_t path_points = 10'000;
  static constexpr std::size_t list_items =
      10'000;                                     ///< Of kinds, patrols, scripts, copies, includes.
  static constexpr double coordinate = 20'000.0;  ///< Metres from the origin, on each axis.
  static constexpr std::size_t projectiles = 100'000;  ///< In flight; no more are fired.
};

struct Level {
  std::string name;
  Place place;  ///< Where its file begins.
  Plane plane = Plane::ground;
  int ticks_per_second = 60;  ///< [1, 1000]
  double seconds = 30.0;      ///< How long a run lasts unless told otherwise; above 0, to 86,400.
  std::uint64_t seed = 1;
  double gravity = 9.81;                      ///< Metres a second squared, downwards.
  std::optional<double> ground_height = 0.0;  ///< Of an endless floor; none: there is no floor.
  std::vector<Material> materials{{"brick", StopSet(0b1111), 1.0}};
  std::vector<Team> teams;
  std::vector<Kind> kinds;      ///< Those of the file first, in its order; then agents' own.
  std::size_t named_kinds = 0;  ///< How many of `kinds` are of the file; 0: all.
  std::vector<Solid> solids;
  std::vector<Zone> zones;
  std::vector<Link> links;
  std::vector<Start> starts;
  Round round;
  std::optional<Bounds> bounds;
  std::vector<Agent> agents;
  std::vector<Figure> figures;
  std::vector<Expectation> expectations;
  Origins origins;

  const Kind& kind_of(const Agent& agent) const { return kinds[agent.kind]; }

  /// Where the value of a path was written: for an agent its own place, else that of its kind,
  /// which is that of the kind it is `like`. Nothing where it was left out or there is no such
  /// path.
  std::optional<Place> origin(std::string_view path) const;

  /// The same for a value of an agent of this level, without looking for the agent: "at".
  std::optional<Place> origin(const Agent& agent, std::string_view key) const;
};

/// What is wrong with a level that a program has made: what a file would be refused for, by the
/// same rules and in the same words, with the path of the value for a place ("kind.pruner.radius").
/// Empty if it can be played. What is left out is not wrong. O(n log n) for n values.
[[nodiscard]] std::vector<Fault> validate(const Level& level);

/// Puts in what was left out and follows from other values: the eye's height from the body's, the
/// speed of hoppers from their hops. A Simulation does so by itself.
void complete(Level& level);
[[nodiscard]] bool is_complete(const Level& level);
/// How a kind gets about, with all that was left out; what has no `move` stays where it is.
[[nodiscard]] Move completed(const Level& level, const Kind& kind);

/// The lowest height of a solid or a zone, metres: its base, else the ground. 0 in upright levels.
[[nodiscard]] double base_of(const Level& level, const Solid& solid);
[[nodiscard]] double base_of(const Level& level, const Zone& zone);

/// True if agents of the first team look for and may harm those of the second.
[[nodiscard]] bool is_hostile(const Level& level, std::uint32_t team, std::uint32_t other);

/// The mode in which an agent begins and to which it returns.
[[nodiscard]] Mode idle_mode(const Agent& agent, const Kind& kind);

/// True if bodies of a kind stop those of a team (or of none), if these stop them.
[[nodiscard]] bool is_solid_to(const Level& level, const Kind& kind, std::uint32_t team);
/// True if bodies of two kinds stop each other.
[[nodiscard]] bool stop_each_other(const Level& level, const Kind& a, const Kind& b);

[[nodiscard]] std::string_view name_of(Plane plane);

}  // namespace gaze
GAZE_PUBLIC_END
