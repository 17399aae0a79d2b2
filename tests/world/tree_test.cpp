#include "world/tree.hpp"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>
#include <set>
#include <span>

#include "scenes.hpp"
#include "world/lanes.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

std::vector<Box> random_boxes(std::size_t count, std::uint64_t seed, double spread) {
  scenes::Random random(seed);
  std::vector<Box> boxes(count);
  for (Box& box : boxes) {
    for (std::size_t axis = 0; axis < 3; ++axis) {
      box.low[axis] = random.between(-spread, spread);
      box.high[axis] = box.low[axis] + random.between(0.0, 3.0);
    }
  }
  return boxes;
}

std::set<std::uint32_t> items_below(const Tree& tree, std::uint32_t node, std::size_t depth) {
  EXPECT_LE(depth, Tree::kMostDepth);
  std::set<std::uint32_t> items;
  for (std::size_t slot = 0; slot < Tree::kWidth; ++slot) {
    if ((tree.nodes[node].is_there >> slot & 1U) == 0) continue;
    const std::uint32_t child = tree.nodes[node].child[slot];
    if ((child & Tree::kItemBit) != 0) {
      EXPECT_TRUE(items.insert(child & ~Tree::kItemBit).second);
    } else {
      items.merge(items_below(tree, child, depth + 1));
    }
  }
  return items;
}

TEST(Tree, HoldsEveryItemOnce) {
  for (const std::size_t count : {1U, 2U, 8U, 9U, 65U, 1000U}) {
    EXPECT_EQ(items_below(build_tree(random_boxes(count, count, 20.0)), 0, 1).size(), count);
  }
  EXPECT_TRUE(build_tree({}).nodes.empty());
}

TEST(Tree, IsNotDeepWhenAllBoxesAreInOnePlace) {
  std::vector<Box> boxes(5000, Box{{1, 1, 1}, {2, 2, 2}});
  EXPECT_EQ(items_below(build_tree(boxes), 0, 1).size(), 5000U);
  for (std::size_t i = 0; i < boxes.size(); ++i) {  // each half as far out as the one before
    boxes[i].low[0] = boxes[i].high[0] = std::ldexp(1.0, -static_cast<int>(i % 1000));
  }
  EXPECT_EQ(items_below(build_tree(boxes), 0, 1).size(), 5000U);
}

TEST(Tree, HoldsWhatIsPutInLaterAsWell) {
  for (const std::size_t count : {1U, 8U, 9U, 300U}) {
    const std::vector<Box> boxes = random_boxes(count + 200, count, 20.0);
    Tree tree = build_tree({boxes.data(), count});
    for (std::size_t i = count; i < boxes.size(); ++i) {
      ASSERT_TRUE(put_in(tree, boxes[i], static_cast<std::uint32_t>(i)));
    }
    EXPECT_EQ(items_below(tree, 0, 1).size(), boxes.size());
  }
  Tree empty = build_tree({});
  EXPECT_FALSE(put_in(empty, Box{}, 0));
}

// Corners that lie on the lattices that nodes may have, or next to them, and far from there.
Box box_on_lattice(scenes::Random& random) {
  Box box;
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const double step = std::ldexp(1.0, static_cast<int>(random.next() % 8) - 4);
    const double far = random.next() % 4 == 0 ? 1e5 : 0.0;
    const auto next_to = [&](double value) {
      if (random.next() % 3 == 0) return value;
      return double{
          std::nextafter(static_cast<float>(value), random.next() % 2 == 0 ? -1e9F : 1e9F)};
    };
    const double low = far + step * static_cast<double>(random.next() % 300);
    box.low[axis] = next_to(low);
    box.high[axis] =
        std::max(box.low[axis], next_to(low + step * (random.next() % 2 == 0 ? 254 : 1)));
  }
  return box;
}

void expect_held(const Tree& tree, std::uint32_t node, std::span<const Box> boxes,
                 const Box& around) {
  for (std::size_t slot = 0; slot < Tree::kWidth; ++slot) {
    if ((tree.nodes[node].is_there >> slot & 1U) == 0) continue;
    Box own;
    for (std::size_t axis = 0; axis < 3; ++axis) {
      own.low[axis] = std::max(around.low[axis], double{tree.nodes[node].side(axis, slot)});
      own.high[axis] = std::min(around.high[axis], double{tree.nodes[node].side(axis + 3, slot)});
    }
    const std::uint32_t child = tree.nodes[node].child[slot];
    if ((child & Tree::kItemBit) == 0) {
      expect_held(tree, child, boxes, own);
      continue;
    }
    const Box& item = boxes[child & ~Tree::kItemBit];
    for (std::size_t axis = 0; axis < 3; ++axis) {
      EXPECT_LE(own.low[axis], item.low[axis]);
      EXPECT_GE(own.high[axis], item.high[axis]);
    }
  }
}

TEST(Tree, BoxesOfItsNodesHoldAllThatIsBelow) {
  constexpr double kFar = std::numeric_limits<double>::infinity();
  scenes::Random random(6);
  for (int i = 0; i < 3'000; ++i) {
    std::vector<Box> boxes(1 + random.next() % 20);
    for (Box& box : boxes) box = box_on_lattice(random);
    const std::size_t at_first = 1 + random.next() % boxes.size();
    Tree tree = build_tree({boxes.data(), at_first});
    for (std::size_t k = at_first; k < boxes.size(); ++k) {
      ASSERT_TRUE(put_in(tree, boxes[k], static_cast<std::uint32_t>(k)));
    }
    expect_held(tree, 0, boxes, {{-kFar, -kFar, -kFar}, {kFar, kFar, kFar}});
    ASSERT_FALSE(HasFailure()) << i;
  }
}

