// Choices made by bytes: levels that are right in structure, which must keep what is promised.

#include <cstdio>
#include <cstdlib>

#include "fuzz/level_writer.hpp"
#include "fuzz/promises.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  gaze::fuzz::Choices choices(std::span<const std::uint8_t>(data, size));
  const std::string text = gaze::fuzz::write_level(choices);
  try {
    const std::string broken =
        gaze::fuzz::broken_promise(gaze::read_level_text(text, "fuzzed"), 30);
    if (broken.empty()) return 0;
    std::fprintf(stderr, "%s\n%s\n", text.c_str(), broken.c_str());
    std::abort();
  } catch (const gaze::LevelError&) {
    return 0;  // refused, and told why
  }
}
