#include "geometry/polygon.hpp"

#include <algorithm>
#include <map>
#include <numeric>
#include <utility>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

double turn(const Vector2d& a, const Vector2d& b, const Vector2d& c) {
  return cross(b - a, c - a);
}

bool within_box(const Vector2d& a, const Vector2d& b, const Vector2d& p) {
  return std::min(a.x(), b.x()) <= p.x() && p.x() <= std::max(a.x(), b.x()) &&
         std::min(a.y(), b.y()) <= p.y() && p.y() <= std::max(a.y(), b.y());
}

bool edges_touch(const Vector2d& a, const Vector2d& b, const Vector2d& c, const Vector2d& d) {
  const double abc = turn(a, b, c);
  const double abd = turn(a, b, d);
  const double cda = turn(c, d, a);
  const double cdb = turn(c, d, b);
  if (((abc > 0) != (abd > 0)) && ((cda > 0) != (cdb > 0)) && abc != 0 && abd != 0 && cda != 0 &&
      cdb != 0) {
    return true;
  }
  return (abc == 0 && within_box(a, b, c)) || (abd == 0 && within_box(a, b, d)) ||
         (cda == 0 && within_box(c, d, a)) || (cdb == 0 && within_box(c, d, b));
}

// Neighbours share a point; they are at fault only where one folds back on the other.
bool folds_back(const Vector2d& before, const Vector2d& corner, const Vector2d& after) {
  return turn(before, corner, after) == 0 && dot(corner - before, after - corner) < 0;
}

struct Edge {
  std::size_t index;
  double low;
  double high;
};

std::vector<Edge> edges_from_left(std::span<const Vector2d> outline) {
  std::vector<Edge> edges;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const auto [low, high] = std::minmax(outline[i].x(), outline[(i + 1) % outline.size()].x());
    edges.push_back({i, low, high});
  }
  std::sort(edges.begin(), edges.end(), [](const Edge& a, const Edge& b) {
    return a.low != b.low ? a.low < b.low : a.index < b.index;
  });
  return edges;
}

bool edges_at_fault(std::span<const Vector2d> outline, std::size_t i, std::size_t j) {
  const std::size_t n = outline.size();
  if ((i + 1) % n == j) return folds_back(outline[i], outline[j], outline[(j + 1) % n]);
  if ((j + 1) % n == i) return folds_back(outline[j], outline[i], outline[(i + 1) % n]);
  return edges_touch(outline[i], outline[(i + 1) % n], outline[j], outline[(j + 1) % n]);
}

std::optional<OutlineFault> find_crossing(std::span<const Vector2d> outline) {
  std::vector<Edge> open;
  for (const Edge& edge : edges_from_left(outline)) {
    std::erase_if(open, [&](const Edge& other) { return other.high < edge.low; });
    for (const Edge& other : open) {
      if (edges_at_fault(outline, edge.index, other.index)) {
        const auto [first, second] = std::minmax(edge.index, other.index);
        return OutlineFault{OutlineFault::What::crosses_itself, first, second};
      }
    }
    open.push_back(edge);
  }
  return std::nullopt;
}

using Ring = std::vector<std::size_t>;  // indices of corners, anticlockwise

Ring anticlockwise(std::span<const Vector2d> outline) {
  Ring ring(outline.size());
  std::iota(ring.begin(), ring.end(), std::size_t{0});
  if (signed_area(outline) < 0.0) std::reverse(ring.begin(), ring.end());
  return ring;
}

bool is_ear(std::span<const Vector2d> points, const Ring& ring, std::size_t at) {
  const std::size_t n = ring.size();
  const Vector2d& a = points[ring[(at + n - 1) % n]];
  const Vector2d& b = points[ring[at]];
  const Vector2d& c = points[ring[(at + 1) % n]];
  if (turn(a, b, c) <= 0.0) return false;
  return std::none_of(ring.begin(), ring.end(), [&](std::size_t k) {
    const Vector2d& p = points[k];
    if (p == a || p == b || p == c) return false;
    return turn(a, b, p) >= 0.0 && turn(b, c, p) >= 0.0 && turn(c, a, p) >= 0.0;
  });
}

// The next ear, else a corner that is no corner (its neighbours in line with it), else any.
std::size_t next_to_cut(std::span<const Vector2d> points, const Ring& ring) {
  const std::size_t n = ring.size();
  for (std::size_t at = 0; at < n; ++at) {
    if (is_ear(points, ring, at)) return at;
  }
  for (std::size_t at = 0; at < n; ++at) {
    if (turn(points[ring[(at + n - 1) % n]], points[ring[at]], points[ring[(at + 1) % n]]) == 0.0) {
      return at;
    }
  }
  return 0;
}

