#pragma once

#include <algorithm>
#include <cstdint>
#include <limits>
#include <vector>

namespace gaze {

/// A queue that gives back the item with the least key, to within the width of a bucket. Items are
/// sorted into buckets by their key, so that taking one out needs no comparisons (Dial,
/// "Shortest-path forest with topological ordering", 1969). An item whose key is below the bucket
/// that is being emptied joins that bucket.
class BucketQueue {
 public:
  /// Empties the queue and makes it ready for keys of `low` and above. `width` is above 0.
  void reset(double low, double width) {
    heads_.assign(kBuckets, kEnd);
    items_.clear();
    beyond_.clear();
    low_ = low;
    per_width_ = 1.0 / width;
    at_ = 0;
  }

  void push(double key, std::uint32_t item) {
    const double place = (key - low_) * per_width_;
    if (!(place < static_cast<double>(kBuckets))) {
      beyond_.push_back({key, item});
      return;
    }
    const auto bucket = std::max(at_, place > 0.0 ? static_cast<std::size_t>(place) : 0);
    items_.push_back({item, heads_[bucket]});
    heads_[bucket] = static_cast<std::uint32_t>(items_.size() - 1);
  }

  /// No item that is left has a key below this one. Infinite if nothing is left.
  double least() {
    if (!find_next()) return std::numeric_limits<double>::infinity();
    return low_ + static_cast<double>(at_) / per_width_;
  }

  /// Takes an item out of the least bucket: the one that was pushed last. There has to be one,
  /// which is so while `least` is finite.
  std::uint32_t pop() {
    const Item& item = items_[heads_[at_]];
    heads_[at_] = item.next;
    return item.item;
  }

 private:
  static constexpr std::size_t kBuckets = 2048;
  static constexpr std::uint32_t kEnd = 0xFFFFFFFF;
  struct Item {
    std::uint32_t item;
    std::uint32_t next;
  };
  struct Far {
    double key;
    std::uint32_t item;
  };

  bool find_next() {
    while (true) {
      for (; at_ < kBuckets; ++at_) {
        if (heads_[at_] != kEnd) return true;
      }
      if (beyond_.empty()) {
        at_ = 0;
        return false;
      }
      move_on();
    }
  }

  // All buckets are empty now, so that they can stand for the keys that come next.
  void move_on() {
    double least = beyond_.front().key;
    for (const Far& far : beyond_) least = std::min(least, far.key);
    moving_.swap(beyond_);
    const double width = 1.0 / per_width_;
    reset(least, width);
    for (const Far& one : moving_) push(one.key, one.item);
    moving_.clear();
  }

  std::vector<std::uint32_t> heads_;
  std::vector<Item> items_;
  std::vector<Far> beyond_;
  std::vector<Far> moving_;  ///< Scratch.
  double low_ = 0.0;
  double per_width_ = 1.0;
  std::size_t at_ = 0;
};

}  // namespace gaze
