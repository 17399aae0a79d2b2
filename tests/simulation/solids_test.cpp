// Doors, and solids that break: what they stop, and the ways through where they stood.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::wall;

// A long wall with a door in the middle and a way round at its north end, y = 8.
const std::string kDoor =
    wall("south", "[[5.0, -60.0], [5.0, -0.5]]") + wall("north", "[[5.0, 0.5], [5.0, 8.0]]") + R"(
[[door]]
id = "fern-door"
material = "brick"
path = [[5.0, -0.5], [5.0, 0.5]]
thickness = 0.1
opens_for = ["caretakers"]
opens_within = 1.2
closes_after = 2.0
[kind.pruner]
team = "caretakers"
radius = 0.3
[kind.pruner.move]
speed = 2.0
[kind.collector]
team = "visitors"
radius = 0.3
[kind.collector.move]
speed = 2.0
)";

Level by_the_door(const std::string& agents) {
  std::string text(kDoor);
  text += agents;
  return garden(text);
}

bool is_open(const Simulation& simulation) {
  // Straight through where the leaf is.
  return simulation.world().is_clear(Segment{{4.5, 0.0, 1.0}, {5.5, 0.0, 1.0}}, Stops::sight);
}

TEST(Doors, OpenForThoseNamedAndShutAfterThem) {
  Simulation simulation(
      by_the_door(placed("pruner", "pruner", "[0.0, 0.0]", "patrol = [[10.0, 0.0], [10.0, 0.0]]")));
  // Within 1.2 m of the leaf from x = 3.8, at 1.9 s, to x = 6.2, at 3.1 s; 2 s later it shuts.
  for (int tick = 1; tick <= 400; ++tick) {
    simulation.step();
    const double t = tick / 60.0;
    if (std::abs(t - 1.9) > 0.05 && std::abs(t - 5.1) > 0.05) {
      EXPECT_EQ(is_open(simulation), t > 1.9 && t < 5.1) << tick;
    }
  }
  EXPECT_EQ(simulation.state({0}).position, Vector3d(10.0, 0.0, 0.0));
}

TEST(Doors, StayShutForOthersWhoGoRound) {
  const Level level = by_the_door(
      placed("collector", "collector", "[0.0, 0.0]", "patrol = [[10.0, 0.0], [10.0, 0.0]]"));
  const World world(level);
  const Vector3d from{0.0, 0.0, 0.0};
  const Vector3d to{10.0, 0.0, 0.0};
  const NavigationMesh pruner(level, world, body_size(level, level.kinds[0]));
  const NavigationMesh collector(level, world, body_size(level, level.kinds[1]));
  EXPECT_NEAR(find_path(pruner, from, to).length, 10.0, 1e-9);
  // Round the end of the wall, 0.1 m thick to either side.
  const double round = find_path(collector, from, to).length;
  EXPECT_GT(round, 2.0 * std::hypot(5.0, 8.0));
  EXPECT_LT(round, 2.0 * std::hypot(5.0, 8.5));
  Simulation simulation(level);
  bool went_round = false;
  for (int tick = 1; tick <= 900; ++tick) {
    simulation.step();
    EXPECT_FALSE(is_open(simulation));
    went_round |= simulation.state({0}).position.y() > 8.0;
  }
  EXPECT_TRUE(went_round);
  EXPECT_EQ(simulation.state({0}).position, to);
  // Once the leaf has gone the same mesh leads straight on.
  World open = world;
  open.set_gone({2}, true);
  EXPECT_NEAR(PathFinder().find(collector, from, to, &open).length, 10.0, 1e-6);
}

