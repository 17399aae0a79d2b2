#include "world/tree.hpp"

#include <algorithm>
#include <bit>
#include <cmath>
#include <numeric>

#include "world/lanes.hpp"

namespace gaze {
namespace {

constexpr std::size_t kBins = 16;
constexpr double kShareAcross = 0.1;
constexpr std::size_t kDeepest = 32;  // from here on ranges are halved whatever they hold

float round_down(double value) {
  const float rounded = static_cast<float>(std::clamp<double>(value, -kFarthest, kFarthest));
  return static_cast<double>(rounded) > value
             ? std::nextafter(rounded, -std::numeric_limits<float>::infinity())
             : rounded;
}

/// The three axes side by side, so that they are worked on at once; the fourth is none.
using Lanes = float __attribute__((vector_size(16)));
using WholeLanes = std::int32_t __attribute__((vector_size(16)));

Lanes all(float value) {
  return Lanes{value, value, value, value};
}

struct FloatBox {
  Lanes low = all(kFarthest);
  Lanes high = all(-kFarthest);

  void add(const FloatBox& other) {
    low = low < other.low ? low : other.low;
    high = high > other.high ? high : other.high;
  }

  // How likely a box is to be met: sight lines and shots run along the plan far more than across
  // it, so its sides count in full and its ends little. (Endless boxes get a bounded extent
  // across.)
  double area() const {
    std::array<double, 3> size{};
    for (std::size_t axis = 0; axis < 3; ++axis) {
      size[axis] =
          std::clamp<double>(static_cast<double>(high[axis]) - double{low[axis]}, 0.0, 1e6);
    }
    return (size[0] + size[1]) * size[2] + kShareAcross * size[0] * size[1];
  }

  Lanes centre() const { return 0.5F * low + 0.5F * high; }
};

struct Item {
  FloatBox box;
  std::uint32_t index = 0;
};

struct Range {
  std::size_t begin = 0;
  std::size_t end = 0;
  FloatBox box;
  std::size_t depth = 0;

  std::size_t size() const { return end - begin; }
  double cost() const { return box.area() * static_cast<double>(size()); }
};

struct Bin {
  FloatBox box;
  std::size_t count = 0;

  void add(const Bin& other) {
    box.add(other.box);
    count += other.count;
  }
  double cost() const { return box.area() * static_cast<double>(count); }
};

/// Equal parts of each axis, for the centres of boxes.
struct Bins {
  Lanes low;
  Lanes size;

  explicit Bins(const FloatBox& centres) : low(centres.low), size(centres.high - centres.low) {
    size = size > all(0.0F) ? size : all(1.0F);
  }

  WholeLanes of(const Item& item) const {
    const Lanes share = (item.box.centre() - low) / size;
    const WholeLanes bin = __builtin_convertvector(share * static_cast<float>(kBins), WholeLanes);
    constexpr auto kLast = static_cast<std::int32_t>(kBins - 1);
    const WholeLanes last{kLast, kLast, kLast, kLast};
    return bin < last ? bin : last;
  }
};

/// A cut: what lies in the bins below `bin` of an axis goes to the left. 0 stands for no cut.
struct Cut {
  std::size_t axis = 0;
  std::size_t bin = 0;
  double cost = std::numeric_limits<double>::infinity();
};

FloatBox rounded_outwards(const Box& box) {
  FloatBox rounded;
  for (std::size_t axis = 0; axis < 3; ++axis) {
    rounded.low[axis] = round_down(box.low[axis]);
    rounded.high[axis] = -round_down(-box.high[axis]);
  }
  return rounded;
}

/// A node before its boxes are put on its lattice.
struct Children {
  std::array<FloatBox, Tree::kWidth> boxes;
  std::array<std::uint32_t, Tree::kWidth> child{};
  std::size_t count = 0;

