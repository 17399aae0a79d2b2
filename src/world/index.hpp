#pragma once

#include <span>
#include <vector>

#include "gaze/world.hpp"
#include "geometry/prism.hpp"
#include "world/ray_grid.hpp"
#include "world/tree.hpp"

namespace gaze {

/// A convex piece of a solid.
struct Piece {
  double low = 0.0;
  double high = 0.0;
  std::uint32_t first_edge = 0;
  std::uint32_t solid = 0;
  std::uint16_t edge_count = 0;
  std::uint8_t stops = 0;            ///< Bit per Stops.
  bool carries = true;               ///< Its upper side may be walked on.
  std::uint32_t slopes = kNoSlopes;  ///< In Index::slopes.
  static constexpr std::uint32_t kNoSlopes = 0xFFFFFFFF;
};

struct World::Index {
  Plane plane = Plane::ground;
  std::uint32_t solid_count = 0;  ///< Of the level.
  std::vector<PrismEdge> edges;
  std::vector<PrismSlopes> slopes;
  std::vector<Piece> pieces;  ///< In the order of the tree; those put in later follow.
  Tree tree;
  RayGrid grid;

  Prism prism(std::uint32_t piece) const {
    const Piece& p = pieces[piece];
    const PrismSlopes* own = p.slopes == Piece::kNoSlopes ? nullptr : &slopes[p.slopes];
    return {{edges.data() + p.first_edge, p.edge_count}, p.low, p.high, own};
  }
  bool stops(std::uint32_t piece, Stops what) const {
    return (pieces[piece].stops >> static_cast<unsigned>(what) & 1U) != 0;
  }
};

[[nodiscard]] Box box_of(const Prism& prism);

/// The index of a world, which all copies of it share.
[[nodiscard]] inline const World::Index& index_of(const World& world) noexcept {
  return *world.index_;
}

/// True if a piece of the index is there and stops something.
[[nodiscard]] inline bool stops(const World& world, std::uint32_t piece, Stops what) noexcept {
  const World::Index& index = *world.index_;
  return index.stops(piece, what) &&
         (world.gone_.empty() || world.gone_[index.pieces[piece].solid] == 0);
}

/// How many of the ways from one place to others, all right above each other, are clear. Where they
/// have to be asked one by one, no more are asked once `enough` are clear, or more than `spare` are
/// not.
[[nodiscard]] std::size_t count_clear(const World& world, const Vector3d& from,
                                      std::span<const Vector3d> to, Stops what, std::size_t enough,
                                      std::size_t spare) noexcept;

/// True if something on a segment stops it.
[[nodiscard]] bool is_stopped_in_tree(const World& world, const PlanSegment& way,
                                      Stops what) noexcept;

}  // namespace gaze
