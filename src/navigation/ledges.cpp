#include "navigation/ledges.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "geometry/plan_grid.hpp"
#include "navigation/walkable.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

constexpr double kHalfDepth = 0.5;  // metres: of a strip, so that its area is its length

struct Stretch {
  double low = -std::numeric_limits<double>::infinity();
  double high = std::numeric_limits<double>::infinity();

  /// Keeps the part of a stretch in which start + slope * x is above 0.
  void keep(double start, double slope) {
    if (slope > 0.0) low = std::max(low, -start / slope);
    if (slope < 0.0) high = std::min(high, -start / slope);
    if (slope == 0.0 && !(start > 0.0)) high = low = 0.0;
  }
  bool is_empty() const { return !(low < high); }
};

/// The stretch of a ledge on which a solid would reach into the box of a body. The box is from
/// `low` to `high` above the feet, and `radius` wide to either side. It is moved along a line and
/// the solid is convex. So there is one such stretch: the part of the line that lies within the sum
/// of box and solid.
Stretch stretch_within(const Prism& prism, const HeightPlane& ledge, double radius, double low,
                       double high) {
  Stretch stretch;
  double left = std::numeric_limits<double>::infinity();
  double right = -left;
  double bottom = left;
  double top = right;
  for (const PrismEdge& edge : prism.edges) {
    left = std::min(left, edge.x);
    right = std::max(right, edge.x);
    bottom = std::min(bottom, edge.y);
    top = std::max(top, edge.y);
    // The distance of that corner of the box that lies farthest inside a side of the solid: side(x
    // - a, z(x) + b).
    const double b = std::max(edge.dx * low, edge.dx * high);
    const double start =
        edge.dx * (ledge.base - edge.y) + edge.dy * edge.x + b + std::abs(edge.dy) * radius;
    stretch.keep(start, edge.dx * ledge.along_x - edge.dy);
  }
  stretch.keep(radius - left, 1.0);
  stretch.keep(right + radius, -1.0);
  stretch.keep(ledge.base + high - bottom, ledge.along_x);
  stretch.keep(top - low - ledge.base, -ledge.along_x);
  return stretch;
}

std::optional<HeightPlane> upper_side(const PrismEdge& edge) {
  if (!(edge.dx < 0.0)) return std::nullopt;  // what faces up runs to the left
  HeightPlane height;
  height.along_x = edge.dy / edge.dx;
  height.base = edge.y - height.along_x * edge.x;
  return height;
}

// A convex piece is never in the way of a body that stands on one of its sides.
bool carries(const Prism& prism, const HeightPlane& ledge) {
  return std::any_of(prism.edges.begin(), prism.edges.end(),
                     [&](const PrismEdge& edge) { return upper_side(edge) == ledge; });
}

Polygon strip(double from, double to, double half_depth) {
  return {{from, -half_depth}, {to, -half_depth}, {to, half_depth}, {from, half_depth}};
}

void add_ledge(std::vector<Surface>& ledges, const HeightPlane& height, const Polygon& part,
               std::optional<std::uint32_t> solid) {
  for (Surface& known : ledges) {
    if (!(known.height == height)) continue;
    if (known.solids.empty()) return;  // the ground is there already
    known.parts.push_back(part);
    known.solids.push_back(*solid);
    return;
  }
  ledges.push_back({height, {part}, {}});
  if (solid) ledges.back().solids = {*solid};
}

}  // namespace

std::vector<Surface> ledges_of(const Level& level, const World& world, const BodySize& body) {
  std::vector<Surface> ledges;
  if (level.ground_height) {
    const PlanBox extent = extent_of(level, world);
    add_ledge(ledges, {*level.ground_height, 0.0, 0.0},
              strip(extent.low.x() - kFreeMargin, extent.high.x() + kFreeMargin, kHalfDepth), {});
  }
  const World::Index& index = index_of(world);
  for (std::uint32_t i = 0; i < index.pieces.size(); ++i) {
    if (!index.stops(i, Stops::bodies)) continue;
    if (can_go_away(level.solids[index.pieces[i].solid])) continue;
    const PieceShape shape(index, i);
    for (const PrismEdge& edge : shape.prism().edges) {
      const auto height = upper_side(edge);
      if (!height || !is_walkable(*height, body)) continue;
      add_ledge(ledges, *height, strip(edge.x + edge.dx, edge.x, kHalfDepth),
                index.pieces[i].solid);
    }
  }
  return ledges;
}

std::vector<Hindrance> hindrances_on_ledge(const Surface& ledge, const Level& level,
                                           const World& world, const BodySize& body,
                                           std::uint32_t first) {
  const World::Index& index = index_of(world);
  const PlanBox box = box_of(ledge);
  std::vector<Hindrance> hindrances;
  const auto add = [&](Stretch stretch, std::uint32_t tag) {
    stretch.low = std::max(stretch.low, box.low.x() - 1.0);
    stretch.high = std::min(stretch.high, box.high.x() + 1.0);
    if (!stretch.is_empty()) {
      hindrances.push_back({strip(stretch.low, stretch.high, 2.0 * kHalfDepth), tag});
    }
  };
  // The second axis of this plan is the height, and any height will do.
  constexpr double kAnyHeight = 1e12;
  const double reach = body.radius + 1.0;
  const PlanBox about{{box.low.x() - reach, -kAnyHeight}, {box.high.x() + reach, kAnyHeight}};
  for (const std::uint32_t i : pieces_near(index, about)) {
    if (index.pieces[i].solid < first) continue;
    const PieceShape shape(index, i);
    const Prism& prism = shape.prism();
    const auto tag = may_go(level, body, index.pieces[i].solid);
    if (!tag || (carries(prism, ledge.height) && *tag == Hindrance::kStays)) continue;
    add(stretch_within(prism, ledge.height, body.radius + kSkin, body.step_height, body.height),
        *tag);
    add(stretch_within(prism, ledge.height, 0.0, 0.0, body.step_height), *tag);
  }
  if (first == 0 && level.ground_height && !ledge.solids.empty()) {
    // Where it lies below the ground by no more than a step, a body stands on the ground.
    const double rise = *level.ground_height - ledge.height.base;
    Stretch below;
    below.keep(rise, -ledge.height.along_x);
    below.keep(body.step_height - rise, ledge.height.along_x);
    add(below, Hindrance::kStays);
  }
  return hindrances;
}

}  // namespace gaze
