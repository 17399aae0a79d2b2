#pragma once

#include <cmath>

namespace gaze {

/// A number rounded to 9 decimals: a nanometre, or a nanosecond. It is never -0.
inline double rounded(double value) {
  return std::round(value * 1e9) / 1e9 + 0.0;
}

/// A facing for people, in [0, 360) also when rounded.
inline double rounded_turn(double degrees) {
  const double result = rounded(degrees);
  return result < 360.0 ? result : 0.0;
}

}  // namespace gaze
