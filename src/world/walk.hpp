#pragma once

#include <bit>
#include <cmath>
#include <cstring>
#include <optional>

#include "world/lanes.hpp"
#include "world/tree.hpp"

/// How a tree is walked along a segment, for something that reaches so far to either side of it.
namespace gaze {

/// A segment made ready for float boxes. Its start is rounded both ways, so that the shares at
/// which a box is entered and left are never too late and never too early by more than the
/// relative rounding of five operations, which `kSlack` covers: no box that the segment touches
/// is missed, and the decision about what lies in the box is taken elsewhere, in double.
class Walker {
 public:
  static constexpr float kSlack = 1.0F + 16.0F * std::numeric_limits<float>::epsilon();

  Walker() = default;

  // All axes at once (the fourth is none), and no branches: which way a segment runs cannot be
  // predicted.
  Walker(const PlanSegment& segment, const std::array<double, 3>& reach) {
    const Doubles from{segment.from.plan.x(), segment.from.plan.y(), segment.from.across, 0.0};
    const Doubles to{segment.to.plan.x(), segment.to.plan.y(), segment.to.across, 0.0};
    const Doubles wide{reach[0], reach[1], reach[2], 0.0};
    const Floats motion = __builtin_convertvector(to - from, Floats);
    // Along an axis that moves so little it counts as standing still. That is far from 0/0, and
    // from overflow.
    const Floats floor{kStill, kStill, kStill, kStill};
    const Floats inverse = 1.0F / (((motion < kStill) & (motion > -kStill)) ? floor : motion);
    const Floats above = round_up(__builtin_convertvector(from + wide, Floats));
    const Floats below = -round_up(__builtin_convertvector(wide - from, Floats));
    const Whole backward = inverse < 0.0F;
    const Whole axis{0, 1, 2, 3};
    store(query_.inverse, inverse);
    store(query_.far_inverse, inverse * kSlack);
    store(query_.near, backward ? below : above);
    store(query_.far, backward ? above : below);
    store(query_.near_side, axis + (backward & 3));
    store(query_.far_side, axis + 3 - (backward & 3));
  }

  /// Up to which share of the segment the walk looks. A visitor may lower it while walking.
  void look_up_to(double share) { query_.limit = static_cast<float>(share) * kSlack; }

  /// True for boxes that are entered later than the walk looks.
  bool is_beyond(float enter) const { return enter > query_.limit * kSlack; }

  const BoxQuery& query() const { return query_; }

 private:
  using Doubles = double __attribute__((vector_size(32)));
  using Floats = float __attribute__((vector_size(16)));
  using Whole = std::int32_t __attribute__((vector_size(16)));

  static constexpr float kStill = 1e-25F;  ///< Metres.

  // Rounds up to one of the next floats above; which one it is does not matter. At 0 too it goes up
  // by more than what counts as standing still: so whoever stands on the border of a box is in it
  // for the whole segment.
  static Floats round_up(const Floats& rounded) {
    constexpr float kEpsilon = std::numeric_limits<float>::epsilon();
    const Floats size = rounded < 0.0F ? -rounded : rounded;
    return rounded + (size * kEpsilon + 2.0F * kStill);
  }

  template <typename Array, typename Vector>
  static void store(Array& to, const Vector& from) {
    static_assert(sizeof to == sizeof from);
    std::memcpy(to.data(), &from, sizeof from);
  }

