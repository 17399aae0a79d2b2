#include <array>
#include <cmath>

#include "gaze/geometry.hpp"
#include "geometry/plan.hpp"

namespace gaze {
namespace {

constexpr double kPi = 3.14159265358979323846;

// Taylor series; on [-45, 45] degrees the first term left out is below 1e-19.
double sine_near_zero(double x) {
  const double square = x * x;
  double sum = 0.0;
  for (int n = 17; n >= 3; n -= 2) sum = (1.0 - sum) * square / (n * (n - 1.0));
  return x * (1.0 - sum);
}

double cosine_near_zero(double x) {
  const double square = x * x;
  double sum = 0.0;
  for (int n = 18; n >= 2; n -= 2) sum = (1.0 - sum) * square / (n * (n - 1.0));
  return 1.0 - sum;
}

// Arc tangent of 0 <= x <= 1: halved twice (atan x = 2 atan(x / (1 + sqrt(1 + x^2)))), which
// brings x below tan(pi / 16) = 0.199, where 13 terms of the series leave less than 1e-19.
double arc_tangent(double x) {
  for (int halving = 0; halving < 2; ++halving) x /= 1.0 + std::sqrt(1.0 + x * x);
  const double square = x * x;
  double sum = 0.0;
  for (int n = 25; n >= 1; n -= 2) sum = 1.0 / n - square * sum;
  return 4.0 * x * sum;
}

// The angle of the vector (along, across) for across >= 0, radians in [0, pi].
double angle_above(double along, double across) {
  if (across == 0.0) return along < 0.0 ? kPi : 0.0;
  if (std::abs(along) >= across) {
    const double angle = arc_tangent(across / std::abs(along));
    return along < 0.0 ? kPi - angle : angle;
  }
  return kPi / 2.0 - (along < 0.0 ? -1.0 : 1.0) * arc_tangent(std::abs(along) / across);
}

constexpr double to_degrees(double radians) {
  return radians * (180.0 / kPi);
}

}  // namespace

SineCosine sine_cosine(Angle angle) noexcept {
  if (!std::isfinite(angle.degrees())) return {std::nan(""), std::nan("")};
  const double turn = std::fmod(angle.degrees(), 360.0);  // exact, as is the remainder below
  const double quarters = std::nearbyint(turn / 90.0);
  const double rest_deg = turn - 90.0 * quarters;
  const double rest = rest_deg * (kPi / 180.0);
  double sine = sine_near_zero(rest);
  double cosine = cosine_near_zero(rest);
  if (std::abs(rest_deg) == 45.0) sine = std::copysign(cosine, rest_deg);
  switch ((static_cast<int>(quarters) % 4 + 4) % 4) {
    case 1:
      return {cosine, -sine};
    case 2:
      return {-sine, -cosine};
    case 3:
      return {-cosine, sine};
    default:
      return {sine, cosine};
  }
}

Angle angle_of(const Vector2d& vector) noexcept {
  const double degrees = to_degrees(angle_above(vector.x(), std::abs(vector.y())));
  const double turned = vector.y() < 0.0 ? 360.0 - degrees : degrees;
  return Angle::from_degrees(turned < 360.0 ? turned : 0.0);
}

Angle angle_between(const Vector3d& one, const Vector3d& other) noexcept {
  const double x = one.y() * other.z() - one.z() * other.y();
  const double y = one.z() * other.x() - one.x() * other.z();
  const double z = one.x() * other.y() - one.y() * other.x();
  const double along = one.x() * other.x() + one.y() * other.y() + one.z() * other.z();
  return Angle::from_degrees(to_degrees(angle_above(along, std::sqrt(x * x + y * y + z * z))));
}

Segment Ray::segment() const {
  const double size = length_of(direction);
  if (!(size > 0.0)) return {from, from};
  return {from, from + direction * (length / size)};
}

}  // namespace gaze
