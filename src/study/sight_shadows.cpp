#include "study/sight_shadows.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "geometry/polygon.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

// Returns the corners of a piece. Infinite heights end far above and below the level.
std::vector<Vector3d> corners_of(const Prism& prism) {
  constexpr double kFar = 1e5;  // metres
  std::vector<Vector3d> corners;
  for (const PrismEdge& edge : prism.edges) {
    const Vector2d at{edge.x, edge.y};
    corners.emplace_back(edge.x, edge.y, std::clamp(prism.low_at(at), -kFar, kFar));
    corners.emplace_back(edge.x, edge.y, std::clamp(prism.high_at(at), -kFar, kFar));
  }
  return corners;
}

// Clips a convex body to an interval of heights. Returns the corners of the result, and some points
// inside it.
std::vector<Vector3d> between(const std::vector<Vector3d>& corners, double low, double high) {
  std::vector<Vector3d> part;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vector3d& a = corners[i];
    if (a.z() >= low && a.z() <= high) part.push_back(a);
    for (std::size_t k = i + 1; k < corners.size(); ++k) {
      const Vector3d& b = corners[k];
      for (const double height : {low, high}) {
        if ((a.z() < height) == (b.z() < height) || a.z() == b.z()) continue;
        part.push_back(a + (b - a) * ((height - a.z()) / (b.z() - a.z())));
      }
    }
  }
  return part;
}

// Clips a convex polygon to a square with this centre and half side (Sutherland and
// Hodgman, 1974).
Outline clipped_to_square(Outline points, const Vector2d& centre, double half) {
  for (const int axis : {0, 1}) {
    for (const double sign : {-1.0, 1.0}) {
      const auto out = [&](const Vector2d& p) { return sign * (p[axis] - centre[axis]) - half; };
      Outline kept;
      for (std::size_t i = 0; i < points.size(); ++i) {
        const Vector2d& a = points[i];
        const Vector2d& b = points[(i + 1) % points.size()];
        if (out(a) <= 0.0) kept.push_back(a);
        if ((out(a) < 0.0 && out(b) > 0.0) || (out(a) > 0.0 && out(b) < 0.0)) {
          kept.push_back(a + (b - a) * (out(a) / (out(a) - out(b))));
        }
      }
      points = std::move(kept);
    }
  }
  return points;
}

bool is_within(const Box& box, const Vector2d& at, double reach) {
  const Vector2d nearest{std::clamp(at.x(), box.low[0], box.high[0]),
                         std::clamp(at.y(), box.low[1], box.high[1])};
  return (nearest - at).squaredNorm() <= reach * reach;
}

bool holds(const Prism& prism, const Vector3d& point) {
  Outline outline;
  for (const PrismEdge& edge : prism.edges) outline.emplace_back(edge.x, edge.y);
  const Vector2d at{point.x(), point.y()};
  return contains(outline, at) && prism.low_at(at) <= point.z() && prism.high_at(at) >= point.z();
}

}  // namespace

SightShadows::SightShadows(const World& world, const Vector3d& eye, double reach)
    : eye_(eye), at_(eye.x(), eye.y()), reach_(reach) {
  const World::Index& index = index_of(world);
  for (std::uint32_t piece = 0; piece < index.pieces.size(); ++piece) {
    if (!stops(world, piece, Stops::sight)) continue;
    const PieceShape shape(index, piece);
    if (!is_within(box_of(shape.prism()), at_, reach)) continue;
    pieces_.push_back(corners_of(shape.prism()));
    is_blind_ |= holds(shape.prism(), eye);
  }
}

Outlines SightShadows::at(double height) const {
  Outlines shadows;
  for (const Corners& corners : pieces_) {
    Outline shadow = shadow_of(corners, height);
    if (shadow.size() >= 3) shadows.push_back(std::move(shadow));
  }
  return united(shadows, {});
}

// A corner at height z is projected to (eye - height) / (eye - z) times its distance. If the eye is
// at that height, a piece hides all positions behind its section there.
Outline SightShadows::shadow_of(const Corners& corners, double height) const {
  constexpr double kFarther = 1e6;  // times the distance of a corner
  constexpr double kAtEye = 1e-9;   // metres
  const double down = eye_.z() - height;
  const bool is_at_eye = std::abs(down) <= kAtEye;
  const double nearly = is_at_eye ? eye_.z() : eye_.z() - down / kFarther;
  const double end = is_at_eye ? eye_.z() : height;
  Outline projected;
  for (const Vector3d& corner : between(corners, std::min(end, nearly), std::max(end, nearly))) {
    const Vector2d off = Vector2d{corner.x(), corner.y()} - at_;
    if (is_at_eye) projected.push_back(at_ + off);
    projected.push_back(at_ + off * (is_at_eye ? kFarther : down / (eye_.z() - corner.z())));
  }
  if (projected.size() < 3) return {};
  return clipped_to_square(convex_hull(std::move(projected)), at_, 2.0 * reach_ + 1.0);
}

}  // namespace gaze
