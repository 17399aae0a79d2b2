#pragma once

#include "agents/everyone.hpp"

namespace gaze {

/// The game as minds see it. Minds write what agents are about to do.
struct Deciding : Teller {
  Minds& minds;

  template <typename State>
  explicit Deciding(State& state) : Teller(state), minds(state.minds) {}
};

/// The stage of a step in which minds choose their targets and modes and react.
void decide(Deciding& state);
/// Takes up modes that have ended on the way.
void end_modes(Deciding& state);
/// Attacks that a reaction asked for are no longer asked for once they have been made.
void note_made(Deciding& state);
/// Wakes all agents that something wakes.
void wake_up(Deciding& state);

/// Switches an agent on, if it sleeps.
void wake(Deciding& state, std::uint32_t who);
/// Changes the mode of an agent, and tells of it.
void change_mode(Deciding& state, std::uint32_t who, Mode to);

/// True if a reaction asks for an attack now: by its own word, or for as long as its cause lasts.
[[nodiscard]] bool is_asked_for(const Everyone& all, std::uint32_t who, std::uint32_t attack);

}  // namespace gaze
