#pragma once

#include <cstdint>

/// splitmix64 (Steele, Lea and Flood, "Fast splittable pseudorandom number generators", 2014).
namespace gaze {

constexpr std::uint64_t kGoldenStep = 0x9E3779B97F4A7C15ULL;

constexpr std::uint64_t scrambled(std::uint64_t z) {
  z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9ULL;
  z = (z ^ (z >> 27U)) * 0x94D049BB133111EBULL;
  return z ^ (z >> 31U);
}

}  // namespace gaze
