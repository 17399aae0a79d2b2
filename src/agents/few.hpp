#pragma once

#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

namespace gaze {

/// What few of many agents have at a time. Who has none takes four bytes, so that copies of a game
/// stay small.
template <typename T>
class Few {
 public:
  void resize(std::size_t agents) { place_.resize(agents, kNone); }
  std::size_t size() const { return place_.size(); }

  /// That of an agent, or nothing. Valid until somebody gets or loses one.
  T* operator[](std::uint32_t who) {
    return place_[who] == kNone ? nullptr : &values_[place_[who]];
  }
  const T* operator[](std::uint32_t who) const {
    return place_[who] == kNone ? nullptr : &values_[place_[who]];
  }

  T& set(std::uint32_t who, T value) {
    if (T* own = (*this)[who]) return *own = std::move(value);
    place_[who] = static_cast<std::uint32_t>(values_.size());
    whose_.push_back(who);
    return values_.emplace_back(std::move(value));
  }
  /// That of an agent; it gets one if it has none.
  T& get(std::uint32_t who) {
    T* own = (*this)[who];
    return own != nullptr ? *own : set(who, T{});
  }

  void reset(std::uint32_t who) {
    const std::uint32_t place = std::exchange(place_[who], kNone);
    if (place == kNone) return;
    // The last one takes its place.
    if (place + 1 < values_.size()) {
      values_[place] = std::move(values_.back());
      whose_[place] = whose_.back();
      place_[whose_[place]] = place;
    }
    values_.pop_back();
    whose_.pop_back();
  }
  /// Takes it from all for whom `is_over(value)`.
  template <typename IsOver>
  void reset_if(IsOver&& is_over) {
    for (std::size_t i = values_.size(); i-- > 0;) {
      if (is_over(values_[i])) reset(whose_[i]);
    }
  }

 private:
  static constexpr std::uint32_t kNone = 0xFFFFFFFF;

  std::vector<std::uint32_t> place_;  ///< By agent: where among the values its own is.
  std::vector<T> values_;             ///< In no order.
  std::vector<std::uint32_t> whose_;  ///< By value.
};

}  // namespace gaze
