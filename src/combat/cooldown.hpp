#pragma once

#include <limits>
#include <optional>

#include "gaze/time.hpp"

namespace gaze {

/// An attack that will never be ready again.
constexpr Moment kNeverReady = std::numeric_limits<Moment>::max();

/// An attack that has never been made is ready since long ago.
constexpr Moment kAlwaysReady = std::numeric_limits<Moment>::min() / 2;

/// When an attack is pulled in the step that ends at `now`, given that it can be made; nothing if
/// it is not ready. Moves `ready` to when the next one is: a cooldown after its own ready time if
/// that lay within the step, else after the step's time. So over T seconds of continuous attack
/// there are floor(T / cooldown) + 1 pulls, at any rate.
inline std::optional<Moment> take_pull(Moment& ready, Moment now, Moment cooldown) {
  if (ready > now) return std::nullopt;
  const Moment pulled = ready > now - kMomentsPerTick ? ready : now;
  ready = pulled + cooldown;
  return pulled;
}

}  // namespace gaze
