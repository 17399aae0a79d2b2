#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
#include "world/parts.hpp"

/// Triangles as prisms: their plan with slanted sides above and below, or for what stands upright
/// a narrow strip of the plan.
namespace gaze {
namespace {

/// The cosine of the angle to the plan below which a triangle counts as upright: 88.9 degrees.
constexpr double kUpright = 0.02;

Vector3d cross3(const Vector3d& a, const Vector3d& b) {
  return {a.y() * b.z() - a.z() * b.y(), a.z() * b.x() - a.x() * b.z(),
          a.x() * b.y() - a.y() * b.x()};
}

Vector3d normal_of(const Triangle& triangle) {
  return cross3(triangle[1] - triangle[0], triangle[2] - triangle[0]);
}

Vector2d plan(const Vector3d& p) {
  return {p.x(), p.y()};
}

HeightPlane shifted(HeightPlane plane, double by) {
  plane.base += by;
  return plane;
}

/// A corner of an upright triangle: how far along it, and how high.
struct Upright {
  double along = 0.0;
  double height = 0.0;
};

// An upright triangle is cut at its middle corner into two strips, each with a straight lower and
// upper side.
class UprightTriangle {
 public:
  UprightTriangle(const Triangle& triangle, const Vector3d& normal) : origin_(plan(triangle[0])) {
    const Vector2d outward = plan(normal) / std::sqrt(dot(plan(normal), plan(normal)));
    direction_ = {-outward.y(), outward.x()};
    inward_ = outward * -kShellThickness;
    for (std::size_t i = 0; i < 3; ++i) {
      corners_[i] = {dot(plan(triangle[i]) - origin_, direction_), triangle[i].z()};
    }
    std::sort(corners_.begin(), corners_.end(),
              [](const Upright& a, const Upright& b) { return a.along < b.along; });
  }

  void add(std::vector<SolidPart>& parts) const {
    const auto& [first, middle, last] = corners_;
    const double share =
        last.along > first.along ? (middle.along - first.along) / (last.along - first.along) : 0.0;
    const double across = first.height + (last.height - first.height) * share;
    const auto [low, high] = std::minmax({across, middle.height});
    add_strip(first, first, {middle.along, low}, {middle.along, high}, parts);
    add_strip({middle.along, low}, {middle.along, high}, last, last, parts);
  }

 private:
  HeightPlane side(const Upright& from, const Upright& to) const {
    const double rise = (to.height - from.height) / (to.along - from.along);
    HeightPlane plane;
    plane.along_x = direction_.x() * rise;
    plane.along_y = direction_.y() * rise;
    plane.base = from.height - rise * (from.along + dot(origin_, direction_));
    return plane;
  }

  void add_strip(const Upright& low_from, const Upright& high_from, const Upright& low_to,
                 const Upright& high_to, std::vector<SolidPart>& parts) const {
    constexpr double kNarrowest = 1e-6;  // metres
    if (!(low_to.along - low_from.along > kNarrowest)) return;
    const Vector2d a = origin_ + direction_ * low_from.along;
    const Vector2d b = origin_ + direction_ * low_to.along;
    SolidPart part;
    // The inside lies to the left of the way from a to b.
    part.outline = {a, b, b + inward_, a + inward_};
    part.low = side(low_from, low_to);
    part.high = side(high_from, high_to);
    part.carries = false;
    parts.push_back(part);
  }

  Vector2d origin_;
  Vector2d direction_{1.0, 0.0};
  Vector2d inward_{0.0, 0.0};
  std::array<Upright, 3> corners_;
};

}  // namespace

std::optional<LyingShell> lying_shell(const Triangle& triangle) {
  const Vector3d normal = normal_of(triangle);
  const double length = std::sqrt(normal.squaredNorm());
  if (!(std::abs(normal.z()) > kUpright * length)) return std::nullopt;
  const auto& [a, b, c] = triangle;
  HeightPlane plane;
  plane.along_x = -normal.x() / normal.z();
  plane.along_y = -normal.y() / normal.z();
  plane.base = a.z() - plane.along_x * a.x() - plane.along_y * a.y();
  const double upwards = kShellThickness * length / std::abs(normal.z());
  if (normal.z() > 0.0) {
    return LyingShell{{plan(a), plan(b), plan(c)}, shifted(plane, -upwards), plane, true};
  }
  return LyingShell{{plan(a), plan(c), plan(b)}, plane, shifted(plane, upwards), false};
}

void add_shell(const Triangle& triangle, std::vector<SolidPart>& parts) {
  if (const auto shell = lying_shell(triangle)) {
    const auto& [outline, low, high, carries] = *shell;
    parts.push_back({{outline.begin(), outline.end()}, low, high, 0xFF, carries});
    return;
  }
  const Vector3d normal = normal_of(triangle);
  if (normal.squaredNorm() > 0.0) UprightTriangle(triangle, normal).add(parts);
}

}  // namespace gaze
