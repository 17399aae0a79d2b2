#include "world/index.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <bit>
#include <limits>
#include <unordered_map>

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

// Corners in the order in which shells come to them.
void store_in_shell_order(World::Index& index) {
  constexpr std::uint32_t kNotYet = 0xFFFFFFFF;
  std::vector<std::uint32_t> number(index.vertices.size(), kNotYet);
  std::vector<Vector3d> vertices;
  vertices.reserve(index.vertices.size());
  for (Piece& piece : index.pieces) {
    if (!piece.is_shell()) continue;
    for (std::uint32_t& corner : piece.corners) {
      if (number[corner] == kNotYet) {
        number[corner] = static_cast<std::uint32_t>(vertices.size());
        vertices.push_back(index.vertices[corner]);
      }
      corner = number[corner];
    }
  }
  index.vertices = std::move(vertices);
}

// Pieces, their edges and corners in the order in which the tree comes to them: neighbours in space
// are then neighbours in memory.
void store_in_tree_order(World::Index& index) {
  std::vector<Piece> pieces;
  std::vector<PrismEdge> edges;
  pieces.reserve(index.pieces.size());
  edges.reserve(index.edges.size());
  for (Tree::Node& node : index.tree.nodes) {
    for (std::uint32_t& child : node.child) {
      if ((child & Tree::kItemBit) == 0) continue;
      const Piece& old = index.pieces[child & ~Tree::kItemBit];
      child = static_cast<std::uint32_t>(pieces.size()) | Tree::kItemBit;
      pieces.push_back(old);
      pieces.back().first_edge = static_cast<std::uint32_t>(edges.size());
      const PrismEdge* first = index.edges.data() + old.first_edge;
      edges.insert(edges.end(), first, first + old.edge_count);
    }
  }
  index.pieces = std::move(pieces);
  index.edges = std::move(edges);
  store_in_shell_order(index);
}

void add_part(World::Index& index, const SolidPart& part, Piece piece) {
  constexpr double kUnbounded = std::numeric_limits<double>::infinity();
  const bool endless = index.plane == Plane::upright;
  piece.heights =
      endless ? PieceHeights{-kUnbounded, kUnbounded} : PieceHeights{lowest(part), highest(part)};
  piece.stops &= part.stops;
  piece.carries = part.carries;
  if (!endless && !(part.low.is_level() && part.high.is_level())) {
    piece.slopes = static_cast<std::uint32_t>(index.slopes.size());
    index.slopes.push_back({part.low, part.high});
  }
  add_piece(index, part.outline, piece);
}

/// Puts the triangles of a mesh at the end.
class MeshAdder {
 public:
  MeshAdder(World::Index& index, const Solid& solid, const Piece& piece)
      : index_(index), solid_(solid), piece_(piece) {}

  void add() {
    numbers_.reserve(solid_.triangles.size());
    for (const Triangle& triangle : solid_.triangles) {
      const auto shell = index_.plane == Plane::upright ? std::nullopt : lying_shell(triangle);
      if (shell && !shell->high.is_level()) {
        add(triangle, shell->carries);
      } else {
        parts_.clear();
        add_shell(triangle, parts_);
        for (const SolidPart& part : parts_) add_part(index_, part, piece_);
      }
    }
  }

 private:
  struct Hash {
    std::size_t operator()(const Vector3d& p) const {
      const auto bits = [](double x) { return std::bit_cast<std::uint64_t>(x); };
      std::uint64_t mixed = bits(p.x()) * 0x9E3779B97F4A7C15U ^ bits(p.y());
      mixed = (mixed ^ mixed >> 29U) * 0xBF58476D1CE4E5B9U ^ bits(p.z());
      return mixed ^ mixed >> 32U;
    }
  };

  void add(const Triangle& triangle, bool carries) {
    Piece piece = piece_;
    piece.carries = carries;
    piece.corners = {number(triangle[0]), number(triangle[1]), number(triangle[2])};
    index_.pieces.push_back(piece);
    ++index_.shell_count;
  }

  // Corners at one place are kept once.
  std::uint32_t number(const Vector3d& corner) {
    const auto next = static_cast<std::uint32_t>(index_.vertices.size());
    const auto [at, is_new] = numbers_.try_emplace(corner, next);
    if (is_new) index_.vertices.push_back(corner);
    return at->second;
  }

  World::Index& index_;
  const Solid& solid_;
  Piece piece_;
  std::vector<SolidPart> parts_;  ///< Scratch.
  std::unordered_map<Vector3d, std::uint32_t, Hash> numbers_;
};