std::vector<Ring> triangulate(std::span<const Vector2d> points, Ring ring) {
  std::vector<Ring> triangles;
  while (ring.size() > 3) {
    const std::size_t at = next_to_cut(points, ring);
    const std::size_t n = ring.size();
    triangles.push_back({ring[(at + n - 1) % n], ring[at], ring[(at + 1) % n]});
    ring.erase(ring.begin() + static_cast<std::ptrdiff_t>(at));
  }
  triangles.push_back(ring);
  return triangles;
}

bool is_convex(std::span<const Vector2d> points, const Ring& ring) {
  const std::size_t n = ring.size();
  for (std::size_t i = 0; i < n; ++i) {
    if (turn(points[ring[i]], points[ring[(i + 1) % n]], points[ring[(i + 2) % n]]) < 0.0) {
      return false;
    }
  }
  return true;
}

// The union of two rings that share an edge: `one` runs along it from a to b, `other` from b to a.
Ring joined(const Ring& one, const Ring& other, std::size_t a, std::size_t b) {
  const auto at_b = std::find(one.begin(), one.end(), b);
  const auto at_a = std::find(other.begin(), other.end(), a);
  Ring ring(at_b, one.end());
  ring.insert(ring.end(), one.begin(), at_b);  // ends with a
  ring.insert(ring.end(), at_a + 1, other.end());
  ring.insert(ring.end(), other.begin(), at_a);
  ring.pop_back();  // b, with which it begins
  return ring;
}

using DirectedEdge = std::pair<std::size_t, std::size_t>;

void own_edges(std::map<DirectedEdge, std::size_t>& owner, const Ring& ring, std::size_t index) {
  for (std::size_t i = 0; i < ring.size(); ++i) {
    owner[{ring[i], ring[(i + 1) % ring.size()]}] = index;
  }
}

// Each diagonal is dropped if what it parts is convex without it.
std::vector<Ring> merge_convex(std::span<const Vector2d> points, std::vector<Ring> rings) {
  std::map<DirectedEdge, std::size_t> owner;
  for (std::size_t i = 0; i < rings.size(); ++i) own_edges(owner, rings[i], i);
  std::vector<DirectedEdge> diagonals;
  for (const auto& [edge, ring] : owner) {
    if (edge.first < edge.second && owner.contains({edge.second, edge.first})) {
      diagonals.push_back(edge);
    }
  }
  for (const auto& [a, b] : diagonals) {
    const std::size_t one = owner[{a, b}];
    const std::size_t other = owner[{b, a}];
    if (one == other) continue;
    Ring ring = joined(rings[one], rings[other], a, b);
    if (!is_convex(points, ring)) continue;
    rings[one] = std::move(ring);
    rings[other].clear();
    own_edges(owner, rings[one], one);
  }
  std::erase_if(rings, [](const Ring& ring) { return ring.empty(); });
  return rings;
}

}  // namespace

double signed_area(std::span<const Vector2d> outline) {
  double twice = 0.0;
  for (std::size_t i = 1; i + 1 < outline.size(); ++i) {
    twice += turn(outline[0], outline[i], outline[i + 1]);
  }
  return twice / 2.0;
}

std::optional<OutlineFault> find_outline_fault(std::span<const Vector2d> outline) {
  const std::size_t n = outline.size();
  if (n < 3) return OutlineFault{OutlineFault::What::too_few_points, 0, 0};
  for (std::size_t i = 0; i < n; ++i) {
    if (outline[i] == outline[(i + 1) % n]) {
      return OutlineFault{OutlineFault::What::repeated_point, i, (i + 1) % n};
    }
  }
  if (auto fault = find_crossing(outline)) return fault;
  if (signed_area(outline) == 0.0) return OutlineFault{OutlineFault::What::no_area, 0, 0};
  return std::nullopt;
}

std::vector<Polygon> convex_pieces(std::span<const Vector2d> outline) {
  const Ring ring = anticlockwise(outline);
  std::vector<Ring> rings{ring};
  if (!is_convex(outline, ring)) {
    rings = merge_convex(outline, triangulate(outline, ring));
  }
  std::vector<Polygon> pieces;
  for (const Ring& piece : rings) {
    Polygon& polygon = pieces.emplace_back();
    for (const std::size_t corner : piece) polygon.push_back(outline[corner]);
  }
  return pieces;
}

bool contains(std::span<const Vector2d> outline, const Vector2d& point) {
  bool inside = false;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d& a = outline[i];
    const Vector2d& b = outline[(i + 1) % outline.size()];
    const double side = cross(b - a, point - a);
    if (side == 0.0 && within_box(a, b, point)) return true;
    if ((a.y() <= point.y()) == (b.y() <= point.y())) continue;
    if ((side > 0.0) == (b.y() > a.y())) inside = !inside;
  }
  return inside;
}

}  // namespace gaze
