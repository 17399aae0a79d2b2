// Levels that are right in structure, as designers and programs write them: judged and played, they
// keep what is promised. `scripts/sweep` tries far more of them, each in a process of its own.

#include <gtest/gtest.h>

#include "fuzz/level_writer.hpp"
#include "fuzz/promises.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

TEST(SweptLevels, KeepWhatIsPromised) {
  std::uint64_t played = 0;
  const std::uint64_t count = testing::rounds(150);
  for (std::uint64_t seed = 1; seed <= count; ++seed) {
    fuzz::Choices choices(seed);
    const std::string text = fuzz::write_level(choices);
    try {
      EXPECT_EQ(fuzz::broken_promise(read_level_text(text, "swept"), 60), "") << "seed " << seed;
      ++played;
    } catch (const LevelError&) {
      // Refused, and told why: a few keys do not go together.
    }
  }
  EXPECT_GT(played, count * 4 / 5);
}

// Faces that the joints of storeys had bent once sent a look round and round in them.
TEST(SweptLevels, ThatOnceWentOnWithoutEnd) {
  for (const std::uint64_t seed : {1133, 1202, 1233, 1111, 1184, 1186, 1198}) {
    fuzz::Choices choices(seed);
    const Level level = read_level_text(fuzz::write_level(choices), "swept");
    EXPECT_EQ(fuzz::broken_promise(level, 5), "") << "seed " << seed;
  }
}

}  // namespace
}  // namespace gaze
