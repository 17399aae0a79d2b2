#include "geometry/slanted.hpp"

#include <algorithm>
#include <array>
#include <cassert>
#include <cmath>
#include <limits>

#include "geometry/first_within.hpp"

namespace gaze {
namespace {

constexpr double kEndless = std::numeric_limits<double>::infinity();

/// A few points or edges, without memory of its own elsewhere. Cutting adds one corner a cut.
template <typename Item>
struct Few {
  std::array<Item, kMostSlantedEdges + 2> items;
  std::size_t count = 0;

  void add(const Item& item) {
    assert(count < items.size());
    items[count++] = item;
  }
  const Item& after(std::size_t i) const { return items[i + 1 == count ? 0 : i + 1]; }
};

using Corners = Few<Vector2d>;

Corners corners_of(const Prism& prism) {
  Corners corners;
  for (const PrismEdge& edge : prism.edges) corners.add({edge.x, edge.y});
  return corners;
}

// The part of an outline on which start + height is positive.
Corners cut(const Corners& outline, double start, double sign, const HeightPlane& plane) {
  Corners kept;
  const auto value = [&](const Vector2d& p) { return start + sign * plane.at(p); };
  for (std::size_t i = 0; i < outline.count; ++i) {
    const Vector2d& a = outline.items[i];
    const Vector2d& b = outline.after(i);
    const double at_a = value(a);
    const double at_b = value(b);
    if (at_a > 0.0) kept.add(a);
    if ((at_a > 0.0) != (at_b > 0.0)) kept.add(a + (b - a) * (at_a / (at_a - at_b)));
  }
  return kept;
}

/// The greatest value of a height over the part of a disc that lies in an outline; nothing if
/// there is no such part. It is taken on at a corner, where the rims cross, or at the disc's own
/// highest point.
std::optional<double> greatest_over_disc(const Prism& prism, const HeightPlane& plane,
                                         const Vector2d& middle, double radius) {
  std::optional<double> greatest;
  const auto offer = [&](const Vector2d& p) {
    const double height = plane.at(p);
    if (!greatest || height > *greatest) greatest = height;
  };
  const auto is_inside = [&](const Vector2d& p) {
    return std::all_of(prism.edges.begin(), prism.edges.end(),
                       [&](const PrismEdge& edge) { return edge.side(p.x(), p.y()) >= 0.0; });
  };
  const Vector2d up{plane.along_x, plane.along_y};
  const double steepness = length_of(up);
  const Vector2d top = steepness > 0.0 ? Vector2d(middle + up * (radius / steepness)) : middle;
  if (is_inside(top)) offer(top);
  for (const PrismEdge& edge : prism.edges) {
    const Vector2d start{edge.x, edge.y};
    const Vector2d along{edge.dx, edge.dy};
    const Vector2d from = start - middle;
    if (dot(from, from) <= radius * radius) offer(start);
    const double a = dot(along, along);
    const double b = dot(from, along);
    const double root2 = b * b - a * (dot(from, from) - radius * radius);
    if (a == 0.0 || root2 < 0.0) continue;
    for (const double sign : {-1.0, 1.0}) {
      const double share = (-b + sign * std::sqrt(root2)) / a;
      if (share >= 0.0 && share <= 1.0) offer(start + along * share);
    }
  }
  return greatest;
}

HeightPlane negative(const HeightPlane& plane) {
  return {-plane.base, -plane.along_x, -plane.along_y};
}

/// How deep a disc-shaped body is in a prism up and down, at a share of its way: a concave function
/// of the share, positive where they overlap. Nothing where the outlines do not.
std::optional<double> depth_at(const Prism& prism, const PlanBody& body, const PlanPoint& motion,
                               double share) {
  const Vector2d middle = body.middle.plan + motion.plan * share;
  const double across = body.middle.across + motion.across * share;
  const auto top = greatest_over_disc(prism, prism.slopes->high, middle, body.half_width);
  if (!top) return std::nullopt;
  const auto bottom =
      greatest_over_disc(prism, negative(prism.slopes->low), middle, body.half_width);
  return std::min(*top - (across - body.half_height), across + body.half_height + *bottom);
}

// Of a body that also rises or falls. The depth is concave: its greatest value by golden section,
// then the share where it becomes positive by halving.
std::optional<PlanContact> first_entry_aslant(const Prism& prism, const PlanBody& body,
                                              const PlanPoint& motion) {
  constexpr double kGolden = 0.6180339887498949;
  const auto depth = [&](double share) {
    return depth_at(prism, body, motion, share).value_or(-kEndless);
  };
  const Prism column{prism.edges, -kEndless, kEndless, nullptr};
  double low = 0.0;
  if (dot(motion.plan, motion.plan) > 0.0 && !overlaps(column, body)) {
    const auto entry = first_entry(column, body, {motion.plan, 0.0});
    if (!entry) return std::nullopt;
    low = entry->share;
    if (depth(low + 1e-12) > 0.0) return entry;
  } else if (depth(0.0) > 0.0) {
    return PlanContact{0.0, {}};
  }
  double a = low;
  double b = 1.0;
  for (int i = 0; i < 80 && !(depth((a + b) / 2.0) > 0.0); ++i) {
    const double left = b - (b - a) * kGolden;
    const double right = a + (b - a) * kGolden;
    (depth(left) < depth(right) ? a : b) = depth(left) < depth(right) ? left : right;
  }
  double inside = (a + b) / 2.0;
  if (!(depth(inside) > 0.0)) return std::nullopt;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + inside) / 2.0;
    (depth(middle) > 0.0 ? inside : low) = middle;
  }
  const bool from_above = motion.across < 0.0;
  return PlanContact{low, {{0.0, 0.0}, from_above ? 1.0 : -1.0}};
}

