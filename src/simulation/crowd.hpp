#pragma once

#include <cmath>
#include <cstdint>
#include <span>
#include <vector>

#include "gaze/geometry.hpp"

namespace gaze {

/// Where agents are, in a uniform grid over two axes that is hashed into as many buckets as there
/// are agents (counting sort, as in Teschner et al., "Optimized spatial hashing", 2003).
class Crowd {
 public:
  /// @param cell_size  Metres: a few of the usual reaches.
  explicit Crowd(double cell_size) : cell_size_(cell_size) {}

  /// Indexes those that are marked. Allocates only when it grows.
  void rebuild(Plane plane, std::span<const Vector3d> places, std::span<const char> marked);

  /// Calls visit(i) for each agent whose place lies in a cell that the rectangle about a place
  /// touches; each once, in no order.
  template <typename Visit>
  void near(const Vector3d& place, double reach, Visit&& visit) const {
    if (order_.empty()) return;
    const Cell low = cell_of({place.x() - reach, place.y() - reach, place.z() - reach});
    const Cell high = cell_of({place.x() + reach, place.y() + reach, place.z() + reach});
    const double cells = (double(high.a) - low.a + 1.0) * (double(high.b) - low.b + 1.0);
    if (cells > double(order_.size())) {
      for (const std::uint32_t i : order_) visit(i);  // fewer agents than cells
      return;
    }
    for (std::int32_t a = low.a; a <= high.a; ++a) {
      for (std::int32_t b = low.b; b <= high.b; ++b) visit_cell({a, b}, visit);
    }
  }

 private:
  struct Cell {
    std::int32_t a = 0;
    std::int32_t b = 0;
    bool operator==(const Cell&) const = default;
  };

  Cell cell_of(const Vector3d& p) const {
    const double second = plane_ == Plane::upright ? p.z() : p.y();
    return {index_of(p.x()), index_of(second)};
  }
  std::int32_t index_of(double metres) const {
    const double cell = std::floor(metres / cell_size_);
    return static_cast<std::int32_t>(std::fmin(std::fmax(cell, -1e9), 1e9));
  }
  std::size_t bucket_of(const Cell& cell) const {
    const auto a = static_cast<std::uint32_t>(cell.a) * 73856093U;
    const auto b = static_cast<std::uint32_t>(cell.b) * 19349663U;
    return (a ^ b) & mask_;
  }

  template <typename Visit>
  void visit_cell(const Cell& cell, Visit& visit) const {
    const std::size_t bucket = bucket_of(cell);
    for (std::uint32_t at = start_[bucket]; at < start_[bucket + 1]; ++at) {
      if (cells_[at] == cell) visit(order_[at]);
    }
  }

  double cell_size_;
  Plane plane_ = Plane::ground;
  std::size_t mask_ = 0;
  std::vector<std::uint32_t> start_;  ///< By bucket; one more than there are.
  std::vector<std::uint32_t> order_;  ///< Agents by bucket.
  std::vector<Cell> cells_;           ///< Of those.
};

}  // namespace gaze
