#include "travel/body_sweep.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

/// Metres. A way that leads no deeper into another body than this counts as a way along it.
constexpr double kRounding = 1e-12;

constexpr double kEver = std::numeric_limits<double>::infinity();

bool are_level(const Cylinder& body, const Cylinder& other) {
  return body.feet.z() + body.height > other.feet.z() + kBodySlack &&
         other.feet.z() + other.height > body.feet.z() + kBodySlack;
}

// In levels seen from above: a point against a disc whose radius is the sum of both radii.
std::optional<BodyTouch> meet_disc(const Cylinder& body, const Vector3d& wish,
                                   const Cylinder& other) {
  const double reach = body.radius + other.radius - kBodySlack;
  const Vector2d from{body.feet.x() - other.feet.x(), body.feet.y() - other.feet.y()};
  const Vector2d way{wish.x(), wish.y()};
  const double b = dot(from, way);
  if (b >= 0.0) return std::nullopt;
  const double distance2 = dot(from, from);
  const double a = dot(way, way);
  const double c = distance2 - reach * reach;
  const double nearest = std::min(1.0, -b / a);
  const double nearest2 = distance2 + (2.0 * b + a * nearest) * nearest;
  if (nearest2 >= std::min(distance2, reach * reach) - 2.0 * kRounding * reach) {
    return std::nullopt;
  }
  if (c <= 0.0) {
    const double distance = std::sqrt(distance2);
    return BodyTouch{0.0, {from.x() / distance, from.y() / distance, 0.0}};
  }
  const double share = c / (-b + std::sqrt(std::max(0.0, b * b - a * c)));
  if (share >= 1.0) return std::nullopt;
  const Vector2d out = (from + way * share) / reach;
  return BodyTouch{share, {out.x(), out.y(), 0.0}};
}

/// The shares of a way at which a point is between two bounds along one axis.
struct Between {
  double from = -kEver;
  double to = kEver;
};

Between between(double low, double high, double at, double way) {
  if (way == 0.0) {
    const bool is_between = at > low && at < high;
    return is_between ? Between{} : Between{kEver, -kEver};
  }
  const double first = (low - at) / way;
  const double second = (high - at) / way;
  return {std::min(first, second), std::max(first, second)};
}

// In levels seen from the side: a point against a rectangle as large as both bodies together.
std::optional<BodyTouch> meet_box(const Cylinder& body, const Vector3d& wish, bool flies,
                                  const Cylinder& other) {
  const double reach = body.radius + other.radius - kBodySlack;
  const double x = body.feet.x() - other.feet.x();
  const double z = body.feet.z() - other.feet.z();
  const double low = kBodySlack - body.height;
  const double high = other.height - kBodySlack;
  const double rise = flies ? wish.z() : 0.0;
  const Between across = between(-reach, reach, x, wish.x());
  const Between upward = between(low, high, z, rise);
  const double from = std::max(across.from, upward.from);
  if (!(from < std::min(across.to, upward.to)) || from >= 1.0) return std::nullopt;
  if (std::min(across.to, upward.to) <= 0.0) return std::nullopt;
  const bool is_inside = from < 0.0;
  // A point inside leaves by the nearest side.
  const double out_x = reach - std::abs(x);
  const double out_z = flies ? std::min(z - low, high - z) : kEver;
  const bool is_across = is_inside ? out_x <= out_z : across.from >= upward.from;
  Vector3d normal{0.0, 0.0, 0.0};
  if (is_across) {
    normal.x() = x < 0.0 ? -1.0 : 1.0;
  } else {
    normal.z() = z - low < high - z ? -1.0 : 1.0;
  }
  if (is_inside && (x == 0.0 || dot3(normal, wish) >= 0.0)) return std::nullopt;
  return BodyTouch{std::max(from, 0.0), normal};
}

}  // namespace

bool bodies_overlap(Plane plane, const Cylinder& body, const Cylinder& other) {
  return are_level(body, other) &&
         level_distance(plane, body.feet, other.feet) < body.radius + other.radius - kBodySlack;
}

std::optional<BodyTouch> first_body_met(Plane plane, const Cylinder& body, const Vector3d& wish,
                                        bool flies, std::span<const Cylinder> others) {
  std::optional<BodyTouch> first;
  for (const Cylinder& other : others) {
    std::optional<BodyTouch> touch;
    if (plane == Plane::upright) {
      touch = meet_box(body, wish, flies, other);
    } else if (are_level(body, other)) {
      touch = meet_disc(body, wish, other);
    }
    if (touch && (!first || touch->share < first->share)) first = touch;
  }
  return first;
}

}  // namespace gaze
