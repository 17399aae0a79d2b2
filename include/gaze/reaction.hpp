#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"
#include "gaze/time.hpp"

/// What an agent does about what it perceives.
GAZE_PUBLIC_BEGIN
namespace gaze {

enum class Mode : std::uint8_t {
  post,
  patrol,
  chase,
  investigate,  ///< Goes to the place it knows of and looks round there.
  search,       ///< Goes to it and then from place to place around it.
  return_,
  wander,  ///< To and fro, or anywhere in an area.
  follow,  ///< Stays by a friend.
  flee,    ///< Goes to the far side of the circle about its post.
  mirror,  ///< Aims and fires as a friend does who is driven.
  script,
  host,
  out
};
[[nodiscard]] std::string_view name_of(Mode mode);

/// What can make it react. Of several in one step the first here decides the mode.
enum class Cause : std::uint8_t {
  sees,
  hurt,
  touches,  ///< By side.
  feels,    ///< By feeler: its answer becomes yes.
  misses,   ///< By feeler: its answer becomes no.
  near,     ///< By the other's kind.
  hears,    ///< By the noise's name.
  told,     ///< By the teller's kind.
  triggered,
  arrives,  ///< At the place that it investigates or searches, or as near as it gets.
  forgets,
  loses,
  lasts  ///< By mode: it has been in it for as long as the reaction's `after`.
};
[[nodiscard]] std::string_view name_of(Cause cause);

struct Reaction {
  std::optional<Mode> mode;
  std::string attack;              ///< Of its kind, made for this alone; empty: none.
  std::string noise;               ///< Name of a noise that it makes; empty: none.
  double reach = 10.0;             ///< Of that noise, metres.
  std::vector<std::string> wakes;  ///< Agents that it switches on.
  /// Turns its body round from where it faces, anticlockwise, [-360, 360]; seen from the side for
  /// who faces left clockwise. There it faces from then on while it has nothing to look at; on a
  /// patrol more than 90 degrees send it back to the point before, and whoever wanders to and fro
  /// goes on that way.
  std::optional<Angle> turn;
  Duration after;  ///< So long after the cause.
};

struct Rule {
  Cause cause = Cause::sees;
  std::string name;  ///< Of a noise, feeler, side, kind or mode; empty: any.
  Reaction reaction;
};

/// At most 64 rules. Nothing set for a cause: it keeps its mode, but `forgets` returns.
struct When {
  std::vector<Rule> rules;  ///< In the order of the file.
  /// post, patrol, wander or follow; else patrol with two points or more, else what its kind has
  /// keys for, else post.
  std::optional<Mode> idle;

  /// The mode that a cause leads to, whatever its name and however late, if to any.
  std::optional<Mode> mode_of(Cause cause) const;
};

}  // namespace gaze
GAZE_PUBLIC_END