  BoxQuery query_{{}, {}, {}, {}, {}, {}, kSlack};
};

constexpr std::size_t kStackSize = Tree::kWidth * (Tree::kMostDepth + 1);

/// In large levels the walk waits for memory. So what will be walked soon is asked for at once.
inline void fetch_ahead(const Tree& tree, std::uint32_t child) {
  const std::size_t at = (child & Tree::kItemBit) != 0 ? 0 : child;
  const auto* bytes = reinterpret_cast<const char*>(&tree.nodes[at]);
  for (std::size_t line = 0; line < sizeof(Tree::Node); line += 64) {
    __builtin_prefetch(bytes + line);
  }
}

using Stack = std::array<std::uint32_t, kStackSize>;

/// Puts the children that may be touched on the stack. All are stored and only those touched are
/// kept: no branch, for none could be predicted. @return The new size of the stack.
inline std::size_t push_touched(const Tree& tree, const Walker& walker, const Tree::Node& node,
                                Stack& stack, std::size_t size,
                                std::array<float, Tree::kWidth>& enter) {
  const unsigned mask = tree.touch(node, walker.query(), enter.data());
  for (std::size_t slot = 0; slot < Tree::kWidth; ++slot) {
    stack[size] = node.child[slot];
    size += mask >> slot & 1U;
  }
  return size;
}

/// Calls visit(item) for every item whose box may be touched, until it returns true; fetch(item)
/// some time before, so that what it is can be asked for.
template <typename Visit, typename Fetch>
bool walk_any(const Tree& tree, const Walker& walker, Visit&& visit, Fetch&& fetch) {
  if (tree.nodes.empty()) return false;
  Stack stack;
  stack[0] = 0;
  std::size_t size = 1;
  std::array<float, Tree::kWidth> enter;
  while (size > 0) {
    const std::uint32_t at = stack[--size];
    if ((at & Tree::kItemBit) != 0) {
      if (visit(at & ~Tree::kItemBit)) return true;
      continue;
    }
    const std::size_t before = size;
    size = push_touched(tree, walker, tree.nodes[at], stack, size, enter);
    for (std::size_t i = before; i < size; ++i) {
      if ((stack[i] & Tree::kItemBit) != 0) {
        fetch(stack[i] & ~Tree::kItemBit);
      } else if (i + 1 < size) {
        fetch_ahead(tree, stack[i]);
      }
    }
  }
  return false;
}

template <typename Visit>
bool walk_any(const Tree& tree, const Walker& walker, Visit&& visit) {
  return walk_any(tree, walker, visit, [](std::uint32_t) {});
}

/// Walks for many questions, a few at a time by turns: while one waits for memory, or for the boxes
/// of a node to be compared, the others go on. `start(i)` gives the walker of question i, if it can
/// be asked; visit(i, item) says whether that is the answer; finish(i, found) takes it.
template <typename Start, typename Visit, typename Finish>
void walk_any_by_turns(const Tree& tree, std::size_t count, Start&& start, Visit&& visit,
                       Finish&& finish) {
  struct Turn {
    Walker walker;
    std::size_t question = 0;
    std::size_t size = 0;
    Stack stack;
  };
  constexpr std::size_t kAtOnce = 6;
  std::array<Turn, kAtOnce> turns;
  std::size_t next = 0;
  const auto begin_next = [&](Turn& turn) {
    while (next < count) {
      turn.question = next++;
      if (const std::optional<Walker> walker = start(turn.question)) {
        turn.walker = *walker;
        turn.stack[0] = 0;
        turn.size = 1;
        return true;
      }
      finish(turn.question, false);
    }
    return false;
  };
  std::size_t active = 0;
  while (active < kAtOnce && begin_next(turns[active])) ++active;
  std::array<float, Tree::kWidth> enter;
  while (active > 0) {
    for (std::size_t i = 0; i < active; ++i) {
      Turn& turn = turns[i];
      const std::uint32_t at = turn.stack[--turn.size];
      bool found = false;
      if ((at & Tree::kItemBit) != 0) {
        found = visit(turn.question, at & ~Tree::kItemBit);
      } else {
        turn.size = push_touched(tree, turn.walker, tree.nodes[at], turn.stack, turn.size, enter);
        if (turn.size > 0) fetch_ahead(tree, turn.stack[turn.size - 1]);
      }
      if (!found && turn.size > 0) continue;
      finish(turn.question, found);
      if (!begin_next(turn)) {
        turn = turns[--active];
        --i;
      }
    }
  }
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
    for (std::size_t i = bottom; i + 1 < size; ++i) fetch_ahead(tree, stack[i].child);
  }
}

}  // namespace gaze
