#pragma once

#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

namespace gaze {

/// A row for each agent, of a length of its own, one after the other in memory.
template <typename T>
class Rows {
 public:
  std::size_t size() const { return start_.size() - 1; }
  /// One more agent, with an empty row.
  void add() { start_.push_back(start_.back()); }

  std::span<T> operator[](std::uint32_t who) {
    return std::span(items_).subspan(start_[who], start_[who + 1] - start_[who]);
  }
  std::span<const T> operator[](std::uint32_t who) const {
    return std::span(items_).subspan(start_[who], start_[who + 1] - start_[who]);
  }
  /// The items of all.
  std::span<T> items() { return items_; }

  /// Gives the row of an agent another length: costs as much as the rows behind it are long, unless
  /// it has that length. What is in it has to be written anew.
  void resize(std::uint32_t who, std::size_t length) {
    const std::size_t before = start_[who + 1] - start_[who];
    if (length == before) return;
    const auto at = items_.begin() + start_[who];
    if (length > before) {
      items_.insert(at, length - before, T{});
    } else {
      items_.erase(at, at + static_cast<std::ptrdiff_t>(before - length));
    }
    for (std::size_t i = who + 1; i < start_.size(); ++i) {
      start_[i] = static_cast<std::uint32_t>(start_[i] + length - before);
    }
  }

 private:
  std::vector<std::uint32_t> start_{0};  ///< By agent, and the end.
  std::vector<T> items_;
};

}  // namespace gaze
