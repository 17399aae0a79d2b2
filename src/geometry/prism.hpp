#pragma once

#include <optional>
#include <span>

#include "geometry/height_plane.hpp"
#include "geometry/plan.hpp"

namespace gaze {

/// One edge of a convex anticlockwise outline: the inside is to its left.
struct PrismEdge {
  double x = 0.0, y = 0.0;    ///< Where it starts.
  double dx = 0.0, dy = 0.0;  ///< To where it ends.

  /// Positive to the left, 0 on the line, in square metres (twice a triangle's area).
  double side(double px, double py) const { return dx * (py - y) - dy * (px - x); }
};

/// The lower and upper side of a prism that is cut off aslant.
struct PrismSlopes {
  HeightPlane low;
  HeightPlane high;
};

/// A convex outline in the plan, rising across it from low to high (which may be infinite).
struct Prism {
  std::span<const PrismEdge> edges;
  double low = 0.0;   ///< The least height where it has slopes.
  double high = 0.0;  ///< The greatest height where it has slopes.
  const PrismSlopes* slopes = nullptr;

  double low_at(const Vector2d& p) const { return slopes != nullptr ? slopes->low.at(p) : low; }
  double high_at(const Vector2d& p) const { return slopes != nullptr ? slopes->high.at(p) : high; }
};

/// The share of a segment at which it enters a closed prism, in [0, 1); 0 if it starts inside or on
/// it; nothing if it passes by or only its far end touches. Clipping by half spaces (Cyrus and
/// Beck, 1978); where the coordinates' products are exact in double, so are touch and graze.
[[nodiscard]] std::optional<double> first_touch(const Prism& prism,
                                                const PlanSegment& segment) noexcept;

/// The same for a ball of that radius.
[[nodiscard]] std::optional<double> first_touch(const Prism& prism, const PlanSegment& path,
                                                double radius) noexcept;

/// The vector to a point from the nearest point of a prism; zero inside.
[[nodiscard]] PlanPoint offset_from(const Prism& prism, const PlanPoint& p) noexcept;

/// What moves, seen in the plan: a disc (or, in an upright plan, a rectangle) with an extent
/// across.
struct PlanBody {
  PlanPoint middle;
  bool is_disc = true;
  double half_width = 0.0;   ///< Radius of the disc, or half the rectangle's first side.
  double half_height = 0.0;  ///< Half the extent across, or half the rectangle's second side.
};

/// What a world's upright cylinder is in the plan.
[[nodiscard]] PlanBody to_plan(Plane plane, const Cylinder& cylinder) noexcept;

/// True if the insides of both overlap.
[[nodiscard]] bool overlaps(const Prism& prism, const PlanBody& body) noexcept;

struct PlanContact {
  double share = 0.0;
  PlanPoint normal;  ///< Away from the prism, unit; zero if the body begins inside.
};

/// Where a body that moves first enters the inside of a prism. Moving along a face or away from it
/// is no entry; beginning inside is an entry at share 0 (but for a disc whose centre is outside
/// and that moves away).
[[nodiscard]] std::optional<PlanContact> first_entry(const Prism& prism, const PlanBody& body,
                                                     const PlanPoint& motion) noexcept;

}  // namespace gaze
