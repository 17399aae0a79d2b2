#include "navigation/polygon_surfaces.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

/// Metres: so far off its plane a corner may lie, which counts as on it.
constexpr double kFlat = 0.01;
/// Heights that differ by no more, metres a metre of the plan, are of one plane.
constexpr double kSamePlane = 1e-9;

[[noreturn]] void refuse(std::size_t number, const std::string& what) {
  throw UsageError(fmt::format("polygon {} {}", number, what));
}

Vector2d plan(const Vector3d& p) {
  return {p.x(), p.y()};
}

double turn_at(const std::vector<Vector3d>& corners, std::size_t i) {
  const std::size_t count = corners.size();
  const Vector2d a = plan(corners[(i + count - 1) % count]);
  const Vector2d b = plan(corners[i]);
  const Vector2d c = plan(corners[(i + 1) % count]);
  return cross(b - a, c - b);
}

double twice_area(const std::vector<Vector3d>& corners) {
  double sum = 0.0;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vector3d& next = corners[(i + 1) % corners.size()];
    sum += cross(plan(corners[i]) - plan(corners[0]), plan(next) - plan(corners[0]));
  }
  return sum;
}

// Anticlockwise as seen from above.
std::vector<Vector3d> checked(std::size_t number, std::span<const Vector3d> given) {
  std::vector<Vector3d> corners(given.begin(), given.end());
  if (corners.size() < 3) refuse(number, fmt::format("has {} corners", corners.size()));
  for (const Vector3d& p : corners) {
    if (p.allFinite() && p.cwiseAbs().maxCoeff() <= LevelLimits::coordinate) continue;
    refuse(number, fmt::format("has a corner beyond {} m", LevelLimits::coordinate));
  }
  if (twice_area(corners) < 0.0) std::reverse(corners.begin(), corners.end());
  if (!(twice_area(corners) > 0.0)) refuse(number, "has no area in the plan");
  for (std::size_t i = 0; i < corners.size(); ++i) {
    if (turn_at(corners, i) < 0.0) refuse(number, fmt::format("is not convex at corner {}", i));
  }
  return corners;
}

// Through the first corner and the two with which it spans most.
HeightPlane plane_of(std::size_t number, const std::vector<Vector3d>& corners) {
  const Vector3d& a = corners[0];
  double most = 0.0;
  HeightPlane plane;
  for (std::size_t i = 1; i + 1 < corners.size(); ++i) {
    const Vector3d b = corners[i] - a;
    const Vector3d c = corners[i + 1] - a;
    const double spanned = b.x() * c.y() - b.y() * c.x();
    if (!(spanned > most)) continue;
    most = spanned;
    plane.along_x = (b.z() * c.y() - c.z() * b.y()) / spanned;
    plane.along_y = (c.z() * b.x() - b.z() * c.x()) / spanned;
    plane.base = a.z() - plane.along_x * a.x() - plane.along_y * a.y();
  }
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const double off = corners[i].z() - plane.at(plan(corners[i]));
    if (!(std::abs(off) <= kFlat)) {
      refuse(number, fmt::format("is not flat: corner {} lies {:.3f} m off its plane; up to {} m "
                                 "is allowed",
                                 i, off, kFlat));
    }
  }
  return plane;
}

bool is_same(const HeightPlane& a, const HeightPlane& b) {
  return std::abs(a.base - b.base) <= kSamePlane && std::abs(a.along_x - b.along_x) <= kSamePlane &&
         std::abs(a.along_y - b.along_y) <= kSamePlane;
}

}  // namespace

std::vector<Surface> surfaces_of(std::span<const std::vector<Vector3d>> polygons) {
  std::vector<Surface> surfaces;
  for (std::size_t i = 0; i < polygons.size(); ++i) {
    const std::vector<Vector3d> corners = checked(i, polygons[i]);
    const HeightPlane plane = plane_of(i, corners);
    auto at = std::find_if(surfaces.begin(), surfaces.end(),
                           [&](const Surface& one) { return is_same(one.height, plane); });
    if (at == surfaces.end()) at = surfaces.insert(surfaces.end(), Surface{plane, {}, {}});
    Polygon& part = at->parts.emplace_back();
    for (const Vector3d& p : corners) part.push_back(plan(p));
  }
  return surfaces;
}

}  // namespace gaze