// The collector's way leads through the door while the pruner holds it open; then it shuts.
TEST(Doors, ThatShutSendThoseOnTheirWayRound) {
  Simulation simulation(by_the_door(R"(
[[agent]]
id = "pruner"
kind = "pruner"
at = [5.6, -0.4]
script = [{ wait = 1.0 }, { go = [20.0, 0.0] }]
driver = "script"
)" + placed("collector", "collector", "[-6.0, 0.2]", "patrol = [[-6.0, 0.2], [10.0, 0.0]]")));
  simulation.step();
  EXPECT_TRUE(is_open(simulation));
  double northernmost = 0.0;
  for (int tick = 1; tick <= 1200; ++tick) {
    simulation.step();
    const Vector3d at = simulation.state({1}).position;
    northernmost = std::max(northernmost, at.y());
    const Cylinder body{at + Vector3d{0.0, 0.0, 0.3}, 0.3, 1.4};
    ASSERT_FALSE(simulation.world().overlaps(body, Stops::bodies)) << tick;
    if (at.x() == 10.0) break;
    if (tick == 60) {
      EXPECT_LT(std::abs(at.y()), 0.3);  // straight for the door
    }
  }
  EXPECT_GT(northernmost, 8.0);
  EXPECT_GT(simulation.state({1}).position.x(), 4.0);
}

TEST(Doors, DoNotShutOnABody) {
  Simulation simulation(by_the_door(
      placed("pruner", "pruner", "[6.1, 0.0]", "script = [{ wait = 0.5 }, { go = [20.0, 0.0] }]") +
      placed("collector", "collector", "[4.0, 0.0]",
             "script = [{ go = [5.0, 0.0] }, { wait = 10.0 }, { go = [6.0, 0.0] }]")));
  play(simulation, 600);
  EXPECT_TRUE(is_open(simulation));
  EXPECT_EQ(simulation.state({1}).position.x(), 5.0);
  play(simulation, 60);
  EXPECT_FALSE(is_open(simulation));
}

const std::string kPots =
    wall("pen", "[[4.0, -0.5], [4.0, -4.0], [-4.0, -4.0], [-4.0, 4.0], [4.0, 4.0], [4.0, 0.5]]") +
    R"(
[[block]]
id = "pots"
material = "brick"
outline = [[3.9, -0.5], [4.1, -0.5], [4.1, 0.5], [3.9, 0.5]]
height = 0.8
health = 12
[kind.sprinkler]
team = "visitors"
height = 1.0
move.gait = "fixed"
[kind.sprinkler.sight]
range = 20.0
field_of_view = 360.0
[kind.sprinkler.attack.jet]
how = "shot"
range = 20.0
speed = 20.0
damage = 5
cooldown = 0.37
[kind.pruner]
[kind.pruner.move]
speed = 2.0
no_path = "wait"
[kind.moth]
team = "caretakers"
radius = 0.1
height = 0.4
[kind.moth.move]
speed = 8.0
)" + placed("pruner", "pruner", "[0.0, 0.0]", "patrol = [[8.0, 2.0], [8.0, 2.0]]") +
    placed("sprinkler", "sprinkler", "[9.0, 0.0]", "facing = 180.0") +
    placed("moth", "moth", "[5.0, -0.6]", "patrol = [[5.0, -0.6], [5.0, 0.6]]");

// The moth is too fast for the shots at it: those that miss go on into the pots behind it, and the
// third of 5 points breaks what has 12.
TEST(WhatBreaks, OpensTheWayOnceItIsGone) {
  const Level level = garden(kPots);
  Simulation simulation(level);
  int hits = 0;
  int broken_at = 0;
  for (int tick = 1; tick <= 3000 && broken_at == 0; ++tick) {
    simulation.step();
    for (const Event& event : simulation.events()) {
      if (!event.solid || level.solids[event.solid->index].id != "pots") continue;
      hits += event.what == Event::What::hit ? 1 : 0;
      if (event.what != Event::What::broke) continue;
      broken_at = tick;
      EXPECT_EQ(simulation.describe(event), "sprinkler broke pots");
    }
    EXPECT_EQ(simulation.state({0}).position, Vector3d(0.0, 0.0, 0.0)) << tick;
  }
  ASSERT_GT(broken_at, 0);
  EXPECT_EQ(hits, 3);
  play(simulation, 60 * 8);
  EXPECT_EQ(simulation.state({0}).position, Vector3d(8.0, 2.0, 0.0));
}

}  // namespace
}  // namespace gaze
