#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "gaze/attack.hpp"
#include "gaze/move.hpp"
#include "gaze/public.hpp"
#include "gaze/reaction.hpp"
#include "gaze/senses.hpp"
#include "gaze/solid.hpp"

/// What agents of one sort are like: their body, senses, gait, attacks and reactions.
GAZE_PUBLIC_BEGIN
namespace gaze {

constexpr std::uint32_t kNoTeam = 0xFFFFFFFF;

/// What happens when an agent of the kind is defeated.
struct Defeat {
  std::optional<std::uint32_t> leaves;  ///< A kind that appears in its place, by index.
  std::string attack;                   ///< Name of a burst or a shot ahead; empty: none.
  double score = 0.0;                   ///< Points for who defeated it.
  std::optional<Duration> respawn;      ///< After that it is back at a start place; none: never.
  std::vector<std::string> tells;       ///< Agents that learn where the one is who defeated it.
  std::vector<std::string> wakes;       ///< Agents that it switches on.
};

/// How a thing is carried and thrown. Things have no will of their own, and everybody can break
/// them.
struct Thing {
  /// A shot by the name of its kind, as thick as its body; of its values those count that both
  /// have.
  Attack flight = [] {
    Attack thrown;
    thrown.how = Attack::How::shot;
    thrown.aim = Attack::Aim::lob;
    thrown.speed = 9.0;
    return thrown;
  }();
  bool breaks = false;      ///< Where its flight ends it is defeated.
  double take_reach = 0.5;  ///< From body to body, metres.
  /// Agents, kinds, teams or tags. Such an agent picks the thing up when it comes within
  /// `take_reach`, and no other agent can take it. Empty: every agent can, by a script or a call.
  std::vector<std::string> picked_up_by;
  double heals = 0.0;                ///< Health for the agent that picks it up, points, >= 0.
  std::vector<std::string> refills;  ///< Names of that agent's attacks whose ammunition it refills.

  /// Returns whether the thing is removed when it is picked up. Other things are carried.
  bool is_used_up() const { return heals > 0.0 || !refills.empty(); }
};

/// Things of a kind that an agent has with it from the start.
struct Pocket {
  std::uint32_t kind = 0;  ///< Index in Level::kinds.
  int count = 0;
};

/// Whom a body stops, and who stops it: two bodies stop each other if each is solid to the other.
/// Things and the defeated stop nobody.
struct SolidTo {
  bool friends = true;  ///< For agents of whom neither is hostile to the other's team.
  bool foes = true;     ///< For all other agents.
};

/// The values of a sort of agents, or of one agent that differs from its sort in some.
struct Kind {
  std::string name;
  std::string like;              ///< The kind it grew out of, if any.
  std::uint32_t team = kNoTeam;  ///< Index in Level::teams.
  double radius = 0.3;           ///< Metres, above 0.
  double height = kUsualHeight;  ///< Metres, above 0.
  double health = 100.0;         ///< Points, above 0.
  SolidTo solid_to;
  double mass = 1.0;                     ///< Pushes are divided by it; above 0.
  Duration grace;                        ///< After it has been hurt it cannot be again.
  std::map<std::string, double> resist;  ///< By kind of damage: share taken off, <= 1.
  std::array<double, 6> side_factors{1, 1, 1, 1, 1, 1};  ///< Of damage, by Side.
  double heals = 0.0;    ///< Points a second that it regains, up to its health.
  Duration heals_after;  ///< It heals once it has not been hurt for so long.
  std::vector<double> body_points{0.0, 0.5, 1.0};  ///< Shares of the height that others look at.
  double visibility = 1.0;                         ///< Evidence of it grows as fast, [0, 100].
  std::optional<double> still_visibility;  ///< The same while it does not move; else as much.
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
  std::optional<Move> move;  ///< None: it stays where it is, and turns.
  std::optional<Wander> wander;
  std::vector<Attack> attacks;  ///< In the order of the file.
  std::optional<Thing> thing;   ///< It can be carried and thrown.
  std::vector<Pocket> carries;  ///< What it has with it.
  Defeat defeat;
  When when;
  Place place;
};

/// The share of a damage of that kind that a body takes: above 1 if it is weak to it.
[[nodiscard]] double share_taken(const Kind& kind, const std::string& damage_kind);

/// How far in front of a target of that kind a chaser stops, centre to centre, metres.
[[nodiscard]] double stop_distance(const Kind& chaser, const Kind& target);

/// How far a kind goes on seeing what it has noticed, metres; 0 without sight.
[[nodiscard]] double farthest_sight(const Kind& kind);

/// How high the eye of a kind is above its feet, metres: it looks and listens from there.
[[nodiscard]] double eye_height(const Kind& kind);

}  // namespace gaze
GAZE_PUBLIC_END
