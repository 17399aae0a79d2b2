#include "world/parts.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "geometry/wall.hpp"

namespace gaze {
namespace {

constexpr auto kBodies = static_cast<std::uint8_t>(1U << static_cast<unsigned>(Stops::bodies));

/// A ramp's axis in the plan, and what lies along it.
class Axis {
 public:
  explicit Axis(const Solid& solid)
      : from_(solid.from.x(), solid.from.y()),
        along_(Vector2d{solid.to.x(), solid.to.y()} - from_),
        rise_(solid.to.z() - solid.from.z()),
        base_(solid.from.z()),
        width_(solid.width) {}

  /// The outline of a ramp between two shares of its way, anticlockwise.
  Polygon outline(double begin, double end) const {
    const double length = length_of(along_);
    const Vector2d left = Vector2d{-along_.y(), along_.x()} * (width_ / 2.0 / length);
    const Vector2d a = from_ + along_ * begin;
    const Vector2d b = from_ + along_ * end;
    return {a - left, b - left, b + left, a + left};
  }

  HeightPlane slope() const {
    const Vector2d up = along_ * (rise_ / dot(along_, along_));
    return {base_ - dot(up, from_), up.x(), up.y()};
  }
  HeightPlane level_at(double share) const { return {base_ + rise_ * share, 0.0, 0.0}; }

 private:
  Vector2d from_;
  Vector2d along_;
  double rise_;
  double base_;
  double width_;
};

HeightPlane lowered(HeightPlane plane, double by) {
  plane.base -= by;
  return plane;
}

SolidPart ramp(const Solid& solid) {
  const Axis axis(solid);
  return {axis.outline(0.0, 1.0), lowered(axis.slope(), solid.thickness), axis.slope(), 0xFF};
}

// The middle of each step lies on the ramp that bodies climb.
std::vector<SolidPart> stairs(const Solid& solid) {
  const Axis axis(solid);
  std::vector<SolidPart> parts{ramp(solid)};
  parts.front().stops = kBodies;
  const double rise = std::abs(solid.to.z() - solid.from.z()) / solid.steps;
  for (int i = 0; i < solid.steps; ++i) {
    const HeightPlane top = axis.level_at((i + 0.5) / solid.steps);
    parts.push_back({axis.outline(double(i) / solid.steps, (i + 1.0) / solid.steps),
                     lowered(top, rise + solid.thickness), top,
                     static_cast<std::uint8_t>(0xFF & ~kBodies)});
  }
  return parts;
}

template <typename Better>
double extreme(const SolidPart& part, const HeightPlane& plane, Better&& better) {
  double best = plane.at(part.outline.front());
  for (const Vector2d& corner : part.outline) best = better(best, plane.at(corner));
  return best;
}

}  // namespace

std::vector<SolidPart> parts_of(const Solid& solid, double base) {
  if (solid.form == Solid::Form::ramp) return {ramp(solid)};
  if (solid.form == Solid::Form::stairs) return stairs(solid);
  const bool is_wall = solid.form == Solid::Form::wall || solid.form == Solid::Form::door;
  const std::vector<Polygon> outlines =
      is_wall ? widen_path(solid.points, solid.thickness).value_or(std::vector<Polygon>{})
              : convex_pieces(solid.points);
  const double height = solid.form == Solid::Form::floor ? solid.thickness : solid.height;
  std::vector<SolidPart> parts;
  parts.reserve(outlines.size());
  for (const Polygon& outline : outlines) {
    parts.push_back({outline, {base, 0.0, 0.0}, {base + height, 0.0, 0.0}, 0xFF});
  }
  return parts;
}

double lowest(const SolidPart& part) {
  return extreme(part, part.low, [](double a, double b) { return std::min(a, b); });
}

double highest(const SolidPart& part) {
  return extreme(part, part.high, [](double a, double b) { return std::max(a, b); });
}

}  // namespace gaze
