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

// Ninety degrees a second: the hose has turned to the left after 1 s, and sprays from then on.
TEST(SetAim, TurnsAndThenFires) {
  const auto hose = [](const std::string& move, int rate) {
    return Simulation(testing::garden(
        "[kind.hose]\nteam = \"visitors\"\n" + move +
            "[kind.hose.attack.jet]\nhow = \"shot\"\nspeed = 20\nrange = 30\naim_tolerance = 0.5\n"
            "cooldown = 0.25\ndamage = 1\n" +
            testing::placed("hose", "hose", "[0, 0]", "driver = \"host\""),
        {{"ticks_per_second", std::to_string(rate)}}));
  };
  for (const int rate : {20, 60, 100, 240}) {
    Simulation game = hose("move = { gait = \"fixed\", turn_rate = 90.0 }\n", rate);
    const AgentId id = game.agent("hose");
    game.set_aim(id, Vector3d{0.0, 30.0, 0.5}, true);
    std::vector<std::int64_t> fired;
    for (int tick = 1; tick <= 2 * rate; ++tick) {
      game.step();
      const double turned = std::min(90.0, 90.0 * tick / rate);
      const Vector2d& facing = game.state(id).facing;
      EXPECT_NEAR(std::atan2(facing.y(), facing.x()) * 180.0 / M_PI, turned, 1e-6)
          << rate << " " << tick;
      for (const Event& event : game.events()) {
        if (event.what == Event::What::fired) fired.push_back(event.tick);
      }
    }
    ASSERT_GE(fired.size(), 4U) << rate;
    EXPECT_NEAR(static_cast<double>(fired[0]) / rate, 89.5 / 90.0, 1.0 / rate + 1e-9);
    // A kind without [move] stays as it was placed, and so never fires there.
    Simulation stays = hose("", rate);
    stays.set_aim(stays.agent("hose"), Vector3d{0.0, 30.0, 0.5}, true);
    EXPECT_EQ(testing::only(testing::play(stays, 2 * rate), Event::What::fired).size(), 0U);
    EXPECT_EQ(stays.state(stays.agent("hose")).facing, Vector2d(1.0, 0.0));
  }
}

}  // namespace
}  // namespace gaze
