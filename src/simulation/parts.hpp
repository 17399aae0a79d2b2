#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <optional>
#include <string_view>
#include <vector>

#include "gaze/hearing.hpp"
#include "gaze/level.hpp"
#include "gaze/path.hpp"
#include "level/whom.hpp"
#include "sense/notice.hpp"
#include "travel/arc.hpp"

/// The plain values that the state of a simulation is made of.
namespace gaze {

constexpr std::uint32_t kNoKind = 0xFFFFFFFF;

/// So many foes are looked through one by one.
constexpr std::size_t kFewFoes = 32;

/// What follows from the values of a kind at this rate of ticks, worked out once.
struct KindLimits {
  NoticeLimits notice;
  SineCosine turn;                     ///< Most of one step.
  double head_turn_deg = 0.0;          ///< Most of one step; 0: the head is fixed to the body.
  double back_to_scan_deg = 0.0;       ///< The same where it scans.
  bool reacts = false;                 ///< Has rules.
  std::uint64_t urged_only = 0;        ///< Attacks that a reaction alone makes, by bit.
  double farthest = 0.0;               ///< No sense but hearing reaches farther, metres.
  std::uint64_t tags = 0;              ///< That its agents begin with.
  std::uint64_t wanted_tags = 0;       ///< 0: any.
  std::vector<char> wants_kind;        ///< By kind; empty: any.
  std::vector<char> is_foe_of_team;    ///< By team + 1, 0: none; either is hostile to the other.
  std::vector<char> is_solid_to_team;  ///< By team + 1; nothing where things are.
  std::vector<char> wants_team;        ///< By team: hostile, and not filtered out.
  std::vector<Moment> cooldowns;       ///< By attack.
  Moment grace = 0;
  Moment heals_after = 0;
  double turret_turn_deg = 0.0;  ///< Most of one step, if its turning has limits; else 0.
};

/// How long a goal has been out of reach.
struct Progress {
  double best = 0.0;  ///< Nearest so far, metres, in whole centimetres gained.
  Moment since = 0;   ///< When that was.
  bool told = false;  ///< `blocked` has been told for this goal.
};

/// Where a walker with a list of places stands in it.
struct Course {
  std::uint32_t next = 0;
  bool backwards = false;
  bool is_new = true;      ///< The goal was set since the last look at progress.
  Moment wait_until = -1;  ///< Scripts: -1 while not waiting.
  Progress progress;
};

/// Whose place in a line before one who has arrived, or stands there.
struct InLine {
  static constexpr std::uint8_t kNone = 100;  ///< In no line.
  std::uint8_t place = kNone;                 ///< So many stand before it, that one included.
  std::uint32_t head = 0;                     ///< Who that is.
};

/// Somebody who stands where no room is left beside, and where that is.
struct InTheWay {
  std::uint32_t who = 0;
  Vector3d at{0.0, 0.0, 0.0};
};

/// The way that an agent follows.
struct Route {
  static constexpr std::size_t kMostAvoided = 4;
  std::vector<Vector3d> points;  ///< From `next` on they lie ahead.
  std::vector<Path::Leg> links;  ///< Legs to some of them, from `next_link` on still ahead.
  std::uint32_t next_link = 0;
  std::uint32_t next = 0;
  Vector3d goal{0.0, 0.0, 0.0};  ///< That it was made for.
  Path::Outcome outcome = Path::Outcome::none;
  bool is_made = false;
  std::uint32_t own_face = 0;                  ///< Where in the mesh it was last,
  std::uint32_t goal_face = 0;                 ///< and its goal.
  bool was_pushed = false;                     ///< Off its line, by others in its way.
  std::array<InTheWay, kMostAvoided> avoided;  ///< It is to lead round those, so many of them,
  std::uint32_t avoided_count = 0;             ///< for as long as they stand there.
  bool is_asked = false;                       ///< It waits for a search,
  Vector3d asked_goal{0.0, 0.0, 0.0};          ///< to there.
  Progress progress;
};

/// A hop, or a link on the way: nothing changes it before it has landed.
struct Flight {
  enum class What { none, hop, drop, made };
  What what = What::none;
  Arc arc;             ///< Its ends, of all; the rest of hops alone.
  double speed = 0.0;  ///< Of drops and of what is made, metres a second.
  Moment start = 0;
  Moment end = 0;
};

/// What an agent wants to turn to, if to anything: a place for its middle to face, or a direction.
struct FacingWish {
  std::optional<Vector3d> look_at;
  std::optional<Vector2d> look_along;
};

/// When an attack of an agent can be pulled again, and how often until it is empty.
struct Readiness {
  Moment at = 0;
  int left = 0;  ///< Of its ammunition, if that is not endless.
};

/// What an attack is made at: an agent or a place; neither: straight ahead.
struct Aimed {
  std::optional<std::uint32_t> agent;
  std::optional<Vector3d> place;
  bool is_plan = false;  ///< The place has no height: what flies straight flies level.
};

/// What a driven agent aims at and whether it fires.
struct Trigger {
  std::optional<Vector3d> aim;
  bool is_plan = false;                       ///< It has no height.
  std::uint64_t attacks = ~std::uint64_t{0};  ///< That it makes, by bit.
  bool fires = false;
  Moment until = std::numeric_limits<Moment>::max();  ///< It fires no later than then.
};

/// Where a body is that is not in play.
enum class Presence : std::uint8_t {
  here,     ///< In play, or defeated where it lies.
  away,     ///< Not there yet.
  carried,  ///< A thing in somebody's hand,
  thrown,   ///< or in flight.
};

/// A blow or shot of an attack that has been pulled.
struct Release {
  std::uint32_t who = 0;
  std::uint32_t attack = 0;
  Aimed at;
  Moment due = 0;
  bool is_late = false;  ///< Some time has passed since it was pulled.
};

struct Shell {
  std::uint32_t shooter = 0;
  const Attack* attack = nullptr;      ///< In the level, which outlives it.
  std::optional<std::uint32_t> thing;  ///< The agent that has been thrown;
  std::uint32_t thing_kind = kNoKind;  ///< its kind, also of one out of a pocket.
  std::int64_t number = -1;            ///< So many were fired before it; -1: a beam.
  Moment lifetime = 0;
  Vector3d origin{0.0, 0.0, 0.0};
  Vector3d position{0.0, 0.0, 0.0};
  Vector3d velocity{0.0, 0.0, 0.0};
  Moment age = 0;
  std::optional<std::uint32_t> target;  ///< That it turns to, if it does.
  bool has_landed = false;
  bool is_spent = false;
  Moment met_at = 0;    ///< When it met something last, or ended.
  int clear_steps = 0;  ///< So many whole steps from here on nothing solid is in its way.
  int bounces_left = 0;
  int pierced_count = 0;
};

/// Bodies that a shell has passed through.
using Pierced = std::array<std::uint32_t, kMostPierced>;

/// A ray that stays on.
struct Beam {
  std::uint32_t who = 0;
  std::uint32_t attack = 0;
  Aimed at;
  Moment from = 0;
  Moment until = 0;
  std::optional<std::uint32_t> body;   ///< That it falls on,
  std::optional<std::uint32_t> solid;  ///< or this.
  double length = 0.0;                 ///< To there, metres.
  Moment owed = 0;                     ///< For so long it has fallen there and not hurt yet.
};

/// A place that an agent knows of without knowing who is there: it heard something.
struct Clue {
  Vector3d place{0.0, 0.0, 0.0};
  std::string_view noise;
  Moment since = 0;
  Moment forget_at = 0;
  double distance = 0.0;
};

/// A noise of this step.
struct MadeNoise {
  Noise noise;
  std::string_view name;
  std::optional<std::uint32_t> maker;
  std::int64_t tick = 0;
};

/// The clearest noise of one name that a hearer heard in this step.
struct Heard {
  std::size_t noise = 0;  ///< Index in `noises`.
  double distance = 0.0;
};

/// A friend's word that will arrive.
struct Alarm {
  std::uint32_t to = 0;
  std::uint32_t from = 0;
  std::uint32_t about = 0;
  Moment due = 0;
  Moment remember = 0;
  Vector3d place{0.0, 0.0, 0.0};
};

/// One that gave up what it had hardly begun: for a while what it sees does not make it begin
/// again.
struct TurnedBack {
  Moment until = -1;       ///< -1: it did not.
  std::uint64_t held = 0;  ///< Rules of its kind, by bit, whose cause has come up meanwhile.
};

/// A reaction that waits for its time.
struct Pending {
  std::uint32_t who = 0;
  std::uint32_t rule = 0;
  Moment due = 0;
};

/// Another agent perceived by a sense other than sight, in this step.
struct Perceived {
  std::uint32_t who = 0;  ///< Perceives it.
  std::uint32_t other = 0;
  Sense sense = Sense::feeler;
  Moment remember = 0;
  Vector3d place{0.0, 0.0, 0.0};
  std::optional<std::uint32_t> teller;
};

/// Who triggers a zone, and the tags that it gives and takes.
struct ZoneTrigger {
  Whom whom;
  std::uint64_t grants = 0;
  std::uint64_t takes = 0;
};

/// Another that touches a body, and the side on which it came to.
struct Touching {
  std::uint32_t other = 0;
  Side side = Side::front;
};

struct Blow {
  std::uint32_t by = 0;
  std::uint32_t victim = 0;
  const Attack* attack = nullptr;  ///< In the level, which outlives it.
  double share = 1.0;              ///< Of the damage and push of the attack.
  Vector3d from{0.0, 0.0, 0.0};    ///< Where it came from: it pushes away from there.
  Vector3d at{0.0, 0.0, 0.0};      ///< What tells on which side it falls.
  Moment when = 0;                 ///< Within the step.
  std::size_t number = 0;          ///< In the order in which they came up.
};

/// Agents kept for what one may leave behind: at its defeat, or where its shots end.
struct Leftover {
  std::uint32_t owner = 0;
  const Attack* attack = nullptr;  ///< In the level; none: at its defeat.
  std::uint32_t first = 0;         ///< Index of an agent; so many from there on,
  std::uint32_t count = 0;
  std::uint32_t next = 0;  ///< of which that one is used next.
};

/// What an agent acts on: another that it notices, else the place that it learnt of last.
struct Focus {
  std::optional<std::uint32_t> agent;
  Vector3d place{0.0, 0.0, 0.0};   ///< Of the feet.
  Vector3d motion{0.0, 0.0, 0.0};  ///< How it moved when last perceived, metres a step.
  double height = 0.0;             ///< Of what is there.
};
}  // namespace gaze
