#include "gaze/sight.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "level/solid_name.hpp"
#include "sense/field.hpp"
#include "sense/look.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

// The limit between centres that is the same as a limit for the distance as this sight measures it.
double between_centres(const Looker& looker, double limit, const LookedAt& other) {
  return looker.sight.measure == Measure::surface ? limit + other.radius : limit;
}

bool is_within(Plane plane, const Looker& looker, double limit, const LookedAt& other) {
  const double most = between_centres(looker, limit, other);
  return squared_plane_distance(plane, looker.feet, other.feet) <= most * most;
}

bool is_in_range(Plane plane, const Looker& looker, const LookedAt& other) {
  return is_within(plane, looker, range_of(looker), other);
}

bool is_in_near_ring(Plane plane, const Looker& looker, const LookedAt& other) {
  const double ring = looker.sight.near_ring;
  return ring > 0.0 && is_within(plane, looker, ring, other);
}

// In levels seen from the side the field of view itself goes up and down.
const std::optional<Angle>& vertical_field(Plane plane, const Looker& looker) {
  static const std::optional<Angle> kNone;
  return plane == Plane::upright ? kNone : looker.sight.vertical_field_of_view;
}

// In space a view is a round cone, unless up and down have a field of their own.
bool is_cone(Plane plane, const Sight& sight) {
  return plane == Plane::space && !sight.vertical_field_of_view;
}

/// How the other's middle lies to the middle of the view, as seen from the eye: across and, where
/// that is looked at apart, up and down.
struct Bearings {
  Bearing across;
  Bearing up;
};

Bearings bearings_to(Plane plane, const Looker& looker, const LookedAt& other) {
  const PlanPoint eye = to_plan(plane, eye_of(plane, looker));
  const PlanPoint middle = to_plan(plane, body_point(other, 0.5));
  const Vector2d way = middle.plan - eye.plan;
  const double rise = middle.across - eye.across;
  const Angle tilt = looker.sight.tilt;
  const Bearing up = bearing_above(tilt, length_of(way), rise);
  if (is_cone(plane, looker.sight)) {
    if (tilt.degrees() == 0.0) return {bearing_of(looker.facing, way, rise), up};
    const Vector3d axis = direction_along(plane, looker.facing, Angle{}, tilt);
    return {bearing_of(axis, Vector3d{way.x(), way.y(), rise}), up};
  }
  return {bearing_of(plan_field(plane, looker).middle, way), up};
}

bool is_in_field(Plane plane, const Looker& looker, const LookedAt& other) {
  const Sight& sight = looker.sight;
  if (is_in_near_ring(plane, looker, other)) return true;
  const Bearings bearings = bearings_to(plane, looker, other);
  if (!is_within(bearings.across, sine_cosine(sight.field_of_view.half()))) return false;
  const auto& vertical = vertical_field(plane, looker);
  return !vertical || is_within(bearings.up, sine_cosine(vertical->half()));
}

RangeTest test_range(Plane plane, const Looker& looker, const LookedAt& other) {
  RangeTest test;
  test.value = plane_distance(plane, looker.feet, other.feet);
  if (looker.sight.measure == Measure::surface) {
    test.value = std::max(0.0, test.value - other.radius);
  }
  test.limit = range_of(looker);
  test.pass = is_in_range(plane, looker, other);
  return test;
}

FieldTest test_angle(const Bearing& bearing, Angle field, bool is_near) {
  FieldTest test;
  test.value_deg = angle_of(Vector2d{bearing.along, bearing.off}).degrees();
  test.limit_deg = field.half().degrees();
  test.is_near = is_near;
  test.pass = is_near || is_within(bearing, sine_cosine(field.half()));
  return test;
}

FieldTest test_field(Plane plane, const Looker& looker, const LookedAt& other) {
  return test_angle(bearings_to(plane, looker, other).across, looker.sight.field_of_view,
                    is_in_near_ring(plane, looker, other));
}

