#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/level.hpp"
#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// How a kind fares against another that it is hostile to, before anybody plays.
struct PairFigures {
  /// How one attack fares if all of it hits, with wind-up, bursts, ammunition, resistance and
  /// grace.
  struct Harm {
    std::string attack;
    double dealt = 0.0;             ///< Health, until the other is defeated or it is empty.
    std::optional<double> seconds;  ///< From the first pull to the defeat; nothing: never.
    double from = 0.0;              ///< Metres between their middles: as near as the one comes.
    double reach = 0.0;             ///< Metres between their middles: as far as the attack reaches.
    bool is_healed = false;         ///< The other heals as fast as the attack hurts it.

    /// False: the attack is never made, however long the one chases.
    bool is_in_reach() const { return from <= reach; }
  };
  /// What comes of it when the other, who walks, turns round and runs straight away.
  struct RunningAway {
    double from = 0.0;              ///< Metres between their middles: as near as the one comes.
    double lost = 0.0;              ///< Health that it loses at most, to all attacks together.
    std::optional<double> seconds;  ///< Until it is out of reach of all; nothing: it never is.
  };
  std::string by;  ///< Names of kinds.
  std::string whom;
  double health = 0.0;  ///< Of whom.
  std::vector<Harm> harms;
  std::optional<RunningAway> running_away;  ///< If it can run and would be hurt.
  /// Metres a second by which the gap grows while the one chases and the other goes straight away
  /// as fast as it ever goes; below 0 it shrinks. Nothing if the one never chases.
  std::optional<double> gain;
};

/// In one line.
[[nodiscard]] std::string describe(const PairFigures& pair);

/// "shears in 12 s (8.33 points/s)"
[[nodiscard]] std::string harm_text(const PairFigures::Harm& harm);

/// Something about a level that its designer should know before it is played.
struct Finding {
  enum class Severity {
    error,    ///< It will not do what it is there for.
    warning,  ///< Some of it will never matter, or will look wrong.
    note,     ///< How play will go; nothing is wrong.
  };
  Severity severity = Severity::note;
  std::string code;     ///< A short name for this sort of finding, as in docs/findings.md.
  std::string message;  ///< One line: what will happen in play, with the numbers.
  Place place;          ///< Of the value that decides it, else of the thing itself.
  std::optional<PairFigures> pair;  ///< With the code "pair".
};

/// Judges a level without playing it. Errors first, then warnings, then notes; deterministic.
/// @param goes_on  Called before each of some twenty parts of the judgement, if set. If it returns
///                 false, `judge` returns the findings so far.
[[nodiscard]] std::vector<Finding> judge(const Level& level,
                                         const std::function<bool()>& goes_on = {});

/// True if any finding is an error or a warning.
[[nodiscard]] bool has_fault(const std::vector<Finding>& findings);

[[nodiscard]] std::string_view name_of(Finding::Severity severity);

}  // namespace gaze
GAZE_PUBLIC_END
