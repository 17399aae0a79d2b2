#pragma once

#include <cmath>
#include <cstdint>
#include <span>
#include <vector>

#include "gaze/geometry.hpp"

namespace gaze {

struct PlanBox {
  Vector2d low{0.0, 0.0};
  Vector2d high{0.0, 0.0};

  bool contains(const Vector2d& p) const {
    return low.x() <= p.x() && p.x() <= high.x() && low.y() <= p.y() && p.y() <= high.y();
  }
  bool overlaps(const PlanBox& other) const {
    return low.x() <= other.high.x() && other.low.x() <= high.x() && low.y() <= other.high.y() &&
           other.low.y() <= high.y();
  }
};

/// The box around points; that of no points is turned inside out.
[[nodiscard]] PlanBox box_around(std::span<const Vector2d> points);

/// Boxes by the cells of a uniform grid that they overlap: about as many cells as boxes.
class PlanGrid {
 public:
  PlanGrid() = default;
  explicit PlanGrid(std::span<const PlanBox> boxes);

  /// The same grid with other boxes: those before have new numbers (0xFFFFFFFF: they are gone), and
  /// more follow, from a number on.
  PlanGrid replaced(std::span<const std::uint32_t> moved, std::uint32_t first,
                    std::span<const PlanBox> added) const;

  /// The boxes that overlap the cell of a point, in their order; none outside the grid.
  std::span<const std::uint32_t> at(const Vector2d& p) const noexcept {
    const double column = std::floor((p.x() - low_.x()) / cell_);
    const double row = std::floor((p.y() - low_.y()) / cell_);
    const bool is_in = column >= 0.0 && column < static_cast<double>(columns_) && row >= 0.0 &&
                       row < static_cast<double>(rows_);
    if (!is_in) return {};
    return cell(cell_index(static_cast<std::int64_t>(column), static_cast<std::int64_t>(row)));
  }

  /// Calls visit(box) for those in the cells that a box overlaps, some more than once.
  template <typename Visit>
  void each_in(const PlanBox& box, Visit&& visit) const {
    if (start_.empty()) return;
    each_cell(box, [&](std::size_t at) {
      for (const std::uint32_t item : cell(at)) visit(item);
    });
  }

  /// Calls visit(box) for those in cells ring by ring round a point, some more than once, until
  /// `is_enough(metres)` says that what is at least so far away need not be looked at.
  template <typename Visit, typename IsEnough>
  void outward(const Vector2d& p, Visit&& visit, IsEnough&& is_enough) const {
    if (start_.empty()) return;
    const auto column = nearest_index(p.x() - low_.x(), columns_);
    const auto row = nearest_index(p.y() - low_.y(), rows_);
    const std::int64_t most = columns_ + rows_;
    for (std::int64_t ring = 0; ring <= most; ++ring) {
      if (ring > 0 && is_enough(distance_to_ring(p, column, row, ring))) return;
      visit_ring(column, row, ring, visit);
    }
  }

 private:
  std::size_t cell_index(std::int64_t column, std::int64_t row) const noexcept {
    return static_cast<std::size_t>(row * columns_ + column);
  }
  std::span<const std::uint32_t> cell(std::size_t at) const noexcept {
    return {items_.data() + start_[at], start_[at + 1] - start_[at]};
  }
  template <typename Visit>
  void each_cell(const PlanBox& box, Visit&& visit) const {
    const auto right = nearest_index(box.high.x() - low_.x(), columns_);
    const auto top = nearest_index(box.high.y() - low_.y(), rows_);
    for (auto y = nearest_index(box.low.y() - low_.y(), rows_); y <= top; ++y) {
      for (auto x = nearest_index(box.low.x() - low_.x(), columns_); x <= right; ++x) {
        visit(cell_index(x, y));
      }
    }
  }
  std::int64_t nearest_index(double offset, std::int64_t count) const {
    const double index = std::floor(offset / cell_);
    return static_cast<std::int64_t>(
        std::fmin(std::fmax(index, 0.0), static_cast<double>(count - 1)));
  }
  // All cells of the ring and beyond lie at least so far away.
  double distance_to_ring(const Vector2d& p, std::int64_t column, std::int64_t row,
                          std::int64_t ring) const {
    const auto edge = [&](double low, std::int64_t index) {
      return low + static_cast<double>(index) * cell_;
    };
    return std::fmin(
        std::fmin(p.x() - edge(low_.x(), column - ring + 1), edge(low_.x(), column + ring) - p.x()),
        std::fmin(p.y() - edge(low_.y(), row - ring + 1), edge(low_.y(), row + ring) - p.y()));
  }
  template <typename Visit>
  void visit_ring(std::int64_t column, std::int64_t row, std::int64_t ring, Visit& visit) const {
    for (std::int64_t y = row - ring; y <= row + ring; ++y) {
      if (y < 0 || y >= rows_) continue;
      const bool is_end = y == row - ring || y == row + ring;
      const std::int64_t step = is_end || ring == 0 ? 1 : 2 * ring;
      for (std::int64_t x = column - ring; x <= column + ring; x += step) {
        if (x < 0 || x >= columns_) continue;
        for (const std::uint32_t item : cell(cell_index(x, y))) visit(item);
      }
    }
  }

  Vector2d low_{0.0, 0.0};
  double cell_ = 1.0;
  std::int64_t columns_ = 0;
  std::int64_t rows_ = 0;
  std::vector<std::uint32_t> start_;  ///< By cell; one more than there are.
  std::vector<std::uint32_t> items_;
};

}  // namespace gaze
