// Reports of events that a host brings about.

#include <gtest/gtest.h>

#include "gaze/tools/duel.hpp"
#include "gaze/tools/report.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;

const std::string kScene =
    "[kind.pruner]\nteam = \"caretakers\"\nsight = { range = 9, field_of_view = 360 }\n"
    "attack.snip = { how = \"strike\", range = 3.0, damage = 4, cooldown = 0.25 }\n"
    "[kind.guest]\nteam = \"visitors\"\nhealth = 500\n" +
    placed("guest", "guest", "[0, 0]", "driver = \"host\"");

std::vector<Event> step(Simulation& game, int ticks) {
  return testing::play(game, ticks);
}

TEST(HostEvents, AHurtThatNobodyCausedIsReported) {
  Simulation game(garden(kScene));
  step(game, 1);
  game.hurt(game.agent("guest"), 10.0);
  const std::vector<Event> events(game.events().begin(), game.events().end());
  EXPECT_NE(timeline(game, events).find("guest lost 10 health"), std::string::npos)
      << timeline(game, events);
  EXPECT_NE(summary(game, events).find("490"), std::string::npos);
  EXPECT_TRUE(duels(game, events).empty());
}

TEST(HostEvents, AgentsThatHadTheSameNumberAreToldApart) {
  Simulation game(garden(kScene));
  std::vector<Event> all;
  std::vector<AgentId> pruners;
  for (int i = 0; i < 3; ++i) {
    pruners.push_back(game.spawn("pruner", {2.0, 0.0, 0.0}, {}));
    const auto events = step(game, 120);
    all.insert(all.end(), events.begin(), events.end());
    if (i < 2) game.despawn(pruners.back());
  }
  ASSERT_EQ(pruners[0].index, pruners[1].index);
  ASSERT_NE(pruners[0].generation, pruners[1].generation);
  const std::vector<Duel> found = duels(game, all);
  ASSERT_EQ(found.size(), 3U);
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_EQ(found[i].by, pruners[i]);
    EXPECT_NEAR(found[i].dealt, 4.0 * 8, 4.0);  // 2 s, four times a second
  }
}

}  // namespace
}  // namespace gaze
