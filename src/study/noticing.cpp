#include "study/noticing.hpp"

#include <algorithm>
#include <cmath>

#include "gaze/sight.hpp"
#include "gaze/world.hpp"

namespace gaze {
namespace {

constexpr int kDigits = 100;  // binary ones: more than a double has

/// Angle between the boundary of the field of view and an agent straight ahead, degrees; <= 0
/// inside. Along a straight line the direction moves along a great circle, so the angle to any axis
/// falls and then rises.
class Outside {
 public:
  Outside(const Level& level, const Kind& kind, const Kind& foe) : foe_(foe) {
    open_.plane = level.plane;
    looker_.sight = *kind.sight;
    looker_.sight.near_ring = 0.0;
    looker_.height = kind.height;
    world_.emplace(open_);
  }

  double at(double distance) const {
    LookedAt other;
    other.feet = {distance, 0.0, 0.0};
    other.height = foe_.height;
    other.body_points = foe_.body_points;
    other.radius = foe_.radius;
    const Verdict verdict = look(*world_, open_, looker_, other);
    const double across = verdict.field.value_deg - verdict.field.limit_deg;
    if (!verdict.vertical) return across;
    return std::max(across, verdict.vertical->value_deg - verdict.vertical->limit_deg);
  }

  // Returns the distance with the smallest angle, by ternary search.
  double best(double near, double far) const {
    for (int i = 0; i < kDigits; ++i) {
      const double third = (far - near) / 3.0;
      const bool is_nearer = at(near + third) <= at(far - third);
      (is_nearer ? far : near) = is_nearer ? far - third : near + third;
    }
    return (near + far) / 2.0;
  }

  // Returns the distance of the boundary, by bisection.
  double limit(double inside, double outside) const {
    for (int i = 0; i < kDigits; ++i) {
      const double middle = (inside + outside) / 2.0;
      (at(middle) <= 0.0 ? inside : outside) = middle;
    }
    return inside;
  }

 private:
  const Kind& foe_;
  Level open_;
  std::optional<World> world_;
  Looker looker_;
};

double speed_of(const Kind& kind) {
  return kind.move && travels(kind.move->gait) ? kind.move->speed : 0.0;
}

}  // namespace

Noticing::Noticing(const Level& level, const Kind& kind, const Kind& foe)
    : kind_(kind),
      foe_(foe),
      surface_(kind.sight->measure == Measure::surface ? foe.radius : 0.0),
      stops_(stop_each_other(level, kind, foe)) {
  if (!foe.body_points.empty()) find_stretches(level);
}

void Noticing::find_stretches(const Level& level) {
  const Sight& sight = *kind_.sight;
  const Outside outside(level, kind_, foe_);
  const double far = sight.range + surface_;
  const double best = outside.at(far) <= 0.0 ? far : outside.best(0.0, far);
  if (outside.at(best) <= 0.0) {
    const double ends = best == far ? far : outside.limit(best, far);
    const double begins = outside.at(0.0) <= 0.0 ? 0.0 : outside.limit(best, 0.0);
    stretches_.push_back({begins, ends});
  }
  if (!(sight.near_ring > 0.0)) return;
  const double ring = std::min(sight.near_ring, sight.range) + surface_;
  if (!stretches_.empty() && stretches_.front().near <= ring) {
    stretches_.front().near = 0.0;
    stretches_.front().far = std::max(stretches_.front().far, ring);
  } else {
    stretches_.push_back({0.0, ring});
  }
}

double Noticing::contact() const {
  return stops_ ? kind_.radius + foe_.radius : 0.0;
}

std::optional<double> Noticing::standing() const {
  const bool is_visible = foe_.still_visibility.value_or(foe_.visibility) > 0.0;
  if (stretches_.empty() || !is_visible || stretches_.front().far < contact()) return {};
  return stretches_.front().far;
}

// The share of evidence that a distance x gives is 1 up to F, where fading begins. From there to
// the range R it is (R - x) / (R - F). Its area from 0 to x:
double Noticing::area_of_share(double distance) const {
  const double range = kind_.sight->range + surface_;
  const double begins = kind_.sight->fade_from * kind_.sight->range + surface_;
  if (distance <= begins) return distance;
  const double fading = range - begins;
  const double left = range - distance;
  return begins + (fading * fading - left * left) / (2.0 * fading);
}

double Noticing::distance_of(double area) const {
  const double range = kind_.sight->range + surface_;
  const double begins = kind_.sight->fade_from * kind_.sight->range + surface_;
  if (area <= begins) return area;
  const double fading = range - begins;
  return range - std::sqrt(std::max(0.0, fading * fading - 2.0 * fading * (area - begins)));
}

// At speed v the evidence is full once the area below the share is v times the notice time, divided
// by the visibility. Outside the field of view evidence ebbs.
std::optional<double> Noticing::moving(double dimness) const {
  const double speed = speed_of(foe_);
  if (stretches_.empty() || !(speed > 0.0)) return std::nullopt;
  const Sight& sight = *kind_.sight;
  const double notice = sight.notice_time.seconds();
  if (stretches_.front().far < contact()) return std::nullopt;
  if (notice == 0.0) return stretches_.front().far;
  const double gain = foe_.visibility * (1.0 - dimness);
  if (!(gain > 0.0)) return std::nullopt;
  const double whole = speed * notice / gain;
  double needed = whole;
  for (std::size_t i = 0; i < stretches_.size(); ++i) {
    const Stretch& stretch = stretches_[i];
    if (i > 0) {
      const double seconds = (stretches_[i - 1].near - stretch.far) / speed;
      const double ebb = sight.ebb_time.seconds();
      needed = ebb > 0.0 ? std::min(whole, needed + whole * seconds / ebb) : whole;
    }
    const double end = area_of_share(stretch.far) - needed;
    const double limit = std::max(stretch.near, contact());
    if (stretch.far < contact()) return std::nullopt;
    if (end >= area_of_share(limit)) return distance_of(end);
    if (contact() >= stretch.near) {
      // The target stands there in view until the evidence is full.
      const bool is_visible = foe_.still_visibility.value_or(foe_.visibility) > 0.0;
      return is_visible ? std::optional(contact()) : std::nullopt;
    }
    needed -= area_of_share(stretch.far) - area_of_share(limit);
  }
  return std::nullopt;
}

}  // namespace gaze
