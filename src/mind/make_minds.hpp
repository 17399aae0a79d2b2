#pragma once

#include "agents/everyone.hpp"

/// Makes all that minds write, as it is when a round begins.
namespace gaze {

[[nodiscard]] Minds make_minds(const Fixed& fixed, Moment now);
/// Agents that have been added to the level since, as they begin.
void add_agents(Minds& minds, const Fixed& fixed, Moment now);

/// Makes an agent act on nobody any more. What it was about to do is not done.
void clear_mind(Minds& minds, std::uint32_t who);
/// The same, and it is awake and as fresh as at the beginning.
void reset(Minds& minds, std::uint32_t who);

}  // namespace gaze
