#include "gaze/change.hpp"

#include <fmt/format.h>

#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

constexpr double kStepAside = 0.05;  // metres

// Across the line from the eye to the other, to the left of it.
Vector3d left_of(Plane plane, const Looker& looker, const Looked& other) {
  const Vector2d way = plan_part(plane, other.feet - looker.feet);
  const double length = std::sqrt(dot(way, way));
  if (length == 0.0) return from_plan(plane, {{0.0, 1.0}, 0.0});
  return from_plan(plane, {Vector2d{-way.y(), way.x()} / length, 0.0});
}

/// Looks for the least step aside after which the line of sight passes, or no longer does.
class StepAside {
 public:
  StepAside(const World& world, const Level& level, const Looker& looker, const Looked& other)
      : world_(world),
        level_(level),
        looker_(looker),
        other_(other),
        left_(left_of(world.plane(), looker, other)),
        passes_now_(look(world, level, looker, other).line.pass) {}

  Change find() const {
    for (double way = kStepAside; way <= kFarthestAside; way += kStepAside) {
      for (const double sign : {1.0, -1.0}) {
        if (passes(sign * way) != passes_now_) return narrowed(sign, way);
      }
    }
    return {Change::What::nowhere, 0.0, false, solid_at(0.0)};
  }

 private:
  LineTest line_at(double aside) const {
    Looked moved = other_;
    moved.feet += left_ * aside;
    return look(world_, level_, looker_, moved).line;
  }
  bool passes(double aside) const { return line_at(aside).pass; }
  std::string solid_at(double aside) const { return line_at(aside).blocked_by; }

  Change narrowed(double sign, double way) const {
    double low = way - kStepAside;
    double high = way;
    while (high - low > 1e-3) {
      const double middle = (low + high) / 2.0;
      (passes(sign * middle) != passes_now_ ? high : low) = middle;
    }
    const auto what = passes_now_ ? Change::What::behind : Change::What::aside;
    return {what, high, sign > 0.0, solid_at(passes_now_ ? sign * high : 0.0)};
  }

  const World& world_;
  const Level& level_;
  const Looker& looker_;
  const Looked& other_;
  Vector3d left_;
  bool passes_now_;
};

std::string angle_text(const Change& change, const char* what) {
  return fmt::format("{} {:.1f} degrees", what, change.amount);
}

std::string aside_text(const Change& change, Plane plane) {
  const char* side = change.to_left ? "to its left" : "to its right";
  if (plane == Plane::upright) side = change.to_left ? "up" : "down";
  if (change.solid.empty()) return fmt::format("{:.2f} m {}", change.amount, side);
  const char* how = change.what == Change::What::behind ? "behind" : "past";
  return fmt::format("{:.2f} m {}, {} {}", change.amount, side, how, change.solid);
}

}  // namespace

std::vector<Change> least_changes(const World& world, const Level& level, const Looker& looker,
                                  const Looked& other) {
  const Verdict verdict = look(world, level, looker, other);
  std::vector<Change> changes;
  const double range = verdict.range.limit - verdict.range.value;
  const double turn = verdict.field.limit_deg - verdict.field.value_deg;
  const bool all_round = verdict.field.limit_deg >= 180.0;
  if (verdict.sees) {
    changes.push_back({Change::What::farther, range, false, ""});
    if (!all_round && !verdict.field.is_near) {
      changes.push_back({Change::What::turn, turn, false, ""});
    }
    const Change aside = StepAside(world, level, looker, other).find();
    if (aside.what == Change::What::behind) changes.push_back(aside);
    return changes;
  }
  if (!verdict.range.pass) changes.push_back({Change::What::nearer, -range, false, ""});
  if (!verdict.field.pass) changes.push_back({Change::What::turn, -turn, false, ""});
  if (verdict.vertical && !verdict.vertical->pass) {
    const double tilt = verdict.vertical->value_deg - verdict.vertical->limit_deg;
    changes.push_back({Change::What::tilt, tilt, false, ""});
  }
  if (!verdict.line.pass && verdict.line.points > 0) {
    changes.push_back(StepAside(world, level, looker, other).find());
  }
  return changes;
}

std::string describe(const std::vector<Change>& changes, Plane plane) {
  std::string text;
  for (const Change& change : changes) {
    if (!text.empty()) text += "; ";
    switch (change.what) {
      case Change::What::nearer:
        text += fmt::format("{:.2f} m nearer", change.amount);
        break;
      case Change::What::farther:
        text += fmt::format("{:.2f} m farther", change.amount);
        break;
      case Change::What::turn:
        text += angle_text(change, "turn");
        break;
      case Change::What::tilt:
        text += angle_text(change, "higher or lower by");
        break;
      case Change::What::aside:
      case Change::What::behind:
        text += aside_text(change, plane);
        break;
      default:
        text +=
            fmt::format("no step aside of up to {:g} m gets past {}", kFarthestAside, change.solid);
    }
  }
  return text;
}

}  // namespace gaze
