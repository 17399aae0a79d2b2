#pragma once

#include <bit>
#include <cmath>
#include <xsimd/xsimd.hpp>

#include "world/tree.hpp"

/// Walking a tree along a segment, for something that reaches so far to either side of it.
namespace gaze {

/// A segment made ready for float boxes. Its start is rounded both ways, so that the shares at
/// which a box is entered and left are never too late and never too early by more than the
/// relative rounding of three operations, which `kSlack` covers: no box that the segment touches
/// is missed, and the decision about what lies in the box is taken elsewhere, in double.
class Walker {
 public:
  using Lanes = xsimd::make_sized_batch_t<float, 4>;
  static constexpr float kSlack = 1.0F + 16.0F * std::numeric_limits<float>::epsilon();

  Walker(const PlanSegment& segment, const std::array<double, 3>& reach) {
    const std::array from{segment.from.plan.x(), segment.from.plan.y(), segment.from.across};
    const std::array to{segment.to.plan.x(), segment.to.plan.y(), segment.to.across};
    for (std::size_t axis = 0; axis < 3; ++axis) {
      const double motion = to[axis] - from[axis];
      // So slow along this axis that it stays in place: far from 0/0, and from overflow.
      const bool still = std::abs(motion) < 1e-25;
      inverse_[axis] = still ? 1e25F : static_cast<float>(1.0 / motion);
      forward_[axis] = inverse_[axis] > 0.0F;
      const float up = round_up(from[axis] + reach[axis]);
      const float down = -round_up(reach[axis] - from[axis]);
      near_[axis] = forward_[axis] ? up : down;
      far_[axis] = forward_[axis] ? down : up;
    }
  }

  /// What share to look up to; a visitor may lower it while walking.
  void look_up_to(double share) { limit_ = static_cast<float>(share) * kSlack; }

  /// True for boxes entered later than it is worth looking.
  bool is_beyond(float enter) const { return enter > limit_ * kSlack; }

  /// Bit i set: the segment may touch child i; `enter` gets the shares.
  int touched(const Tree::Node& node, std::array<float, 4>& enter) const {
    Lanes first(0.0F);
    Lanes last(limit_);
    for (std::size_t axis = 0; axis < 3; ++axis) {
      const auto& near_side = forward_[axis] ? node.low[axis] : node.high[axis];
      const auto& far_side = forward_[axis] ? node.high[axis] : node.low[axis];
      const Lanes inverse(inverse_[axis]);
      first = xsimd::max(first, (Lanes::load_aligned(near_side.data()) - near_[axis]) * inverse);
      last = xsimd::min(last, (Lanes::load_aligned(far_side.data()) - far_[axis]) * inverse);
    }
    first.store_unaligned(enter.data());
    return mask_of(first <= last * Lanes(kSlack));
  }

 private:
  static float round_up(double value) {
    const float rounded = static_cast<float>(value);
    return static_cast<double>(rounded) < value
               ? std::nextafter(rounded, std::numeric_limits<float>::infinity())
               : rounded;
  }

  static int mask_of(const Lanes::batch_bool_type& lanes) {
    std::array<bool, 4> flags{};
    lanes.store_unaligned(flags.data());
    return int{flags[0]} | int{flags[1]} << 1 | int{flags[2]} << 2 | int{flags[3]} << 3;
  }

  std::array<float, 3> near_{};
  std::array<float, 3> far_{};
  std::array<float, 3> inverse_{};
  std::array<bool, 3> forward_{};
  float limit_ = kSlack;
};

/// Calls visit(item) for every item whose box may be touched, until it returns true.
template <typename Visit>
bool walk_any(const Tree& tree, const Walker& walker, Visit&& visit) {
  if (tree.nodes.empty()) return false;
  std::array<std::uint32_t, 4 * Tree::kMostDepth> stack;
  std::size_t size = 0;
  stack[size++] = 0;
  std::array<float, 4> enter;
  while (size > 0) {
    const Tree::Node& node = tree.nodes[stack[--size]];
    for (auto mask = static_cast<unsigned>(walker.touched(node, enter)); mask != 0;
         mask &= mask - 1) {
      const std::uint32_t child = node.child[static_cast<std::size_t>(std::countr_zero(mask))];
      if ((child & Tree::kItemBit) == 0) {
        stack[size++] = child;
      } else if (visit(child & ~Tree::kItemBit)) {
        return true;
      }
    }
  }
  return false;
}

/// Calls visit(item), nearest boxes first as far as that costs little; visit may shorten the way by
/// `walker.look_up_to`.
template <typename Visit>
void walk_nearest(const Tree& tree, Walker& walker, Visit&& visit) {
  if (tree.nodes.empty()) return;
  struct Entry {
    std::uint32_t child;
    float enter;
  };
  std::array<Entry, 4 * Tree::kMostDepth> stack;
  std::size_t size = 0;
  stack[size++] = {0, 0.0F};
  std::array<float, 4> enter;
  while (size > 0) {
    const Entry top = stack[--size];
    if (walker.is_beyond(top.enter)) continue;
    if ((top.child & Tree::kItemBit) != 0) {
      visit(top.child & ~Tree::kItemBit);
      continue;
    }
    const Tree::Node& node = tree.nodes[top.child];
    const std::size_t bottom = size;
    for (auto mask = static_cast<unsigned>(walker.touched(node, enter)); mask != 0;
         mask &= mask - 1) {
      const auto slot = static_cast<std::size_t>(std::countr_zero(mask));
      std::size_t at = size++;
      for (; at > bottom && stack[at - 1].enter < enter[slot]; --at) stack[at] = stack[at - 1];
      stack[at] = {node.child[slot], enter[slot]};
    }
  }
}

}  // namespace gaze
