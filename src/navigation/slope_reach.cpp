#include "navigation/slope_reach.hpp"

#include <algorithm>
#include <cmath>
#include <vector>

#include "geometry/dilation.hpp"
#include "geometry/plan.hpp"
#include "navigation/walkable.hpp"

namespace gaze {
namespace {

/// A point of the piece together with an offset from it to the centre of a body.
struct Pair {
  Vector2d centre{0.0, 0.0};
  double above_step = 0.0;  ///< How far the point rises above a step, metres.
  double below_head = 0.0;  ///< How far it lies below the head.
};

Pair between(const Pair& a, const Pair& b, double share) {
  return {a.centre + (b.centre - a.centre) * share,
          a.above_step + (b.above_step - a.above_step) * share,
          a.below_head + (b.below_head - a.below_head) * share};
}

/// The pairs of all corners of two convex shapes, row by row. Both conditions are linear in a pair,
/// and so is where the centre is. So the places sought are the shadow of a convex body in four
/// dimensions, cut by two planes: the hull of the shadows of its corners.
class Pairs {
 public:
  Pairs(const SlopedPiece& piece, const HeightPlane& slope, const BodySize& body) : columns_(0) {
    const Vector2d steepest{slope.along_x, slope.along_y};
    const Polygon offsets = offsets_for(piece.outline, steepest, body.radius);
    columns_ = offsets.size();
    // The skin widens the body; it does not make slopes steeper.
    const double without_skin = body.radius / (body.radius + kSkin);
    for (const Vector2d& p : piece.outline) {
      const double above = piece.top.at(p) - slope.at(p);
      const double below = slope.at(p) - piece.bottom.at(p);
      for (const Vector2d& offset : offsets) {
        const double rise = dot(steepest, offset) * without_skin;  // from there to the feet
        pairs_.push_back({p + offset, above - rise - body.step_height, below + rise + body.height});
      }
    }
  }

  /// Those above a step, with what lies between them and the others.
  std::vector<Pair> above_step() const {
    std::vector<Pair> kept;
    const std::size_t rows = pairs_.size() / columns_;
    for (std::size_t row = 0; row < rows; ++row) {
      for (std::size_t column = 0; column < columns_; ++column) {
        const Pair& own = at(row, column);
        if (own.above_step >= 0.0) kept.push_back(own);
        for (const Pair* next :
             {&at((row + 1) % rows, column), &at(row, (column + 1) % columns_)}) {
          if ((own.above_step < 0.0) == (next->above_step < 0.0)) continue;
          kept.push_back(between(own, *next, own.above_step / (own.above_step - next->above_step)));
        }
      }
    }
    return kept;
  }

 private:
  // The round of the body as corners between tangents: beside each side of the piece, and straight
  // up and down the slope, where nothing may be farther off than the radius.
  static Polygon offsets_for(const Polygon& outline, const Vector2d& steepest, double radius) {
    std::vector<Vector2d> normals;
    for (std::size_t i = 0; i < outline.size(); ++i) {
      const Vector2d side = outline[(i + 1) % outline.size()] - outline[i];
      const double length = length_of(side);
      if (length > 0.0) normals.emplace_back(side.y() / length, -side.x() / length);
    }
    const Vector2d up = steepest / length_of(steepest);
    normals.push_back(up);
    normals.push_back(-up);
    return disc(std::move(normals), radius + kSkin, NavigationMesh::kRoundingSlack - kSkin);
  }

  const Pair& at(std::size_t row, std::size_t column) const {
    return pairs_[row * columns_ + column];
  }

  std::size_t columns_;
  std::vector<Pair> pairs_;
};

// True if any of a piece may be higher than a step above feet within the radius: those stand lower
// than the slope below the piece by no more than that rises within the radius.
bool rises_above_step(const SlopedPiece& piece, const HeightPlane& slope, const BodySize& body) {
  constexpr double kTouching = 1e-9;  // metres: as high as a step, to rounding
  const double least = body.step_height -
                       length_of(Vector2d{slope.along_x, slope.along_y}) * body.radius + kTouching;
  return std::any_of(piece.outline.begin(), piece.outline.end(),
                     [&](const Vector2d& p) { return piece.top.at(p) - slope.at(p) > least; });
}

// Of a convex body that is known by its corners, what lies below the head: with what lies between
// any two on either side, which is more than its edges, and no more than the body.
std::vector<Pair> below_head(const std::vector<Pair>& pairs) {
  std::vector<Pair> kept;
  for (const Pair& one : pairs) {
    if (one.below_head < 0.0) continue;
    kept.push_back(one);
    for (const Pair& other : pairs) {
      if (other.below_head >= 0.0) continue;
      kept.push_back(between(one, other, one.below_head / (one.below_head - other.below_head)));
    }
  }
  return kept;
}

}  // namespace

Polygon hindered_on_slope(const SlopedPiece& piece, const HeightPlane& slope,
                          const BodySize& body) {
  if (!rises_above_step(piece, slope, body)) return {};
  const Pairs pairs(piece, slope, body);
  std::vector<Vector2d> centres;
  for (const Pair& one : below_head(pairs.above_step())) centres.push_back(one.centre);
  Polygon hull = convex_hull(std::move(centres));
  if (hull.size() < 3) hull.clear();
  return hull;
}

}  // namespace gaze
