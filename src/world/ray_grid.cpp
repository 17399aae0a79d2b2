#include "world/ray_grid.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan_grid.hpp"
#include "world/index.hpp"

namespace gaze {
namespace {

/// Metres. A piece is in all cells to which it comes as near, so that rounding in the walk from
/// cell to cell loses nothing.
constexpr double kNear = 1e-3;

/// Height of an unbounded piece, metres.
constexpr float kUnboundedHeight = 1e30F;

PlanBox plan_box_of(const Prism& prism) {
  const Box box = box_of(prism);
  return {{box.low[0], box.low[1]}, {box.high[0], box.high[1]}};
}

// True if all of a square lies beyond a side of a piece.
bool is_apart(const Prism& prism, const Vector2d& middle, double half) {
  return std::any_of(prism.edges.begin(), prism.edges.end(), [&](const PrismEdge& edge) {
    const double reach = half * (std::abs(edge.dx) + std::abs(edge.dy));
    return edge.side(middle.x(), middle.y()) < -reach;
  });
}

float finite(double height) {
  return static_cast<float>(
      std::clamp(height, -double{kUnboundedHeight}, double{kUnboundedHeight}));
}

// Up to four corners of a piece, the last of them repeated; else the rectangle around it along its
// longest side.
std::array<Vector2d, RayGrid::kCorners> four_around(const Prism& prism) {
  const auto corner = [&](std::size_t i) { return Vector2d{prism.edges[i].x, prism.edges[i].y}; };
  const std::size_t count = prism.edges.size();
  if (count <= RayGrid::kCorners) {
    return {corner(0), corner(1), corner(2), corner(count - 1)};
  }
  const auto longest = std::max_element(
      prism.edges.begin(), prism.edges.end(), [](const PrismEdge& a, const PrismEdge& b) {
        return a.dx * a.dx + a.dy * a.dy < b.dx * b.dx + b.dy * b.dy;
      });
  const Vector2d along = Vector2d{longest->dx, longest->dy} / std::hypot(longest->dx, longest->dy);
  const Vector2d across{-along.y(), along.x()};
  Vector2d low{kFarthest, kFarthest};
  Vector2d high = -low;
  for (std::size_t i = 0; i < count; ++i) {
    const Vector2d place{dot(along, corner(i)), dot(across, corner(i))};
    low = low.cwiseMin(place);
    high = high.cwiseMax(place);
  }
  const auto back = [&](double a, double b) { return Vector2d(along * a + across * b); };
  return {back(low.x(), low.y()), back(high.x(), low.y()), back(high.x(), high.y()),
          back(low.x(), high.y())};
}

/// Puts pieces into the cells of a grid.
class Laying {
 public:
  explicit Laying(RayGrid& grid) : grid_(grid) {}

  template <typename Visit>
  void each_cell(const Prism& prism, Visit&& visit) const {
    const PlanBox box = plan_box_of(prism);
    const auto index = [&](double offset, std::int64_t count) {
      return std::clamp(static_cast<std::int64_t>(std::floor(offset / grid_.size)), std::int64_t{0},
                        count - 1);
    };
    const double half = grid_.size / 2.0 + kNear;
    const auto top = index(box.high.y() + kNear - grid_.low.y(), grid_.rows);
    const auto right = index(box.high.x() + kNear - grid_.low.x(), grid_.columns);
    for (auto row = index(box.low.y() - kNear - grid_.low.y(), grid_.rows); row <= top; ++row) {
      for (auto column = index(box.low.x() - kNear - grid_.low.x(), grid_.columns); column <= right;
           ++column) {
        const Vector2d middle = grid_.middle(column, row);
        if (!is_apart(prism, middle, half)) {
          visit(grid_.index_of(column, row), middle);
        }
      }
    }
  }

  void put(RayGrid::Block& block, std::size_t lane, const Prism& prism, const Vector2d& middle,
           std::uint32_t piece) {
    const auto corners = four_around(prism);
    for (std::size_t k = 0; k < RayGrid::kCorners; ++k) {
      const Vector2d corner = corners[k] - middle;
      block.x[k][lane] = static_cast<float>(corner.x());
      block.y[k][lane] = static_cast<float>(corner.y());
      grid_.farthest = std::max(grid_.farthest, corner.cwiseAbs().maxCoeff());
    }
    for (const double height : {prism.low, prism.high}) {
      if (std::isfinite(height)) grid_.farthest = std::max(grid_.farthest, std::abs(height));
    }
    block.low[lane] = finite(prism.low);
    block.high[lane] = finite(prism.high);
    block.piece[lane] = piece;
    const bool is_whole = prism.edges.size() <= RayGrid::kCorners && prism.slopes == nullptr;
    block.is_whole |= (is_whole ? 1U : 0U) << lane;
  }

