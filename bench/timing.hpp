#pragma once

#include <algorithm>
#include <chrono>
#include <iterator>
#include <vector>

/// For what is timed by turns within one benchmark.
namespace gaze {

inline double median(std::vector<double> values) {
  std::nth_element(values.begin(), values.begin() + std::ssize(values) / 2, values.end());
  return values[values.size() / 2];
}

inline double microseconds_since(std::chrono::steady_clock::time_point start) {
  return std::chrono::duration<double, std::micro>(std::chrono::steady_clock::now() - start)
      .count();
}

}  // namespace gaze