// Where each is put into the box of the one before, a path grows with each of them.
TEST(Tree, RefusesToBecomeTooDeep) {
  Tree tree = build_tree(random_boxes(8, 3, 20.0));
  std::size_t count = 8;
  for (double size = 1.0; count < 5'000; size /= 2.0, ++count) {
    const Box box{{1.0, 1.0, 1.0}, {1.0 + size, 1.0 + size, 1.0 + size}};
    const std::size_t nodes = tree.nodes.size();
    if (put_in(tree, box, static_cast<std::uint32_t>(count))) continue;
    EXPECT_EQ(tree.nodes.size(), nodes);
    break;
  }
  EXPECT_LT(count, 5'000U);
  EXPECT_EQ(items_below(tree, 0, 1).size(), count);
}

bool touches(const Box& box, const PlanSegment& s) {  // slabs in double
  const double from[] = {s.from.plan.x(), s.from.plan.y(), s.from.across};
  const double to[] = {s.to.plan.x(), s.to.plan.y(), s.to.across};
  double enter = 0.0;
  double leave = 1.0;
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const double way = to[axis] - from[axis];
    if (way == 0.0) {
      if (from[axis] < box.low[axis] || from[axis] > box.high[axis]) return false;
      continue;
    }
    const double a = (box.low[axis] - from[axis]) / way;
    const double b = (box.high[axis] - from[axis]) / way;
    enter = std::max(enter, std::min(a, b));
    leave = std::min(leave, std::max(a, b));
  }
  return enter <= leave;
}

TEST(Walk, MissesNoBoxThatIsTouchedNearOrFarFromTheOrigin) {
  for (const double spread : {5.0, 200.0, 20'000.0}) {
    const std::vector<Box> boxes = random_boxes(400, 9, spread);
    const Tree tree = build_tree(boxes);
    scenes::Random random(4);
    std::size_t expected_total = 0;
    for (int i = 0; i < 500; ++i) {
      // From a corner of one box to a corner of another: every touch a graze.
      const Box& a = boxes[random.next() % 400];
      const Box& b = boxes[random.next() % 400];
      PlanSegment segment{{{a.low[0], a.high[1]}, a.low[2]}, {{b.high[0], b.low[1]}, b.high[2]}};
      if (i % 5 == 0) segment.to.plan.x() = segment.from.plan.x();
      if (i % 7 == 0) segment.to.across = segment.from.across;
      std::set<std::uint32_t> found;
      walk_any(tree, Walker(segment, {0, 0, 0}), [&](std::uint32_t item) {
        found.insert(item);
        return false;
      });
      for (std::uint32_t item = 0; item < boxes.size(); ++item) {
        if (!touches(boxes[item], segment)) continue;
        ++expected_total;
        ASSERT_TRUE(found.contains(item)) << spread << " " << i;
      }
    }
    EXPECT_GT(expected_total, 500U);
  }
}

// In whole numbers many sides and ways run through 0, where a float has nothing to round.
TEST(Walk, MissesNoBoxWhoseSideItRunsAlong) {
  scenes::Random random(3);
  const auto whole = [&] { return static_cast<double>(random.next() % 7) - 3.0; };
  std::size_t along_zero = 0;
  for (int i = 0; i < 20'000; ++i) {
    Box box;
    for (std::size_t axis = 0; axis < 3; ++axis) {
      box.low[axis] = whole();
      box.high[axis] = box.low[axis] + static_cast<double>(random.next() % 4);
    }
    const Tree tree = build_tree(std::vector{box});
    PlanSegment way{{{whole(), whole()}, whole()}, {{whole(), whole()}, whole()}};
    if (i % 2 == 0) way.to.plan.y() = way.from.plan.y();
    const bool is_found =
        walk_any(tree, Walker(way, {0, 0, 0}), [](std::uint32_t) { return true; });
    if (!touches(box, way)) continue;
    ASSERT_TRUE(is_found) << i;
    along_zero += way.from.plan.y() == 0.0 && way.to.plan.y() == 0.0 ? 1U : 0U;
  }
  EXPECT_GT(along_zero, 100U);
}

TEST(Lanes, GiveTheSameBitsHoweverWide) {
  const Tree tree = build_tree(random_boxes(500, 21, 30.0));
  scenes::Random random(22);
  const auto coordinate = [&] { return random.between(-35.0, 35.0); };
  for (int i = 0; i < 2000; ++i) {
    const Walker walker({{{coordinate(), coordinate()}, coordinate()},
                         {{coordinate(), coordinate()}, coordinate()}},
                        {0.1, 0.1, 0.1});
    const Tree::Node& node = tree.nodes[random.next() % tree.nodes.size()];
    std::array<float, Tree::kWidth> plain{};
    std::array<float, Tree::kWidth> wide{};
    const unsigned mask = touch_boxes_plainly(node, walker.query(), plain.data());
    ASSERT_EQ(fastest_touch()(node, walker.query(), wide.data()), mask);
    for (std::size_t slot = 0; slot < Tree::kWidth; ++slot) {
      if ((mask >> slot & 1U) != 0) {
        ASSERT_EQ(plain[slot], wide[slot]);
      }
    }
  }
}

}  // namespace
}  // namespace gaze
