// Writes the level of a seed, judges it and plays it for so many steps: `gaze_sweep SEED STEPS`.
// Ends with status 1 if a promise is broken. `gaze_sweep SEED` prints the level.

#include <cstdio>
#include <cstdlib>

#include "fuzz/level_writer.hpp"
#include "fuzz/promises.hpp"

int main(int argc, char** argv) {
  if (argc < 2) return 2;
  gaze::fuzz::Choices choices(std::strtoull(argv[1], nullptr, 10));
  const std::string text = gaze::fuzz::write_level(choices);
  if (argc < 3) {
    std::fputs(text.c_str(), stdout);
    return 0;
  }
  try {
    const std::string broken =
        gaze::fuzz::broken_promise(gaze::read_level_text(text, "swept"), std::atoi(argv[2]));
    if (broken.empty()) return 0;
    std::printf("%s\n", broken.c_str());
    return 1;
  } catch (const gaze::LevelError&) {
    return 0;  // refused, and told why
  }
}
