#pragma once

#include <cstdint>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"

GAZE_PUBLIC_BEGIN
namespace gaze {

/// Square spots that tile a part of the plan, row by row from the low corner. A spot stands for its
/// middle.
struct SpotGrid {
  Vector2d low{0.0, 0.0};
  double size = 0.25;  ///< Metres, above 0.
  int columns = 0;
  int rows = 0;

  Vector2d middle(int column, int row) const {
    return low + Vector2d{(column + 0.5) * size, (row + 0.5) * size};
  }
  std::size_t index(int column, int row) const {
    return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
           static_cast<std::size_t>(column);
  }
  std::size_t count() const {
    return static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows);
  }
};

}  // namespace gaze
GAZE_PUBLIC_END
