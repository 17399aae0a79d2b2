#include "geometry/prism.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/first_within.hpp"
#include "geometry/slanted.hpp"

#if defined(__x86_64__)
#include <immintrin.h>
#endif

namespace gaze {
namespace {

constexpr double kInfinity = std::numeric_limits<double>::infinity();

/// A stretch of shares, closed at both ends.
struct Stretch {
  double enter = 0.0;
  double leave = 1.0;

  // Keeps the part on which a linear function with these values at shares 0 and 1 is not negative.
  bool keep(double at_start, double at_end) {
    if (at_start < 0.0) {
      if (at_end < 0.0) return false;
      enter = std::max(enter, at_start / (at_start - at_end));
    } else if (at_end < 0.0) {
      leave = std::min(leave, at_start / (at_start - at_end));
    }
    return enter <= leave;
  }
};

#if defined(__x86_64__)
struct FourEdges {
  __m256d x, y, dx, dy;
};

__attribute__((target("avx2"))) inline FourEdges load_four(const PrismEdge* edges) {
  const __m256d a = _mm256_loadu_pd(&edges[0].x);
  const __m256d b = _mm256_loadu_pd(&edges[1].x);
  const __m256d c = _mm256_loadu_pd(&edges[2].x);
  const __m256d d = _mm256_loadu_pd(&edges[3].x);
  const __m256d ab_low = _mm256_unpacklo_pd(a, b);
  const __m256d ab_high = _mm256_unpackhi_pd(a, b);
  const __m256d cd_low = _mm256_unpacklo_pd(c, d);
  const __m256d cd_high = _mm256_unpackhi_pd(c, d);
  return {
      _mm256_permute2f128_pd(ab_low, cd_low, 0x20), _mm256_permute2f128_pd(ab_high, cd_high, 0x20),
      _mm256_permute2f128_pd(ab_low, cd_low, 0x31), _mm256_permute2f128_pd(ab_high, cd_high, 0x31)};
}

__attribute__((target("avx2"))) inline __m256d sides(const FourEdges& edges, const Vector2d& p) {
  const __m256d px = _mm256_set1_pd(p.x());
  const __m256d py = _mm256_set1_pd(p.y());
  return _mm256_sub_pd(_mm256_mul_pd(edges.dx, _mm256_sub_pd(py, edges.y)),
                       _mm256_mul_pd(edges.dy, _mm256_sub_pd(px, edges.x)));
}

// Stretch::keep for four edges at once: the same operations, so the same bits.
__attribute__((target("avx2"))) bool keep_four(Stretch& stretch, const PrismEdge* first,
                                               const PlanSegment& segment) {
  const FourEdges edges = load_four(first);
  const __m256d at_start = sides(edges, segment.from.plan);
  const __m256d at_end = sides(edges, segment.to.plan);
  const __m256d zero = _mm256_setzero_pd();
  const __m256d starts_out = _mm256_cmp_pd(at_start, zero, _CMP_LT_OQ);
  const __m256d ends_out = _mm256_cmp_pd(at_end, zero, _CMP_LT_OQ);
  if (_mm256_movemask_pd(_mm256_and_pd(starts_out, ends_out)) != 0) return false;
  const __m256d share = _mm256_div_pd(at_start, _mm256_sub_pd(at_start, at_end));
  alignas(32) double enter[4];
  alignas(32) double leave[4];
  _mm256_store_pd(enter, _mm256_blendv_pd(zero, share, starts_out));
  _mm256_store_pd(leave, _mm256_blendv_pd(_mm256_set1_pd(1.0), share, ends_out));
  stretch.enter =
      std::max(stretch.enter, std::max(std::max(enter[0], enter[1]), std::max(enter[2], enter[3])));
  stretch.leave =
      std::min(stretch.leave, std::min(std::min(leave[0], leave[1]), std::min(leave[2], leave[3])));
  return stretch.enter <= stretch.leave;
}
#endif

/// The nearest point of a closed outline, as a vector from it; zero inside.
Vector2d offset_from(std::span<const PrismEdge> edges, const Vector2d& p) {
  bool inside = true;
  double best = kInfinity;
  Vector2d best_offset{0.0, 0.0};
  for (const PrismEdge& edge : edges) {
    if (edge.side(p.x(), p.y()) >= 0.0) continue;
    inside = false;
    const Vector2d along{edge.dx, edge.dy};
    const Vector2d from_start{p.x() - edge.x, p.y() - edge.y};
    const double length2 = dot(along, along);
    const double share =
        length2 > 0.0 ? std::clamp(dot(from_start, along) / length2, 0.0, 1.0) : 0.0;
    const Vector2d offset = from_start - along * share;
    const double distance2 = dot(offset, offset);
    if (distance2 < best) {
      best = distance2;
      best_offset = offset;
    }
  }
  return inside ? Vector2d{0.0, 0.0} : best_offset;
}

double offset_across(const Prism& prism, double across) {
  return across > prism.high ? across - prism.high : across < prism.low ? across - prism.low : 0.0;
}

Approach disc_nearness(const Prism& prism, const Vector2d& place, const Vector2d& motion) {
  const Vector2d offset = offset_from(prism.edges, place);
  const double distance = length_of(offset);
  return {distance, distance > 0.0 ? dot(offset, motion) / distance : 0.0};
}

/// An open stretch of shares of any sign, and which constraint its start comes from.
struct OpenStretch {
  double enter = -kInfinity;
  double leave = kInfinity;
  PlanPoint normal;

