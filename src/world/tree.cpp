#include "world/tree.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace gaze {
namespace {

constexpr std::size_t kBins = 16;
constexpr std::size_t kDeepest = 32;  // from here on ranges are halved whatever they hold

float round_down(double value) {
  const float rounded = static_cast<float>(std::clamp<double>(value, -kFarthest, kFarthest));
  return static_cast<double>(rounded) > value
             ? std::nextafter(rounded, -std::numeric_limits<float>::infinity())
             : rounded;
}

struct FloatBox {
  std::array<float, 3> low{kFarthest, kFarthest, kFarthest};
  std::array<float, 3> high{-kFarthest, -kFarthest, -kFarthest};

  void add(const FloatBox& other) {
    for (std::size_t axis = 0; axis < 3; ++axis) {
      low[axis] = std::min(low[axis], other.low[axis]);
      high[axis] = std::max(high[axis], other.high[axis]);
    }
  }

  // Endless boxes all have the same extent across; a bounded stand-in keeps the areas comparable.
  double area() const {
    std::array<double, 3> size{};
    for (std::size_t axis = 0; axis < 3; ++axis) {
      size[axis] = std::clamp<double>(static_cast<double>(high[axis]) - low[axis], 0.0, 1e6);
    }
    return size[0] * size[1] + size[1] * size[2] + size[2] * size[0];
  }

  float centre(std::size_t axis) const { return 0.5F * low[axis] + 0.5F * high[axis]; }
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
};

class Builder {
 public:
  explicit Builder(std::span<const Box> boxes) {
    items_.reserve(boxes.size());
    for (const Box& box : boxes) {
      Item item{{}, static_cast<std::uint32_t>(items_.size())};
      for (std::size_t axis = 0; axis < 3; ++axis) {
        item.box.low[axis] = round_down(box.low[axis]);
        item.box.high[axis] = -round_down(-box.high[axis]);
      }
      items_.push_back(item);
    }
  }

  Tree build() {
    if (!items_.empty()) add_node(range(0, items_.size(), 0));
    tree_.nodes.shrink_to_fit();
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
    tree_.nodes.push_back(empty_node());
    std::array<Range, 4> parts{whole};
    const std::size_t count = split_in_four(parts);
    for (std::size_t slot = 0; slot < count; ++slot) {
      const Range& part = parts[slot];
      const std::uint32_t child =
          part.size() == 1 ? items_[part.begin].index | Tree::kItemBit : add_node(part);
      fill(tree_.nodes[at], slot, part.box, child);
    }
    return at;
  }

  static Tree::Node empty_node() {
    Tree::Node node{};
    for (std::size_t axis = 0; axis < 3; ++axis) {
      node.low[axis].fill(std::numeric_limits<float>::infinity());
      node.high[axis].fill(-std::numeric_limits<float>::infinity());
    }
    return node;
  }

  static void fill(Tree::Node& node, std::size_t slot, const FloatBox& box, std::uint32_t child) {
    for (std::size_t axis = 0; axis < 3; ++axis) {
      node.low[axis][slot] = box.low[axis];
      node.high[axis][slot] = box.high[axis];
    }
    node.child[slot] = child;
  }

  std::size_t split_in_four(std::array<Range, 4>& parts) {
    std::size_t count = 1;
    while (count < 4) {
      std::size_t widest = count;
      for (std::size_t i = 0; i < count; ++i) {
        if (parts[i].size() > 1 && (widest == count || parts[i].cost() > parts[widest].cost())) {
          widest = i;
        }
      }
      if (widest == count) break;
      const Range whole = parts[widest];
      const std::size_t middle = split(whole);
      parts[widest] = range(whole.begin, middle, whole.depth + 1);
      parts[count++] = range(middle, whole.end, whole.depth + 1);
    }
    return count;
  }

  std::size_t split(const Range& whole) {
    FloatBox centres;
    for (std::size_t i = whole.begin; i < whole.end; ++i) {
      FloatBox point;
      for (std::size_t axis = 0; axis < 3; ++axis) {
        point.low[axis] = point.high[axis] = items_[i].box.centre(axis);
      }
      centres.add(point);
    }
    std::size_t axis = 0;
    for (std::size_t other = 1; other < 3; ++other) {
      if (centres.high[other] - centres.low[other] > centres.high[axis] - centres.low[axis]) {
        axis = other;
      }
    }
    if (whole.depth >= kDeepest || !(centres.high[axis] > centres.low[axis])) {
      return halve(whole, axis);
    }
    return split_by_bins(whole, axis, centres.low[axis], centres.high[axis]);
  }

  std::size_t halve(const Range& whole, std::size_t axis) {
    const std::size_t middle = whole.begin + whole.size() / 2;
    const auto first = items_.begin();
    std::nth_element(first + std::ptrdiff_t(whole.begin), first + std::ptrdiff_t(middle),
                     first + std::ptrdiff_t(whole.end), [axis](const Item& a, const Item& b) {
                       const float left = a.box.centre(axis);
                       const float right = b.box.centre(axis);
                       return left != right ? left < right : a.index < b.index;
                     });
    return middle;
  }

  std::size_t split_by_bins(const Range& whole, std::size_t axis, float low, float high) {
    const float scale = static_cast<float>(kBins) / (high - low);
    const auto bin_of = [=](const Item& item) {
      const float place = (item.box.centre(axis) - low) * scale;
      return std::min(static_cast<std::size_t>(place), kBins - 1);
    };
    std::array<Bin, kBins> bins;
    for (std::size_t i = whole.begin; i < whole.end; ++i) {
      Bin& bin = bins[bin_of(items_[i])];
      bin.box.add(items_[i].box);
      ++bin.count;
    }
    const std::size_t cut = best_cut(bins);
    const auto first = items_.begin() + std::ptrdiff_t(whole.begin);
    const auto middle = std::stable_partition(first, items_.begin() + std::ptrdiff_t(whole.end),
                                              [&](const Item& item) { return bin_of(item) < cut; });
    const auto split_at = static_cast<std::size_t>(middle - items_.begin());
    return split_at == whole.begin || split_at == whole.end ? halve(whole, axis) : split_at;
  }

  // The number of bins that go to the left so that the summed area times count is least.
  static std::size_t best_cut(const std::array<Bin, kBins>& bins) {
    std::array<double, kBins> right_cost{};
    Bin right;
    for (std::size_t i = kBins - 1; i > 0; --i) {
      right.box.add(bins[i].box);
      right.count += bins[i].count;
      right_cost[i] = right.count == 0 ? 0.0 : right.box.area() * static_cast<double>(right.count);
    }
    Bin left;
    std::size_t best = 1;
    double best_cost = std::numeric_limits<double>::infinity();
    for (std::size_t i = 1; i < kBins; ++i) {
      left.box.add(bins[i - 1].box);
      left.count += bins[i - 1].count;
      if (left.count == 0) continue;
      const double cost = left.box.area() * static_cast<double>(left.count) + right_cost[i];
      if (cost < best_cost) {
        best_cost = cost;
        best = i;
      }
    }
    return best;
  }

  std::vector<Item> items_;
  Tree tree_;
};

}  // namespace

Tree build_tree(std::span<const Box> boxes) { return Builder(boxes).build(); }

}  // namespace gaze