using Triple = std::array<double, 3>;

double dot3(const Triple& a, const Triple& b) {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}
Triple minus(const Triple& a, const Triple& b) {
  return {a[0] - b[0], a[1] - b[1], a[2] - b[2]};
}

/// Keeps the shortest vector to a point from anything offered.
struct NearestOffset {
  Triple point;
  Triple offset{kEndless, kEndless, kEndless};
  double distance2 = kEndless;

  void offer(const Triple& on) {
    const Triple way = minus(point, on);
    const double length2 = dot3(way, way);
    if (length2 >= distance2) return;
    distance2 = length2;
    offset = way;
  }
  void offer_segment(const Triple& a, const Triple& b) {
    const Triple along = minus(b, a);
    const double length2 = dot3(along, along);
    const double share =
        length2 > 0.0 ? std::clamp(dot3(minus(point, a), along) / length2, 0.0, 1.0) : 0.0;
    offer({a[0] + along[0] * share, a[1] + along[1] * share, a[2] + along[2] * share});
  }
};

// The foot of the perpendicular onto one of the two slanted sides, if it lies within the outline.
void offer_side(NearestOffset& nearest, const Prism& prism, const HeightPlane& plane) {
  const Triple normal{-plane.along_x, -plane.along_y, 1.0};
  const double above = nearest.point[2] - plane.at(nearest.point[0], nearest.point[1]);
  const double share = above / dot3(normal, normal);
  const Triple foot{nearest.point[0] - normal[0] * share, nearest.point[1] - normal[1] * share,
                    nearest.point[2] - share};
  const bool is_inside =
      std::all_of(prism.edges.begin(), prism.edges.end(),
                  [&](const PrismEdge& edge) { return edge.side(foot[0], foot[1]) >= 0.0; });
  if (is_inside) nearest.offer(foot);
}

