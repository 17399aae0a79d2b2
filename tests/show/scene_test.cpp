#include "show/scene.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::placed;
using testing::wall;

constexpr double kPi = 3.14159265358979323846;

// A lamp at the origin that looks along +x, and a collector somewhere.
std::string lamp_and_collector(const std::string& at, const std::string& more = "") {
  return R"(
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 6.0
field_of_view = 90.0
[kind.collector]
team = "visitors"
radius = 0.25
height = 1.5
)" + more +
         placed("lamp-1", "lamp", "[0.0, 0.0]") + placed("collector", "collector", at);
}

Scene scene_of(const std::string& text, const std::vector<Setting>& settings = {}) {
  const Simulation simulation(garden(text, settings));
  return make_scene(simulation, Trails(simulation));
}

double area_of(const Polygon& polygon) {
  double twice = 0.0;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vector2d& a = polygon[i];
    const Vector2d& b = polygon[(i + 1) % polygon.size()];
    twice += a.x() * b.y() - a.y() * b.x();
  }
  return std::abs(twice) / 2.0;
}

const AgentShape& agent_called(const Scene& scene, const std::string& id) {
  for (const AgentShape& agent : scene.agents) {
    if (agent.id == id) return agent;
  }
  throw std::out_of_range(id);
}

// A line for each pair in range, with its distance and its angle: 3-4-5, and 36.9 degrees.
TEST(MakeScene, HasALineForEachPairInRange) {
  const Scene scene = scene_of(lamp_and_collector("[4.0, 3.0]"));
  ASSERT_EQ(scene.lines.size(), 1U);
  EXPECT_EQ(scene.lines[0].outcome, SightLine::Outcome::seen);
  EXPECT_EQ(scene.lines[0].from, Vector2d(0.0, 0.0));
  EXPECT_EQ(scene.lines[0].to, Vector2d(4.0, 3.0));
  EXPECT_EQ(scene.lines[0].label, "5.00 m, 36.9°");
  EXPECT_EQ(scene_of(lamp_and_collector("[3.0, 4.0]")).lines[0].outcome,
            SightLine::Outcome::outside_field);
}

TEST(MakeScene, SaysOfWhomItLooksForThatAllAreOutOfRange) {
  const Scene scene = scene_of(lamp_and_collector("[6.0, 8.0]"));
  EXPECT_TRUE(scene.lines.empty());
  EXPECT_EQ(agent_called(scene, "lamp-1").note, "collector out of range, 10.00 m");
  EXPECT_EQ(agent_called(scene, "collector").note, "");
}

// A wall of 0.2 m along x = 2: the line ends at its near face.
TEST(MakeScene, EndsALineWhereSomethingStopsIt) {
  const std::string hedge = wall("hedge", "[[2.0, -1.0], [2.0, 1.0]]");
  const Scene scene = scene_of(lamp_and_collector("[4.0, 0.0]", hedge));
  ASSERT_EQ(scene.lines.size(), 1U);
  EXPECT_EQ(scene.lines[0].outcome, SightLine::Outcome::stopped);
  EXPECT_NEAR(scene.lines[0].stop.x(), 1.9, 1e-9);
  EXPECT_EQ(scene.lines[0].label, "4.00 m, 0.0°, hedge");
}

// A quarter of a disc of 6 m, in whichever plane.
TEST(MakeScene, HasTheSeenAreaOfEachThatSees) {
  for (const char* plane : {"ground", "upright"}) {
    const Scene scene =
        scene_of(lamp_and_collector("[9.0, 9.0]"), {{"plane", plane}, {"ground_height", "false"}});
    ASSERT_EQ(scene.seen.size(), 1U) << plane;
    EXPECT_NEAR(scene.seen[0].area.area(), kPi * 9.0, 1e-6) << plane;
    EXPECT_FALSE(scene.seen[0].is_alert);
  }
  EXPECT_TRUE(scene_of(lamp_and_collector("[4.0, 0.0]")).seen[0].is_alert);
}

// Seen from above a body is as wide as it is deep; from the side it is as high as it is.
TEST(MakeScene, ShowsBodiesAsTheyLieInThePlane) {
  const Scene above = scene_of(lamp_and_collector("[4.0, 3.0]"));
  EXPECT_EQ(agent_called(above, "collector").low, Vector2d(3.75, 2.75));
  EXPECT_EQ(agent_called(above, "collector").high, Vector2d(4.25, 3.25));
  const Scene beside = scene_of(lamp_and_collector("[4.0, 3.0]"), {{"plane", "upright"}});
  EXPECT_TRUE(beside.is_upright);
  EXPECT_EQ(agent_called(beside, "collector").low, Vector2d(3.75, 3.0));
  EXPECT_EQ(agent_called(beside, "collector").high, Vector2d(4.25, 4.5));
}

// The pieces of a solid cover its outline: an L of 3 square metres, and a wall of 4 m by 0.2 m.
TEST(MakeScene, CoversSolidsByPieces) {
  const std::string solids =
      block("corner", "[[0, 5], [2, 5], [2, 6], [1, 6], [1, 7], [0, 7]]", "height = 1.25") +
      wall("hedge", "[[-2.0, -5.0], [2.0, -5.0]]");
  const Scene scene = scene_of(lamp_and_collector("[4.0, 0.0]", solids));
  ASSERT_EQ(scene.solids.size(), 2U);
  for (const SolidShape& solid : scene.solids) {
    double area = 0.0;
    for (const Polygon& piece : solid.pieces) area += area_of(piece);
    EXPECT_NEAR(area, solid.label.starts_with("corner") ? 3.0 : 0.8, 1e-9) << solid.label;
  }
}

// The collector stands within reach of the door: after a step it is open.
TEST(MakeScene, SaysWhichDoorsAreOpen) {
  const std::string door =
      "[[door]]\nid = \"gate\"\nmaterial = \"brick\"\npath = [[4.0, 1.0], [5.0, 1.0]]\n"
      "opens_for = [\"visitors\"]\n";
  Simulation simulation(garden(lamp_and_collector("[4.5, 0.3]", door)));
  EXPECT_FALSE(make_scene(simulation, Trails(simulation)).solids[0].is_gone);
  simulation.step();
  const SolidShape gate = make_scene(simulation, Trails(simulation)).solids[0];
  EXPECT_TRUE(gate.is_gone);
  EXPECT_TRUE(gate.label.ends_with(" (open)")) << gate.label;
}

// What has been walked so far: a metre a second for two seconds, a place for each tick.
TEST(MakeScene, ShowsWhereSomebodyHasBeen) {
  Simulation simulation(garden(lamp_and_collector("[4.0, 0.0]"),
                               {{"agent.collector.move.speed", "1.0"},
                                {"agent.collector.script", "[{ go = [4.0, 9.0] }]"}}));
  Trails trails(simulation);
  trails.add(simulation);
  for (int tick = 0; tick < 120; ++tick) {
    simulation.step();
    trails.add(simulation);
  }
  const Scene scene = make_scene(simulation, trails);
  const std::vector<Vector2d>& trail = agent_called(scene, "collector").trail;
  ASSERT_FALSE(trail.empty());
  EXPECT_EQ(trail.front(), Vector2d(4.0, 0.0));
  EXPECT_NEAR(trail.back().y(), 2.0, 1e-9);
}

TEST(MakeScene, OfNothingIsEmpty) {
  const Simulation simulation{Level{}};
  const Scene scene = make_scene(simulation, Trails(simulation));
  EXPECT_TRUE(scene.agents.empty() && scene.solids.empty() && scene.lines.empty());
}

}  // namespace
}  // namespace gaze
