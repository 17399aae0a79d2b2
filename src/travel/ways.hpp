#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "agents/crowd.hpp"
#include "agents/few.hpp"
#include "agents/scratch.hpp"
#include "gaze/path.hpp"
#include "gaze/steering.hpp"
#include "navigation/arc.hpp"
#include "travel/keep_apart.hpp"

namespace gaze {

/// For how long an agent has not come nearer to its goal.
struct Progress {
  double best = 0.0;  ///< Nearest so far, metres, in whole centimetres gained.
  Moment since = 0;   ///< When that was.
  bool told = false;  ///< `blocked` has been told for this goal.
};

/// How far an agent has come in its list of places.
struct Course {
  std::uint32_t next = 0;
  bool backwards = false;
  bool is_new = true;      ///< The goal was set since the last look at progress.
  Moment wait_until = -1;  ///< Scripts: -1 while not waiting.
  Progress progress;
};

/// The place of an agent in a line of those who wait before one that has arrived or stands there.
struct InLine {
  static constexpr std::uint8_t kNone = 100;  ///< In no line.
  std::uint8_t place = kNone;                 ///< So many stand before it, that one included.
  std::uint32_t head = 0;                     ///< Who that is.
};

/// Somebody who stands in the way where there is no room to get past, and where that is.
struct InTheWay {
  std::uint32_t who = 0;
  Vector3d at{0.0, 0.0, 0.0};
};

/// Round whom a way leads as long as they stand; one of them at least.
struct LeadsRound {
  static constexpr std::size_t kMost = 4;
  std::array<InTheWay, kMost> all;
  std::uint32_t count = 0;

  std::span<const InTheWay> those() const { return std::span(all).first(count); }
};

/// Position that an agent approaches on the ring around a target.
struct RingPlace {
  std::uint32_t centre = 0;   ///< Target at the centre of the ring.
  Vector2d offset{0.0, 0.0};  ///< Position relative to the target, metres.
  std::int64_t tick = 0;      ///< Last tick in which the agent approached it.
};

/// Position near a ring that a body takes.
struct TakenPlace {
  Vector2d at{0.0, 0.0};
  double gap = 0.0;  ///< Least distance to the next body, metres.
};

/// The way that an agent follows.
struct Route {
  std::vector<Vector3d> points;  ///< From `next` on they lie ahead.
  std::vector<Path::Leg> links;  ///< Legs to some of them, from `next_link` on still ahead.
  std::uint32_t next_link = 0;
  std::uint32_t next = 0;
  Vector3d goal{0.0, 0.0, 0.0};  ///< That it was made for.
  Path::Outcome outcome = Path::Outcome::none;
  bool is_made = false;
  std::uint32_t own_face = 0;   ///< Where in the mesh it was last.
  std::uint32_t goal_face = 0;  ///< Where in the mesh its goal is.
  bool was_pushed = false;      ///< Off its line, by others in its way.
  Progress progress;
};

/// A hop, a drop or another link that an agent is on. Nothing changes it before the agent has
/// landed.
struct Leap {
  enum class What { none, hop, drop, made };
  What what = What::none;
  Arc arc;             ///< Its ends, of all; the rest of hops alone.
  double speed = 0.0;  ///< Of drops and of what is made, metres a second.
  Moment start = 0;
  Moment end = 0;
};

/// The meshes of a level, one for each size of body that moves about. Bodies of one size share a
/// mesh, and it is made when it is first needed.
struct Meshes {
  std::vector<BodySize> bodies;
  std::vector<std::optional<NavigationMesh>> meshes;

  /// The number of the mesh for bodies of that size.
  std::uint32_t number_of(const BodySize& body);
};

/// What only travel knows. Lists are by agent where nothing else is said.
struct Ways {
  // Courses: what it goes about.
  std::vector<Course> course;
  std::vector<Course> left_course;          ///< Of its idle mode, where it left that.
  std::vector<Vector3d> home;               ///< Where it left its idle mode.
  std::vector<Vector3d> wander_goal;        ///< Valid while its course is not new.
  Few<Vector2d> script_facing;              ///< Set by a script's `face`.
  std::vector<char> quiet;                  ///< Set by a script's `quiet`.
  Few<Steering> steering;                   ///< Of those whom the host steers.
  std::vector<double> stride_left;          ///< Metres to the next noise of a step.
  std::vector<std::uint32_t> has_no_start;  ///< Agents for whom no start place was found.

  // Footing.
  std::vector<char> is_just_placed;  ///< It has not stood or fallen there for a step.
  std::vector<char> has_settled;     ///< It has fallen already in this step.
  std::vector<std::optional<double>> highest_of_fall;  ///< Of one that goes on, metres.
  std::vector<Vector3d> velocity;                      ///< In the air, metres a second.
  std::vector<double>
      air_share;              ///< Fraction of the tick of the take-off that the body is in the air.
  std::vector<char> hangs;    ///< Whether a body that takes a drop has not begun to fall.
  Few<Leap> leap;             ///< Kept until the tick after its end.
  double longest_leap = 0.0;  ///< Largest distance of a leap of this tick from its end, metres.
  std::vector<Moment> rests_until;  ///< From a landing on.
  std::vector<Vector3d> pushed;     ///< By blows: velocity, level, metres a second.

  // Routes.
  std::vector<std::uint32_t> mesh_of;  ///< Its number among the meshes.
  std::vector<Route> route;
  Few<LeadsRound> leads_round;
  std::vector<std::uint32_t> asked;  ///< Who waits for a search, first come, first served.
  Few<Vector3d> asked_goal;          ///< To where they do.
  Scratch<std::vector<std::uint32_t>> together;  ///< Who shares a search.
  Scratch<std::vector<Vector3d>> starts;         ///< Where they are.
  std::int64_t searches_left = 0;                ///< Of the budget of this step.
  PathFinder finder;

  // Surrounding.
  Few<RingPlace> ring_place;
  Scratch<std::vector<TakenPlace>> ring_taken;  ///< Taken positions at one ring.
  Scratch<std::vector<Vector2d>> ring_ends;     ///< Ends of its free arcs.

  // Keeping apart.
  Scratch<Crowd> walkers{0.75};  ///< As minds begin to travel.
  double strayed = 0.0;          ///< No body is farther from where `walkers` has it, metres.
  std::vector<Vector2d> pace;    ///< Velocity in the last step, level, metres a second.
  std::vector<double> pace_length;
  std::vector<double> gathered;     ///< The speed at which it last walked, whatever stopped it.
  std::vector<Vector2d> wish;       ///< The velocity that it wanted in the last step.
  std::vector<Vector2d> next_wish;  ///< The velocity that it wants in this one.
  std::vector<InLine> line;         ///< As of the last step.
  std::vector<InLine> next_line;    ///< As of this one.
  std::vector<char> is_on_way;      ///< It went towards something in the last step.
  std::vector<char> goes_on_way;    ///< It goes towards something in this one.
  double fastest = 0.0;             ///< Of all in the last step, metres a second.
  KeepApart keep_apart;
  Scratch<std::vector<Neighbour>> neighbours;
  Scratch<std::vector<Cylinder>> in_the_way;  ///< Bodies that may stop one that moves.
  Scratch<std::vector<Cylinder>> avoided;     ///< Of one search.

  /// It waits for a search.
  bool is_asked(std::uint32_t who) const { return asked_goal[who] != nullptr; }
  bool is_leaping(std::uint32_t who) const {
    const Leap* own = leap[who];
    return own != nullptr && own->what != Leap::What::none;
  }
};

}  // namespace gaze
