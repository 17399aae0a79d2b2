#include <fmt/format.h>

#include "gaze/change.hpp"

namespace gaze {
namespace {

std::string side_of(const Change& change, Plane plane) {
  if (change.what == Change::What::turn && plane == Plane::upright) {
    return change.to_left ? "anticlockwise" : "clockwise";
  }
  return change.to_left ? "to its left" : "to its right";
}

std::string step_text(const Change& change, bool is_seen) {
  if (change.solid.empty()) return "";
  return fmt::format(", {} {}", is_seen ? "behind" : "past", change.solid);
}

std::string text_of(const Change& change, Plane plane, bool is_seen) {
  if (change.what == Change::What::turn_round) return "turn round";
  if (change.what == Change::What::turn) {
    return fmt::format("turn {:.1f} degrees {}", change.amount, side_of(change, plane));
  }
  const std::string where = change.what == Change::What::aside ? side_of(change, plane)
                                                               : std::string(name_of(change.what));
  return fmt::format("{:.2f} m {}{}", change.amount, where, step_text(change, is_seen));
}

}  // namespace

std::string_view name_of(Change::What what) {
  switch (what) {
    case Change::What::nearer:
      return "nearer";
    case Change::What::farther:
      return "farther";
    case Change::What::aside:
      return "aside";
    case Change::What::higher:
      return "higher";
    case Change::What::lower:
      return "lower";
    case Change::What::turn:
      return "turn";
    default:
      return "turn round";
  }
}

std::string describe(const Remedy& remedy, Plane plane) {
  if (remedy.changes.empty()) {
    const std::string steps = fmt::format("no turn and no step of up to {:g} m", kFarthestStep);
    if (remedy.is_seen) return steps + " ends it";
    const std::string text = steps + ", nor both, helps";
    return remedy.solid.empty() ? text : fmt::format("{}: {} is in the way", text, remedy.solid);
  }
  std::string text;
  const bool are_many = !remedy.is_seen && remedy.changes.size() > 1;
  if (are_many) text = "no single change helps; ";
  const std::string_view join = remedy.is_seen ? ", or " : ", then ";
  for (std::size_t i = 0; i < remedy.changes.size(); ++i) {
    if (i > 0) text += join;
    text += text_of(remedy.changes[i], plane, remedy.is_seen);
  }
  return text;
}

}  // namespace gaze
