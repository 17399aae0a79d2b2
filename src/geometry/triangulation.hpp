#pragma once

#include <array>
#include <cstdint>
#include <span>
#include <utility>
#include <vector>

#include "geometry/fine_lattice.hpp"
#include "geometry/lattice.hpp"

namespace gaze {

constexpr std::uint32_t kNone = 0xFFFFFFFF;

/// A constrained Delaunay triangulation of a rectangle, grown point by point (Lawson, "Software for
/// C1 surface interpolation", 1977; edges forced by flips as in Sloan, "A fast algorithm for
/// generating constrained Delaunay triangulations", 1993). Points lie on a lattice, coarse or fine;
/// what is left and right is decided exactly.
template <typename Point>
class TriangulationOf {
 public:
  /// Corners run anticlockwise; edge i goes from corner i to the next one.
  struct Triangle {
    std::array<std::uint32_t, 3> corner{};
    std::array<std::uint32_t, 3> beyond{};  ///< The triangle across edge i, or kNone.
    std::array<bool, 3> fixed{};            ///< Edge i has been asked for.
  };

  /// A rectangle cut in two. Everything added lies strictly inside it.
  TriangulationOf(const Point& low, const Point& high);

  /// The vertex at a point; a new one unless there is one already. O(1) on average where neighbours
  /// in space follow each other, see `in_order_of_space`.
  std::uint32_t add(const Point& point);

  /// Makes the straight way between two vertices consist of edges. Where it crosses an edge that is
  /// fixed, both are cut at the lattice point nearest to the crossing and may so bend by up to one
  /// step of the lattice.
  void fix(std::uint32_t from, std::uint32_t to);

  const std::vector<Point>& points() const { return points_; }
  const std::vector<Triangle>& triangles() const { return triangles_; }

 private:
  struct Edge {
    std::uint32_t triangle = kNone;
    unsigned index = 0;
  };
  using Ends = std::pair<std::uint32_t, std::uint32_t>;

  const Point& at(std::uint32_t vertex) const { return points_[vertex]; }
  auto side(std::uint32_t a, std::uint32_t b, std::uint32_t c) const {
    return side_of(at(a), at(b), at(c));
  }

  std::uint32_t locate(const Point& point);
  void split_triangle(std::uint32_t triangle, std::uint32_t vertex);
  void split_edge(const Edge& edge, std::uint32_t vertex);
  void settle();
  bool is_off_delaunay(const Edge& edge) const;
  void flip(const Edge& edge);
  void set(std::uint32_t triangle, const Triangle& value);
  void replace_beyond(std::uint32_t triangle, std::uint32_t from, std::uint32_t to);
  unsigned edge_to(std::uint32_t triangle, std::uint32_t neighbour) const;
  Edge find_edge(std::uint32_t from, std::uint32_t to) const;
  void mark_fixed(std::uint32_t from, std::uint32_t to, bool fixed);

  struct Stretch;
  Stretch next_stretch(std::uint32_t from, std::uint32_t to);
  Stretch follow(std::uint32_t from, std::uint32_t to, Edge crossed);
  void cut_at_crossing(const Ends& way, const Ends& crossed);
  void force(std::uint32_t from, std::uint32_t to);
  void restore(std::vector<Ends>& edges);

  std::vector<Point> points_;
  std::vector<std::uint32_t> triangle_at_;  ///< By vertex: one of its triangles.
  std::vector<Triangle> triangles_;
  std::uint32_t last_ = 0;      ///< Where the search for the next point begins.
  std::vector<Edge> to_check_;  ///< Scratch.
  std::vector<Ends> crossed_;   ///< Scratch.
  std::vector<Ends> to_fix_;    ///< Scratch.
};

using Triangulation = TriangulationOf<LatticePoint>;

/// The order of points along a Hilbert curve: neighbours in it are neighbours in space.
template <typename Point>
[[nodiscard]] std::vector<std::uint32_t> in_order_of_space(std::span<const Point> points);

[[nodiscard]] inline std::vector<std::uint32_t> in_order_of_space(
    std::span<const LatticePoint> points) {
  return in_order_of_space<LatticePoint>(points);
}

}  // namespace gaze
