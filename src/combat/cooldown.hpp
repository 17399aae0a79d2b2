#pragma once

#include <limits>

#include "gaze/time.hpp"

namespace gaze {

/// An attack that has never been made is ready since long ago.
constexpr Moment kAlwaysReady = std::numeric_limits<Moment>::min() / 2;

/// How many attacks fall due at a step that ends at `now`, given that they can be made; moves
/// `ready` to when the next one is. The next is ready a cooldown after its own ready time if that
/// lay within the step, else after the step's time: floor(T / cooldown) + 1 over T seconds of
/// continuous attack, at any rate.
[[nodiscard]] inline int take_pulls(Moment& ready, Moment now, Moment cooldown) {
  int pulls = 0;
  while (ready <= now) {
    const bool within_step = ready > now - kMomentsPerTick;
    ready = (within_step ? ready : now) + cooldown;
    ++pulls;
  }
  return pulls;
}

}  // namespace gaze