  void add(const FloatBox& box, std::uint32_t number) {
    boxes[count] = box;
    child[count++] = number;
  }
};

// The least power of two of which 254 cover the extent; 255 are left where both ends are rounded.
// It is large enough for every side to be a float: a whole number of steps below 2^24.
double step_for(double low, double high) {
  constexpr double kLeast = 0x1p-60;
  const double far = std::max(std::abs(low), std::abs(high));
  const double step = std::max({(high - low) / 254.0, far * 0x1p-22, kLeast});
  int exponent = 0;
  const double mantissa = std::frexp(step, &exponent);  // at least a half
  return std::ldexp(1.0, mantissa == 0.5 ? exponent - 1 : exponent);
}

Tree::Node node_of(const Children& children) {
  Tree::Node node;
  node.child = children.child;
  node.is_there = (1U << children.count) - 1U;
  FloatBox whole;
  for (std::size_t slot = 0; slot < children.count; ++slot) whole.add(children.boxes[slot]);
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const double low = double{whole.low[axis]};
    const double step = step_for(low, double{whole.high[axis]});
    const double first = std::floor(low / step);  // exact, as all that follows
    node.origin[axis] = static_cast<float>(first * step);
    node.step[axis] = static_cast<float>(step);
    for (std::size_t slot = 0; slot < children.count; ++slot) {
      const FloatBox& box = children.boxes[slot];
      node.sides[axis][slot] =
          static_cast<std::uint8_t>(std::floor(double{box.low[axis]} / step) - first);
      node.sides[axis + 3][slot] =
          static_cast<std::uint8_t>(std::ceil(double{box.high[axis]} / step) - first);
    }
  }
  return node;
}

class Builder {
 public:
  explicit Builder(std::span<const Box> boxes) {
    items_.reserve(boxes.size());
    for (const Box& box : boxes) {
      items_.push_back({rounded_outwards(box), static_cast<std::uint32_t>(items_.size())});
    }
  }

  Tree build() {
    if (!items_.empty()) add_node(range(0, items_.size(), 0));
    tree_.nodes.shrink_to_fit();
    tree_.touch = fastest_touch();
    return std::move(tree_);
  }

 private:
  Range range(std::size_t begin, std::size_t end, std::size_t depth) const {
    Range result{begin, end, {}, depth};
    for (std::size_t i = begin; i < end; ++i) result.box.add(items_[i].box);
    return result;
  }

  std::uint32_t add_node(const Range& whole) {
    const auto at = static_cast<std::uint32_t>(tree_.nodes.size());
    tree_.nodes.emplace_back();
    std::array<Range, Tree::kWidth> parts{whole};
    const std::size_t count = split_up(parts);
    Children children;
    for (std::size_t slot = 0; slot < count; ++slot) {
      const Range& part = parts[slot];
      const bool is_item = part.size() == 1;
      children.add(part.box, is_item ? items_[part.begin].index | Tree::kItemBit : add_node(part));
    }
    tree_.nodes[at] = node_of(children);
    return at;
  }

  using Parts = std::array<Range, Tree::kWidth>;

  // Parts too large for one node are split, the costliest first; parts that fit in what is then
  // left of this node are taken apart into it, the smallest first.
  std::size_t split_up(Parts& parts) {
    std::size_t count = 1;
    while (count < Tree::kWidth) {
      std::size_t widest = count;
      for (std::size_t i = 0; i < count; ++i) {
        const bool is_large = parts[i].size() > Tree::kWidth;
        if (is_large && (widest == count || parts[i].cost() > parts[widest].cost())) widest = i;
      }
      if (widest == count) return take_apart(parts, count);
      const Range whole = parts[widest];
      const std::size_t middle = split(whole);
      parts[widest] = range(whole.begin, middle, whole.depth + 1);
      parts[count++] = range(middle, whole.end, whole.depth + 1);
    }
    return count;
  }

  std::size_t take_apart(Parts& parts, std::size_t count) const {
    while (true) {
      std::size_t least = count;
      for (std::size_t i = 0; i < count; ++i) {
        const bool fits = parts[i].size() > 1 && count - 1 + parts[i].size() <= Tree::kWidth;
        if (fits && (least == count || parts[i].size() < parts[least].size())) least = i;
      }
      if (least == count) return count;
      const Range whole = parts[least];
      parts[least] = range(whole.begin, whole.begin + 1, whole.depth + 1);
      for (std::size_t i = whole.begin + 1; i < whole.end; ++i) {
        parts[count++] = range(i, i + 1, whole.depth + 1);
      }
    }
  }

  std::size_t split(const Range& whole) {
    FloatBox centres;
    for (std::size_t i = whole.begin; i < whole.end; ++i) {
      const Lanes centre = items_[i].box.centre();
      centres.add({centre, centre});
    }
    if (whole.depth >= kDeepest) return halve(whole);
    const Bins bins(centres);
    const BinsOfAxes filled = fill_bins(whole, bins);
    Cut best;
    for (std::size_t axis = 0; axis < 3; ++axis) {
      if (!(centres.high[axis] > centres.low[axis])) continue;
      const Cut cut = best_cut(filled[axis], axis);
      if (cut.cost < best.cost) best = cut;
    }
    return best.bin == 0 ? halve(whole) : partition(whole, bins, best);
  }

