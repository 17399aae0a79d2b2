#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "gaze/event.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// What one agent did to another in a run.
struct Duel {
  AgentId by;
  AgentId victim;
  int pulls = 0;       ///< Attacks made at it.
  int blows = 0;       ///< Projectiles fired at it, and pulls of what fires none.
  int hits = 0;        ///< Times that it was hit; by what bursts, times that this hurt it.
  double dealt = 0.0;  ///< Health that it lost.
  std::array<double, 6> by_side{};       ///< The same by Side.
  std::optional<double> noticed;         ///< Seconds: when the one first noticed the other.
  std::optional<double> first_attacked;  ///< Seconds: when it first attacked it.
  std::optional<double> first_hurt;      ///< Seconds: when it first hurt it.
  std::optional<double> last_hurt;       ///< Seconds: when it last hurt it.
  std::optional<double> defeated;        ///< Seconds: when it defeated it.

  /// The share of its blows that hit: in [0, 1], or above where one blow hits several times.
  /// Nothing without blows.
  std::optional<double> hit_share() const;
  /// Points of damage a second, from its first attack to its last hit. Nothing if that takes no
  /// time.
  std::optional<double> damage_rate() const;
  /// Seconds from being noticed to being hurt: what the other had to react.
  std::optional<double> warning() const;
  /// Seconds from being noticed to being defeated.
  std::optional<double> time_to_defeat() const;
};

/// All pairs of which one attacked or hurt the other, by the order of both in the level. From the
/// events of a run, in the order in which they came.
[[nodiscard]] std::vector<Duel> duels(const Simulation& simulation, std::span<const Event> events);

/// What was lost at a place: in a zone, or outside all.
struct HarmPlace {
  AgentId victim;
  std::optional<std::uint32_t> zone;  ///< Index in Level::zones; where zones overlap, the first.
  int blows = 0;
  double dealt = 0.0;
};

/// Where each was hurt in a run, by the order of agents and of zones; outside of zones last.
[[nodiscard]] std::vector<HarmPlace> harm_places(const Simulation& simulation,
                                                 std::span<const Event> events);

}  // namespace gaze
GAZE_PUBLIC_END
