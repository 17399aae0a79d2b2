#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "gaze/figure.hpp"
#include "gaze/public.hpp"
#include "gaze/simulation.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// The first moment at which two runs are not alike.
struct RunFork {
  double seconds = 0.0;
  std::string who;  ///< The id of an agent or a solid, or a few words: "a projectile of barrel-1".
  std::string of;   ///< What it then knows or does differently is about this agent; may be empty.
  std::array<std::string, 2> states;    ///< Of who: how that is in each of the runs.
  std::array<std::string, 2> verdicts;  ///< What it can tell of the other by sight; may be empty.
  std::size_t others = 0;               ///< So many more agents part at the same tick.
};

/// Events of one sort with the same agents, whose number or times differ between the runs.
struct EventDifference {
  std::string what;  ///< "pruner-1 hurt collector"
  std::array<int, 2> count{};
  /// Seconds of the first event in each run. If both runs have as many: the first times that
  /// differ.
  std::array<double, 2> first{};
};

/// What an event is, without its numbers: "pruner-1 hurt collector". Events of one sort are
/// counted together where runs are held against each other.
[[nodiscard]] std::string sort_of(const Simulation& game, const Event& event);

struct Comparison {
  /// Both runs have the same tick rate. If not, only figures and numbers of events are compared.
  bool is_compared_by_tick = true;
  std::optional<RunFork> fork;  ///< Nothing: all that is common to both is alike to the last bit.
  /// There is no fork, but at the end the games differ in memories, cooldowns or planned paths.
  bool differs_inside = false;
  std::vector<std::string> only_in_one;    ///< Agents that the other level does not have.
  std::vector<std::string> only_in_other;  ///< The same of the other.
  std::vector<Figure> figures;             ///< Those that both levels have.
  std::vector<std::array<std::optional<double>, 2>> values;  ///< By figure.
  std::vector<EventDifference> events;  ///< Those that come first in either run come first.
};

/// Plays two levels side by side to the end of the longer one. Their states are held against each
/// other as long as both have steps of one length; else their events alone.
[[nodiscard]] Comparison compare(const Level& one, const Level& other);

}  // namespace gaze
GAZE_PUBLIC_END
