#pragma once

#include "combat/fighting.hpp"

/// Makes all that combat writes, as it is when a round begins.
namespace gaze {

[[nodiscard]] Lives make_lives(const Fixed& fixed);
[[nodiscard]] Fights make_fights(const Fixed& fixed);

/// Agents that have been added to the level since, as they begin.
void add_agents(Lives& lives, const Fixed& fixed);
void add_agents(Fights& fights, const Fixed& fixed);

/// Solids that have been added to the level since, whole.
void add_solids(Fights& fights, const Level& level);

/// Puts an agent into play, with all that its kind has.
void reset(Lives& lives, Fights& fights, const Fixed& fixed, std::uint32_t who);
/// An agent is of another kind from now on: it has what that has, and does nothing of what it was
/// about to do.
void change_kind(Lives& lives, Fights& fights, const Fixed& fixed, std::uint32_t who);

}  // namespace gaze
