#pragma once

#include <array>
#include <bit>
#include <bitset>
#include <cstdint>
#include <cstring>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "gaze/geometry.hpp"
#include "gaze/time.hpp"

/// Values as bytes, and back. A value is written in one way alone, its lowest byte first, so that
/// the same values give the same bytes on every machine. A struct says what it consists of in a
/// function `members(archive, struct)`, which serves both directions.
namespace gaze {

/// Thrown where bytes are no value: they end too soon, or hold a number that cannot be.
struct Damaged {};

/// A number for bytes: FNV-1a of 64 bits (Fowler, Noll and Vo).
[[nodiscard]] constexpr std::uint64_t digest_of(std::string_view bytes) {
  std::uint64_t digest = 0xCBF29CE484222325ULL;
  for (const char byte : bytes) {
    digest ^= static_cast<unsigned char>(byte);
    digest *= 0x100000001B3ULL;
  }
  return digest;
}

template <typename T>
concept PlainNumber = std::is_arithmetic_v<T> || std::is_enum_v<T>;

/// The unsigned integer that is as wide.
template <typename T>
using BitsOf = std::conditional_t<
    sizeof(T) == 8, std::uint64_t,
    std::conditional_t<sizeof(T) == 4, std::uint32_t,
                       std::conditional_t<sizeof(T) == 2, std::uint16_t, std::uint8_t>>>;

/// Appends values to bytes.
class Saver {
 public:
  static constexpr bool kLoads = false;
  explicit Saver(std::string& bytes) : bytes_(bytes) {}

  template <PlainNumber T>
  void number(const T& value) {
    auto bits = std::bit_cast<BitsOf<T>>(value);
    char raw[sizeof(T)];
    for (char& byte : raw) {
      byte = static_cast<char>(bits & 0xFFU);
      if constexpr (sizeof(T) > 1) bits = static_cast<BitsOf<T>>(bits >> 8U);
    }
    bytes_.append(raw, sizeof(T));
  }
  std::size_t size(std::size_t count, std::size_t) {
    number(static_cast<std::uint32_t>(count));
    return count;
  }
  void text(const char* letters, std::size_t count) { bytes_.append(letters, count); }

 private:
  std::string& bytes_;
};

/// Takes values off bytes again.
class Loader {
 public:
  static constexpr bool kLoads = true;
  explicit Loader(std::string_view bytes) : bytes_(bytes) {}

  std::size_t left() const { return bytes_.size(); }

  template <PlainNumber T>
  void number(T& value) {
    const std::string_view raw = take(sizeof(T));
    std::uint64_t bits = 0;
    for (std::size_t i = 0; i < sizeof(T); ++i) {
      bits |= std::uint64_t{static_cast<unsigned char>(raw[i])} << (8 * i);
    }
    if constexpr (std::is_same_v<T, bool>) {
      if (bits > 1) throw Damaged{};
      value = bits == 1;
    } else {
      value = std::bit_cast<T>(static_cast<BitsOf<T>>(bits));
    }
  }
  /// How many there are of what takes so many bytes at least: no more than there are bytes for.
  std::size_t size(std::size_t, std::size_t least) {
    std::uint32_t count = 0;
    number(count);
    if (count > bytes_.size() / least) throw Damaged{};
    return count;
  }
  void text(char* letters, std::size_t count) {
    const std::string_view raw = take(count);
    if (count > 0) std::memcpy(letters, raw.data(), count);
  }

 private:
  std::string_view take(std::size_t count) {
    if (count > bytes_.size()) throw Damaged{};
    const std::string_view taken = bytes_.substr(0, count);
    bytes_.remove_prefix(count);
    return taken;
  }

  std::string_view bytes_;
};

template <typename Archive, typename T>
void archive(Archive& to, T& value);

namespace archives {

template <typename T>
struct Of {
  template <typename Archive>
  static void go(Archive& to, T& value) {
    if constexpr (PlainNumber<T>) {
      to.number(value);
    } else {
      members(to, value);
    }
  }
};

template <typename T, int kRows>
struct Of<Eigen::Matrix<T, kRows, 1>> {
  template <typename Archive>
  static void go(Archive& to, Eigen::Matrix<T, kRows, 1>& value) {
    for (int i = 0; i < kRows; ++i) {
      if constexpr (requires { to.coordinate(value[i]); }) {
        to.coordinate(value[i]);
      } else {
        to.number(value[i]);
      }
    }
  }
};

template <>
struct Of<Angle> {
  template <typename Archive>
  static void go(Archive& to, Angle& value) {
    double degrees = value.degrees();
    to.number(degrees);
    if constexpr (Archive::kLoads) value = Angle::from_degrees(degrees);
  }
};

template <>
struct Of<Duration> {
  template <typename Archive>
  static void go(Archive& to, Duration& value) {
    to.number(value.nanoseconds);
  }
};

template <std::size_t kBits>
struct Of<std::bitset<kBits>> {
  template <typename Archive>
  static void go(Archive& to, std::bitset<kBits>& value) {
    auto bits = static_cast<std::uint32_t>(value.to_ulong());
    to.number(bits);
    if constexpr (Archive::kLoads) value = bits;
  }
};

template <>
struct Of<std::string> {
  template <typename Archive>
  static void go(Archive& to, std::string& value) {
    const std::size_t count = to.size(value.size(), 1);
    if constexpr (Archive::kLoads) value.resize(count);
    to.text(value.data(), count);
  }
};

template <typename T>
struct Of<std::optional<T>> {
  template <typename Archive>
  static void go(Archive& to, std::optional<T>& value) {
    bool is_there = value.has_value();
    to.number(is_there);
    if constexpr (Archive::kLoads) {
      if (!is_there) return value.reset();
      if (!value) value.emplace();
    }
    if constexpr (requires { to.strike(value); }) return to.strike(value);
    if (is_there) archive(to, *value);
  }
};

template <typename T>
struct Of<std::vector<T>> {
  template <typename Archive>
  static void go(Archive& to, std::vector<T>& values) {
    if constexpr (requires { to.strike(values); }) return to.strike(values);
    const std::size_t count = to.size(values.size(), PlainNumber<T> ? sizeof(T) : 1);
    if constexpr (Archive::kLoads) values.resize(count);
    for (T& value : values) archive(to, value);
  }
};

template <typename T, std::size_t kCount>
struct Of<std::array<T, kCount>> {
  template <typename Archive>
  static void go(Archive& to, std::array<T, kCount>& values) {
    for (T& value : values) archive(to, value);
  }
};

template <typename Name, typename T>
struct Of<std::map<Name, T>> {
  template <typename Archive>
  static void go(Archive& to, std::map<Name, T>& values) {
    const std::size_t count = to.size(values.size(), 1);
    if constexpr (Archive::kLoads) {
      values.clear();
      for (std::size_t i = 0; i < count; ++i) {
        Name name;
        archive(to, name);
        archive(to, values[name]);
      }
    } else {
      for (auto& [name, value] : values) {
        Name copy = name;
        archive(to, copy);
        archive(to, value);
      }
    }
  }
};

}  // namespace archives

/// Writes a value, or reads it. What is written is not changed.
template <typename Archive, typename T>
void archive(Archive& to, T& value) {
  archives::Of<T>::go(to, value);
}

/// One value after the other.
template <typename Archive, typename... T>
void archive_all(Archive& to, T&... values) {
  (archive(to, values), ...);
}

}  // namespace gaze
