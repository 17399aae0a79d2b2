#pragma once

#include "travel/travelling.hpp"

/// How an agent goes that the host steers.
namespace gaze {

[[nodiscard]] inline bool is_steered(const Travelling& state, std::uint32_t who) {
  return state.ways.steering[who] != nullptr;
}

/// Moves it for one step.
void go_as_steered(Travelling& state, std::uint32_t who);
/// What it turns to.
[[nodiscard]] FacingWish steered_facing(const Travelling& state, std::uint32_t who);

}  // namespace gaze
