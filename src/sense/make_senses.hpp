#pragma once

#include "agents/everyone.hpp"
#include "sense/senses.hpp"

/// Makes all that senses write, as it is when a round begins.
namespace gaze {

[[nodiscard]] Knowledge make_knowledge(const Fixed& fixed);
[[nodiscard]] Senses make_senses(const Fixed& fixed);

/// Agents that have been added to the level since, as they begin.
void add_agents(Knowledge& knowledge, const Fixed& fixed);
void add_agents(Senses& senses, const Fixed& fixed);

/// Makes an agent forget what it knows of others.
void forget(Knowledge& knowledge, Senses& senses, std::uint32_t who);
/// The same, and everything else that its senses remember.
void reset(Knowledge& knowledge, Senses& senses, const Fixed& fixed, std::uint32_t who);

}  // namespace gaze
