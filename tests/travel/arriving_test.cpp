// Chasers and followers: when they have arrived, and how they set out.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "gaze/attack_answer.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

TEST(Arriving, AChaserThatWouldStopInsideItsTargetStandsWhereTheyTouch) {
  for (const double stop : {0.0, 0.3, 0.59}) {
    for (const double angle : {0.0, 0.7, 2.0}) {
      Simulation simulation(garden(
          fmt::format("[kind.pruner]\nteam = \"caretakers\"\nradius = 0.3\nnearness.range = 50\n"
                      "move = {{ speed = 4.0, stop_distance = {} }}\nwhen.near = \"chase\"\n"
                      "attack.snip = {{ how = \"touch\", damage = 1.0, cooldown = 1.0 }}\n"
                      "[kind.guest]\nteam = \"visitors\"\nradius = 0.3\n",
                      stop) +
          placed("pruner", "pruner",
                 fmt::format("[{}, {}]", -10.0 * std::cos(angle), -10.0 * std::sin(angle))) +
          placed("guest", "guest", "[0, 0]")));
      play(simulation, 5 * 60);
      const Vector3d there = simulation.state({0}).position;
      EXPECT_NEAR(there.norm(), 0.6, 1e-6) << stop;
      const auto events = play(simulation, 10 * 60);
      EXPECT_NEAR((simulation.state({0}).position - there).norm(), 0.0, 1e-6) << stop;
      EXPECT_EQ(only(events, Event::What::hurt).size(), 10U) << stop;  // once a second
    }
  }
}

TEST(Arriving, AFollowerSetsOutStraight) {
  // Leader and follower are alone, in one line: it never leaves that line.
  Simulation simulation(
      garden("[kind.goat]\nteam = \"caretakers\"\n"
             "move = { speed = 5.0, follows = [\"herder\"], follow_distance = 4.0 }\n"
             "[kind.herder]\nteam = \"caretakers\"\nmove.speed = 3.0\n" +
             placed("goat", "goat", "[0, 0]") +
             placed("herder", "herder", "[2, 0]", "script = [{ go = [60, 0] }]")));
  for (int tick = 0; tick < 20 * 60; ++tick) {
    simulation.step();
    ASSERT_NEAR(simulation.state({0}).position.y(), 0.0, 1e-9) << tick;
  }
  EXPECT_GT(simulation.state({0}).position.x(), 50.0);
}

const std::string kIcicles = R"(
plane = "upright"
ticks_per_second = 60
[kind.basket]
team = "caretakers"
radius = 0.3
height = 0.7
move = { gait = "drop", drop_height = 3.0 }
nearness = { range = 0.6, axes = "x" }
attack.crush = { how = "touch", sides = ["bottom"], damage = 7, cooldown = 0.5 }
when.near = "chase"
[kind.courier]
team = "visitors"
radius = 0.3
height = 1.6
health = 100
move.speed = 1.2
)";

TEST(FallenUpon, StrikesOnceAndLetsTheBodyOut) {
  Simulation simulation(
      garden(kIcicles + placed("one", "basket", "[0, 0]") + placed("two", "basket", "[4, 0]") +
             placed("courier", "courier", "[-3, 0]", "script = [{ go = [11, 0] }]")));
  const auto events = play(simulation, 14 * 60);
  EXPECT_LE(only(events, Event::What::hurt).size(), 2U);
  EXPECT_GE(only(events, Event::What::hurt).size(), 1U);
  ASSERT_EQ(only(events, Event::What::arrived).size(), 1U);
  // 14 m at 1.2 m/s.
  EXPECT_NEAR(testing::seconds_of(only(events, Event::What::arrived)[0], simulation), 14.0 / 1.2,
              0.2);
}

TEST(FallenUpon, WhyAgreesThatWhatLiesDoesNotStrike) {
  // The courier stands below the basket and stays there.
  Simulation simulation(garden(kIcicles + placed("one", "basket", "[0, 0]") +
                               placed("courier", "courier", "[0.1, 0]", "driver = \"host\"")));
  const AgentId basket = simulation.agent("one");
  const AgentId courier = simulation.agent("courier");
  EXPECT_EQ(only(play(simulation, 3 * 60), Event::What::hurt).size(), 1U);
  const auto answers = attacks_at(simulation, basket, courier);
  ASSERT_EQ(answers.size(), 1U);
  EXPECT_FALSE(answers[0].can);
  EXPECT_EQ(answers[0].reason, "it lies on the ground: its bottom strikes only while it falls");
  EXPECT_EQ(only(play(simulation, 3 * 60), Event::What::hurt).size(), 0U);
}

// A strike that reaches just as far as the stop distance is made wherever the chaser comes from.
TEST(Arriving, AStrikeOfJustTheStopDistanceIsMade) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(200); ++seed) {
    fuzz::Choices choices(seed);
    const double stop = choices.between(0.9, 4.0);
    const auto anywhere = [&] {
      return fmt::format("[{}, {}]", choices.between(-400, 400), choices.between(-400, 400));
    };
    const std::string guest = anywhere();
    const std::string text =
        fmt::format(
            "[kind.pruner]\nteam = \"caretakers\"\nnearness.range = 2000\n"
            "when.near = \"chase\"\nmove = {{ speed = 200, stop_distance = {} }}\n"
            "attack.snip = {{ how = \"strike\", range = {}, damage = 1, cooldown = 0.5 }}\n"
            "[kind.guest]\nteam = \"visitors\"\nhealth = 1000\n",
            stop, stop) +
        testing::placed("pruner", "pruner", anywhere()) + testing::placed("guest", "guest", guest);
    const int rate = choices.of<int>({20, 60, 144, 240});
    Simulation game(testing::garden(text, {{"ticks_per_second", std::to_string(rate)}}));
    EXPECT_GT(testing::only(testing::play(game, 8 * rate), Event::What::attacked).size(), 1U)
        << "seed " << seed;
  }
}

}  // namespace
}  // namespace gaze
