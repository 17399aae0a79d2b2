#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// What happens in a run, in the order in which the events of one tick are listed. In quotes: the
/// members of an `Event` that mean something then.
enum class Happening : std::uint8_t {
  arrived,    ///< At `place`, the end of a script's way.
  landed,     ///< At `place`, by hop, drop or fall: `distance` below the highest of it.
  blocked,    ///< On the way to `place`: under 1 cm nearer within a second; or it could not take
              ///< `other`, from a gap of `distance`, or throw an `attack` that it does not have.
  took,       ///< `other`, a thing.
  left,       ///< The bounds of the level, at `place`, and is put back unless `is_outside`.
  attacked,   ///< `other` with `attack`, from `distance`.
  fired,      ///< A projectile of `attack` from `place`, in the direction `angle_deg` of the plan.
  hit,        ///< `other`, or `solid`, or the ground, with `attack` at `place`.
  spent,      ///< A projectile of `attack`, whose time was over at `place`, or that got out of the
              ///< level there (`is_outside`). Every flight ends by this or by a hit.
  broke,      ///< `solid`, at the last of its health.
  blast,      ///< Of `attack` at `place`.
  hurt,       ///< By `other` with `attack` on a `side`: lost `damage`, `health` is left.
  defeated,   ///< By `other`, for a `score`; by nobody: it has left the level.
  caught,     ///< `other` with `attack`.
  ended,      ///< The round: the last to fall, or who caught `other`.
  triggered,  ///< Stepped into `zone`.
  heard,      ///< `noise` of `other`, or of nobody, at `place`, `distance` away.
  noticed,    ///< `other`, `by` a sense, at `distance` (by nearness: along the axes that
              ///< count), `angle_deg` off its facing.
  lost,       ///< `other`; last perceived at `place`.
  forgot,     ///< `other`, or the noise that it went by.
  mode,       ///< Changed it, `from` one `to` another.
  target,     ///< Changed the agent that it acts on, to `other`.
};

inline constexpr std::array<std::string_view, 22> kHappeningNames{
    "arrived", "landed",  "blocked", "took",   "left",     "attacked", "fired", "hit",
    "spent",   "broke",   "blast",   "hurt",   "defeated", "caught",   "ended", "triggered",
    "heard",   "noticed", "lost",    "forgot", "mode",     "target"};

[[nodiscard]] std::string_view name_of(Happening what);

}  // namespace gaze
GAZE_PUBLIC_END