// Puts the pieces of a solid at the end.
void add_solid(World::Index& index, const Level& level, std::uint32_t number) {
  const Solid& solid = level.solids[number];
  Piece piece;
  piece.solid = number;
  piece.stops = static_cast<std::uint8_t>(level.materials[solid.material].stops.to_ulong());
  index.solid_count = number + 1;
  if (solid.form == Solid::Form::mesh) return MeshAdder(index, solid, piece).add();
  for (const SolidPart& part : parts_of(solid, base_of(level, solid))) {
    add_part(index, part, piece);
  }
}

World::Index make_index(const Level& level, std::uint32_t count) {
  World::Index index;
  index.plane = level.plane;
  for (std::uint32_t i = 0; i < count; ++i) add_solid(index, level, i);
  std::vector<Box> boxes;
  boxes.reserve(index.pieces.size());
  for (std::uint32_t i = 0; i < index.pieces.size(); ++i) {
    const PieceShape shape(index, i);
    boxes.push_back(box_of(shape.prism()));
  }
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
    const PieceShape shape(index, piece);
    const bool has_grid = index.grid.size > 0.0;
    const bool fits = put_in(index.tree, box_of(shape.prism()), piece) &&
                      (!has_grid || put_in(index.grid, shape.prism(), piece));
    if (!fits) return make_index(level, next + 1);
  }
  return index;
}

}  // namespace

std::vector<Vector2d> World::Index::corners() const {
  std::vector<Vector2d> corners;
  corners.reserve(edges.size() + vertices.size());
  for (const PrismEdge& edge : edges) corners.emplace_back(edge.x, edge.y);
  for (const Vector3d& vertex : vertices) corners.emplace_back(vertex.x(), vertex.y());
  return corners;
}

void PieceShape::make_shell(const World::Index& index, const ShellCorners& corners) {
  const auto shell = lying_shell(
      {index.vertices[corners[0]], index.vertices[corners[1]], index.vertices[corners[2]]});
  slopes_ = {shell->low, shell->high};
  prism_ = {edges_, shell->low.at(shell->outline[0]), shell->high.at(shell->outline[0]), &slopes_};
  for (std::size_t i = 0; i < 3; ++i) {
    const Vector2d& from = shell->outline[i];
    const Vector2d& to = shell->outline[i < 2 ? i + 1 : 0];
    edges_[i] = {from.x(), from.y(), to.x() - from.x(), to.y() - from.y()};
    prism_.low = std::min(prism_.low, shell->low.at(from));
    prism_.high = std::max(prism_.high, shell->high.at(from));
  }
}

namespace {

// True if all of a segment lies beyond a side of a shell: then nothing else of it need be known.
// The sides are those of its prism, to the bit.
bool passes_by(const World::Index& index, const Piece& its, const PlanSegment& way) {
  ShellCorners corners = its.corners;
  if (!its.carries) std::swap(corners[1], corners[2]);
  const Vector2d& from = way.from.plan;
  const Vector2d& to = way.to.plan;
  for (std::size_t i = 0; i < 3; ++i) {
    const Vector3d& a = index.vertices[corners[i]];
    const Vector3d& b = index.vertices[corners[i < 2 ? i + 1 : 0]];
    const PrismEdge edge{a.x(), a.y(), b.x() - a.x(), b.y() - a.y()};
    if (edge.side(from.x(), from.y()) < 0.0 && edge.side(to.x(), to.y()) < 0.0) return true;
  }
  return false;
}

}  // namespace

std::optional<double> first_touch(const World::Index& index, std::uint32_t piece,
                                  const PlanSegment& way) noexcept {
  const Piece& its = index.pieces[piece];
  if (its.is_shell() && passes_by(index, its, way)) return std::nullopt;
  const PieceShape shape(index, piece);
  return first_touch(shape.prism(), way);
}

Box box_of(const Prism& prism) {
  constexpr double kUnbounded = std::numeric_limits<double>::infinity();
  Box box{{kUnbounded, kUnbounded, prism.low}, {-kUnbounded, -kUnbounded, prism.high}};
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
  return index_->edges.size() * sizeof(PrismEdge) + index_->slopes.size() * sizeof(PrismSlopes) +
         index_->vertices.size() * sizeof(Vector3d) + index_->pieces.size() * sizeof(Piece) +
         index_->tree.nodes.size() * sizeof(Tree::Node) +
         index_->grid.cells.size() * sizeof(RayGrid::Cell) +
         index_->grid.blocks.size() * sizeof(RayGrid::Block);
}

std::size_t World::triangle_count() const noexcept {
  std::size_t count = 0;  // of a prism with n sides: 2 n on its sides, n - 2 on either end
  for (const Piece& piece : index_->pieces) {
    count += 4U * (piece.is_shell() ? 3U : piece.edge_count) - 4U;
  }
  return count;
}

}  // namespace gaze