  std::size_t halve(const Range& whole) {
    const std::size_t middle = whole.begin + whole.size() / 2;
    const auto first = items_.begin();
    std::nth_element(first + std::ptrdiff_t(whole.begin), first + std::ptrdiff_t(middle),
                     first + std::ptrdiff_t(whole.end), [](const Item& a, const Item& b) {
                       const float left = a.box.centre()[0];
                       const float right = b.box.centre()[0];
                       return left != right ? left < right : a.index < b.index;
                     });
    return middle;
  }

  std::size_t partition(const Range& whole, const Bins& bins, const Cut& cut) {
    const auto first = items_.begin() + std::ptrdiff_t(whole.begin);
    const auto bin = static_cast<std::int32_t>(cut.bin);
    const auto middle =
        std::stable_partition(first, items_.begin() + std::ptrdiff_t(whole.end),
                              [&](const Item& item) { return bins.of(item)[cut.axis] < bin; });
    return static_cast<std::size_t>(middle - items_.begin());
  }

  using BinsOfAxis = std::array<Bin, kBins>;
  using BinsOfAxes = std::array<BinsOfAxis, 3>;

  BinsOfAxes fill_bins(const Range& whole, const Bins& bins) const {
    BinsOfAxes filled;
    for (std::size_t i = whole.begin; i < whole.end; ++i) {
      const WholeLanes in = bins.of(items_[i]);
      for (std::size_t axis = 0; axis < 3; ++axis) {
        Bin& bin = filled[axis][static_cast<std::size_t>(in[axis])];
        bin.box.add(items_[i].box);
        ++bin.count;
      }
    }
    return filled;
  }

  // Where along one axis the summed area times count is least, with something on either side.
  static Cut best_cut(const BinsOfAxis& filled, std::size_t axis) {
    std::array<Bin, kBins + 1> right;  // from each bin on
    for (std::size_t i = kBins; i-- > 1;) {
      right[i] = right[i + 1];
      right[i].add(filled[i]);
    }
    Cut best{axis};
    Bin left;
    for (std::size_t i = 1; i < kBins; ++i) {
      left.add(filled[i - 1]);
      if (left.count == 0 || right[i].count == 0) continue;
      const double cost = left.cost() + right[i].cost();
      if (cost < best.cost) {
        best.cost = cost;
        best.bin = i;
      }
    }
    return best;
  }

  std::vector<Item> items_;
  Tree tree_;
};

Children children_of(const Tree::Node& node) {
  Children children;
  children.count = static_cast<std::size_t>(std::popcount(node.is_there));
  children.child = node.child;
  for (std::size_t slot = 0; slot < children.count; ++slot) {
    for (std::size_t axis = 0; axis < 3; ++axis) {
      children.boxes[slot].low[axis] = node.side(axis, slot);
      children.boxes[slot].high[axis] = node.side(axis + 3, slot);
    }
  }
  return children;
}

FloatBox with(FloatBox box, const FloatBox& other) {
  box.add(other);
  return box;
}

// The child whose box grows least.
std::size_t slot_for(const Children& children, const FloatBox& box) {
  std::size_t best = 0;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t slot = 0; slot < children.count; ++slot) {
    const FloatBox& its = children.boxes[slot];
    const double growth = with(its, box).area() - its.area();
    if (growth >= least) continue;
    least = growth;
    best = slot;
  }
  return best;
}

}  // namespace

Tree build_tree(std::span<const Box> boxes) {
  return Builder(boxes).build();
}

bool put_in(Tree& tree, const Box& box, std::uint32_t item) {
  if (tree.nodes.empty()) return false;
  const FloatBox its = rounded_outwards(box);
  const std::uint32_t leaf = item | Tree::kItemBit;
  // Down to where there is room for one more, or to an item, beside which it is put.
  std::vector<std::pair<std::uint32_t, Children>> changed;
  for (std::uint32_t at = 0;;) {
    if (changed.size() + 1 >= Tree::kMostDepth) return false;
    auto& [number, children] = changed.emplace_back(at, children_of(tree.nodes[at]));
    if (children.count < Tree::kWidth) {
      children.add(its, leaf);
      break;
    }
    const std::size_t slot = slot_for(children, its);
    const FloatBox there = children.boxes[slot];
    children.boxes[slot].add(its);
    at = children.child[slot];
    if ((at & Tree::kItemBit) == 0) continue;
    Children both;
    both.add(there, at);
    both.add(its, leaf);
    children.child[slot] = static_cast<std::uint32_t>(tree.nodes.size());
    tree.nodes.push_back(node_of(both));
    break;
  }
  for (const auto& [number, children] : changed) tree.nodes[number] = node_of(children);
  return true;
}

}  // namespace gaze
