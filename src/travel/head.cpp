#include <algorithm>
#include <cmath>

#include "geometry/signed_turn.hpp"
#include "travel/scan.hpp"
#include "travel/travelling.hpp"

namespace gaze {
namespace {

double degrees_to(const Travelling& state, std::uint32_t who, const Vector3d& place) {
  const Vector2d way = plan_part(state.plane(), place - state.middle(who));
  return signed_turn(state.bodies.facing[who], way);
}

/// Where a head wants to be, and how far it may turn there in this step.
struct HeadWish {
  double degrees = 0.0;
  double most = 0.0;
};

// A head turns to the target, unless its scan goes on; without one it scans; if it does not scan it
// turns to the place that it knows of; and else straight ahead.
HeadWish wish_of(const Travelling& state, std::uint32_t who) {
  const Kind& kind = state.kind(who);
  const KindLimits& limits = state.limit(who);
  const auto focus = focus_of(state, who);
  const bool scans_on = kind.scan && (kind.scan->goes_on || !focus || !focus->agent);
  const bool looks_at_focus = focus && !scans_on;
  if (looks_at_focus) {
    const Vector3d place = focus->place + Vector3d{0.0, 0.0, focus->height / 2.0};
    return {degrees_to(state, who, place), limits.head_turn_deg};
  }
  if (!kind.scan) return {0.0, limits.head_turn_deg};
  const double seconds = static_cast<double>(state.clock.tick) / state.level().ticks_per_second;
  const bool is_mirrored = state.plane() == Plane::upright && state.bodies.facing[who].x() < 0.0;
  const double degrees = scan_degrees(*kind.scan, seconds);
  return {signed_degrees(is_mirrored ? -degrees : degrees), limits.back_to_scan_deg};
}

}  // namespace

void turn_head(Travelling& state, std::uint32_t who) {
  if (state.limit(who).head_turn_deg == 0.0) {
    state.bodies.head[who] = state.bodies.facing[who];
    return;
  }
  const auto& head = state.kind(who).head;
  auto [wanted, most] = wish_of(state, who);
  double& degrees = state.bodies.head_deg[who];
  double way = 0.0;
  const bool has_limits = head && (head->low.degrees() > -180.0 || head->high.degrees() < 180.0);
  if (has_limits) {
    wanted = std::clamp(wanted, head->low.degrees(), head->high.degrees());
    way = wanted - degrees;  // never through what lies outside
  } else {
    way = signed_degrees(wanted - degrees);
  }
  degrees = std::abs(way) <= most ? wanted : degrees + std::copysign(most, way);
  if (!has_limits) degrees = signed_degrees(degrees);
  state.bodies.head[who] =
      turned(state.bodies.facing[who], sine_cosine(Angle::from_degrees(degrees)));
}

}  // namespace gaze
