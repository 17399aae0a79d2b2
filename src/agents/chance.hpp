#pragma once

#include <cstdint>
#include <vector>

/// The generator splitmix64 (Steele, Lea and Flood, "Fast splittable pseudorandom number
/// generators", 2014).
namespace gaze {

constexpr std::uint64_t kGoldenStep = 0x9E3779B97F4A7C15ULL;

constexpr std::uint64_t scrambled(std::uint64_t z) {
  z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9ULL;
  z = (z ^ (z >> 27U)) * 0x94D049BB133111EBULL;
  return z ^ (z >> 31U);
}

/// Random numbers, one stream for each agent, so that what one draws changes nothing for others.
class Chance {
 public:
  Chance() = default;
  Chance(std::uint64_t seed, std::size_t agents) { add_agents(seed, agents); }

  /// A stream for each agent from those that there are up to so many.
  void add_agents(std::uint64_t seed, std::size_t agents) {
    for (std::size_t who = random_.size(); who < agents; ++who) {
      random_.push_back(scrambled(scrambled(seed + kGoldenStep) + who));
    }
  }

  /// Where each stream is, for saves.
  std::vector<std::uint64_t>& streams() { return random_; }

  /// A number that is evenly distributed over [0, 1), from the stream of that agent.
  double share(std::uint32_t who) {
    random_[who] += kGoldenStep;
    return static_cast<double>(scrambled(random_[who]) >> 11U) * 0x1.0p-53;
  }

 private:
  std::vector<std::uint64_t> random_;
};

}  // namespace gaze
