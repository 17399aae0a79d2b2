#pragma once

#include <bit>
#include <cmath>

#include "world/lanes.hpp"
#include "world/tree.hpp"

/// Walking a tree along a segment, for something that reaches so far to either side of it.
namespace gaze {

/// A segment made ready for float boxes. Its start is rounded both ways, so that the shares at
/// which a box is entered and left are never too late and never too early by more than the
/// relative rounding of five operations, which `kSlack` covers: no box that the segment touches
/// is missed, and the decision about what lies in the box is taken elsewhere, in double.
class Walker {
 public:
  static constexpr float kSlack = 1.0F + 16.0F * std::numeric_limits<float>::epsilon();

  // All axes at once (the fourth is none), and no branches: which way a segment runs cannot be
  // predicted.
  Walker(const PlanSegment& segment, const std::array<double, 3>& reach) {
    const std::array from{segment.from.plan.x(), segment.from.plan.y(), segment.from.across, 0.0};
    const std::array to{segment.to.plan.x(), segment.to.plan.y(), segment.to.across, 0.0};
    const std::array wide{reach[0], reach[1], reach[2], 0.0};
    for (std::uint32_t axis = 0; axis < 4; ++axis) {
      const float motion = static_cast<float>(to[axis] - from[axis]);
      // So slow along this axis that it stays in place: far from 0/0, and from overflow.
      query_.inverse[axis] = 1.0F / (std::abs(motion) < 1e-25F ? 1e-25F : motion);
      query_.far_inverse[axis] = query_.inverse[axis] * kSlack;
      const float sign = std::copysign(1.0F, query_.inverse[axis]);
      query_.near[axis] = round_along(sign, from[axis] + sign * wide[axis]);
      query_.far[axis] = round_along(-sign, from[axis] - sign * wide[axis]);
      const std::uint32_t backward = query_.inverse[axis] < 0.0F ? 3 : 0;
      query_.near_side[axis] = axis + backward;
      query_.far_side[axis] = axis + 3 - backward;
    }
  }

  /// What share to look up to; a visitor may lower it while walking.
  void look_up_to(double share) { query_.limit = static_cast<float>(share) * kSlack; }

  /// True for boxes entered later than it is worth looking.
  bool is_beyond(float enter) const { return enter > query_.limit * kSlack; }

  const BoxQuery& query() const { return query_; }

 private:
  // To one of the next floats in that direction, without asking which.
  static float round_along(float sign, double value) {
    const float rounded = static_cast<float>(value);
    return rounded + sign * (std::abs(rounded) * std::numeric_limits<float>::epsilon() +
                             std::numeric_limits<float>::min());
  }

  BoxQuery query_{{}, {}, {}, {}, {}, {}, kSlack};
};

/// In large levels walking waits for memory: what is walked next is asked for at once.
inline void fetch_ahead(const Tree::Node& node) {
  const auto* bytes = reinterpret_cast<const char*>(&node);
  for (std::size_t line = 0; line < sizeof node; line += 64) __builtin_prefetch(bytes + line);
}

constexpr std::size_t kStackSize = (Tree::kWidth - 1) * Tree::kMostDepth + 1;

/// Calls visit(item) for every item whose box may be touched, until it returns true.
template <typename Visit>
bool walk_any(const Tree& tree, const Walker& walker, Visit&& visit) {
  if (tree.nodes.empty()) return false;
  constexpr std::uint32_t kNone = Tree::kItemBit;
  std::array<std::uint32_t, kStackSize> stack;
  stack[0] = kNone;
  std::size_t size = 1;
  std::array<float, Tree::kWidth> enter;
  for (std::uint32_t at = 0; at != kNone;) {
    const Tree::Node& node = tree.nodes[at];
    at = kNone;
    for (unsigned mask = tree.touch(node, walker.query(), enter.data()); mask != 0;
         mask &= mask - 1) {
      const std::uint32_t child = node.child[static_cast<std::size_t>(std::countr_zero(mask))];
      if ((child & Tree::kItemBit) != 0) {
        if (visit(child & ~Tree::kItemBit)) return true;
        continue;
      }
      fetch_ahead(tree.nodes[child]);
      if (at != kNone) stack[size++] = at;
      at = child;
    }
    if (at == kNone) at = stack[--size];
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
  std::array<Entry, kStackSize> stack;
  std::size_t size = 0;
  stack[size++] = {0, 0.0F};
  std::array<float, Tree::kWidth> enter;
  while (size > 0) {
    const Entry top = stack[--size];
    if (walker.is_beyond(top.enter)) continue;
    if ((top.child & Tree::kItemBit) != 0) {
      visit(top.child & ~Tree::kItemBit);
      continue;
    }
    const Tree::Node& node = tree.nodes[top.child];
    const std::size_t bottom = size;
    for (unsigned mask = tree.touch(node, walker.query(), enter.data()); mask != 0;
         mask &= mask - 1) {
      const auto slot = static_cast<std::size_t>(std::countr_zero(mask));
      std::size_t at = size++;
      for (; at > bottom && stack[at - 1].enter < enter[slot]; --at) stack[at] = stack[at - 1];
      stack[at] = {node.child[slot], enter[slot]};
    }
  }
}

}  // namespace gaze
