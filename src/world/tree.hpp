#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <span>
#include <vector>

#include "geometry/plan.hpp"

namespace gaze {

/// A box in plan coordinates: two axes of the plan, then the one across.
struct Box {
  std::array<double, 3> low{};
  std::array<double, 3> high{};
};

struct BoxQuery;

/// A bounding-volume tree, eight children a node, each leaf one item. Built top-down by the surface
/// area heuristic over bins of centres (Wald, "On fast construction of SAH-based bounding volume
/// hierarchies", 2007).
///
/// The boxes of a node lie on a lattice of its own, rounded outwards, so that it is two lines of
/// memory and not four: walks through large trees wait for memory (after Ylitie, Karras and Laine,
/// "Efficient incoherent ray traversal on GPUs through compressed wide BVHs", 2017).
struct Tree {
  static constexpr std::uint32_t kItemBit = 0x80000000U;

  static constexpr std::size_t kWidth = 8;

  struct alignas(64) Node {
    std::array<float, 3> origin{};  ///< By axis: of the lattice, a whole number of steps.
    std::array<float, 3> step{};    ///< A power of two, such that every side is a float.
    /// Low sides of the three axes, then high sides, in steps from the origin; by child.
    std::array<std::array<std::uint8_t, kWidth>, 6> sides{};
    std::array<std::uint32_t, kWidth> child{};  ///< A node, or an item with kItemBit set.
    std::uint32_t is_there = 0;                 ///< By bit: whether there is such a child.

    /// Exact, as long as it is worked out in float.
    float side(std::size_t which, std::size_t slot) const {
      const std::size_t axis = which % 3;
      return origin[axis] + step[axis] * static_cast<float>(sides[which][slot]);
    }
  };
  static_assert(sizeof(Node) == 128);

  unsigned (*touch)(const Node&, const BoxQuery&, float*) noexcept = nullptr;  ///< See lanes.hpp.
  std::vector<Node> nodes;  ///< The root first; empty if there are no items.

  /// No path from the root is longer, for up to 2^31 items: the build halves below a depth of 32.
  static constexpr std::size_t kMostDepth = 64;
};

/// Infinite boxes are cut to +-kFarthest. Deterministic; O(n log n).
[[nodiscard]] Tree build_tree(std::span<const Box> boxes);

/// Puts one more item in where the boxes grow least. False, and nothing is done, if a path from the
/// root would become too long: then the tree has to be built anew.
[[nodiscard]] bool put_in(Tree& tree, const Box& box, std::uint32_t item);

constexpr float kFarthest = 1e30F;

}  // namespace gaze
