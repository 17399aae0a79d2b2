#include "navigation/bounded.hpp"

#include "geometry/dilation.hpp"
#include "navigation/walkable.hpp"

namespace gaze {
namespace {

/// The positions p of a plan with start + along . p >= 0.
struct HalfPlane {
  double start = 0.0;
  Vector2d along{0.0, 0.0};
};

/// A convex piece of the bounds, in coordinates of the level: x and y, or x and z in side view.
using BoundsPiece = std::vector<HalfPlane>;

bool is_edge_of(const std::vector<Vector2d>& outline, const Vector2d& a, const Vector2d& b) {
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d& from = outline[i];
    const Vector2d& to = outline[(i + 1) % outline.size()];
    if ((from == a && to == b) || (from == b && to == a)) return true;
  }
  return false;
}

// Moves the edges of the outline inwards, and not those that two pieces share.
BoundsPiece piece_of(const Polygon& corners, const std::vector<Vector2d>& outline) {
  BoundsPiece piece;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vector2d& a = corners[i];
    const Vector2d& b = corners[(i + 1) % corners.size()];
    const Vector2d way = (b - a) / length_of(Vector2d(b - a));
    const Vector2d inward{-way.y(), way.x()};
    const double inset = is_edge_of(outline, a, b) ? kSkin : 0.0;
    piece.push_back({-dot(inward, a) - inset, inward});
  }
  return piece;
}

std::vector<BoundsPiece> pieces_of(const Bounds& bounds) {
  std::vector<BoundsPiece> pieces;
  if (bounds.outline.empty()) pieces.emplace_back();
  for (const Polygon& corners : convex_pieces(bounds.outline)) {
    pieces.push_back(piece_of(corners, bounds.outline));
  }
  return pieces;
}

/// Cuts one surface at the bounds.
class Cutter {
 public:
  Cutter(const Level& level, bool hovers, const HeightPlane& height)
      : is_ledge_(level.plane == Plane::upright && !hovers),
        is_side_air_(level.plane == Plane::upright && hovers),
        height_(height) {
    if (level.bounds->low) limits_.push_back(limit(-*level.bounds->low, 1.0));
    if (level.bounds->high) limits_.push_back(limit(*level.bounds->high, -1.0));
  }

  Polygon cut(Polygon part, const BoundsPiece& piece) const {
    for (const HalfPlane& side : piece) {
      if (!part.empty()) part = keep(part, is_ledge_ ? on_ledge(side) : side);
    }
    for (const HalfPlane& side : limits_) {
      if (!part.empty()) part = keep(part, side);
    }
    return part;
  }

 private:
  static Polygon keep(const Polygon& part, const HalfPlane& side) {
    return clipped(part, side.start, side.along);
  }

  // The second coordinate of a ledge's bounds is the height, which follows from x.
  HalfPlane on_ledge(const HalfPlane& side) const {
    return {side.start + side.along.y() * height_.base,
            {side.along.x() + side.along.y() * height_.along_x, 0.0}};
  }

  // The positions with start + sign * height >= 0.
  HalfPlane limit(double start, double sign) const {
    if (is_side_air_) return {start, {0.0, sign}};
    return {start + sign * height_.base, {sign * height_.along_x, sign * height_.along_y}};
  }

  bool is_ledge_;
  bool is_side_air_;
  const HeightPlane& height_;
  std::vector<HalfPlane> limits_;
};

Surface cut(const Level& level, bool hovers, const Surface& surface,
            const std::vector<BoundsPiece>& pieces) {
  const Cutter cutter(level, hovers, surface.height);
  Surface kept;
  kept.height = surface.height;
  for (std::size_t i = 0; i < surface.parts.size(); ++i) {
    for (const BoundsPiece& piece : pieces) {
      Polygon part = cutter.cut(surface.parts[i], piece);
      if (part.empty()) continue;
      kept.parts.push_back(std::move(part));
      if (!surface.solids.empty()) kept.solids.push_back(surface.solids[i]);
    }
  }
  return kept;
}

}  // namespace

void keep_within_bounds(const Level& level, bool hovers, std::vector<Surface>& surfaces) {
  if (!level.bounds) return;
  const std::vector<BoundsPiece> pieces = pieces_of(*level.bounds);
  for (Surface& surface : surfaces) surface = cut(level, hovers, surface, pieces);
  std::erase_if(surfaces, [](const Surface& surface) { return surface.parts.empty(); });
}

}  // namespace gaze
