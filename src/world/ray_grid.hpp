#pragma once

#include <array>
#include <cstdint>
#include <span>
#include <vector>

#include "gaze/world.hpp"
#include "geometry/prism.hpp"

namespace gaze {

/// What may lie on a segment, quickly: pieces by the cells of a uniform grid over the plan, which a
/// segment walks through cell by cell (Amanatides and Woo, "A fast voxel traversal algorithm for
/// ray tracing", 1987). In a cell pieces lie in blocks of eight, as four corners and two heights in
/// float, and are asked about a segment by eight. What it may meet is decided elsewhere, in double.
struct RayGrid {
  static constexpr std::size_t kWidth = 8;
  static constexpr std::size_t kCorners = 4;

  /// Coordinates are from the middle of the cell, metres. A piece with more corners is there as a
  /// rectangle around it.
  struct alignas(32) Block {
    using Lane = std::array<float, kWidth>;
    std::array<Lane, kCorners> x{};
    std::array<Lane, kCorners> y{};
    Lane low{};
    Lane high{};
    std::array<std::uint32_t, kWidth> piece{};
    std::uint32_t is_whole = 0;  ///< By bit: these corners and heights are all of the piece.
  };

  struct Cell {
    std::uint32_t first = 0;  ///< Its blocks.
    std::uint32_t count = 0;
  };

  /// A cell with more blocks is no gain: there the tree is asked.
  static constexpr std::uint32_t kMostBlocks = 8;

  Vector2d low{0.0, 0.0};
  double size = 0.0;  ///< Of a cell, metres; 0: nothing is in the grid.
  double inverse_size = 0.0;
  std::int64_t columns = 0;
  std::int64_t rows = 0;
  double farthest =
      0.0;  ///< No side or height is farther from the middle of a cell it is in, metres.
  std::vector<Cell> cells;  ///< Before the first and after the last row there is an empty one more.
  std::vector<Block> blocks;

  /// The index of a cell. A walk that rounding leads one cell too far stays among them.
  std::size_t index_of(std::int64_t column, std::int64_t row) const {
    return static_cast<std::size_t>((row + 1) * columns + column + 1);
  }
  const Cell& cell(std::int64_t column, std::int64_t row) const {
    return cells[index_of(column, row)];
  }
  double width() const { return static_cast<double>(columns) * size; }
  double height() const { return static_cast<double>(rows) * size; }
  Vector2d middle(std::int64_t column, std::int64_t row) const {
    return low + Vector2d{(static_cast<double>(column) + 0.5) * size,
                          (static_cast<double>(row) + 0.5) * size};
  }
};

/// The grid of all pieces of an index; without cells if most of them are slanted.
[[nodiscard]] RayGrid make_ray_grid(const World::Index& index);

/// Puts one more piece of the index in. False, and nothing is done, if it lies outside of the grid.
[[nodiscard]] bool put_in(RayGrid& grid, const Prism& prism, std::uint32_t piece);

/// True if this machine clips by eight. Elsewhere the tree is asked.
[[nodiscard]] bool can_clip_by_eight() noexcept;

/// So many segments at most share one walk.
constexpr std::size_t kMostHeights = 8;

/// Which of several segments something stops, by bit: at least one, and all with the same plan, for
/// only their heights differ. Only where this machine clips by eight, and the grid has cells; in a
/// crowded cell the tree decides.
[[nodiscard]] unsigned stopped_in_grid(const World& world, std::span<const PlanSegment> ways,
                                       Stops what) noexcept;

}  // namespace gaze
