#pragma once

#include <fmt/format.h>

#include <string>

/// How text shows numbers.
namespace gaze {

/// "9.000 m, at most 9.000": a measured number and its limit, with so many digits behind the point,
/// and with more where the number is beyond the limit and would not look it.
inline std::string beside_limit(double value, double limit, const char* unit, int digits) {
  constexpr int kMostDigits = 12;
  std::string measured = fmt::format("{:.{}f}", value, digits);
  std::string most = fmt::format("{:.{}f}", limit, digits);
  while (value > limit && measured == most && digits < kMostDigits) {
    ++digits;
    measured = fmt::format("{:.{}f}", value, digits);
    most = fmt::format("{:.{}f}", limit, digits);
  }
  return fmt::format("{}{}, at most {}", measured, unit, most);
}

/// Points of health, damage and score: to a hundredth, without zeros behind; 0 only if it is.
inline std::string points_text(double value) {
  if (value > 0.0 && value < 0.005) return fmt::format("{:.1g}", value);
  std::string text = fmt::format("{:.2f}", value);
  text.erase(text.find_last_not_of('0') + 1);
  if (text.back() == '.') text.pop_back();
  return text;
}

}  // namespace gaze