 private:
  RayGrid& grid_;
};

// A block that nothing meets: it begins above where it ends.
RayGrid::Block empty_block() {
  RayGrid::Block block;
  block.low.fill(kUnboundedHeight);
  block.high.fill(-kUnboundedHeight);
  return block;
}

struct Extent {
  PlanBox box{{kFarthest, kFarthest}, {-kFarthest, -kFarthest}};
  double mean = 0.0;  ///< Of the longer side of a piece, metres.
};

Extent extent_of(const World::Index& index) {
  Extent extent;
  for (std::uint32_t i = 0; i < index.pieces.size(); ++i) {
    const PieceShape shape(index, i);
    const PlanBox box = plan_box_of(shape.prism());
    extent.box = {extent.box.low.cwiseMin(box.low), extent.box.high.cwiseMax(box.high)};
    extent.mean += (box.high - box.low).maxCoeff();
  }
  extent.mean /= static_cast<double>(index.pieces.size());
  return extent;
}

// Cells with about four pieces each, that are not smaller than pieces are.
void choose_cells(RayGrid& grid, const World::Index& index) {
  constexpr double kPiecesEach = 4.0;
  constexpr double kMargin = 1.0;  // metres
  const Extent extent = extent_of(index);
  const Vector2d margin{kMargin, kMargin};
  grid.low = extent.box.low - margin;
  const Vector2d size = extent.box.high + margin - grid.low;
  const auto count = static_cast<double>(index.pieces.size());
  grid.size = std::max({std::sqrt(size.x() * size.y() * kPiecesEach / count), extent.mean,
                        size.maxCoeff() * kPiecesEach / count});
  grid.inverse_size = 1.0 / grid.size;
  grid.columns = static_cast<std::int64_t>(size.x() / grid.size) + 1;
  grid.rows = static_cast<std::int64_t>(size.y() / grid.size) + 1;
}

}  // namespace

RayGrid make_ray_grid(const World::Index& index) {
  RayGrid grid;
  // Of what is slanted double has to decide nearly always: a terrain is left to the tree.
  const bool is_mostly_slanted = 2 * index.slanted_count() > index.pieces.size();
  if (index.pieces.empty() || is_mostly_slanted) return grid;
  choose_cells(grid, index);
  grid.cells.resize(grid.index_of(0, grid.rows + 1));
  Laying laying(grid);
  const auto count = static_cast<std::uint32_t>(index.pieces.size());
  std::vector<std::uint32_t> in_cell(grid.cells.size(), 0);
  for (std::uint32_t i = 0; i < count; ++i) {
    const PieceShape shape(index, i);
    laying.each_cell(shape.prism(), [&](std::size_t at, const Vector2d&) { ++in_cell[at]; });
  }
  std::uint32_t blocks = 0;
  for (std::size_t i = 0; i < grid.cells.size(); ++i) {
    grid.cells[i] = {blocks, (in_cell[i] + 7U) / 8U};
    // What is decided by the tree need not be here.
    if (grid.cells[i].count <= RayGrid::kMostBlocks) blocks += grid.cells[i].count;
  }
  grid.blocks.assign(blocks, empty_block());
  std::fill(in_cell.begin(), in_cell.end(), 0U);
  for (std::uint32_t i = 0; i < count; ++i) {
    const PieceShape shape(index, i);
    const Prism& prism = shape.prism();
    laying.each_cell(prism, [&](std::size_t at, const Vector2d& middle) {
      const RayGrid::Cell& cell = grid.cells[at];
      if (cell.count > RayGrid::kMostBlocks) return;
      const std::uint32_t place = in_cell[at]++;
      laying.put(grid.blocks[cell.first + place / 8U], place % 8U, prism, middle, i);
    });
  }
  return grid;
}

bool put_in(RayGrid& grid, const Prism& prism, std::uint32_t piece) {
  const PlanBox box = plan_box_of(prism);
  const Vector2d end = grid.low + Vector2d{grid.width(), grid.height()};
  const Vector2d near{kNear, kNear};
  if (!PlanBox{grid.low + near, end - near}.contains(box.low) ||
      !PlanBox{grid.low + near, end - near}.contains(box.high)) {
    return false;
  }
  Laying laying(grid);
  laying.each_cell(prism, [&](std::size_t at, const Vector2d& middle) {
    RayGrid::Cell& cell = grid.cells[at];
    if (cell.count > RayGrid::kMostBlocks) return;
    std::size_t lane = RayGrid::kWidth;
    if (cell.count > 0) {
      const RayGrid::Block::Lane& low = grid.blocks[cell.first + cell.count - 1].low;
      lane = static_cast<std::size_t>(std::find(low.begin(), low.end(), kUnboundedHeight) -
                                      low.begin());
    }
    if (lane == RayGrid::kWidth) {
      // The blocks of a cell follow each other: they move to the end, where there is room for more.
      const RayGrid::Cell old = cell;
      cell = {static_cast<std::uint32_t>(grid.blocks.size()), old.count + 1};
      for (std::uint32_t i = 0; i < old.count; ++i) {
        const RayGrid::Block moved = grid.blocks[old.first + i];
        grid.blocks.push_back(moved);
      }
      grid.blocks.push_back(empty_block());
      lane = 0;
    }
    laying.put(grid.blocks[cell.first + cell.count - 1], lane, prism, middle, piece);
  });
  return true;
}

}  // namespace gaze