// The vector to a point from the nearest point of the prism; zero inside.
Triple offset_from(const Prism& prism, const Triple& p) {
  const bool within =
      std::all_of(prism.edges.begin(), prism.edges.end(),
                  [&](const PrismEdge& edge) { return edge.side(p[0], p[1]) >= 0.0; });
  const double low = prism.slopes->low.at(p[0], p[1]);
  const double high = prism.slopes->high.at(p[0], p[1]);
  if (within && low <= p[2] && p[2] <= high) return {0.0, 0.0, 0.0};
  NearestOffset nearest{p};
  offer_side(nearest, prism, prism.slopes->low);
  offer_side(nearest, prism, prism.slopes->high);
  for (const PrismEdge& edge : prism.edges) {
    const double end_x = edge.x + edge.dx;
    const double end_y = edge.y + edge.dy;
    const Triple low_start{edge.x, edge.y, prism.slopes->low.at(edge.x, edge.y)};
    const Triple low_end{end_x, end_y, prism.slopes->low.at(end_x, end_y)};
    const Triple high_start{edge.x, edge.y, prism.slopes->high.at(edge.x, edge.y)};
    const Triple high_end{end_x, end_y, prism.slopes->high.at(end_x, end_y)};
    nearest.offer_segment(low_start, low_end);
    nearest.offer_segment(high_start, high_end);
    nearest.offer_segment(low_start, high_start);
    // The upright side between them, where the point is level with it.
    const double length2 = edge.dx * edge.dx + edge.dy * edge.dy;
    const double share =
        length2 > 0.0 ? ((p[0] - edge.x) * edge.dx + (p[1] - edge.y) * edge.dy) / length2 : -1.0;
    if (share < 0.0 || share > 1.0) continue;
    const double x = edge.x + edge.dx * share;
    const double y = edge.y + edge.dy * share;
    const double bottom = prism.slopes->low.at(x, y);
    const double top = prism.slopes->high.at(x, y);
    nearest.offer({x, y, std::clamp(p[2], std::min(bottom, top), std::max(bottom, top))});
  }
  return nearest.offset;
}

}  // namespace

Slice::Slice(const Prism& prism, double from, double to) noexcept {
  if (prism.slopes == nullptr) {
    whole_ = prism.edges;
    is_whole_ = true;
    is_empty_ = !(prism.low <= to && from <= prism.high);
    return;
  }
  Corners corners = cut(corners_of(prism), -from, 1.0, prism.slopes->high);
  corners = cut(corners, to, -1.0, prism.slopes->low);
  is_empty_ = corners.count < 3;
  for (std::size_t i = 0; i < corners.count; ++i) {
    const Vector2d& a = corners.items[i];
    const Vector2d& b = corners.after(i);
    edges_[count_++] = {a.x(), a.y(), b.x() - a.x(), b.y() - a.y()};
  }
}

std::optional<double> first_touch_slanted(const Prism& prism, const PlanSegment& path,
                                          double radius) noexcept {
  const Vector2d motion = path.to.plan - path.from.plan;
  const Triple way{motion.x(), motion.y(), path.to.across - path.from.across};
  return first_within(radius, [&](double share) {
    const Vector2d plan = path.from.plan + motion * share;
    const Triple offset =
        offset_from(prism, {plan.x(), plan.y(), path.from.across + way[2] * share});
    const double distance = std::sqrt(dot3(offset, offset));
    return Approach{distance, distance > 0.0 ? dot3(offset, way) / distance : 0.0};
  });
}

PlanPoint offset_from_slanted(const Prism& prism, const PlanPoint& p) noexcept {
  const Triple offset = offset_from(prism, {p.plan.x(), p.plan.y(), p.across});
  return {{offset[0], offset[1]}, offset[2]};
}

bool overlaps_slanted(const Prism& prism, const PlanBody& body) noexcept {
  assert(body.is_disc);
  const double from = body.middle.across - body.half_height;
  const Slice slice(prism, from, body.middle.across + body.half_height);
  return !slice.is_empty() && overlaps(slice.prism(), body);
}

std::optional<PlanContact> first_entry_slanted(const Prism& prism, const PlanBody& body,
                                               const PlanPoint& motion) noexcept {
  assert(body.is_disc);
  if (motion.across != 0.0) return first_entry_aslant(prism, body, motion);
  const double from = body.middle.across - body.half_height;
  const Slice slice(prism, from, body.middle.across + body.half_height);
  if (slice.is_empty()) return std::nullopt;
  return first_entry(slice.prism(), body, motion);
}

}  // namespace gaze
