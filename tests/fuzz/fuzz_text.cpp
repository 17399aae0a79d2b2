// Any bytes as the text of a level: read or refused, and what is read is judged and played.

#include <cstddef>
#include <cstdint>
#include <string_view>

#include "gaze/gaze.hpp"
#include "gaze/tools/tools.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  try {
    const gaze::Level level =
        gaze::read_level_text({reinterpret_cast<const char*>(data), size}, "fuzzed.toml");
    constexpr std::size_t kMostAgents = 200;  // what is large is tried elsewhere
    if (level.agents.size() > kMostAgents) return 0;
    static_cast<void>(gaze::judge(level));
    gaze::Simulation simulation(level);
    for (int i = 0; i < 20; ++i) simulation.step();
  } catch (const gaze::LevelError&) {
    // Refused, and told why.
  }
  return 0;
}
