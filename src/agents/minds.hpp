#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "agents/contact.hpp"
#include "gaze/reaction.hpp"

namespace gaze {

/// A reaction that waits for its time.
struct Pending {
  std::uint32_t who = 0;
  std::uint32_t rule = 0;
  Moment due = 0;
};

/// What all agents are about, by agent. Minds write it.
struct Minds {
  std::vector<char> awake;
  std::vector<Mode> mode;
  std::vector<Moment> mode_since;
  std::vector<std::optional<Contact>> target;
  std::vector<char> has_target;       ///< The same in short.
  std::vector<std::uint64_t> urged;   ///< Attacks that a reaction asks for, by bit.
  std::vector<std::uint64_t> lasted;  ///< Rules of the cause `lasts` that fired in this mode.
  std::vector<Pending> pending;       ///< Delayed reactions of all agents.
};

}  // namespace gaze
