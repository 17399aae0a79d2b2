// What a host does to a game between two steps.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

Level garden(const std::string& kinds, const std::string& rest) {
  return read_level_text(std::string(testing::kTeams) + kinds + rest, "host.toml");
}

const char* const kPruner = R"(
[kind.pruner]
team = "caretakers"
health = 50
[kind.pruner.sight]
range = 30
field_of_view = 360
remember = 2
[kind.pruner.move]
speed = 2
[kind.pruner.when]
sees = "chase"
hurt = "flee"
[kind.guest]
team = "visitors"
)";

Level chase(const std::string& more = "") {
  return garden(kPruner, testing::placed("pruner", "pruner", "[0, 0]") +
                             testing::placed("guest", "guest", "[10, 0]", "driver = \"host\"") +
                             more);
}

std::string told(const Simulation& simulation) {
  std::string text;
  for (const Event& event : simulation.events()) text += simulation.describe(event) + "\n";
  return text;
}

TEST(Host, TeleportsAnybodyWhoThenGoesOnWithWhatItWasAbout) {
  Simulation simulation(chase());
  const AgentId pruner = simulation.agent("pruner");
  for (int i = 0; i < 30; ++i) simulation.step();
  ASSERT_EQ(simulation.state(pruner).mode, Mode::chase);
  EXPECT_TRUE(simulation.teleport(pruner, {10.0, 8.0, 0.0}, Angle::from_degrees(90.0)));
  EXPECT_EQ(simulation.state(pruner).position, (Vector3d{10.0, 8.0, 0.0}));
  EXPECT_EQ(simulation.state(pruner).facing, (Vector2d{0.0, 1.0}));
  EXPECT_EQ(simulation.state(pruner).mode, Mode::chase);
  for (int i = 0; i < 60; ++i) simulation.step();
  EXPECT_NEAR(simulation.state(pruner).position.y(), 6.0, 0.05);  // a second of 2 m/s towards it
  EXPECT_THROW(simulation.teleport(pruner, {3e4, 0.0, 0.0}, {}), UsageError);
}

TEST(Host, HurtsUntilItIsDefeatedAndBringsItBack) {
  Simulation simulation(chase());
  const AgentId pruner = simulation.agent("pruner");
  const AgentId guest = simulation.agent("guest");
  simulation.step();
  EXPECT_TRUE(simulation.hurt(pruner, 20.0, guest));
  EXPECT_TRUE(told(simulation).ends_with("pruner lost 20 health to guest, 30 left\n"));
  simulation.step();
  EXPECT_EQ(simulation.state(pruner).mode, Mode::flee);  // its reaction
  EXPECT_TRUE(simulation.heal(pruner, 5.0));
  EXPECT_EQ(simulation.state(pruner).health, 35.0);
  EXPECT_TRUE(simulation.heal(pruner, 500.0));
  EXPECT_EQ(simulation.state(pruner).health, 50.0);
  EXPECT_TRUE(simulation.hurt(pruner, 1000.0));
  EXPECT_FALSE(simulation.state(pruner).is_alive);
  EXPECT_EQ(simulation.state(pruner).mode, Mode::out);
  EXPECT_NE(told(simulation).find("pruner was defeated\n"), std::string::npos);
  EXPECT_FALSE(simulation.hurt(pruner, 1.0));
  EXPECT_FALSE(simulation.heal(pruner, 1.0));
  EXPECT_FALSE(simulation.teleport(pruner, {0.0, 0.0, 0.0}, {}));
  EXPECT_TRUE(simulation.revive(pruner));
  EXPECT_FALSE(simulation.revive(pruner));
  EXPECT_EQ(simulation.state(pruner).health, 50.0);
  EXPECT_EQ(simulation.state(pruner).position, (Vector3d{0.0, 0.0, 0.0}));
  for (int i = 0; i < 10; ++i) simulation.step();
  EXPECT_EQ(simulation.state(pruner).mode, Mode::chase);  // it plays again
  EXPECT_THROW(simulation.hurt(pruner, -1.0), UsageError);
  EXPECT_THROW(simulation.heal(pruner, std::numeric_limits<double>::quiet_NaN()), UsageError);
}

