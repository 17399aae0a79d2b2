#pragma once

#include <cmath>
#include <cstdint>

#include "gaze/geometry.hpp"

/// Points on a square lattice: left and right of a line are whole-number arithmetic there, so they
/// are never wrong, and every machine cuts a plane into the same triangles.
namespace gaze {

/// Steps of about a quarter of a millimetre; +-524 km fit.
constexpr double kLatticePerMetre = 4096.0;

struct LatticePoint {
  static constexpr bool kCirclesAreExact = true;
  std::int32_t x = 0;
  std::int32_t y = 0;
  bool operator==(const LatticePoint&) const = default;
};

/// The nearest lattice point. |x| and |y| at most 100 km.
inline LatticePoint to_lattice(const Vector2d& p) {
  return {static_cast<std::int32_t>(std::floor(p.x() * kLatticePerMetre + 0.5)),
          static_cast<std::int32_t>(std::floor(p.y() * kLatticePerMetre + 0.5))};
}

/// Exact.
inline Vector2d from_lattice(const LatticePoint& p) {
  return {p.x / kLatticePerMetre, p.y / kLatticePerMetre};
}

/// Twice the area of a triangle, in square steps: positive if c lies to the left of a to b. Exact.
inline std::int64_t side_of(const LatticePoint& a, const LatticePoint& b, const LatticePoint& c) {
  return (std::int64_t{b.x} - a.x) * (std::int64_t{c.y} - a.y) -
         (std::int64_t{b.y} - a.y) * (std::int64_t{c.x} - a.x);
}

/// True if d lies inside the circle through a, b and c, which run anticlockwise. Exact.
[[nodiscard]] bool is_in_circle(const LatticePoint& a, const LatticePoint& b, const LatticePoint& c,
                                const LatticePoint& d);

/// The lattice point nearest to where the lines through a, b and c, d cross; they do cross.
[[nodiscard]] LatticePoint crossing(const LatticePoint& a, const LatticePoint& b,
                                    const LatticePoint& c, const LatticePoint& d);

}  // namespace gaze
