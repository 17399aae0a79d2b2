#pragma once

namespace gaze {

/// Memory that is worked in and holds nothing from one step to the next: what a game is assigned
/// keeps its own.
template <typename T>
struct Scratch : T {
  using T::T;
  Scratch(const Scratch&) = default;
  Scratch(Scratch&&) noexcept = default;
  Scratch& operator=(const Scratch&) noexcept { return *this; }
  Scratch& operator=(Scratch&&) noexcept = default;
  ~Scratch() = default;
};

}  // namespace gaze