// A defeat by the host brings all that a defeat brings: a burst that hurts a friend near by, and
// something that is left behind.
TEST(Host, ADefeatByItBurstsAndLeavesBehind) {
  Simulation simulation(garden(R"(
[kind.jar]
team = "caretakers"
health = 10
defeat = { attack = "boom", leaves = "shard" }
[kind.jar.attack.boom]
how = "burst"
range = 3
damage = 40
cooldown = 1
friends = "hurt"
blast_fall_off = 0
[kind.shard]
)",
                               testing::placed("jar-1", "jar", "[0, 0]") +
                                   testing::placed("jar-2", "jar", "[2, 0]") +
                                   testing::placed("jar-3", "jar", "[9, 0]")));
  simulation.step();
  simulation.hurt(simulation.agent("jar-1"), 10.0);
  EXPECT_FALSE(simulation.state(simulation.agent("jar-2")).is_alive);
  EXPECT_TRUE(simulation.state(simulation.agent("jar-3")).is_alive);
  EXPECT_TRUE(simulation.state(simulation.agent("jar-1-shard")).is_there);
  EXPECT_EQ(simulation.state(simulation.agent("jar-2-shard")).position, (Vector3d{2.0, 0.0, 0.0}));
}

TEST(Host, GivesAndTakesTags) {
  Simulation simulation(garden(
      R"(
[kind.guard]
team = "caretakers"
sight = { range = 30, field_of_view = 360 }
choose.tags = ["wanted"]
[kind.guest]
team = "visitors"
[kind.thief]
tags = ["wanted"]
)",
      testing::placed("guard", "guard", "[0, 0]") + testing::placed("guest", "guest", "[5, 0]")));
  const AgentId guard = simulation.agent("guard");
  const AgentId guest = simulation.agent("guest");
  simulation.step();
  EXPECT_EQ(simulation.awareness(guard, guest), Awareness::unaware);
  simulation.give_tag(guest, "wanted");
  simulation.step();
  EXPECT_EQ(simulation.awareness(guard, guest), Awareness::noticed);
  simulation.take_tag(guest, "wanted");
  for (int i = 0; i < 3; ++i) simulation.step();
  EXPECT_NE(simulation.awareness(guard, guest), Awareness::noticed);
  try {
    simulation.give_tag(guest, "wantd");
    FAIL();
  } catch (const UsageError& error) {
    EXPECT_STREQ(error.what(),
                 "no kind has the tag 'wantd' and no zone grants it; did you mean 'wanted'?");
  }
}

// A gate across the only way is opened by the host: the chaser that waited before it comes through.
TEST(Host, OpensWaysByTakingSolidsAway) {
  const std::string gate =
      "[[block]]\nid = \"gate\"\nmaterial = \"brick\"\nhealth = 5\n"
      "outline = [[5, -1], [5.2, -1], [5.2, 1], [5, 1]]\n" +
      testing::wall("north", "[[5.1, 1], [5.1, 30]]") +
      testing::wall("south", "[[5.1, -1], [5.1, -30]]") +
      testing::wall("ends", "[[5.1, 30], [-9, 30], [-9, -30], [5.1, -30]]");
  // It sees the guest over the wall: the sight of this one stops at nothing.
  Level level = chase("[material.mist]\nstops = [\"bodies\"]\n" + gate);
  for (Solid& solid : level.solids) solid.material = 1;
  Simulation simulation(level);
  const AgentId pruner = simulation.agent("pruner");
  for (int i = 0; i < 400; ++i) simulation.step();
  EXPECT_LT(simulation.state(pruner).position.x(), 5.0);
  const SolidId gate_id{3};  // behind the three walls
  simulation.set_gone(gate_id, true);
  Simulation copy = simulation;
  for (int i = 0; i < 400; ++i) simulation.step();
  EXPECT_GT(simulation.state(pruner).position.x(), 9.0);
  copy.set_gone(gate_id, false);
  for (int i = 0; i < 400; ++i) copy.step();
  EXPECT_LT(copy.state(pruner).position.x(), 5.0);
  EXPECT_THROW(simulation.set_gone({0}, true), UsageError);
  EXPECT_THROW(simulation.set_gone({9}, true), UsageError);
}

}  // namespace
}  // namespace gaze
