#pragma once

#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/time.hpp"

/// What the names in a level stand for. All names are looked up once, when a simulation is set up,
/// so that play compares no text.
namespace gaze {

/// Stands for no number at all.
constexpr std::uint32_t kNothing = 0xFFFFFFFF;
/// The number of a rule that names nothing: it is about anything.
constexpr std::uint32_t kAnything = 0xFFFFFFFE;

/// The name of a noise, and its number. No two names have the same number.
struct NoiseName {
  std::string_view text;
  std::uint32_t id = kNothing;
};

/// An attack of a kind, by number, or how a thing of that kind flies.
struct AttackId {
  static constexpr std::uint32_t kFlight = 0xFFFFFFFF;
  std::uint32_t kind = kNothing;
  std::uint32_t number = 0;
  bool operator==(const AttackId&) const = default;
};

struct RuleLinks {
  /// What the cause of a rule has to be about: the number of a feeler, a side, a kind, a noise or a
  /// mode.
  std::uint32_t about = kAnything;
  std::uint32_t attack = kNothing;  ///< That it asks for.
  NoiseName noise;                  ///< That it makes.
  std::vector<std::uint32_t> wakes;
  Moment after = 0;
};

struct KindLinks {
  std::string_view name;
  std::uint32_t named = 0;  ///< The first kind of its name.
  std::vector<RuleLinks> rules;
  std::vector<NoiseName> attack_noises;  ///< By attack.
  NoiseName flight_noise;                ///< Of a thing that is thrown.
  std::uint32_t at_defeat = kNothing;    ///< Index of the attack of its defeat.
  /// Attacks that a thing of this kind refills, as bits, for each kind of agent; empty: none.
  std::vector<std::uint64_t> refills;
  std::vector<std::uint32_t> wakes;  ///< Agents that its defeat is reported to.
  std::vector<std::uint32_t> tells;  ///< At its defeat.
  std::uint32_t area = kNothing;     ///< The number of the zone in which it wanders.
};

/// What the names in one step of a script stand for.
struct ScriptLinks {
  std::uint32_t thing = kNothing;             ///< The agent to take.
  std::uint64_t attacks = ~std::uint64_t{0};  ///< With which it fires, by bit.
  NoiseName noise;                            ///< That it makes.
};

/// All of them.
struct Links {
  std::vector<std::string_view> noises;           ///< The names of noises in the level, by number.
  std::vector<KindLinks> kinds;                   ///< By kind.
  std::vector<std::vector<ScriptLinks>> scripts;  ///< By agent, and by step of its script.
  NoiseName step;                                 ///< Made by walking.
  NoiseName shot;                                 ///< Made by firing.

  explicit Links(const Level& level);
};

}  // namespace gaze
