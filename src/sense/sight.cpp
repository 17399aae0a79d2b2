#include "gaze/sight.hpp"

#include <algorithm>
#include <cmath>

#include "sense/field.hpp"

namespace gaze {
namespace {

Vector3d body_point(const Looked& other, double share) {
  return other.feet + Vector3d{0.0, 0.0, other.height * share};
}

Vector3d range_vector(Plane plane, const Vector3d& from, const Vector3d& to) {
  Vector3d way = to - from;
  if (plane == Plane::ground) way.z() = 0.0;
  if (plane == Plane::upright) way.y() = 0.0;
  return way;
}

double squared_length(const Vector3d& v) {
  return v.x() * v.x() + v.y() * v.y() + v.z() * v.z();
}

double range_limit(const Looker& looker) {
  return looker.has_noticed ? looker.sight.keep_range : looker.sight.range;
}

bool is_in_range(Plane plane, const Looker& looker, const Vector3d& feet) {
  const double limit = range_limit(looker);
  return squared_length(range_vector(plane, looker.feet, feet)) <= limit * limit;
}

Bearing bearing_to(Plane plane, const Looker& looker, const Looked& other) {
  const PlanPoint eye = to_plan(plane, eye_of(looker));
  const PlanPoint middle = to_plan(plane, body_point(other, 0.5));
  const Vector2d way = middle.plan - eye.plan;
  return plane == Plane::space ? bearing_of(looker.facing, way, middle.across - eye.across)
                               : bearing_of(looker.facing, way);
}

bool is_in_field(Plane plane, const Looker& looker, const Looked& other) {
  return is_within(bearing_to(plane, looker, other),
                   sine_cosine(looker.sight.field_of_view.half()));
}

RangeTest test_range(Plane plane, const Looker& looker, const Looked& other) {
  RangeTest test;
  test.value = std::sqrt(squared_length(range_vector(plane, looker.feet, other.feet)));
  test.limit = range_limit(looker);
  test.pass = is_in_range(plane, looker, other.feet);
  return test;
}

FieldTest test_field(Plane plane, const Looker& looker, const Looked& other) {
  const Bearing bearing = bearing_to(plane, looker, other);
  FieldTest test;
  test.value_deg = angle_of(Vector2d{bearing.along, bearing.off}).degrees();
  test.limit_deg = looker.sight.field_of_view.half().degrees();
  test.pass = is_in_field(plane, looker, other);
  return test;
}

// The ray that speaks for the body: the one nearest to its middle.
std::size_t middle_point(std::span<const double> shares) {
  std::size_t best = 0;
  for (std::size_t i = 1; i < shares.size(); ++i) {
    if (std::abs(shares[i] - 0.5) < std::abs(shares[best] - 0.5)) best = i;
  }
  return best;
}

LineTest test_line(const World& world, const Level& level, const Looker& looker,
                   const Looked& other) {
  const std::vector<SightRay> rays = sight_rays(world, looker, other);
  LineTest test;
  test.points = static_cast<int>(rays.size());
  if (rays.empty()) return test;
  const auto arrives = [](const SightRay& ray) { return !ray.touch; };
  const auto arrived = std::count_if(rays.begin(), rays.end(), arrives);
  test.visible = static_cast<double>(arrived) / static_cast<double>(rays.size());
  test.pass = arrived > 0;
  const std::size_t middle = middle_point(other.body_points);
  const auto stopped = rays[middle].touch ? rays.begin() + static_cast<std::ptrdiff_t>(middle)
                                          : std::find_if_not(rays.begin(), rays.end(), arrives);
  if (stopped != rays.end()) {
    test.blocked_by = level.solids[stopped->touch->solid.index].id;
    test.blocked_at = stopped->touch->place;
  }
  return test;
}

}  // namespace

Vector3d eye_of(const Looker& looker) noexcept {
  return looker.feet + Vector3d{0.0, 0.0, looker.sight.eye_height};
}

std::vector<SightRay> sight_rays(const World& world, const Looker& looker, const Looked& other) {
  std::vector<SightRay> rays;
  for (const double share : other.body_points) {
    const Segment segment{eye_of(looker), body_point(other, share)};
    rays.push_back({segment, world.first_touch(segment, Stops::sight)});
  }
  return rays;
}

Verdict look(const World& world, const Level& level, const Looker& looker, const Looked& other) {
  Verdict verdict;
  verdict.range = test_range(world.plane(), looker, other);
  verdict.field = test_field(world.plane(), looker, other);
  verdict.line = test_line(world, level, looker, other);
  verdict.sees = verdict.range.pass && verdict.field.pass && verdict.line.pass;
  return verdict;
}

Sighting measure(const World& world, const Looker& looker, const Looked& other) noexcept {
  return {test_range(world.plane(), looker, other).value,
          test_field(world.plane(), looker, other).value_deg};
}

bool can_see(const World& world, const Looker& looker, const Looked& other) noexcept {
  if (!is_in_range(world.plane(), looker, other.feet)) return false;
  if (!is_in_field(world.plane(), looker, other)) return false;
  const Vector3d eye = eye_of(looker);
  return std::any_of(other.body_points.begin(), other.body_points.end(), [&](double share) {
    return world.is_clear(Segment{eye, body_point(other, share)}, Stops::sight);
  });
}

}  // namespace gaze
