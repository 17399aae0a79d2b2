#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/attack.hpp"
#include "gaze/geometry.hpp"
#include "gaze/move.hpp"
#include "gaze/reaction.hpp"
#include "gaze/senses.hpp"
#include "gaze/time.hpp"

/// What a designer wrote, as plain values. `read_level` makes a Level from a file; a program may as
/// well fill one in by itself. The comments give units and ranges; the reader enforces them.
namespace gaze {

/// Where a value was written. Lines and columns count from 1; 0 where it came from no file.
struct Place {
  std::string file;
  int line = 0;
  int column = 0;
  auto operator<=>(const Place&) const = default;
};

/// "garden.toml:3:7", or the name alone of what has no lines: an option of the command.
[[nodiscard]] std::string text_of(const Place& place);

struct Material {
  std::string name;
  StopSet stops;
  double muffles = 1.0;  ///< Share of a noise's reach lost in passing, if it stops sound; [0, 1].
};

/// How a door opens and closes. While open it is not there.
struct Door {
  std::vector<std::string> opens_for;  ///< Agents, teams, kinds or tags; empty: anybody.
  double opens_within = 1.2;           ///< Metres in the plan from the leaf to the feet.
  Duration closes_after = Duration::from_seconds(2.0);  ///< Once nobody is so near.
};

using Triangle = std::array<Vector3d, 3>;

/// A wall (a path of some thickness) or a block (a filled outline), rising from `base` by `height`.
/// In an upright level it is endless across the plane, and base and height do not count. In the
/// others also what there is to walk on: a floor (an outline whose upper side lies at base +
/// height), a ramp, or stairs, which bodies climb as a ramp. A mesh is a shell of triangles, 2 cm
/// thick, hollow inside.
struct Solid {
  enum class Form { wall, block, floor, ramp, stairs, door, mesh };
  std::string id;
  Form form = Form::block;
  std::uint32_t material = 0;       ///< Index in Level::materials.
  std::vector<Vector2d> points;     ///< Path of a wall (2 or more), outline of a block (3 or more).
  double thickness = 0.2;           ///< Metres, above 0; of walls, ramps and stairs.
  double base = 0.0;                ///< Metres.
  double height = 2.5;              ///< Metres, above 0.
  Vector3d from{0.0, 0.0, 0.0};     ///< Of ramps and stairs: the middle of one end's upper side,
  Vector3d to{0.0, 0.0, 0.0};       ///< and of the other's; apart in the plan.
  double width = 1.0;               ///< Of ramps and stairs: metres, above 0.
  int steps = 1;                    ///< Of stairs, 1 to 1000.
  std::vector<Triangle> triangles;  ///< Of a mesh, where they stand; anticlockwise from outside.
  std::uint32_t left_out = 0;       ///< Of its file's triangles, those without an area.
  double health = 0.0;              ///< Of what breaks, points; 0: it does not.
  Door door;                        ///< Of doors, whose path is the leaf when shut.
  Place place;
};

/// True for what is there to be walked on, rather than to be in the way.
[[nodiscard]] constexpr bool is_walkway(Solid::Form form) {
  return form == Solid::Form::floor || form == Solid::Form::ramp || form == Solid::Form::stairs;
}

/// True for what may go while a level is played: doors, and what breaks.
[[nodiscard]] inline bool can_go_away(const Solid& solid) {
  return solid.form == Solid::Form::door || solid.health > 0.0;
}

struct Team {
  std::string name;
  std::vector<std::uint32_t> hostile;  ///< Teams that its agents look for and may harm.
  Place place;
};

enum class Driver { mind, script, host };
enum class PatrolStyle { round, to_and_fro };

constexpr std::uint32_t kNoTeam = 0xFFFFFFFF;

/// What happens when it is defeated.
struct Defeat {
  std::optional<std::uint32_t> leaves;  ///< A kind that appears in its place, by index.
  std::string attack;                   ///< A burst of its own that it makes; empty: none.
  double score = 0.0;                   ///< Points for who defeated it.
  std::optional<Duration> respawn;      ///< After that it is back at a start place; none: never.
  std::vector<std::string> tells;       ///< Agents that learn where who defeated it is,
  std::vector<std::string> wakes;       ///< and those that it switches on.
};

/// How it is carried and thrown: things have no will of their own, and everybody can break them.
struct Thing {
  Attack flight;            ///< A shot by the name of its kind.
  bool breaks = false;      ///< Where its flight ends it is defeated.
  double take_reach = 0.5;  ///< From body to body, metres.
};

/// Things of a kind that an agent has with it from the start.
struct Pocket {
  std::uint32_t kind = 0;  ///< Index in Level::kinds.
  int count = 0;
};

/// Whom a body stops, and who stops it: two bodies stop each other if each is solid to the other.
/// Things and the defeated stop nobody.
struct SolidTo {
  bool friends = true;  ///< Agents of whom neither is hostile to the other's team,
  bool foes = true;     ///< and all others.
};

/// The values of a sort of agents, or of one agent that differs from its sort in some.
struct Kind {
  std::string name;
  std::string like;              ///< The kind it grew out of, if any.
  std::uint32_t team = kNoTeam;  ///< Index in Level::teams.
  double radius = 0.3;           ///< Metres, above 0.
  double height = 1.7;           ///< Metres, above 0.
  double health = 100.0;         ///< Points, above 0.
  SolidTo solid_to;
  double mass = 1.0;                     ///< Pushes are divided by it; above 0.
  Duration grace;                        ///< After it has been hurt it cannot be again.
  std::map<std::string, double> resist;  ///< By kind of damage: share taken off, <= 1.
  std::array<double, 6> side_factors{1, 1, 1, 1, 1, 1};  ///< Of damage, by Side.
  double heals = 0.0;                                    ///< Points a second, up to its health,
  Duration heals_after;                                  ///< once it has not been hurt for so long.
  std::vector<double> body_points{0.0, 0.5, 1.0};  ///< Shares of the height that others look at.
  double visibility = 1.0;                         ///< Evidence of it grows as fast, [0, 100].
  double still_visibility = 1.0;                   ///< The same while it does not move.
  std::vector<std::string> tags;
  std::optional<Sight> sight;  ///< None: it never sees.
  std::optional<Scan> scan;
  std::optional<Head> head;
  std::optional<Hearing> hearing;
  std::vector<Feeler> feelers;  ///< In the order of the file, at most 32.
  std::optional<Nearness> nearness;
  std::optional<TouchSense> touch;
  std::optional<HurtSense> hurt;
  std::optional<Tell> tell;
  Choose choose;
  Move move;
  std::optional<Wander> wander;
  std::vector<Attack> attacks;  ///< In the order of the file.
  std::optional<Thing> thing;   ///< It can be carried and thrown.
  std::vector<Pocket> carries;  ///< What it has with it.
  Defeat defeat;
  When when;
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

/// What it does at a point of its patrol.
struct PatrolStop {
  Duration wait;
  std::optional<Angle> look;  ///< Where it looks meanwhile.
};

struct Agent {
  std::string id;
  std::uint32_t kind = 0;  ///< Index in Level::kinds; its own if it changes values of its kind.
  Driver driver = Driver::mind;
  Vector3d position{0.0, 0.0, 0.0};  ///< Of the feet.
  Angle facing;
  std::vector<Vector3d> patrol;
  std::vector<PatrolStop> stops;  ///< By patrol point; empty: it goes on at once.
  PatrolStyle patrol_style = PatrolStyle::round;
  std::vector<ScriptStep> script;
  bool is_asleep = false;  ///< Until woken it perceives nothing and does nothing.
  /// Put there by a simulation, for what others leave behind: not a part of what was written.
  bool is_leftover = false;
  Place place;
};

/// An area with properties of its own, and a trigger for those who step into it.
struct Zone {
  std::string id;
  std::vector<Vector2d> outline;  ///< Plan points; closed.
  double base = 0.0;              ///< Metres; not in upright levels.
  double height = 2.5;            ///< Metres, above 0.
  std::vector<std::string> tags;
  double dimness = 0.0;                   ///< Share of evidence that it takes, [0, 1].
  std::vector<std::string> triggered_by;  ///< Agents, teams, kinds or tags; empty: anybody.
  std::vector<std::string> grants;        ///< Tags that those get who trigger it,
  std::vector<std::string> takes;         ///< and those that they lose.
  std::vector<std::uint32_t> tells;       ///< Agents that are told who triggered it,
  std::vector<std::uint32_t> wakes;       ///< and those that it switches on.
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
  std::optional<double> low;      ///< Metres; none: no end downwards,
  std::optional<double> high;     ///< or upwards.
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
  std::size_t named_kinds = 0;  ///< How many of `kinds` are of the file.
  std::vector<Solid> solids;
  std::vector<Zone> zones;
  std::vector<Link> links;
  std::vector<Start> starts;
  Round round;
  std::optional<Bounds> bounds;
  std::vector<Agent> agents;
  Origins origins;

