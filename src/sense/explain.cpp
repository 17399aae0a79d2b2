#include <fmt/format.h>

#include <cmath>

#include "gaze/sight.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

std::string range_fault(const RangeTest& test) {
  return fmt::format("out of range by {} m", excess_text(test.value - test.limit, 2));
}

std::string field_fault(const FieldTest& test) {
  return fmt::format("outside the field of view by {} degrees",
                     excess_text(test.value_deg - test.limit_deg, 1));
}

std::string vertical_fault(const FieldTest& test) {
  return fmt::format("outside the vertical field of view by {} degrees",
                     excess_text(test.value_deg - test.limit_deg, 1));
}

std::string line_fault(const LineTest& test) {
  if (test.points == 0) return "it has no body points to be seen by";
  if (test.visible > 0.0) {
    return fmt::format("only {:.0f} % of it is in sight of {:.0f} % needed, the rest behind {}",
                       test.visible * 100.0, test.limit * 100.0, test.blocked_by);
  }
  return fmt::format("{} is in the way", test.blocked_by);
}

std::string what_is_seen(const Verdict& verdict) {
  const int arrived = static_cast<int>(std::lround(verdict.line.visible * verdict.line.points));
  std::string text = fmt::format(
      "seen: {:.2f} of {:.2f} m away, {:.1f} of {:.1f} degrees off, {} of {} body points in sight",
      verdict.range.value, verdict.range.limit, verdict.field.value_deg, verdict.field.limit_deg,
      arrived, verdict.line.points);
  if (!verdict.line.blocked_by.empty()) text += ", the rest behind " + verdict.line.blocked_by;
  return text;
}

}  // namespace

std::string explain(const Verdict& verdict) {
  if (!verdict.hindrance.empty()) return verdict.hindrance;
  if (!verdict.has_sight) return fmt::format("{} has no sight", verdict.looker);
  if (verdict.sees) return what_is_seen(verdict);
  std::string text;
  const auto add = [&](const std::string& fault) {
    text += text.empty() ? fault : "; " + fault + " as well";
  };
  if (!verdict.range.pass) add(range_fault(verdict.range));
  if (!verdict.field.pass) add(field_fault(verdict.field));
  if (verdict.vertical && !verdict.vertical->pass) add(vertical_fault(*verdict.vertical));
  if (!verdict.line.pass) add(line_fault(verdict.line));
  return text;
}

}  // namespace gaze
