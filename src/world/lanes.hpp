#pragma once

#include "world/tree.hpp"

namespace gaze {

/// A segment as the boxes of a node are asked about it, by axis (the fourth is none); see Walker.
struct BoxQuery {
  std::array<float, 4> near{};     ///< Start of the segment, for the side met first.
  std::array<float, 4> far{};      ///< Start of the segment, for the side met last.
  std::array<float, 4> inverse{};  ///< 1 / motion.
  std::array<float, 4>
      far_inverse{};  ///< A little more than 1 / motion, for the rounding of shares.
  std::array<std::uint32_t, 4> near_side{};  ///< Index of these sides in Tree::Node::sides.
  std::array<std::uint32_t, 4> far_side{};
  float limit = 1.0F;  ///< The share up to which boxes count.
};

/// Which children of a node a segment may touch, bit i for child i, and the shares at which it
/// enters their boxes (kWidth of them; meaningless where the bit is not set).
using TouchBoxes = unsigned (*)(const Tree::Node& node, const BoxQuery& query,
                                float* enter) noexcept;

/// The fastest way that this machine knows. All ways give the same bits: they do the same
/// operations in the same order, only more of them at a time.
[[nodiscard]] TouchBoxes fastest_touch() noexcept;

/// The same in plain C++, for machines without wide vectors, and to compare with.
[[nodiscard]] unsigned touch_boxes_plainly(const Tree::Node& node, const BoxQuery& query,
                                           float* enter) noexcept;

}  // namespace gaze
