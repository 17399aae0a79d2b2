#include <algorithm>
#include <cmath>

#include "gaze/aim.hpp"
#include "geometry/plan.hpp"

namespace gaze {
namespace {

std::optional<Launch> launch(const Vector3d& muzzle, const Vector3d& way, double seconds,
                             double gravity) {
  if (!(seconds > 0.0) || !std::isfinite(seconds)) return std::nullopt;
  const Vector3d fall{0.0, 0.0, gravity * seconds * seconds / 2.0};
  return Launch{(way + fall) / seconds, seconds, muzzle + way};
}

// The time to a place that stays where it is.
std::optional<double> lob_time(const Vector3d& way, double speed, double gravity, bool high) {
  const double b = speed * speed - gravity * way.z();
  const double root2 = b * b - gravity * gravity * dot3(way, way);
  if (!(root2 >= 0.0 && b > 0.0)) return std::nullopt;
  // The larger root loses no digits; the product of both is known.
  const double high2 = 2.0 * (b + std::sqrt(root2)) / (gravity * gravity);
  const double low2 = 4.0 * dot3(way, way) / (gravity * gravity) / high2;
  return std::sqrt(high ? high2 : low2);
}

}  // namespace

std::optional<Launch> aim_lead(const Vector3d& muzzle, const Vector3d& target,
                               const Vector3d& motion, double speed) noexcept {
  const Vector3d way = target - muzzle;
  const double a = speed * speed - dot3(motion, motion);
  const double b = dot3(way, motion);
  const double c = dot3(way, way);
  if (!(c > 0.0)) return std::nullopt;
  const double root2 = b * b + a * c;
  double seconds = 0.0;
  if (a > 0.0) {
    // Both roots have other signs; of the two ways to write the later one that without a
    // difference of like numbers.
    const double root = std::sqrt(root2);
    seconds = b > 0.0 ? (b + root) / a : c / (root - b);
  } else if (b < 0.0 && root2 >= 0.0) {
    seconds = c / (std::sqrt(root2) - b);  // it comes nearer: the earlier of both
  }
  return launch(muzzle, way + motion * seconds, seconds, 0.0);
}

std::optional<Launch> aim_lob(const Vector3d& muzzle, const Vector3d& target,
                              const Vector3d& motion, double speed, double gravity,
                              bool high) noexcept {
  if (!(gravity > 0.0)) return std::nullopt;
  auto seconds = lob_time(target - muzzle, speed, gravity, high);
  if (!seconds || !(*seconds > 0.0)) return std::nullopt;
  const Vector3d half_gravity{0.0, 0.0, gravity / 2.0};
  constexpr int kMostRounds = 50;
  constexpr double kExact = 1e-13;  // of the square of the speed
  bool is_exact = false;
  for (int round = 0; round < kMostRounds && !is_exact; ++round) {
    const double t = *seconds;
    const Vector3d needed = target - muzzle + motion * t + half_gravity * (t * t);
    const double off = dot3(needed, needed) - speed * speed * t * t;
    is_exact = std::abs(off) <= kExact * speed * speed * t * t;
    const double slope =
        2.0 * dot3(needed, motion + half_gravity * (2.0 * t)) - 2.0 * speed * speed * t;
    if (!is_exact) *seconds = t - off / slope;
    if (!(*seconds > 0.0) || !std::isfinite(*seconds)) return std::nullopt;
  }
  if (!is_exact) return std::nullopt;
  return launch(muzzle, target - muzzle + motion * *seconds, *seconds, gravity);
}

double lob_reach(double speed, double gravity, double rise) noexcept {
  const double left2 = speed * speed - 2.0 * gravity * rise;
  return left2 > 0.0 ? speed / gravity * std::sqrt(left2) : 0.0;
}

}  // namespace gaze
