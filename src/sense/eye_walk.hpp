#pragma once

#include <algorithm>
#include <array>
#include <bit>
#include <cstdint>
#include <span>

#include "geometry/slanted.hpp"
#include "sense/outlook.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {

/// Sides of a box in the plan, as seen from the eye.
struct EyeBox {
  double left = 0.0;
  double right = 0.0;
  double bottom = 0.0;
  double top = 0.0;

  double distance2() const {
    const double x = std::max(std::max(left, -right), 0.0);
    const double y = std::max(std::max(bottom, -top), 0.0);
    return x * x + y * y;
  }
};

/// Adds what one eye sees of a world to its outlook: near boxes first, and none that is hidden by
/// what has been added before.
class EyeWalk {
 public:
  /// @param tree    Of pieces of the world.
  /// @param pieces  By number in the tree; none: the tree has their own numbers.
  EyeWalk(const World& world, const Tree& tree, std::span<const std::uint32_t> pieces,
          const PlanPoint& eye, double range, Stops what, Outlook& outlook)
      : world_(world),
        index_(index_of(world)),
        tree_(tree),
        pieces_(pieces),
        eye_(eye),
        range2_(range * range),
        what_(what),
        outlook_(outlook),
        around_({eye, eye}, {range, range, 0.0}) {}

  /// @return False if the eye is in or on a solid that stops sight.
  bool walk() {
    if (tree_.nodes.empty()) return true;
    stack_[size_++] = {0, 0.0, 0.0, 4.0};
    while (size_ > 0 && !is_inside_) {
      const Entry entry = stack_[--size_];
      if (outlook_.hides(entry.from, entry.to, entry.distance2)) continue;
      if ((entry.child & Tree::kItemBit) != 0) {
        const std::uint32_t item = entry.child & ~Tree::kItemBit;
        add_piece(pieces_.empty() ? item : pieces_[item]);
      } else {
        push_children(tree_.nodes[entry.child]);
      }
    }
    return !is_inside_;
  }

 private:
  struct Entry {
    std::uint32_t child;
    double distance2;
    double from;  // turn keys that it lies between
    double to;
  };

  void push_children(const Tree::Node& node) {
    const std::size_t bottom = size_;
    unsigned mask = tree_.touch(node, around_.query(), enter_.data());
    for (; mask != 0; mask &= mask - 1) {
      const auto slot = static_cast<std::size_t>(std::countr_zero(mask));
      const auto side = [&](std::size_t which) { return double(node.side(which, slot)); };
      const EyeBox box{side(0) - eye_.plan.x(), side(3) - eye_.plan.x(), side(1) - eye_.plan.y(),
                       side(4) - eye_.plan.y()};
      const double distance2 = box.distance2();
      if (!(distance2 <= range2_)) continue;
      Entry entry{node.child[slot], distance2, 0.0, 4.0};
      if (distance2 > 0.0) set_keys(box, entry);
      std::size_t at = size_++;
      for (; at > bottom && stack_[at - 1].distance2 < distance2; --at) stack_[at] = stack_[at - 1];
      stack_[at] = entry;
    }
  }

  // The two corners that bound a box as seen from outside, and a little more for rounding.
  static void set_keys(const EyeBox& box, Entry& entry) {
    constexpr double kSlack = 1e-12;
    const bool is_right = box.left > 0.0;
    const bool is_left = box.right < 0.0;
    const bool is_above = box.bottom > 0.0;
    const bool is_below = box.top < 0.0;
    // Clockwise end and anticlockwise end of its silhouette.
    const Vector2d first{is_above || (is_left && !is_below) ? box.right : box.left,
                         is_left || (is_below && !is_right) ? box.top : box.bottom};
    const Vector2d last{is_below || (is_left && !is_above) ? box.right : box.left,
                        is_right || (is_below && !is_left) ? box.top : box.bottom};
    entry.from = std::max(0.0, turn_key(first) - kSlack);
    entry.to = std::min(4.0, turn_key(last) + kSlack);
  }

  void add_piece(std::uint32_t piece) {
    if (!stops(world_, piece, what_)) return;
    const PieceShape shape(index_, piece);
    const Slice slice(shape.prism(), eye_.across, eye_.across);
    if (slice.is_empty()) return;
    const Prism prism = slice.prism();
    const Vector2d& eye = eye_.plan;
    const std::size_t count = prism.edges.size();
    bool inside = true;
    for (std::size_t first = 0; first < count; first += 64) {
      const std::size_t most = std::min<std::size_t>(64, count - first);
      std::uint64_t facing = 0;  // which face the eye: gathered first, for that is unpredictable
      for (std::size_t i = 0; i < most; ++i) {
        const bool faces = prism.edges[first + i].side(eye.x(), eye.y()) < 0.0;
        facing |= static_cast<std::uint64_t>(faces) << i;
      }
      inside = inside && facing == 0;
      for (; facing != 0; facing &= facing - 1) {
        const std::size_t i = first + static_cast<std::size_t>(std::countr_zero(facing));
        const PrismEdge& edge = prism.edges[i];
        const PrismEdge& next = prism.edges[i + 1 < count ? i + 1 : 0];
        outlook_.add(Vector2d{edge.x, edge.y} - eye, Vector2d{next.x, next.y} - eye,
                     {index_.pieces[piece].solid});
      }
    }
    is_inside_ |= inside;
  }

  const World& world_;
  const World::Index& index_;
  const Tree& tree_;
  std::span<const std::uint32_t> pieces_;
  PlanPoint eye_;
  double range2_;
  Stops what_;
  Outlook& outlook_;
  Walker around_;
  std::array<float, Tree::kWidth> enter_{};
  std::array<Entry, kStackSize> stack_;
  std::size_t size_ = 0;
  bool is_inside_ = false;
};

}  // namespace gaze
