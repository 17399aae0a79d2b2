#include "geometry/triangulation.hpp"

#include <algorithm>
#include <cassert>
#include <optional>

namespace gaze {
namespace {

constexpr unsigned next(unsigned i) {
  return i == 2 ? 0 : i + 1;
}
constexpr unsigned before(unsigned i) {
  return i == 0 ? 2 : i - 1;
}

// Which of `count` cells of a row of some size an offset lies in.
std::int64_t cell_of(std::int64_t offset, std::int64_t size, std::int64_t count) {
  const bool is_wide = size > std::int64_t{1} << 40;
  return is_wide ? offset / (size / count + 1) : offset * count / size;
}

}  // namespace

template <typename Point>
TriangulationOf<Point>::TriangulationOf(const Point& low, const Point& high) {
  points_ = {low, {high.x, low.y}, high, {low.x, high.y}};
  triangles_.push_back({{0, 1, 2}, {kNone, kNone, 1}, {}});
  triangles_.push_back({{0, 2, 3}, {0, kNone, kNone}, {}});
  triangle_at_ = {0, 0, 0, 1};
}

template <typename Point>
std::uint32_t TriangulationOf<Point>::add(const Point& point) {
  const std::uint32_t t = locate(point);
  const Triangle& triangle = triangles_[t];
  for (const std::uint32_t corner : triangle.corner) {
    if (at(corner) == point) return corner;
  }
  const auto vertex = static_cast<std::uint32_t>(points_.size());
  points_.push_back(point);
  triangle_at_.push_back(t);
  unsigned on = 3;
  for (unsigned i = 0; i < 3; ++i) {
    if (side_of(at(triangle.corner[i]), at(triangle.corner[next(i)]), point) == 0) on = i;
  }
  if (on == 3) {
    split_triangle(t, vertex);
  } else {
    split_edge({t, on}, vertex);
  }
  settle();
  return vertex;
}

// Walks towards the point; in a constrained triangulation a walk may run in circles unless it
// varies where it looks first.
template <typename Point>
std::uint32_t TriangulationOf<Point>::locate(const Point& point) {
  std::uint32_t t = last_;
  for (unsigned step = 0;; ++step) {
    const Triangle& triangle = triangles_[t];
    std::uint32_t onward = kNone;
    for (unsigned k = 0; k < 3 && onward == kNone; ++k) {
      const unsigned i = (k + step) % 3;
      const Point& a = at(triangle.corner[i]);
      if (side_of(a, at(triangle.corner[next(i)]), point) < 0) onward = triangle.beyond[i];
    }
    if (onward == kNone) return last_ = t;
    t = onward;
  }
}

template <typename Point>
void TriangulationOf<Point>::set(std::uint32_t triangle, const Triangle& value) {
  triangles_[triangle] = value;
  for (const std::uint32_t corner : value.corner) triangle_at_[corner] = triangle;
}

template <typename Point>
void TriangulationOf<Point>::replace_beyond(std::uint32_t triangle, std::uint32_t from,
                                            std::uint32_t to) {
  if (triangle == kNone) return;
  for (std::uint32_t& beyond : triangles_[triangle].beyond) {
    if (beyond == from) {
      beyond = to;
      return;
    }
  }
}

template <typename Point>
unsigned TriangulationOf<Point>::edge_to(std::uint32_t triangle, std::uint32_t neighbour) const {
  const auto& beyond = triangles_[triangle].beyond;
  return beyond[0] == neighbour ? 0U : beyond[1] == neighbour ? 1U : 2U;
}

// The new vertex becomes the last corner of each part, so that edge 0 is the one to be checked.
template <typename Point>
void TriangulationOf<Point>::split_triangle(std::uint32_t t, std::uint32_t vertex) {
  const Triangle old = triangles_[t];
  const auto u = static_cast<std::uint32_t>(triangles_.size());
  const std::uint32_t w = u + 1;
  triangles_.resize(triangles_.size() + 2);
  const auto& [a, b, c] = old.corner;
  set(t, {{a, b, vertex}, {old.beyond[0], u, w}, {old.fixed[0], false, false}});
  set(u, {{b, c, vertex}, {old.beyond[1], w, t}, {old.fixed[1], false, false}});
  set(w, {{c, a, vertex}, {old.beyond[2], t, u}, {old.fixed[2], false, false}});
  replace_beyond(old.beyond[1], t, u);
  replace_beyond(old.beyond[2], t, w);
  to_check_.assign({{t, 0}, {u, 0}, {w, 0}});
}

template <typename Point>
void TriangulationOf<Point>::split_edge(const Edge& edge, std::uint32_t vertex) {
  const std::uint32_t t = edge.triangle;
  const std::uint32_t u = triangles_[t].beyond[edge.index];
  assert(u != kNone);
  const Triangle one = triangles_[t];
  const Triangle other = triangles_[u];
  const unsigned i = edge.index;
  const unsigned j = edge_to(u, t);
  const std::uint32_t a = one.corner[i];
  const std::uint32_t b = one.corner[next(i)];
  const std::uint32_t c = one.corner[before(i)];
  const std::uint32_t d = other.corner[before(j)];
  const bool fixed = one.fixed[i];
  const auto v = static_cast<std::uint32_t>(triangles_.size());
  const std::uint32_t w = v + 1;
  triangles_.resize(triangles_.size() + 2);
  const unsigned bc = next(i);
  const unsigned ca = before(i);
  const unsigned ad = next(j);
  const unsigned db = before(j);
  set(t, {{b, c, vertex}, {one.beyond[bc], v, w}, {one.fixed[bc], false, fixed}});
  set(v, {{c, a, vertex}, {one.beyond[ca], u, t}, {one.fixed[ca], fixed, false}});
  set(u, {{a, d, vertex}, {other.beyond[ad], w, v}, {other.fixed[ad], false, fixed}});
  set(w, {{d, b, vertex}, {other.beyond[db], t, u}, {other.fixed[db], fixed, false}});
  replace_beyond(one.beyond[ca], t, v);
  replace_beyond(other.beyond[db], u, w);
  to_check_.assign({{t, 0}, {v, 0}, {u, 0}, {w, 0}});
}

template <typename Point>
bool TriangulationOf<Point>::is_off_delaunay(const Edge& edge) const {
  const Triangle& triangle = triangles_[edge.triangle];
  const std::uint32_t other = triangle.beyond[edge.index];
  if (other == kNone || triangle.fixed[edge.index]) return false;
  const std::uint32_t across = triangles_[other].corner[before(edge_to(other, edge.triangle))];
  if constexpr (!Point::kCirclesAreExact) {
    const std::uint32_t tip = triangle.corner[before(edge.index)];
    const bool can_be_turned = side(across, tip, triangle.corner[edge.index]) > 0 &&
                               side(across, tip, triangle.corner[next(edge.index)]) < 0;
    if (!can_be_turned) return false;
  }
  return is_in_circle(at(triangle.corner[0]), at(triangle.corner[1]), at(triangle.corner[2]),
                      at(across));
}

// Turns edges until none is off: those opposite to a new vertex, which is the last corner of its
// triangles and stays so.
template <typename Point>
void TriangulationOf<Point>::settle() {
  while (!to_check_.empty()) {
    const Edge edge = to_check_.back();
    to_check_.pop_back();
    if (!is_off_delaunay(edge)) continue;
    const std::uint32_t other = triangles_[edge.triangle].beyond[edge.index];
    flip(edge);
    to_check_.push_back({edge.triangle, 0});
    to_check_.push_back({other, 0});
  }
}

// Edge (a, b) between (a, b, c) and (b, a, d) becomes (d, c): (a, d, c) and (d, b, c).
template <typename Point>
void TriangulationOf<Point>::flip(const Edge& edge) {
  const std::uint32_t t = edge.triangle;
  const std::uint32_t u = triangles_[t].beyond[edge.index];
  const Triangle one = triangles_[t];
  const Triangle other = triangles_[u];
  const unsigned i = edge.index;
  const unsigned j = edge_to(u, t);
  const std::uint32_t a = one.corner[i];
  const std::uint32_t b = one.corner[next(i)];
  const std::uint32_t c = one.corner[before(i)];
  const std::uint32_t d = other.corner[before(j)];
  const unsigned bc = next(i);
  const unsigned ca = before(i);
  const unsigned ad = next(j);
  const unsigned db = before(j);
  set(t,
      {{a, d, c}, {other.beyond[ad], u, one.beyond[ca]}, {other.fixed[ad], false, one.fixed[ca]}});
  set(u,
      {{d, b, c}, {other.beyond[db], one.beyond[bc], t}, {other.fixed[db], one.fixed[bc], false}});
  replace_beyond(other.beyond[ad], u, t);
  replace_beyond(one.beyond[bc], t, u);
}

// All triangles about a vertex, anticlockwise and, from the rim, clockwise as well.
template <typename Point>
typename TriangulationOf<Point>::Edge TriangulationOf<Point>::find_edge(std::uint32_t from,
                                                                        std::uint32_t to) const {
  const auto corner_of = [&](std::uint32_t t) {
    const auto& corner = triangles_[t].corner;
    return corner[0] == from ? 0U : corner[1] == from ? 1U : 2U;
  };
  const std::uint32_t start = triangle_at_[from];
  for (std::uint32_t t = start; t != kNone;) {
    const unsigned k = corner_of(t);
    if (triangles_[t].corner[next(k)] == to) return {t, k};
    t = triangles_[t].beyond[before(k)];
    if (t == start) return {};
  }
  for (std::uint32_t t = start; t != kNone; t = triangles_[t].beyond[corner_of(t)]) {
    const unsigned k = corner_of(t);
    if (triangles_[t].corner[next(k)] == to) return {t, k};
  }
  return {};
}

template <typename Point>
void TriangulationOf<Point>::mark_fixed(std::uint32_t from, std::uint32_t to, bool fixed) {
  for (const Edge& edge : {find_edge(from, to), find_edge(to, from)}) {
    if (edge.triangle != kNone) triangles_[edge.triangle].fixed[edge.index] = fixed;
  }
}

/// The first part of a way: up to a vertex that lies on it, or to a fixed edge that it crosses.
template <typename Point>
struct TriangulationOf<Point>::Stretch {
  std::uint32_t end = kNone;
  std::optional<Ends> fixed{};
};

template <typename Point>
typename TriangulationOf<Point>::Stretch TriangulationOf<Point>::next_stretch(std::uint32_t from,
                                                                              std::uint32_t to) {
  crossed_.clear();
  const std::uint32_t start = triangle_at_[from];
  std::uint32_t t = start;
  do {
    const Triangle& triangle = triangles_[t];
    const unsigned k = triangle.corner[0] == from ? 0U : triangle.corner[1] == from ? 1U : 2U;
    const std::uint32_t p = triangle.corner[next(k)];
    const std::uint32_t q = triangle.corner[before(k)];
    if (p == to || q == to) return {to, {}};
    const auto p_side = side(from, to, p);
    const auto q_side = side(from, to, q);
    // Collinear and, for the triangle has an area, ahead: then the other corner is on the far side.
    if (p_side == 0 && q_side > 0) return {p, {}};
    if (p_side < 0 && q_side == 0) return {q, {}};
    if (p_side < 0 && q_side > 0) return follow(from, to, {t, next(k)});
    t = triangle.beyond[before(k)];
  } while (t != start && t != kNone);
  return {};
}

template <typename Point>
typename TriangulationOf<Point>::Stretch TriangulationOf<Point>::follow(std::uint32_t from,
                                                                        std::uint32_t to,
                                                                        Edge crossed) {
  while (true) {
    const Triangle& triangle = triangles_[crossed.triangle];
    const Ends ends{triangle.corner[crossed.index], triangle.corner[next(crossed.index)]};
    if (triangle.fixed[crossed.index]) return {kNone, ends};
    crossed_.push_back(ends);
    const std::uint32_t onward = triangle.beyond[crossed.index];
    const unsigned j = edge_to(onward, crossed.triangle);
    const std::uint32_t tip = triangles_[onward].corner[before(j)];
    if (tip == to) return {tip, {}};
    const auto tip_side = side(from, to, tip);
    if (tip_side == 0) return {tip, {}};
    crossed = tip_side > 0 ? Edge{onward, next(j)} : Edge{onward, before(j)};
  }
}

template <typename Point>
void TriangulationOf<Point>::fix(std::uint32_t from, std::uint32_t to) {
  // Cut edges bend by a step and may then cross others anew; in theory that might go on for long.
  constexpr int kMostParts = 10'000;
  to_fix_.assign({{from, to}});
  for (int part = 0; !to_fix_.empty() && part < kMostParts; ++part) {
    const Ends way = to_fix_.back();
    to_fix_.pop_back();
    if (way.first == way.second) continue;
    const Stretch stretch = next_stretch(way.first, way.second);
    if (stretch.fixed) {
      cut_at_crossing(way, *stretch.fixed);
    } else if (stretch.end != kNone) {
      if (stretch.end != way.second) to_fix_.emplace_back(stretch.end, way.second);
      force(way.first, stretch.end);
    }
  }
}

template <typename Point>
void TriangulationOf<Point>::cut_at_crossing(const Ends& way, const Ends& crossed) {
  const Point place =
      crossing(at(way.first), at(way.second), at(crossed.first), at(crossed.second));
  mark_fixed(crossed.first, crossed.second, false);
  last_ = triangle_at_[crossed.first];
  const std::uint32_t vertex = add(place);
  to_fix_.emplace_back(vertex, way.second);
  to_fix_.emplace_back(way.first, vertex);
  to_fix_.emplace_back(crossed.first, vertex);
  to_fix_.emplace_back(vertex, crossed.second);
}

// Turns the edges that the way crosses until it is an edge itself.
template <typename Point>
void TriangulationOf<Point>::force(std::uint32_t from, std::uint32_t to) {
  std::vector<Ends> turned;
  for (std::size_t i = 0; i < crossed_.size(); ++i) {
    const Ends ends = crossed_[i];
    const Edge edge = find_edge(ends.first, ends.second);
    const std::uint32_t other = triangles_[edge.triangle].beyond[edge.index];
    const std::uint32_t c = triangles_[edge.triangle].corner[before(edge.index)];
    const std::uint32_t d = triangles_[other].corner[before(edge_to(other, edge.triangle))];
    const bool convex = side(d, c, ends.first) > 0 && side(d, c, ends.second) < 0;
    if (!convex) {
      crossed_.push_back(ends);
      continue;
    }
    flip(edge);
    const bool crosses = c != from && c != to && d != from && d != to &&
                         (side(from, to, c) > 0) != (side(from, to, d) > 0);
    (crosses ? crossed_ : turned).emplace_back(d, c);
  }
  mark_fixed(from, to, true);
  restore(turned);
}

template <typename Point>
void TriangulationOf<Point>::restore(std::vector<Ends>& edges) {
  for (const Ends& ends : edges) {
    const Edge edge = find_edge(ends.first, ends.second);
    if (edge.triangle != kNone && is_off_delaunay(edge)) flip(edge);
  }
}

template <typename Point>
std::vector<std::uint32_t> in_order_of_space(std::span<const Point> points) {
  if (points.empty()) return {};
  Point low = points[0];
  Point high = points[0];
  for (const Point& p : points) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y)};
  }
  constexpr std::int64_t kCells = 1 << 16;
  const std::int64_t size =
      std::max(std::int64_t{high.x} - low.x, std::int64_t{high.y} - low.y) + 1;
  const auto cell = [&](std::int64_t offset) {
    return static_cast<std::uint32_t>(cell_of(offset, size, kCells));
  };
  std::vector<std::pair<std::uint64_t, std::uint32_t>> keyed;
  keyed.reserve(points.size());
  for (std::uint32_t i = 0; i < points.size(); ++i) {
    auto x = cell(std::int64_t{points[i].x} - low.x);
    auto y = cell(std::int64_t{points[i].y} - low.y);
    std::uint64_t key = 0;
    for (std::uint32_t s = kCells / 2; s > 0; s /= 2) {
      const std::uint32_t right = (x & s) != 0 ? 1 : 0;
      const std::uint32_t up = (y & s) != 0 ? 1 : 0;
      key = key * 4 + ((3 * right) ^ up);
      if (up == 0) {
        if (right == 1) {
          x = kCells - 1 - x;
          y = kCells - 1 - y;
        }
        std::swap(x, y);
      }
    }
    keyed.emplace_back(key, i);
  }
  std::sort(keyed.begin(), keyed.end());
  std::vector<std::uint32_t> order;
  order.reserve(points.size());
  for (const auto& [key, i] : keyed) order.push_back(i);
  return order;
}

template class TriangulationOf<LatticePoint>;
template class TriangulationOf<FinePoint>;
template std::vector<std::uint32_t> in_order_of_space(std::span<const LatticePoint>);
template std::vector<std::uint32_t> in_order_of_space(std::span<const FinePoint>);

}  // namespace gaze
