#pragma once

#include <cmath>
#include <cstdint>
#include <span>
#include <string>
#include <vector>

namespace gaze::fuzz {

/// A stream of choices: drawn from a seed, or read from bytes that somebody else varies. After the
/// last byte every choice is the first that there is.
class Choices {
 public:
  explicit Choices(std::uint64_t seed) : state_(seed), is_random_(true) {}
  explicit Choices(std::span<const std::uint8_t> bytes) : bytes_(bytes) {}

  /// In [0, count).
  std::uint32_t below(std::uint32_t count) { return count < 2 ? 0 : draw() % count; }
  bool one_in(std::uint32_t count) { return below(count) == count - 1; }

  template <typename T>
  const T& of(const std::vector<T>& things) {
    return things[below(static_cast<std::uint32_t>(things.size()))];
  }

  /// To a hundredth, so that things touch and lie in line more often than by chance.
  double between(double low, double high) {
    const auto steps = static_cast<std::uint32_t>((high - low) * 100.0) + 1;
    return std::round((low + below(steps) / 100.0) * 100.0) / 100.0;
  }

  /// As a designer would set it, and now and then an edge of what is allowed.
  double number(double low, double high, double least, double most) {
    if (one_in(25)) return one_in(2) ? most : least;
    return between(low, high);
  }

 private:
  std::uint32_t draw() {
    if (is_random_) {
      state_ += 0x9E3779B97F4A7C15ULL;  // splitmix64 (Steele, Lea and Flood, 2014)
      std::uint64_t z = state_;
      z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9ULL;
      z = (z ^ (z >> 27U)) * 0x94D049BB133111EBULL;
      return static_cast<std::uint32_t>((z ^ (z >> 31U)) >> 32U);
    }
    std::uint32_t value = 0;
    for (int i = 0; i < 2 && at_ < bytes_.size(); ++i) value = value << 8U | bytes_[at_++];
    return value;
  }

  std::uint64_t state_ = 0;
  bool is_random_ = false;
  std::span<const std::uint8_t> bytes_;
  std::size_t at_ = 0;
};

}  // namespace gaze::fuzz
