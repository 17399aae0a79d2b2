#include "geometry/convex_cover.hpp"

#include <algorithm>

namespace gaze {
namespace {

std::int64_t squared_length(const LatticePoint& a, const LatticePoint& b) {
  const std::int64_t x = std::int64_t{b.x} - a.x;
  const std::int64_t y = std::int64_t{b.y} - a.y;
  return x * x + y * y;
}

/// Triangles being merged. Half-edge 3 t + i is edge i of triangle t; each knows the one before and
/// after it on the rim of its polygon. All of it lies together, for they are gone to in no order.
class Merging {
 public:
  Merging(const Triangulation& triangulation, std::span<const std::uint32_t> of_class)
      : triangulation_(triangulation), of_class_(of_class) {
    const auto count = static_cast<std::uint32_t>(3 * triangulation.triangles().size());
    halves_.resize(count);
    for (std::uint32_t h = 0; h < count; ++h) {
      halves_[h] = {triangulation.points()[vertex(h)], h % 3 == 2 ? h - 2 : h + 1,
                    h % 3 == 0 ? h + 2 : h - 1, find_twin(h)};
    }
  }

  void merge() {
    for (const std::uint32_t half : longest_first()) {
      const Half& one = halves_[half];
      const Half& other = halves_[one.twin];
      if (stays_convex(one.before, other.next) && stays_convex(other.before, one.next)) drop(half);
    }
  }

  ConvexCover cover() const {
    ConvexCover cover;
    std::vector<std::uint32_t> place(halves_.size(), kNone);  // among the corners
    std::vector<std::uint32_t> on_rims;
    for (std::uint32_t h = 0; h < halves_.size(); ++h) {
      if (place[h] != kNone || halves_[h].next == kNone || of_class_[h / 3] == kNone) continue;
      cover.of_class.push_back(of_class_[h / 3]);
      for (std::uint32_t at = h; place[at] == kNone; at = halves_[at].next) {
        place[at] = static_cast<std::uint32_t>(on_rims.size());
        on_rims.push_back(at);
        cover.corner.push_back(vertex(at));
      }
      cover.first.push_back(static_cast<std::uint32_t>(cover.corner.size()));
    }
    for (const std::uint32_t h : on_rims) {
      const std::uint32_t other = halves_[h].twin;
      cover.twin.push_back(other == kNone ? kNone : place[other]);
    }
    return cover;
  }

 private:
  struct Half {
    LatticePoint start;
    std::uint32_t next = kNone;  ///< kNone: it has been dropped.
    std::uint32_t before = kNone;
    std::uint32_t twin = kNone;
  };

  std::uint32_t vertex(std::uint32_t half) const {
    return triangulation_.triangles()[half / 3].corner[half % 3];
  }
  std::uint32_t find_twin(std::uint32_t half) const {
    const auto& triangles = triangulation_.triangles();
    const std::uint32_t other = triangles[half / 3].beyond[half % 3];
    if (other == kNone) return kNone;
    const auto& beyond = triangles[other].beyond;
    const std::uint32_t t = half / 3;
    // Without a branch, for which of the three it is cannot be guessed.
    return 3 * other + (beyond[1] == t ? 1U : 0U) + (beyond[2] == t ? 2U : 0U);
  }

  std::vector<std::uint32_t> longest_first() const {
    std::vector<std::pair<std::int64_t, std::uint32_t>> edges;
    for (std::uint32_t h = 0; h < halves_.size(); ++h) {
      const std::uint32_t other = halves_[h].twin;
      const std::uint32_t own_class = of_class_[h / 3];
      if (other == kNone || other < h || own_class == kNone) continue;
      if (of_class_[other / 3] != own_class) continue;
      edges.emplace_back(-squared_length(halves_[h].start, halves_[halves_[h].next].start), h);
    }
    std::sort(edges.begin(), edges.end());
    std::vector<std::uint32_t> halves;
    halves.reserve(edges.size());
    for (const auto& [length, half] : edges) halves.push_back(half);
    return halves;
  }

  // Two edges that are one and its twin would lie in line as well.
  bool stays_convex(std::uint32_t in, std::uint32_t out) const {
    const LatticePoint& from = halves_[in].start;
    const LatticePoint& end = halves_[halves_[out].next].start;
    return !(from == end) && side_of(from, halves_[out].start, end) >= 0;
  }

  void drop(std::uint32_t half) {
    Half& one = halves_[half];
    Half& other = halves_[one.twin];
    link(one.before, other.next);
    link(other.before, one.next);
    one.next = other.next = kNone;
  }
  void link(std::uint32_t in, std::uint32_t out) {
    halves_[in].next = out;
    halves_[out].before = in;
  }

  const Triangulation& triangulation_;
  std::span<const std::uint32_t> of_class_;
  std::vector<Half> halves_;
};

}  // namespace

ConvexCover cover_by_convex(const Triangulation& triangulation,
                            std::span<const std::uint32_t> of_class) {
  Merging merging(triangulation, of_class);
  merging.merge();
  return merging.cover();
}

}  // namespace gaze
