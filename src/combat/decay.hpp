#pragma once

namespace gaze {

/// e to the power of minus x, for x >= 0, made of + - * / alone so that every machine has the same
/// bits: by the series of e^(x / 2^k), x / 2^k at most 1/16, squared k times. To a relative 1e-14
/// (1 + x).
[[nodiscard]] inline double decay(double x) {
  int halvings = 0;
  while (x > 1.0 / 16.0 && halvings < 64) {
    x /= 2.0;
    ++halvings;
  }
  double sum = 1.0;
  for (int i = 10; i > 0; --i) sum = 1.0 + sum * x / i;
  double result = 1.0 / sum;
  for (; halvings > 0; --halvings) result *= result;
  return result;
}

}  // namespace gaze
