#pragma once

#include <memory>

#include "agents/fixed.hpp"

/// Works out what follows from a level, and from what is changed in it while it is played.
namespace gaze {

/// All that follows from a level before anything moves, with agents for what may be left behind.
/// @param written  The kinds as they were given, with what is left out.
[[nodiscard]] std::shared_ptr<const Fixed> make_fixed(std::shared_ptr<const Level> level,
                                                      std::vector<Kind> written);

/// The same with another seed.
[[nodiscard]] std::shared_ptr<const Fixed> with_seed(const Fixed& fixed, std::uint64_t seed);

/// The same for a level that has come of another while it was played, with which a game began. Its
/// agents are taken as they are, and none has left its number to another yet.
[[nodiscard]] std::shared_ptr<Fixed> changed(const Fixed& begun,
                                             std::shared_ptr<const Level> level);

/// What follows from one agent of the level, which is new or is another now.
void put_agent(Fixed& fixed, std::uint32_t who);
/// The same for all from that one on, and what follows from all agents together.
void put_agents(Fixed& fixed, std::uint32_t first);

}  // namespace gaze
