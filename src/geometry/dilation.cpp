#include "geometry/dilation.hpp"

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

Vector2d unit(const Vector2d& v) {
  return v / length_of(v);
}

/// Puts the corners between tangents with these unit normals about a point, halving the turn until
/// the corners are near enough to the circle.
class Rounding {
 public:
  Rounding(double radius, double slack, Polygon& outline)
      : radius_(radius), least_cosine_(radius / (radius + slack)), outline_(outline) {}

  void add(const Vector2d& middle, const Vector2d& from, const Vector2d& to) const {
    const Vector2d sum = from + to;
    // The cosine of half the turn, squared: (1 + from . to) / 2.
    const double half_cosine2 = (1.0 + dot(from, to)) / 2.0;
    if (half_cosine2 >= least_cosine_ * least_cosine_) {
      outline_.emplace_back(middle + sum * (radius_ / (1.0 + dot(from, to))));
      return;
    }
    // Of nearly opposite normals the sum has no direction; their edges' directions have.
    const Vector2d along{to.y() - from.y(), from.x() - to.x()};
    const Vector2d between = half_cosine2 > 0.5 ? unit(sum) : unit(along);
    add(middle, from, between);
    add(middle, between, to);
  }

 private:
  double radius_;
  double least_cosine_;
  Polygon& outline_;
};

Polygon without_repeats(std::span<const Vector2d> outline) {
  Polygon corners;
  for (const Vector2d& p : outline) {
    if (corners.empty() || corners.back() != p) corners.push_back(p);
  }
  while (corners.size() > 1 && corners.back() == corners.front()) corners.pop_back();
  return corners;
}

}  // namespace

Polygon dilated(std::span<const Vector2d> outline, double radius, double slack) {
  const Polygon corners = without_repeats(outline);
  const std::size_t count = corners.size();
  Polygon wide;
  const Rounding rounding(radius, slack, wide);
  for (std::size_t i = 0; i < count; ++i) {
    const Vector2d in = unit(corners[i] - corners[(i + count - 1) % count]);
    const Vector2d out = unit(corners[(i + 1) % count] - corners[i]);
    rounding.add(corners[i], {in.y(), -in.x()}, {out.y(), -out.x()});
  }
  return wide;
}

Polygon disc(std::vector<Vector2d> normals, double radius, double slack) {
  const auto is_in_second_half = [](const Vector2d& v) {
    return v.y() < 0.0 || (v.y() == 0.0 && v.x() < 0.0);
  };
  std::sort(normals.begin(), normals.end(), [&](const Vector2d& a, const Vector2d& b) {
    const bool is_b_behind = is_in_second_half(b);
    return is_in_second_half(a) != is_b_behind ? is_b_behind : cross(a, b) > 0.0;
  });
  Polygon outline;
  const Rounding rounding(radius, slack, outline);
  for (std::size_t i = 0; i < normals.size(); ++i) {
    rounding.add({0.0, 0.0}, normals[i], normals[(i + 1) % normals.size()]);
  }
  return outline;
}

Polygon clipped(std::span<const Vector2d> outline, double start, const Vector2d& along) {
  Polygon kept;
  const auto value = [&](const Vector2d& p) { return start + dot(along, p); };
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d& a = outline[i];
    const Vector2d& b = outline[(i + 1) % outline.size()];
    const double at_a = value(a);
    const double at_b = value(b);
    if (at_a >= 0.0) kept.push_back(a);
    if ((at_a < 0.0 && at_b > 0.0) || (at_a > 0.0 && at_b < 0.0)) {
      kept.emplace_back(a + (b - a) * (at_a / (at_a - at_b)));
    }
  }
  if (kept.size() < 3 || !(signed_area(kept) > 0.0)) kept.clear();
  return kept;
}

}  // namespace gaze
