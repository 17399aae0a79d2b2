#include "world/index.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "values/playable.hpp"
#include "world/parts.hpp"

namespace gaze {
namespace {

void add_piece(World::Index& index, const Polygon& polygon, Piece piece) {
  piece.first_edge = static_cast<std::uint32_t>(index.edges.size());
  piece.edge_count = static_cast<std::uint16_t>(polygon.size());
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vector2d& from = polygon[i];
    const Vector2d& to = polygon[(i + 1) % polygon.size()];
    index.edges.push_back({from.x(), from.y(), to.x() - from.x(), to.y() - from.y()});
  }
  index.pieces.push_back(piece);
}

// Pieces and their edges in the order in which the tree comes to them: neighbours in space are then
// neighbours in memory.
void store_in_tree_order(World::Index& index) {
  std::vector<Piece> pieces;
  std::vector<PrismEdge> edges;
  pieces.reserve(index.pieces.size());
  edges.reserve(index.edges.size());
  for (Tree::Node& node : index.tree.nodes) {
    for (std::uint32_t& child : node.child) {
      if ((child & Tree::kItemBit) == 0) continue;
      const std::uint32_t old = child & ~Tree::kItemBit;
      const auto old_edges = index.prism(old).edges;
      child = static_cast<std::uint32_t>(pieces.size()) | Tree::kItemBit;
      pieces.push_back(index.pieces[old]);
      pieces.back().first_edge = static_cast<std::uint32_t>(edges.size());
      edges.insert(edges.end(), old_edges.begin(), old_edges.end());
    }
  }
  index.pieces = std::move(pieces);
  index.edges = std::move(edges);
}

// Puts the pieces of a solid at the end.
void add_solid(World::Index& index, const Level& level, std::uint32_t number) {
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  const Solid& solid = level.solids[number];
  const auto stops = static_cast<std::uint8_t>(level.materials[solid.material].stops.to_ulong());
  for (const SolidPart& part : parts_of(solid, base_of(level, solid))) {
    Piece piece;
    const bool endless = level.plane == Plane::upright;
    piece.low = endless ? -kInfinity : lowest(part);
    piece.high = endless ? kInfinity : highest(part);
    piece.solid = number;
    piece.stops = stops & part.stops;
    piece.carries = part.carries;
    if (!endless && !(part.low.is_level() && part.high.is_level())) {
      piece.slopes = static_cast<std::uint32_t>(index.slopes.size());
      index.slopes.push_back({part.low, part.high});
    }
    add_piece(index, part.outline, piece);
  }
  index.solid_count = number + 1;
}

World::Index make_index(const Level& level, std::uint32_t count) {
  World::Index index;
  index.plane = level.plane;
  for (std::uint32_t i = 0; i < count; ++i) add_solid(index, level, i);
  std::vector<Box> boxes;
  boxes.reserve(index.pieces.size());
  for (std::uint32_t i = 0; i < index.pieces.size(); ++i) boxes.push_back(box_of(index.prism(i)));
  index.tree = build_tree(boxes);
  store_in_tree_order(index);
  if (can_clip_by_eight()) index.grid = make_ray_grid(index);
  return index;
}

// One solid more. Solids that come one by one and those that come together make the same index.
World::Index with_next(World::Index index, const Level& level) {
  const std::uint32_t next = index.solid_count;
  auto piece = static_cast<std::uint32_t>(index.pieces.size());
  add_solid(index, level, next);
  for (; piece < index.pieces.size(); ++piece) {
    const Prism prism = index.prism(piece);
    const bool has_grid = index.grid.size > 0.0;
    const bool fits =
        put_in(index.tree, box_of(prism), piece) && (!has_grid || put_in(index.grid, prism, piece));
    if (!fits) return make_index(level, next + 1);
  }
  return index;
}

}  // namespace

Box box_of(const Prism& prism) {
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  Box box{{kInfinity, kInfinity, prism.low}, {-kInfinity, -kInfinity, prism.high}};
  for (const PrismEdge& edge : prism.edges) {
    box.low = {std::min(box.low[0], edge.x), std::min(box.low[1], edge.y), prism.low};
    box.high = {std::max(box.high[0], edge.x), std::max(box.high[1], edge.y), prism.high};
  }
  return box;
}

World::World(const Level& level) {
  need_solids(level);
  index_ = std::make_shared<const Index>(
      make_index(level, static_cast<std::uint32_t>(level.solids.size())));
}

World World::with_solids(const Level& level) const {
  if (level.solids.size() < index_->solid_count || level.plane != index_->plane) {
    throw UsageError(
        fmt::format("the level has {} solids and is not the one of the world, which knows {}",
                    level.solids.size(), index_->solid_count));
  }
  need_solids(level, index_->solid_count);
  World world = *this;
  Index index = *index_;
  while (index.solid_count < level.solids.size()) index = with_next(std::move(index), level);
  world.index_ = std::make_shared<const Index>(std::move(index));
  if (!world.gone_.empty()) world.gone_.resize(level.solids.size(), 0);
  return world;
}

Plane World::plane() const noexcept {
  return index_->plane;
}

std::size_t World::index_bytes() const noexcept {
  return index_->edges.size() * sizeof(PrismEdge) + index_->pieces.size() * sizeof(Piece) +
         index_->tree.nodes.size() * sizeof(Tree::Node) +
         index_->grid.cells.size() * sizeof(RayGrid::Cell) +
         index_->grid.blocks.size() * sizeof(RayGrid::Block);
}

std::size_t World::triangle_count() const noexcept {
  std::size_t count = 0;  // of a prism with n sides: 2 n on its sides, n - 2 on either end
  for (const Piece& piece : index_->pieces) count += 4U * piece.edge_count - 4U;
  return count;
}

}  // namespace gaze
