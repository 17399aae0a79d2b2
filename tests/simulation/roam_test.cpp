// Wandering, following, fleeing, and speeds as shares of another's.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::faults_of;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::wall;

TEST(Wander, ToAndFroTurnsAtLedgesAfterAPause) {
  Simulation simulation(garden(R"(
plane = "upright"
)" + block("shelf", "[[-3.0, 1.8], [3.0, 1.8], [3.0, 2.0], [-3.0, 2.0]]") +
                               R"(
[kind.sweeper]
team = "caretakers"
[kind.sweeper.move]
speed = 1.0
[kind.sweeper.wander]
pause = 0.5
)" + placed("sweeper", "sweeper", "[0.0, 2.0]")));
  // 3 m to the right end, half a second, 6 m to the left end, half a second, and so on.
  std::vector<double> turns;
  double facing = 1.0;
  for (int tick = 1; tick <= 60 * 24; ++tick) {
    simulation.step();
    const AgentState state = simulation.state({0});
    EXPECT_EQ(state.position.z(), 2.0) << tick;
    ASSERT_LE(std::abs(state.position.x()), 3.0 + 1e-9) << tick;
    if (state.facing.x() != facing) turns.push_back(tick / 60.0);
    facing = state.facing.x();
  }
  ASSERT_EQ(turns.size(), 4U);
  for (std::size_t i = 0; i < turns.size(); ++i) {
    EXPECT_NEAR(turns[i], 3.0 + 6.5 * double(i), 0.1) << i;
  }
}

TEST(Wander, ToAndFroTurnsBeforeWalls) {
  Simulation simulation(garden(wall("east", "[[4.0, -5.0], [4.0, 5.0]]") +
                               wall("west", "[[-4.0, -5.0], [-4.0, 5.0]]") + R"(
[kind.sweeper]
team = "caretakers"
[kind.sweeper.move]
speed = 2.0
[kind.sweeper.wander]
)" + placed("sweeper", "sweeper", "[0.0, 0.0]")));
  double left = 0.0;
  double right = 0.0;
  for (int tick = 0; tick < 60 * 20; ++tick) {
    simulation.step();
    left = std::min(left, simulation.state({0}).position.x());
    right = std::max(right, simulation.state({0}).position.x());
  }
  // The walls' faces are at 3.9 m, the body reaches 0.3 m, and a step is 3.3 cm.
  EXPECT_NEAR(right, 3.6, 0.04);
  EXPECT_NEAR(left, -3.6, 0.04);
}

const std::string kFree = block("pots", "[[2.0, 2.0], [4.0, 2.0], [4.0, 4.0], [2.0, 4.0]]") + R"(
[[zone]]
id = "fernery"
outline = [[0.0, 0.0], [6.0, 0.0], [6.0, 6.0], [0.0, 6.0]]
[kind.pruner]
team = "caretakers"
[kind.pruner.move]
speed = 2.0
[kind.pruner.wander]
style = "free"
area = "fernery"
)" + placed("pruner", "pruner", "[1.0, 1.0]");

TEST(Wander, FreelyStaysInItsAreaAndComesEverywhere) {
  Simulation simulation(garden(kFree));
  std::array<bool, 4> quarters{};
  for (int tick = 0; tick < 60 * 120; ++tick) {
    simulation.step();
    const Vector3d p = simulation.state({0}).position;
    ASSERT_TRUE(p.x() >= 0.0 && p.x() <= 6.0 && p.y() >= 0.0 && p.y() <= 6.0) << tick;
    quarters[(p.x() > 3.0 ? 1U : 0U) + (p.y() > 3.0 ? 2U : 0U)] = true;
  }
  for (const bool been : quarters) EXPECT_TRUE(been);
}

TEST(Wander, IsTheSameForTheSameSeedAlone) {
  const auto end_with = [](const char* seed) {
    Simulation simulation(garden(kFree, {{"seed", seed}}));
    play(simulation, 600);
    return simulation.state({0}).position;
  };
  EXPECT_EQ(end_with("7"), end_with("7"));
  EXPECT_NE(end_with("7"), end_with("8"));
}

