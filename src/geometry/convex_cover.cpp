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
/// after it on the rim of its polygon.
class Merging {
 public:
  Merging(const Triangulation& triangulation, std::span<const std::uint32_t> of_class)
      : triangulation_(triangulation), of_class_(of_class) {
    const std::size_t count = 3 * triangulation.triangles().size();
    next_.resize(count);
    before_.resize(count);
    dropped_.assign(count, 0);
    for (std::uint32_t h = 0; h < count; ++h) {
      next_[h] = h % 3 == 2 ? h - 2 : h + 1;
      before_[h] = h % 3 == 0 ? h + 2 : h - 1;
    }
  }

  void merge() {
    for (const std::uint32_t half : longest_first()) {
      const std::uint32_t other = twin(half);
      if (stays_convex(before_[half], next_[other]) && stays_convex(before_[other], next_[half])) {
        drop(half, other);
      }
    }
  }

  ConvexCover cover() const {
    ConvexCover cover;
    std::vector<std::uint32_t> polygon_of(next_.size(), kNone);
    std::vector<std::uint32_t> halves;
    for (std::uint32_t h = 0; h < next_.size(); ++h) {
      if (polygon_of[h] != kNone || dropped_[h] || of_class_[h / 3] == kNone) continue;
      const auto polygon = static_cast<std::uint32_t>(cover.of_class.size());
      cover.of_class.push_back(of_class_[h / 3]);
      for (std::uint32_t at = h; polygon_of[at] == kNone; at = next_[at]) {
        polygon_of[at] = polygon;
        halves.push_back(at);
        cover.corner.push_back(start(at));
      }
      cover.first.push_back(static_cast<std::uint32_t>(cover.corner.size()));
    }
    for (const std::uint32_t h : halves) {
      const std::uint32_t other = twin(h);
      cover.beyond.push_back(other == kNone ? kNone : polygon_of[other]);
    }
    return cover;
  }

 private:
  std::uint32_t start(std::uint32_t half) const {
    return triangulation_.triangles()[half / 3].corner[half % 3];
  }
  std::uint32_t twin(std::uint32_t half) const {
    const auto& triangles = triangulation_.triangles();
    const std::uint32_t other = triangles[half / 3].beyond[half % 3];
    if (other == kNone) return kNone;
    const auto& beyond = triangles[other].beyond;
    const std::uint32_t t = half / 3;
    return 3 * other + (beyond[0] == t ? 0U : beyond[1] == t ? 1U : 2U);
  }

  std::vector<std::uint32_t> longest_first() const {
    std::vector<std::pair<std::int64_t, std::uint32_t>> edges;
    const auto& points = triangulation_.points();
    for (std::uint32_t h = 0; h < next_.size(); ++h) {
      const std::uint32_t other = twin(h);
      const std::uint32_t own_class = of_class_[h / 3];
      if (other == kNone || other < h || own_class == kNone) continue;
      if (of_class_[other / 3] != own_class) continue;
      edges.emplace_back(-squared_length(points[start(h)], points[start(other)]), h);
    }
    std::sort(edges.begin(), edges.end());
    std::vector<std::uint32_t> halves;
    halves.reserve(edges.size());
    for (const auto& [length, half] : edges) halves.push_back(half);
    return halves;
  }

  // Two edges that are one and its twin would lie in line as well.
  bool stays_convex(std::uint32_t in, std::uint32_t out) const {
    const auto& points = triangulation_.points();
    const std::uint32_t end = start(next_[out]);
    return start(in) != end && side_of(points[start(in)], points[start(out)], points[end]) >= 0;
  }

  void drop(std::uint32_t half, std::uint32_t other) {
    link(before_[half], next_[other]);
    link(before_[other], next_[half]);
    dropped_[half] = dropped_[other] = 1;
  }
  void link(std::uint32_t in, std::uint32_t out) {
    next_[in] = out;
    before_[out] = in;
  }

  const Triangulation& triangulation_;
  std::span<const std::uint32_t> of_class_;
  std::vector<std::uint32_t> next_;
  std::vector<std::uint32_t> before_;
  std::vector<char> dropped_;
};

}  // namespace

ConvexCover cover_by_convex(const Triangulation& triangulation,
                            std::span<const std::uint32_t> of_class) {
  Merging merging(triangulation, of_class);
  merging.merge();
  return merging.cover();
}

}  // namespace gaze
