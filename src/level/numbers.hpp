#pragma once

#include <fmt/format.h>

#include <cmath>
#include <string>
#include <type_traits>
#include <utility>

#include "gaze/geometry.hpp"

/// How text shows numbers, with a blank before every unit. What was measured in play stands with as
/// many digits as its like, so that it can be compared by eye: metres and seconds with two behind
/// the point, degrees with one, moments with three, shares as whole percents. What was set, or
/// computed from what was set, stands as short as it can be to a hundredth. Areas are in m².
namespace gaze {

/// Texts of a number and its limit with `digits` decimals. A number above its limit gets as many
/// more decimals as it takes to look different.
inline std::pair<std::string, std::string> distinct_texts(double value, double limit, int digits) {
  constexpr int kMostDigits = 12;
  const auto text = [&](double number) { return fmt::format("{:.{}f}", number, digits); };
  while (value > limit && text(value) == text(limit) && digits < kMostDigits) ++digits;
  return {text(value), text(limit)};
}

/// "9.000 m, at most 9.000".
inline std::string beside_limit(double value, double limit, const char* unit, int digits) {
  const auto [measured, most] = distinct_texts(value, limit, digits);
  return fmt::format("{}{}, at most {}", measured, unit, most);
}

/// To a hundredth, and below a tenth to two digits that are not 0; without zeros behind.
inline std::string number_text(double value) {
  if (value != 0.0 && std::abs(value) < 0.1) return fmt::format("{:.2g}", value);
  std::string text = fmt::format("{:.2f}", value);
  text.erase(text.find_last_not_of('0') + 1);
  if (text.back() == '.') text.pop_back();
  return text;
}

/// By how much a limit is missed: with so many digits, and with more where it would read as 0.
inline std::string excess_text(double value, int digits) {
  const std::string text = fmt::format("{:.{}f}", value, digits);
  return text.find_first_not_of("0.") == std::string::npos ? fmt::format("{:.2g}", value) : text;
}

/// "[1.50, 4.00]": a place as levels of that plane write it.
inline std::string place_text(Plane plane, const Vector3d& p) {
  if (plane == Plane::space) return fmt::format("[{:.2f}, {:.2f}, {:.2f}]", p.x(), p.y(), p.z());
  return fmt::format("[{:.2f}, {:.2f}]", p.x(), plane == Plane::ground ? p.y() : p.z());
}

/// As number_text shows it, if it is a floating-point number.
template <typename Value>
decltype(auto) worded_part(Value&& value) {
  if constexpr (std::is_floating_point_v<std::remove_cvref_t<Value>>) {
    return number_text(value);
  } else {
    return std::forward<Value>(value);
  }
}

/// fmt::format with all floating-point numbers as number_text shows them.
template <typename... Args>
std::string worded(fmt::format_string<decltype(worded_part(std::declval<const Args&>()))...> format,
                   const Args&... args) {
  return fmt::format(format, worded_part(args)...);
}

}  // namespace gaze
