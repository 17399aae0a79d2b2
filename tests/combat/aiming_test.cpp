// Attacks that a script aims.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

const std::string kSprinkler =
    "[kind.sprinkler]\nteam = \"caretakers\"\nmove = { gait = \"fixed\", turn_rate = 90 }\n"
    "attack.jet = { how = \"shot\", range = 40.0, speed = 20.0, damage = 1.0, cooldown = 0.25 }\n";

std::vector<double> fired_at(const std::string& script, int rate) {
  Simulation simulation(
      garden(kSprinkler + placed("sprinkler", "sprinkler", "[0, 0]", "script = [" + script + "]"),
             {{"ticks_per_second", std::to_string(rate)}}));
  std::vector<double> seconds;
  for (const Event& event : only(play(simulation, 5 * rate), Event::What::fired)) {
    seconds.push_back(testing::seconds_of(event, simulation));
  }
  return seconds;
}

TEST(Aiming, WithoutADurationMakesOneAttack) {
  for (const int rate : {20, 60, 240}) {
    const auto ahead = fired_at("{ wait = 1.0 }, { aim = [30, 0] }", rate);
    ASSERT_EQ(ahead.size(), 1U) << rate;
    EXPECT_NEAR(ahead[0], 1.0, 1.01 / rate);
    // 90 degrees at 90 degrees a second, to within the degree that counts as turned.
    const auto turned = fired_at("{ wait = 1.0 }, { aim = [0, 30] }, { wait = 1.0 }", rate);
    ASSERT_EQ(turned.size(), 1U) << rate;
    EXPECT_NEAR(turned[0], 2.0, 1.0 / 90 + 1.01 / rate);
    // Each of two aims makes its own, as soon as the cooldown allows it.
    const auto twice = fired_at("{ aim = [30, 0] }, { wait = 1.0 }, { aim = [30, 0] }", rate);
    EXPECT_EQ(twice.size(), 2U) << rate;
  }
}

}  // namespace
}  // namespace gaze
