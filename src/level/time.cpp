#include "gaze/time.hpp"

#include <cmath>

namespace gaze {

Duration Duration::from_seconds(double seconds) {
  return {static_cast<std::int64_t>(std::llround(seconds * 1e9))};
}

std::int64_t nearest_tick(double seconds, int ticks_per_second) {
  const double tick = std::floor(seconds * ticks_per_second + 0.5);
  return tick > 0.0 ? static_cast<std::int64_t>(tick) : 0;
}

}  // namespace gaze
