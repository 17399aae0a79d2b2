#pragma once

#include "combat/fighting.hpp"

/// Makes all that combat writes, as it is when a round begins.
namespace gaze {

[[nodiscard]] Lives make_lives(const Fixed& fixed);
[[nodiscard]] Fights make_fights(const Fixed& fixed);

/// Puts an agent into play, with all that its kind has.
void reset(Lives& lives, Fights& fights, const Fixed& fixed, std::uint32_t who);

/// The level, with an agent added for everything that may be left behind. These agents are not in
/// play yet.
[[nodiscard]] std::shared_ptr<const Level> with_leftovers(std::shared_ptr<const Level> level);

}  // namespace gaze