  const Kind& kind_of(const Agent& agent) const { return kinds[agent.kind]; }

  /// Where the value of a path was written: for an agent its own place, else that of its kind,
  /// which is that of the kind it is `like`. Nothing where it was left out or there is no such
  /// path.
  std::optional<Place> origin(std::string_view path) const;

  /// The same for a value of an agent of this level, without looking for the agent: "at".
  std::optional<Place> origin(const Agent& agent, std::string_view key) const;
};

/// True if agents of the first team look for and may harm those of the second.
[[nodiscard]] bool is_hostile(const Level& level, std::uint32_t team, std::uint32_t other);

/// The mode in which an agent begins and to which it returns.
[[nodiscard]] Mode idle_mode(const Agent& agent, const Kind& kind);

/// True if bodies of a kind stop those of a team (or of none), if these stop them.
[[nodiscard]] bool is_solid_to(const Level& level, const Kind& kind, std::uint32_t team);
/// True if bodies of two kinds stop each other.
[[nodiscard]] bool stop_each_other(const Level& level, const Kind& a, const Kind& b);

/// The share of a damage of that kind that a body takes: above 1 if it is weak to it.
[[nodiscard]] double share_taken(const Kind& kind, const std::string& damage_kind);

/// How far in front of a target of that kind a chaser stops, centre to centre, metres.
[[nodiscard]] double stop_distance(const Kind& chaser, const Kind& target);

/// How far it goes on seeing what it has noticed, or 0 without sight, metres.
[[nodiscard]] double farthest_sight(const Kind& kind);

[[nodiscard]] std::string_view name_of(Plane plane);

}  // namespace gaze
