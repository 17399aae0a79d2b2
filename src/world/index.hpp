#pragma once

#include <array>
#include <optional>
#include <span>
#include <vector>

#include "gaze/world.hpp"
#include "geometry/prism.hpp"
#include "world/ray_grid.hpp"
#include "world/tree.hpp"

namespace gaze {

/// A slanted triangle of a mesh: its corners, in Index::vertices. What it is as a prism would take
/// six times the memory, and is worked out when it is asked for.
using ShellCorners = std::array<std::uint32_t, 3>;

struct PieceHeights {
  double low = 0.0;
  double high = 0.0;
};

/// A convex piece of a solid.
struct Piece {
  union {
    PieceHeights heights{};
    ShellCorners corners;  ///< Of a shell.
  };
  std::uint32_t first_edge = 0;
  std::uint32_t solid = 0;
  std::uint16_t edge_count = 0;      ///< 0: a shell.
  std::uint8_t stops = 0;            ///< Bit per Stops.
  bool carries = true;               ///< Its upper side may be walked on.
  std::uint32_t slopes = kNoSlopes;  ///< In Index::slopes.
  static constexpr std::uint32_t kNoSlopes = 0xFFFFFFFF;

  bool is_shell() const { return edge_count == 0; }
  bool is_slanted() const { return is_shell() || slopes != kNoSlopes; }
};

struct World::Index {
  Plane plane = Plane::ground;
  std::uint32_t solid_count = 0;  ///< Of the level.
  std::vector<PrismEdge> edges;
  std::vector<PrismSlopes> slopes;
  std::vector<Vector3d> vertices;  ///< Of shells.
  std::uint32_t shell_count = 0;
  std::vector<Piece> pieces;  ///< In the order of the tree; those put in later follow.
  Tree tree;
  RayGrid grid;

  /// Of all pieces in the plan, some of them more than once.
  std::vector<Vector2d> corners() const;
  std::size_t slanted_count() const { return slopes.size() + shell_count; }
  bool stops(std::uint32_t piece, Stops what) const {
    return (pieces[piece].stops >> static_cast<unsigned>(what) & 1U) != 0;
  }
};

/// A piece as a prism, which is there as long as this is.
class PieceShape {
 public:
  PieceShape(const World::Index& index, std::uint32_t piece) {
    const Piece& its = index.pieces[piece];
    if (its.is_shell()) {
      make_shell(index, its.corners);
    } else {
      const bool is_slanted = its.slopes != Piece::kNoSlopes;
      prism_ = {{index.edges.data() + its.first_edge, its.edge_count},
                its.heights.low,
                its.heights.high,
                is_slanted ? &index.slopes[its.slopes] : nullptr};
    }
  }
  PieceShape(const PieceShape&) = delete;
  PieceShape& operator=(const PieceShape&) = delete;

  const Prism& prism() const& { return prism_; }
  const Prism& prism() const&& = delete;

 private:
  void make_shell(const World::Index& index, const ShellCorners& corners);

  Prism prism_;
  std::array<PrismEdge, 3> edges_;
  PrismSlopes slopes_;
};

/// Where a segment touches a piece, see geometry/prism.hpp.
[[nodiscard]] std::optional<double> first_touch(const World::Index& index, std::uint32_t piece,
                                                const PlanSegment& way) noexcept;

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
