#include "geometry/wall.hpp"

#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

Vector2d left_normal(const Vector2d& from, const Vector2d& to) {
  const Vector2d along = to - from;
  const double length = length_of(along);
  return {-along.y() / length, along.x() / length};
}

// From a corner to its mitred left side: perpendicular distance half a thickness from both.
Vector2d mitre(const Vector2d& normal_before, const Vector2d& normal_after, double half) {
  const Vector2d sum = normal_before + normal_after;
  const double scale = 1.0 + dot(normal_before, normal_after);
  return sum * (half / scale);  // a path that turns straight back has scale 0: not finite
}

std::vector<Vector2d> offsets_to_left(std::span<const Vector2d> path, double half) {
  const std::size_t stretches = path.size() - 1;
  const bool closed = stretches > 2 && path.front() == path.back();
  std::vector<Vector2d> normals;
  for (std::size_t i = 0; i < stretches; ++i) normals.push_back(left_normal(path[i], path[i + 1]));
  std::vector<Vector2d> offsets;
  for (std::size_t i = 0; i <= stretches; ++i) {
    const Vector2d& before = i > 0 ? normals[i - 1] : closed ? normals.back() : normals[0];
    const Vector2d& after = i < stretches ? normals[i] : closed ? normals[0] : normals.back();
    offsets.push_back(before == after ? Vector2d(before * half) : mitre(before, after, half));
  }
  return offsets;
}

}  // namespace

std::optional<std::vector<Polygon>> widen_path(std::span<const Vector2d> path, double thickness) {
  const std::vector<Vector2d> offsets = offsets_to_left(path, thickness / 2.0);
  std::vector<Polygon> pieces;
  for (std::size_t i = 0; i + 1 < path.size(); ++i) {
    const Vector2d along = path[i + 1] - path[i];
    const Polygon piece{path[i] - offsets[i], path[i + 1] - offsets[i + 1],
                        path[i + 1] + offsets[i + 1], path[i] + offsets[i]};
    const double right = dot(along, piece[1] - piece[0]);
    const double left = dot(along, piece[2] - piece[3]);
    if (!(right >= 0.0 && left >= 0.0 && std::isfinite(right + left))) return std::nullopt;
    pieces.push_back(piece);
  }
  return pieces;
}

}  // namespace gaze
