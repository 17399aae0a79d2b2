// Writes the level of a seed, judges it and plays it for so many steps: `gaze_sweep SEED STEPS`.
// Ends with status 1 if a promise is broken. `gaze_sweep SEED` prints the level.

#include <cstdio>
#include <cstdlib>

#include "fuzz/level_writer.hpp"
#include "fuzz/promises.hpp"

int main(int argc, char** argv) {
  if (argc < 2) return 2;
  const std::uint64_t seed = std::strtoull(argv[1], nullptr, 10);
  if (argc < 3) {
    gaze::fuzz::Choices choices(seed);
    std::fputs(gaze::fuzz::write_level(choices).c_str(), stdout);
    return 0;
  }
  const auto level = gaze::fuzz::level_of_seed(seed);
  if (!level) return 0;
  const std::string broken = gaze::fuzz::broken_promise(*level, std::atoi(argv[2]));
  if (broken.empty()) return 0;
  std::printf("%s\n", broken.c_str());
  return 1;
}