  // Keeps the part on which start + share * slope is positive.
  bool keep(double start, double slope, const PlanPoint& outward) {
    if (slope == 0.0) return start > 0.0;
    const double share = -start / slope;
    if (slope < 0.0) {
      leave = std::min(leave, share);
    } else if (share > enter) {
      enter = share;
      normal = outward;
    }
    return enter < leave;
  }

  bool keep_across(const Prism& prism, const PlanBody& body, double motion) {
    return keep(prism.high - body.middle.across + body.half_height, -motion, {{0, 0}, 1.0}) &&
           keep(body.middle.across + body.half_height - prism.low, motion, {{0, 0}, -1.0});
  }

  std::optional<PlanContact> contact() const {
    if (!(enter < leave && leave > 0.0 && enter < 1.0)) return std::nullopt;
    if (enter < 0.0) return PlanContact{0.0, {}};
    return PlanContact{enter, normal};
  }
};

bool keep_rectangle_sides(OpenStretch& stretch, const Prism& prism, const PlanBody& body,
                          const Vector2d& motion) {
  Vector2d low{kInfinity, kInfinity};
  Vector2d high{-kInfinity, -kInfinity};
  for (const PrismEdge& edge : prism.edges) {
    low = low.cwiseMin(Vector2d{edge.x, edge.y});
    high = high.cwiseMax(Vector2d{edge.x, edge.y});
  }
  const Vector2d half{body.half_width, body.half_height};
  for (int axis = 0; axis < 2; ++axis) {
    Vector2d unit{0.0, 0.0};
    unit[axis] = 1.0;
    const double at = body.middle.plan[axis];
    if (!stretch.keep(high[axis] - at + half[axis], -motion[axis], {unit, 0.0}) ||
        !stretch.keep(at + half[axis] - low[axis], motion[axis], {-unit, 0.0})) {
      return false;
    }
  }
  return true;
}

OpenStretch rectangle_stretch(const Prism& prism, const PlanBody& body, const Vector2d& motion) {
  OpenStretch stretch;
  const OpenStretch never{1.0, 0.0, {}};
  if (!keep_rectangle_sides(stretch, prism, body, motion)) return never;
  for (const PrismEdge& edge : prism.edges) {
    const double reach = std::abs(edge.dy) * body.half_width + std::abs(edge.dx) * body.half_height;
    const double length = std::sqrt(edge.dx * edge.dx + edge.dy * edge.dy);
    if (length == 0.0) continue;
    const double start = edge.side(body.middle.plan.x(), body.middle.plan.y()) + reach;
    const Vector2d outward{edge.dy / length, -edge.dx / length};
    if (!stretch.keep(start, cross({edge.dx, edge.dy}, motion), {outward, 0.0})) return never;
  }
  return stretch;
}

// When the disc's outline enters the outline of the prism, from the start of its way on. Moving
// away is free, but for a body that comes down or up while it is still above or below.
OpenStretch disc_stretch(const Prism& prism, const PlanBody& body, const PlanPoint& way) {
  const OpenStretch never{1.0, 0.0, {}};
  const Vector2d start = body.middle.plan;
  const Vector2d motion = way.plan;
  const Approach at_start = disc_nearness(prism, start, motion);
  if (at_start.distance <= body.half_width) {
    if (at_start.distance > 0.0 && at_start.slope >= 0.0) {
      const bool may_land = way.across != 0.0 && at_start.distance < body.half_width;
      return may_land ? OpenStretch{-kInfinity, kInfinity, {}} : never;
    }
    const Vector2d offset = offset_from(prism.edges, start);
    if (at_start.distance == 0.0) return {-kInfinity, kInfinity, {}};
    return {0.0, kInfinity, {Vector2d(offset / at_start.distance), 0.0}};
  }
  const auto enter = first_within(body.half_width, [&](double share) {
    return disc_nearness(prism, start + motion * share, motion);
  });
  if (!enter) return never;
  const Vector2d offset = offset_from(prism.edges, start + motion * *enter);
  const double distance = length_of(offset);
  const Vector2d normal = distance > 0.0 ? Vector2d(offset / distance) : Vector2d{0.0, 0.0};
  return {*enter, kInfinity, {normal, 0.0}};
}

// A disc that also rises or falls may have left the outline again before it comes to its height.
double disc_leaves(const Prism& prism, const PlanBody& body, const Vector2d& motion) {
  const Vector2d end = body.middle.plan + motion;
  const auto back = first_within(body.half_width, [&](double share) {
    return disc_nearness(prism, end - motion * share, -motion);
  });
  return back ? 1.0 - *back : kInfinity;
}

}  // namespace

std::optional<double> first_touch(const Prism& prism, const PlanSegment& segment) noexcept {
  Stretch stretch;
  const auto& [from, to] = segment;
  if (!stretch.keep(from.across - prism.low_at(from.plan), to.across - prism.low_at(to.plan)) ||
      !stretch.keep(prism.high_at(from.plan) - from.across, prism.high_at(to.plan) - to.across)) {
    return std::nullopt;
  }
  std::size_t done = 0;
#if defined(__x86_64__)
  if (__builtin_cpu_supports("avx2")) {
    for (; done + 4 <= prism.edges.size(); done += 4) {
      if (!keep_four(stretch, &prism.edges[done], segment)) return std::nullopt;
    }
  }
#endif
  for (const PrismEdge& edge : prism.edges.subspan(done)) {
    if (!stretch.keep(edge.side(from.plan.x(), from.plan.y()),
                      edge.side(to.plan.x(), to.plan.y()))) {
      return std::nullopt;
    }
  }
  return stretch.enter < 1.0 ? std::optional(stretch.enter) : std::nullopt;
}

std::optional<double> first_touch(const Prism& prism, const PlanSegment& path,
                                  double radius) noexcept {
  // A point has no nearest side to go by once it arrives: it is a segment.
  if (radius == 0.0) return first_touch(prism, path);
  if (prism.slopes != nullptr) return first_touch_slanted(prism, path, radius);
  const Vector2d motion = path.to.plan - path.from.plan;
  const double motion_across = path.to.across - path.from.across;
  return first_within(radius, [&](double share) {
    const Vector2d offset = offset_from(prism.edges, path.from.plan + motion * share);
    const double across = offset_across(prism, path.from.across + motion_across * share);
    const double distance = std::sqrt(dot(offset, offset) + across * across);
    const double gain = dot(offset, motion) + across * motion_across;
    return Approach{distance, distance > 0.0 ? gain / distance : 0.0};
  });
}

PlanPoint offset_from(const Prism& prism, const PlanPoint& p) noexcept {
  if (prism.slopes != nullptr) return offset_from_slanted(prism, p);
  return {offset_from(prism.edges, p.plan), offset_across(prism, p.across)};
}

PlanBody to_plan(Plane plane, const Cylinder& cylinder) noexcept {
  const Vector3d middle = cylinder.feet + Vector3d{0.0, 0.0, cylinder.height / 2.0};
  return {to_plan(plane, middle), plane != Plane::upright, cylinder.radius, cylinder.height / 2.0};
}

bool overlaps(const Prism& prism, const PlanBody& body) noexcept {
  if (prism.slopes != nullptr) return overlaps_slanted(prism, body);
  if (!body.is_disc) {
    const OpenStretch stretch = rectangle_stretch(prism, body, {0.0, 0.0});
    return stretch.enter < stretch.leave;
  }
  return prism.low < body.middle.across + body.half_height &&
         body.middle.across - body.half_height < prism.high && body.half_width > 0.0 &&
         disc_nearness(prism, body.middle.plan, {0.0, 0.0}).distance < body.half_width;
}

std::optional<PlanContact> first_entry(const Prism& prism, const PlanBody& body,
                                       const PlanPoint& motion) noexcept {
  if (prism.slopes != nullptr) return first_entry_slanted(prism, body, motion);
  if (!body.is_disc) return rectangle_stretch(prism, body, motion.plan).contact();
  OpenStretch stretch = disc_stretch(prism, body, motion);
  if (!(stretch.enter < stretch.leave)) {
    // Moving straight up or down while the outlines overlap counts as overlapping all the way.
    const bool above =
        dot(motion.plan, motion.plan) == 0.0 &&
        disc_nearness(prism, body.middle.plan, motion.plan).distance < body.half_width;
    if (!above) return std::nullopt;
    stretch = {};
  } else if (motion.across != 0.0) {
    stretch.leave = disc_leaves(prism, body, motion.plan);
  }
  if (!stretch.keep_across(prism, body, motion.across)) return std::nullopt;
  return stretch.contact();
}

}  // namespace gaze
