#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <optional>
#include <span>
#include <vector>

#include "geometry/fine_lattice.hpp"
#include "geometry/plan.hpp"
#include "geometry/triangulation.hpp"
#include "world/index.hpp"

namespace gaze {

/// The plan of a world at one height, cut into triangles along the sides of all pieces that stop
/// sight, stand at that height and are not slanted. Each triangle belongs to a region, which knows
/// what pieces stand there.
class PlanRegions {
 public:
  /// What is met on going into a triangle over one of its edges, which runs from left to right as
  /// seen from outside.
  struct alignas(32) Entry {
    double x = 0.0;  ///< The corner opposite.
    double y = 0.0;
    /// On over the edge from the opposite corner to the left end, and over that from the right end
    /// to the opposite corner.
    std::array<std::uint32_t, 2> on{};
    std::uint32_t side = kNone;  ///< The first of what this edge is a side of.
  };

  static constexpr unsigned kLeft = 0;
  static constexpr unsigned kRight = 1;
  /// Instead of a side: out over the rim.
  static constexpr std::uint32_t kRim = kNone - 1;

  /// A side of a piece, as it runs in the index.
  struct Side {
    PrismEdge edge;
    std::uint32_t number = 0;  ///< Of the edge in the index.
    std::uint32_t piece = 0;
    std::uint32_t solid = 0;
    bool is_last = true;  ///< Of those that lie on one edge.
  };

  PlanRegions(const World::Index& index, double height);

  /// True at heights at which the same pieces stand.
  bool is_alike_at(double height) const { return alike_.holds(height); }

  /// False if nothing was cut.
  bool is_made() const { return !entries_.empty(); }
  /// A triangle that holds a point, its rim included; kNone outside of the plan and on its rim.
  std::uint32_t find(const FinePoint& point) const;
  /// The triangles that hold a point: one, or those at an edge or a corner, anticlockwise.
  void find_all(const FinePoint& point, std::vector<std::uint32_t>& triangles) const;

  /// By number. Of the last two one leads out over the rim, and one only to itself.
  std::span<const Entry> entries() const { return entries_; }
  const Side& side(std::uint32_t number) const { return sides_[number]; }
  /// True if something of the plan lies farther from a place in it.
  bool reaches_beyond(const Vector2d& place, double range2) const {
    const Vector2d low = from_lattice(low_) - place;
    const Vector2d high = from_lattice(high_) - place;
    const Vector2d most = low.cwiseAbs().cwiseMax(high.cwiseAbs());
    return dot(most, most) > range2;
  }
  /// The pieces that stand at a triangle.
  std::span<const std::uint32_t> pieces_at(std::uint32_t triangle) const {
    return pieces_in(region_of_[triangle]);
  }
  /// The corners of a triangle, and the entry over an edge into the triangle beyond.
  const FinePoint& corner(std::uint32_t triangle, unsigned i) const {
    return points_[corners_[3 * triangle + i]];
  }
  Vector2d place(std::uint32_t triangle, unsigned i) const {
    const Entry& opposite = entries_[3 * triangle + (i + 1) % 3];
    return {opposite.x, opposite.y};
  }
  std::uint32_t beyond(std::uint32_t triangle, unsigned i) const {
    return entries_[3 * triangle + (i == 0 ? 2 : i - 1)].on[kRight];
  }

 private:
  friend class PlanCutter;

  /// Heights at which the same pieces stand: from where one of them ends to where one begins.
  struct Heights {
    double low = -std::numeric_limits<double>::infinity();
    double high = std::numeric_limits<double>::infinity();
    bool has_low = true;
    bool has_high = true;
    bool holds(double height) const {
      return (has_low ? low <= height : low < height) &&
             (has_high ? height <= high : height < high);
    }
  };

  std::span<const std::uint32_t> pieces_in(std::uint32_t region) const {
    return {pieces_.data() + first_piece_[region], first_piece_[region + 1] - first_piece_[region]};
  }
  std::size_t cell_at(const FinePoint& point) const;

  std::vector<std::uint32_t> region_of_;  ///< By triangle; 0: nothing stands there.
  std::vector<Entry> entries_;            ///< Entry 3 t + i leads into triangle t over its edge i.
  std::vector<std::uint32_t> corners_;    ///< The same for the corner from which edge i runs.
  std::vector<FinePoint> points_;
  std::vector<Side> sides_;
  std::vector<std::uint32_t> first_piece_;  ///< By region; one more.
  std::vector<std::uint32_t> pieces_;
  Heights alike_;
  FinePoint low_;
  FinePoint high_;
  std::int64_t cell_ = 1;  ///< Of a grid for finding triangles: its size, in steps.
  std::int64_t columns_ = 1;
  std::int64_t rows_ = 1;
  std::vector<std::uint32_t> near_;  ///< By cell: a triangle in or near it.
};

}  // namespace gaze
