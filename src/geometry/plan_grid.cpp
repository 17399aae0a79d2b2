#include "geometry/plan_grid.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace gaze {

PlanBox box_around(std::span<const Vector2d> points) {
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  PlanBox box{{kInfinity, kInfinity}, {-kInfinity, -kInfinity}};
  for (const Vector2d& p : points) {
    box.low = box.low.cwiseMin(p);
    box.high = box.high.cwiseMax(p);
  }
  return box;
}

PlanGrid::PlanGrid(std::span<const PlanBox> boxes) {
  if (boxes.empty()) return;
  PlanBox all = boxes[0];
  for (const PlanBox& box : boxes) {
    all = {all.low.cwiseMin(box.low), all.high.cwiseMax(box.high)};
  }
  low_ = all.low;
  const Vector2d size = all.high - all.low;
  const double side = std::max(size.x(), size.y());
  const auto count = static_cast<double>(boxes.size());
  cell_ = std::max({std::sqrt(size.x() * size.y() / count), side / (4.0 * count + 64.0), 1e-3});
  columns_ = static_cast<std::int64_t>(size.x() / cell_) + 1;
  rows_ = static_cast<std::int64_t>(size.y() / cell_) + 1;
  start_.assign(static_cast<std::size_t>(columns_ * rows_) + 1, 0);
  for (const PlanBox& box : boxes) each_cell(box, [&](std::size_t at) { ++start_[at + 1]; });
  for (std::size_t i = 1; i < start_.size(); ++i) start_[i] += start_[i - 1];
  items_.resize(start_.back());
  std::vector<std::uint32_t> fill(start_.begin(), start_.end() - 1);
  for (std::uint32_t i = 0; i < boxes.size(); ++i) {
    each_cell(boxes[i], [&](std::size_t at) { items_[fill[at]++] = i; });
  }
}

PlanGrid PlanGrid::replaced(std::span<const std::uint32_t> moved, std::uint32_t first,
                            std::span<const PlanBox> added) const {
  if (start_.empty()) return PlanGrid(added);
  std::vector<std::pair<std::size_t, std::uint32_t>> by_cell;
  for (std::uint32_t i = 0; i < added.size(); ++i) {
    each_cell(added[i], [&](std::size_t at) { by_cell.emplace_back(at, first + i); });
  }
  std::sort(by_cell.begin(), by_cell.end());
  PlanGrid grid;
  grid.low_ = low_;
  grid.cell_ = cell_;
  grid.columns_ = columns_;
  grid.rows_ = rows_;
  grid.start_.reserve(start_.size());
  grid.items_.resize(items_.size() + by_cell.size());
  std::uint32_t count = 0;
  auto next = by_cell.begin();
  for (std::size_t at = 0; at + 1 < start_.size(); ++at) {
    grid.start_.push_back(count);
    for (const std::uint32_t item : cell(at)) {
      if (moved[item] != 0xFFFFFFFF) grid.items_[count++] = moved[item];
    }
    for (; next != by_cell.end() && next->first == at; ++next) grid.items_[count++] = next->second;
  }
  grid.start_.push_back(count);
  grid.items_.resize(count);
  return grid;
}

}  // namespace gaze
