// Levels that are right in structure, as designers and programs write them: judged and played, they
// keep what is promised. `scripts/sweep` tries far more of them, each in a process of its own.

#include <gtest/gtest.h>

#include <filesystem>

#include "fuzz/level_writer.hpp"
#include "fuzz/promises.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

TEST(SweptLevels, KeepWhatIsPromised) {
  std::uint64_t played = 0;
  const std::uint64_t count = testing::rounds(testing::is_sanitized() ? 50 : 150);
  for (std::uint64_t seed = 1; seed <= count; ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level) continue;
    EXPECT_EQ(fuzz::broken_promise(*level, 60), "") << "seed " << seed;
    ++played;
  }
  EXPECT_GT(played, count * 4 / 5);
}

// What a campaign once found: faces that the joints of storeys had bent sent a look round and round
// in them, bodies landed on a rim again and again.
TEST(SweptLevels, ThatOnceBrokeAPromise) {
  int count = 0;
  for (const auto& kept : std::filesystem::directory_iterator(GAZE_KEPT)) {
    if (kept.path().extension() != ".toml") continue;
    ++count;
    EXPECT_EQ(fuzz::broken_promise(read_level(kept.path()), 5), "") << kept.path();
  }
  EXPECT_GE(count, 3);
}

// Each of its corners splits what is seen of all others.
TEST(SweptLevels, WithAStarThatBreaks) {
  const int corners = testing::is_sanitized() ? 80 : 200;
  std::string outline;
  for (int i = 0; i < corners; ++i) {
    const double away = i % 2 == 0 ? 8.0 : 20.0;
    const double angle = 2.0 * 3.14159265358979323846 * i / corners;
    outline += "[" + std::to_string(away * std::cos(angle)) + ", " +
               std::to_string(away * std::sin(angle)) + "], ";
  }
  const Level level = testing::garden(
      "[[block]]\nid = \"star\"\nmaterial = \"brick\"\nhealth = 5\noutline = [" + outline +
      "]\n[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.sight]\nrange = 20\n"
      "field_of_view = 90\n[kind.pruner.move]\nspeed = 2\n[kind.pruner.when]\nsees = "
      "\"chase\"\n[kind.collector]\nteam = \"visitors\"\n" +
      testing::placed("pruner", "pruner", "[-30, 5]") +
      testing::placed("collector", "collector", "[30, -5]", "driver = \"host\""));
  EXPECT_EQ(fuzz::broken_promise(level, 5), "");
}

}  // namespace
}  // namespace gaze
