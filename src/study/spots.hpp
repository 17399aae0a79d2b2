#pragma once

#include <algorithm>
#include <cmath>
#include <vector>

#include "gaze/tools/spots.hpp"

namespace gaze {

/// Calls mark(spot) for each spot whose middle lies inside outlines (even-odd, so that holes
/// count), row by row between the crossings of the row's middle line with the outlines' edges.
template <typename Mark>
void mark_spots(const SpotGrid& grid, const std::vector<std::vector<Vector2d>>& outlines,
                Mark&& mark) {
  std::vector<std::vector<double>> crossings(static_cast<std::size_t>(grid.rows));
  const auto row_of = [&](double y) {
    const double row = std::ceil((y - grid.low.y()) / grid.size - 0.5);
    return static_cast<int>(std::clamp(row, 0.0, static_cast<double>(grid.rows)));
  };
  for (const auto& outline : outlines) {
    for (std::size_t i = 0; i < outline.size(); ++i) {
      const Vector2d* a = &outline[i];
      const Vector2d* b = &outline[(i + 1) % outline.size()];
      if (a->y() > b->y()) std::swap(a, b);
      for (int row = row_of(a->y()); row < row_of(b->y()); ++row) {
        const double y = grid.middle(0, row).y();
        const double share = (y - a->y()) / (b->y() - a->y());
        crossings[static_cast<std::size_t>(row)].push_back(a->x() + (b->x() - a->x()) * share);
      }
    }
  }
  for (int row = 0; row < grid.rows; ++row) {
    std::vector<double>& xs = crossings[static_cast<std::size_t>(row)];
    std::sort(xs.begin(), xs.end());
    for (std::size_t i = 0; i + 1 < xs.size(); i += 2) {
      const auto column_of = [&](double x) {
        const double column = std::ceil((x - grid.low.x()) / grid.size - 0.5);
        return static_cast<int>(std::clamp(column, 0.0, static_cast<double>(grid.columns)));
      };
      const int end = column_of(xs[i + 1]);
      for (int column = column_of(xs[i]); column < end; ++column) mark(grid.index(column, row));
    }
  }
}

}  // namespace gaze
