#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "gaze/sight.hpp"
#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"
#include "judge/judges.hpp"
#include "travel/walk.hpp"

namespace gaze {
namespace {

constexpr std::size_t kMostLookers = 100;
constexpr double kSpotsAcross = 48.0;

/// A place where a body could stand.
struct Standing {
  Vector3d feet{0.0, 0.0, 0.0};
  std::string on;  ///< Id of the solid; empty for the floor.
};

// As wide as its looks can go, whichever way it turns.
Looker wide_looker(const Agent& agent, const Kind& kind) {
  const SineCosine facing = sine_cosine(agent.facing);
  Looker looker{agent.position, {facing.cosine, facing.sine}, *kind.sight, false};
  double turns = kind.move.turn_rate.degrees() > 0.0 ? 180.0 : 0.0;
  if (kind.head) {
    turns += std::max(-kind.head->low.degrees(), kind.head->high.degrees());
  } else if (kind.scan) {
    turns += kind.scan->style == Scan::Style::sweep ? kind.scan->arc.degrees() / 2.0 : 180.0;
  }
  const double field = looker.sight.field_of_view.degrees() + 2.0 * turns;
  looker.sight.field_of_view = Angle::from_degrees(std::min(360.0, field));
  return looker;
}

/// Counts where within its range a body of one kind is never seen by a looker at its post.
class BlindSpots {
 public:
  BlindSpots(const Bench& bench, const Agent& agent, const Kind& kind, const Kind& other)
      : bench_(bench), level_(bench.level()), looker_(wide_looker(agent, kind)), other_(other) {
    const double range = looker_.sight.range;
    step_ = 2.0 * range / kSpotsAcross;
    for (double a = -range + step_ / 2.0; a < range; a += step_) {
      for (double b = -range + step_ / 2.0; b < range; b += step_) {
        if (a * a + b * b <= range * range) add_spot({a, b});
      }
    }
  }

  bool any() const { return blind_ > 0; }

  std::string text(const std::string& who) const {
    const double spot = step_ * step_;
    std::string text = fmt::format(
        "{} can never see a {} in {:.0f} of the {:.0f} m2 within its range where one can stand, "
        "however it turns; the nearest such place is [{:.2f}, {:.2f}]{}, {:.2f} m away: {}",
        who, other_.name, blind_ * spot, all_ * spot, plan(nearest_.feet).x(),
        plan(nearest_.feet).y(), nearest_.on.empty() ? "" : " on " + nearest_.on, distance_,
        reason_);
    return text;
  }

 private:
  Vector2d plan(const Vector3d& p) const { return plan_part(level_.plane, p); }

  void add_spot(const Vector2d& offset) {
    const double floor = level_.ground_height.value_or(0.0);
    Vector3d feet = looker_.feet;
    feet.x() += offset.x();
    (level_.plane == Plane::upright ? feet.z() : feet.y()) += offset.y();
    if (level_.plane != Plane::upright) feet.z() = floor;
    consider({feet, ""});
    if (level_.plane == Plane::upright) return;
    for (const Solid& solid : level_.solids) {
      const bool has_top = solid.form == Solid::Form::block || solid.form == Solid::Form::floor;
      if (!has_top || !contains(solid.points, plan(feet))) continue;
      feet.z() = solid.base + solid.height;
      consider({feet, solid.id});
    }
  }

  void consider(const Standing& place) {
    const Cylinder body{place.feet + Vector3d{0.0, 0.0, kContactGap}, other_.radius,
                        other_.height - 2.0 * kContactGap};
    if (bench_.world().overlaps(body, Stops::bodies)) return;
    const Looked looked{place.feet, other_.height, other_.body_points, other_.radius};
    if (measure(level_.plane, looker_, looked).distance > looker_.sight.range) return;
    ++all_;
    if (can_see(bench_.world(), looker_, looked)) return;
    ++blind_;
    const double distance = (plan(place.feet) - plan(looker_.feet)).norm();
    if (distance >= distance_) return;
    nearest_ = place;
    distance_ = distance;
    reason_ = explain(look(bench_.world(), level_, looker_, looked));
  }

  const Bench& bench_;
  const Level& level_;
  Looker looker_;
  const Kind& other_;
  double step_ = 1.0;
  int all_ = 0;
  int blind_ = 0;
  Standing nearest_;
  double distance_ = 1e12;
  std::string reason_;
};

bool stays(const Agent& agent, const Kind& kind) {
  return agent.driver == Driver::mind && kind.move.gait == Gait::fixed;
}

// The kind of the first agent that it looks for: of a player, if there is one.
const Kind* looked_for(const Level& level, const Kind& kind) {
  const Kind* first = nullptr;
  for (const Agent& agent : level.agents) {
    const Kind& other = level.kind_of(agent);
    if (!is_hostile(level, kind.team, other.team)) continue;
    if (agent.driver != Driver::mind) return &other;
    if (first == nullptr) first = &other;
  }
  return first;
}

}  // namespace

void judge_blind_spots(Bench& bench) {
  std::size_t judged = 0;
  for (const Agent& agent : bench.level().agents) {
    const Kind& kind = bench.level().kind_of(agent);
    if (!kind.sight || !stays(agent, kind) || judged == kMostLookers) continue;
    const Kind* other = looked_for(bench.level(), kind);
    if (other == nullptr) continue;
    ++judged;
    const BlindSpots spots(bench, agent, kind, *other);
    if (!spots.any()) continue;
    bench.say(Finding::Severity::note, "blind-spots", agent.place, spots.text(agent.id));
  }
}

}  // namespace gaze