std::optional<FieldTest> test_vertical(Plane plane, const Looker& looker, const LookedAt& other) {
  const auto& field = vertical_field(plane, looker);
  if (!field) return std::nullopt;
  return test_angle(bearings_to(plane, looker, other).up, *field,
                    is_in_near_ring(plane, looker, other));
}

LineTest test_line(const World& world, const Level& level, const Looker& looker,
                   const LookedAt& other) {
  const std::vector<SightRay> rays = sight_rays(world, looker, other);
  LineTest test;
  test.limit = looker.sight.visible_at_least;
  test.points = static_cast<int>(rays.size());
  if (rays.empty()) return test;
  const auto arrives = [](const SightRay& ray) { return !ray.touch; };
  const auto arrived = std::count_if(rays.begin(), rays.end(), arrives);
  test.visible = static_cast<double>(arrived) / static_cast<double>(rays.size());
  test.pass = is_enough(looker, test.visible);
  const std::size_t middle = middle_point(other.body_points);
  const auto stopped = rays[middle].touch ? rays.begin() + static_cast<std::ptrdiff_t>(middle)
                                          : std::find_if_not(rays.begin(), rays.end(), arrives);
  if (stopped != rays.end()) {
    test.blocked_by = solid_name(level, stopped->touch->solid.index);
    test.blocked_by_id = stopped->touch->host_id;
    test.blocked_at = stopped->touch->place;
  }
  return test;
}

// Body points lie above each other, and so are asked about together, a few at a time. Once `enough`
// are reached, or more than `spare` are not, the rest may be left out.
std::size_t points_reached(const World& world, const Looker& looker, const LookedAt& other,
                           std::size_t enough, std::size_t spare) {
  constexpr std::size_t kTogether = 8;
  const Vector3d eye = eye_of(world.plane(), looker);
  std::span<const double> left = other.body_points;
  std::size_t reached = 0;
  std::size_t stopped = 0;
  while (!left.empty() && reached < enough && stopped <= spare) {
    std::array<Vector3d, kTogether> points;
    const std::size_t count = std::min(kTogether, left.size());
    for (std::size_t i = 0; i < count; ++i) points[i] = body_point(other, left[i]);
    const std::size_t clear = count_clear(world, eye, {points.data(), count}, Stops::sight,
                                          enough - reached, spare - stopped);
    reached += clear;
    stopped += count - clear;
    left = left.subspan(count);
  }
  return reached;
}

}  // namespace

std::size_t points_needed(std::size_t points, double share) {
  std::size_t needed = 1;
  while (static_cast<double>(needed) / static_cast<double>(points) < share) ++needed;
  return needed;
}

PlanField plan_field(Plane plane, const Looker& looker) {
  const Sight& sight = looker.sight;
  PlanField field{looker.facing, sight.field_of_view.half()};
  if (sight.tilt.degrees() == 0.0) return field;
  if (plane == Plane::upright) {
    field.middle = plan_part(plane, direction_along(plane, looker.facing, Angle{}, sight.tilt));
  } else if (is_cone(plane, sight)) {
    // The plan cuts the cone where cos(aside) cos(tilt) = cos(half).
    const double level = sine_cosine(sight.tilt).cosine;
    const double limit = sine_cosine(sight.field_of_view.half()).cosine;
    if (limit > level) {
      field.half.reset();
    } else if (limit <= -level) {
      field.half = Angle::from_degrees(180.0);
    } else {
      const double aside = limit / level;
      field.half = angle_of(Vector2d{aside, std::sqrt(1.0 - aside * aside)});
    }
  }
  return field;
}

Vector2d facing_for(Plane plane, const Looker& looker, const Vector2d& way) {
  if (plane != Plane::upright || looker.sight.tilt.degrees() == 0.0) return way;
  const SineCosine tilt = sine_cosine(looker.sight.tilt);
  const Vector2d right = turned(way, {-tilt.sine, tilt.cosine});
  return right.x() < 0.0 ? turned(way, tilt) : right;
}