TEST(Follow, StaysByAFriendWithSlack) {
  Simulation simulation(
      garden(R"(
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
[kind.lantern]
team = "visitors"
[kind.lantern.move]
speed = 3.0
follows = ["collector"]
follow_distance = 2.0
)" + placed("lantern", "lantern", "[-1.0, 0.0]") +
             placed("collector", "collector", "[1.0, 0.0]", "script = [{ go = [21.0, 0.0] }]")));
  EXPECT_EQ(simulation.state({0}).mode, Mode::follow);
  for (int tick = 0; tick < 60 * 12; ++tick) {
    simulation.step();
    const double apart = (simulation.state({1}).position - simulation.state({0}).position).norm();
    EXPECT_GE(apart, 2.0 - 1e-9);
    EXPECT_LE(apart, 2.5 + 0.1);  // a quarter more, and what the leader goes in a step or two
  }
  EXPECT_GT(simulation.state({0}).position.x(), 18.0);
}

TEST(Flee, GoesToTheFarSideOfTheCircleAboutItsPost) {
  // The player comes from the west: the far side of 4 m about (10, 0) is (14, 0).
  Simulation simulation(garden(R"(
[kind.heron]
team = "caretakers"
[kind.heron.sight]
range = 20.0
field_of_view = 360.0
[kind.heron.move]
speed = 3.0
flee_distance = 4.0
[kind.heron.when]
sees = "flee"
[kind.collector]
team = "visitors"
)" + placed("heron", "heron", "[10.0, 0.0]") +
                               placed("collector", "collector", "[0.0, 0.0]")));
  play(simulation, 180);
  EXPECT_EQ(simulation.state({0}).mode, Mode::flee);
  EXPECT_EQ(simulation.state({0}).position, Vector3d(14.0, 0.0, 0.0));
}

TEST(Flee, HidesBehindWhatStopsSight) {
  const std::string text = wall("hedge", "[[-2.0, 4.0], [2.0, 4.0]]") + R"(
[kind.heron]
team = "caretakers"
[kind.heron.sight]
range = 20.0
field_of_view = 360.0
remember = 600.0
[kind.heron.move]
speed = 3.0
flee_distance = 6.0
flee_to = "out of sight"
[kind.heron.when]
sees = "flee"
[kind.collector]
team = "visitors"
)" + placed("heron", "heron", "[0.0, 0.0]") +
                           placed("collector", "collector", "[0.0, -5.0]");
  Simulation simulation(garden(text));
  play(simulation, 300);
  // Behind the hedge: nowhere else can it not be seen.
  const Vector3d at = simulation.state({0}).position;
  EXPECT_GT(at.y(), 4.1);
  const Vector3d eye{0.0, -5.0, 1.53};
  for (const double share : {0.0, 0.5, 1.0}) {
    const Segment line{eye, at + Vector3d{0.0, 0.0, 1.7 * share}};
    EXPECT_FALSE(simulation.world().is_clear(line, Stops::sight));
  }
  // Without the hedge it is the far side.
  Simulation open(garden(text, {{"wall.hedge.height", "0.1"}}));
  play(open, 300);
  EXPECT_NEAR(open.state({0}).position.y(), 6.0, 1e-6);
}

TEST(Pace, IsAShareOfAnotherKindsSpeed) {
  const Level level = garden(R"(
[kind.collector]
[kind.collector.move]
speed = 4.0
[kind.pruner]
[kind.pruner.move]
pace = 0.5
pace_of = "collector"
[kind.slow-pruner]
like = "pruner"
[kind.slow-pruner.move]
pace = 0.25
pace_of = "pruner"
)");
  EXPECT_EQ(level.kinds[1].move->speed, 2.0);
  EXPECT_EQ(level.kinds[2].move->speed, 0.5);
  EXPECT_EQ(faults_of("[kind.a.move]\npace = 0.5\n"),
            "bad.toml:2:8: error: kind.a.move.pace needs pace_of beside it: whose speed it is a "
            "share of\n");
  EXPECT_EQ(
      faults_of("[kind.a.move]\npace = 0.5\npace_of = \"a\"\n"),
      "bad.toml:3:11: error: the paces of kinds go in a circle: that of a depends on itself\n");
  EXPECT_EQ(faults_of("[kind.a.move]\npace = 0.5\npace_of = \"b\"\n"),
            "bad.toml:3:11: error: there is no kind 'b'; did you mean 'a'?\n");
}

}  // namespace
}  // namespace gaze
