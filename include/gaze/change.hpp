#pragma once

#include <optional>
#include <string>
#include <vector>

#include "gaze/public.hpp"
#include "gaze/sight.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// One step or turn that helps to turn the answer of a look.
struct Change {
  enum class What {
    nearer,      ///< The other goes straight towards the looker's feet, as far as the range counts:
    farther,     ///< level in a ground level, in all three axes in space. Or away from them.
    aside,       ///< The other steps across that line, level; not seen from the side.
    higher,      ///< The other rises.
    lower,       ///< The other sinks.
    turn,        ///< The looker turns in the plan.
    turn_round,  ///< Seen from the side, one that faces right or left faces the other way.
  };
  What what = What::nearer;
  double amount = 0.0;   ///< Metres, in whole centimetres; degrees, in whole tenths.
  bool to_left = false;  ///< Aside: as the looker sees it. Turns: anticlockwise.
  std::string solid;     ///< Steps: what is in the way now, or will be.
};

/// How far steps are looked for, metres; nearer and farther as far as the range asks for it.
inline constexpr double kFarthestStep = 10.0;

/// What would turn the answer of a look. All of it has been tried: the look has been made again
/// with the changes as they are printed.
struct Remedy {
  bool is_seen = false;  ///< The other is seen: each change ends that alone.
  /// The changes that make somebody seen who is not seen now, done one after the other; it is a
  /// single one if that is enough. Each is the least of its sort: a centimetre or a tenth of a
  /// degree less would not do. Empty if none have been found.
  std::vector<Change> changes;
  std::string solid;  ///< What is in the way now, if anything is.
};

/// Makes a change: moves the other, or turns the looker.
void apply(Plane plane, const Change& change, Looker& looker, LookedAt& other);

/// Looks for what would turn the answer. One who is not seen: by one change, first of the sort that
/// the failed test calls for; else by a step and a turn, or two steps and a turn. One who is seen:
/// by a step away, a turn and a step aside. Makes some thousands of looks.
[[nodiscard]] Remedy remedy(const World& world, const Level& level, const Looker& looker,
                            const LookedAt& other);

/// "turn 4.2 degrees to its left", or "no single change helps; 0.60 m nearer, then turn ...".
[[nodiscard]] std::string describe(const Remedy& remedy, Plane plane);

/// "nearer", "turn round", ...
[[nodiscard]] std::string_view name_of(Change::What what);

}  // namespace gaze
GAZE_PUBLIC_END