Vector3d body_point(const LookedAt& other, double share) {
  return other.feet + Vector3d{0.0, 0.0, other.height * share};
}

// The ray that speaks for the body: the one nearest to its middle.
std::size_t middle_point(std::span<const double> shares) {
  std::size_t best = 0;
  for (std::size_t i = 1; i < shares.size(); ++i) {
    if (std::abs(shares[i] - 0.5) < std::abs(shares[best] - 0.5)) best = i;
  }
  return best;
}

EvidenceRate rate_of(const Looker& looker, const LookedAt& other, double distance, double visible) {
  const double limit = range_of(looker);
  const double start = looker.sight.fade_from * limit;
  EvidenceRate evidence;
  evidence.visibility = other.visibility;
  evidence.visible = visible;
  evidence.light = 1.0 - other.dimness;
  if (distance > start) evidence.fade = std::max(0.0, (limit - distance) / (limit - start));
  if (looker.sight.fade_from == 1.0) evidence.fade = 1.0;
  return evidence;
}

bool is_enough(const Looker& looker, double visible) {
  return visible > 0.0 && visible >= looker.sight.visible_at_least;
}

bool may_see(Plane plane, const Looker& looker, const LookedAt& other) {
  return is_in_range(plane, looker, other) && is_in_field(plane, looker, other);
}

Verdict look_without_rays(Plane plane, const Looker& looker, const LookedAt& other) {
  Verdict verdict;
  verdict.range = test_range(plane, looker, other);
  verdict.field = test_field(plane, looker, other);
  verdict.vertical = test_vertical(plane, looker, other);
  verdict.line.limit = looker.sight.visible_at_least;
  return verdict;
}

Vector3d eye_of(Plane plane, const Looker& looker) noexcept {
  return offset_place(plane, looker.feet, looker.facing, eye_offset(looker));
}

std::vector<SightRay> sight_rays(const World& world, const Looker& looker, const LookedAt& other) {
  std::vector<SightRay> rays;
  const Vector3d eye = eye_of(world.plane(), looker);
  for (const double share : other.body_points) {
    const Segment segment{eye, body_point(other, share)};
    rays.push_back({segment, world.first_touch(segment, Stops::sight)});
  }
  return rays;
}

Verdict look(const World& world, const Level& level, const Looker& looker, const LookedAt& other) {
  Verdict verdict = look_without_rays(world.plane(), looker, other);
  verdict.line = test_line(world, level, looker, other);
  verdict.sees = verdict.range.pass && verdict.field.pass && verdict.line.pass &&
                 (!verdict.vertical || verdict.vertical->pass);
  verdict.evidence = rate_of(looker, other, verdict.range.value, verdict.line.visible);
  return verdict;
}

DistanceAndAngle measure(Plane plane, const Looker& looker, const LookedAt& other) noexcept {
  return {test_range(plane, looker, other).value, test_field(plane, looker, other).value_deg};
}

double evidence_rate(const World& world, const Looker& looker, const LookedAt& other) noexcept {
  const std::size_t points = other.body_points.size();
  const std::size_t reached = points_reached(world, looker, other, points, points);
  const double all = static_cast<double>(std::max<std::size_t>(1, points));
  const double distance = test_range(world.plane(), looker, other).value;
  return rate_of(looker, other, distance, static_cast<double>(reached) / all).rate();
}

bool can_see(const World& world, const Looker& looker, const LookedAt& other) noexcept {
  if (!may_see(world.plane(), looker, other)) return false;
  if (other.body_points.empty()) return false;
  const std::size_t needed = points_needed(other.body_points.size(), looker.sight.visible_at_least);
  const std::size_t points = other.body_points.size();
  return needed <= points &&
         points_reached(world, looker, other, needed, points - needed) >= needed;
}

}  // namespace gaze
