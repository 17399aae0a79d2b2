#pragma once

#include <Eigen/Core>
#include <limits>

#include "gaze/public.hpp"

/// Points, angles and the shapes that questions to a world are asked with.
GAZE_PUBLIC_BEGIN
namespace gaze {

using Vector2d = Eigen::Vector2d;
using Vector3d = Eigen::Vector3d;
static_assert(
    alignof(Vector2d) == 16 && alignof(Vector3d) == alignof(double),
    "Gaze is built with Eigen's usual alignment. A program that sets EIGEN_MAX_ALIGN_BYTES, "
    "EIGEN_MAX_STATIC_ALIGN_BYTES or EIGEN_DONT_ALIGN lays out the same structs differently "
    "and cannot be linked with it: leave these flags out where Gaze's headers are read.");

/// In which two axes a level is laid out; world positions are [x, y, z] in all three.
enum class Plane {
  ground,   ///< Seen from above: outlines in [x, y], solids rise along z.
  upright,  ///< Seen from the side: outlines in [x, z], solids are endless along y.
  space,    ///< Outlines in [x, y], solids rise along z; range and angles in three dimensions.
};

/// An angle that cannot be mistaken for a plain number.
class Angle {
 public:
  constexpr Angle() = default;
  static constexpr Angle from_degrees(double degrees) { return Angle(degrees); }

  constexpr double degrees() const { return degrees_; }
  constexpr double radians() const { return degrees_ * (3.14159265358979323846 / 180.0); }
  constexpr Angle half() const { return Angle(degrees_ / 2.0); }
  constexpr bool operator==(const Angle&) const = default;

 private:
  explicit constexpr Angle(double degrees) : degrees_(degrees) {}
  double degrees_ = 0.0;
};

struct SineCosine {
  double sine = 0.0;
  double cosine = 1.0;
};

/// Sine and cosine made of + - * / alone, so that every compiler and machine gives the same bits.
/// Multiples of 90 degrees are exact, the sine and cosine of 45 degrees are equal.
/// Within 2 units in the last place of the true value for |angle| <= 1e6 degrees. NaN gives NaN.
[[nodiscard]] SineCosine sine_cosine(Angle angle) noexcept;

/// The angle of a vector in a plane, 0 for +x, growing anticlockwise, in [0, 360) degrees.
/// The zero vector gives 0. Made of + - * / and the square root alone; within 1e-13 degrees.
[[nodiscard]] Angle angle_of(const Vector2d& vector) noexcept;

/// The angle between two vectors, in [0, 180] degrees; 0 if either is zero. Within 1e-13 degrees.
[[nodiscard]] Angle angle_between(const Vector3d& one, const Vector3d& other) noexcept;

/// The straight way between two points, metres. It may have no length.
struct Segment {
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d to{0.0, 0.0, 0.0};
};

/// From a point in a direction, up to a length.
struct Ray {
  Vector3d from{0.0, 0.0, 0.0};
  Vector3d direction{1.0, 0.0, 0.0};  ///< Any length but zero; only its direction counts.
  double length = 0.0;                ///< Metres, >= 0, finite.

  /// The same way as a segment; a ray without direction has no length.
  Segment segment() const;
};

/// A ball swept along a segment: a ray with thickness.
struct BallPath {
  Segment path;         ///< Of the ball's centre.
  double radius = 0.0;  ///< Metres, >= 0.
};

/// An upright cylinder: every body is one.
struct Cylinder {
  Vector3d feet{0.0, 0.0, 0.0};  ///< Centre of its lower disc.
  double radius = 0.0;           ///< Metres, >= 0.
  double height = 0.0;           ///< Metres, >= 0.
};

}  // namespace gaze
GAZE_PUBLIC_END
