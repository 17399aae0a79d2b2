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

/// A bounding-volume tree, eight children a node, each leaf one item. Boxes are float, rounded
/// outwards. Built top-down by the surface area heuristic over bins of centres (Wald, "On fast
/// construction of SAH-based bounding volume hierarchies", 2007).
struct Tree {
  static constexpr std::uint32_t kItemBit = 0x80000000U;

  static constexpr std::size_t kWidth = 8;

  struct alignas(64) Node {
    /// Low sides of the three axes, then high sides; by child. Turned inside out where there is
    /// none.
    std::array<std::array<float, kWidth>, 6> sides;
    std::array<std::uint32_t, kWidth> child;  ///< A node, or an item with kItemBit set.
  };

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
