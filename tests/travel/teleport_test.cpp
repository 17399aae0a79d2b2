// An agent that a host puts elsewhere goes by where it is now.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;
using testing::play;

double facing_of(const Simulation& simulation, std::string_view id) {
  return angle_of(simulation.state(simulation.agent(id)).facing).degrees();
}

Simulation lamp_and_guest() {
  return Simulation(garden(
      "[kind.lamp]\nteam = \"caretakers\"\nsight = { range = 20, field_of_view = 360 }\n"
      "move = { gait = \"fixed\", turn_rate = 90, turn_limits = [-45, 45] }\n"
      "[kind.guest]\nteam = \"visitors\"\n" +
      placed("lamp", "lamp", "[0, 0]") + placed("guest", "guest", "[-5, 0]", "driver = \"host\"")));
}

TEST(Teleport, MovesTheTurnLimitsAlong) {
  Simulation simulation = lamp_and_guest();
  play(simulation, 120);
  EXPECT_NEAR(std::abs(facing_of(simulation, "lamp")), 45.0, 1e-6);  // the guest stands at 180
  simulation.teleport(simulation.agent("lamp"), {1, 0, 0}, Angle::from_degrees(150.0));
  play(simulation, 120);
  EXPECT_NEAR(facing_of(simulation, "lamp"), 180.0, 1e-6);
}

TEST(Teleport, MovesThePostAlong) {
  Simulation simulation(
      garden("[kind.guard]\nteam = \"caretakers\"\nsight = { range = 6, field_of_view = 360 }\n"
             "move.speed = 3\nwhen = { sees = \"chase\", forgets = \"return\" }\n"
             "[kind.guest]\nteam = \"visitors\"\n" +
             placed("guard", "guard", "[20, 20]") +
             placed("guest", "guest", "[-40, 0]", "driver = \"host\"")));
  const AgentId guard = simulation.agent("guard");
  const AgentId guest = simulation.agent("guest");
  play(simulation, 10);
  simulation.teleport(guard, {-10, 20, 0}, {});
  play(simulation, 60);
  EXPECT_EQ(simulation.state(guard).position, Vector3d(-10, 20, 0));  // it is at its post
  simulation.set_pose(guest, {-10, 16, 0}, {});
  play(simulation, 60);
  EXPECT_EQ(simulation.state(guard).mode, Mode::chase);
  simulation.set_pose(guest, {-40, 0, 0}, {});
  play(simulation, 300);
  EXPECT_EQ(simulation.state(guard).mode, Mode::post);
  EXPECT_EQ(simulation.state(guard).position, Vector3d(-10, 20, 0));
}

TEST(Patrol, IsNotCutShortByBodiesAStoreyBelow) {
  // A post stands below the end of the patrol, a storey down.
  Simulation simulation(
      garden("plane = \"space\"\n[[floor]]\nid = \"upper\"\nmaterial = \"brick\"\n"
             "outline = [[-1, -2], [9, -2], [9, 2], [-1, 2]]\ntop = 3.0\n"
             "[kind.sweeper]\nteam = \"caretakers\"\nradius = 0.4\nmove.speed = 2.0\n"
             "[kind.post]\nteam = \"caretakers\"\nradius = 0.4\n" +
             placed("sweeper", "sweeper", "[0, 0, 3]",
                    "patrol = [[6, 0, 3], [0, 0, 3]]\npatrol_style = \"to and fro\"") +
             placed("post", "post", "[6, 0, 0]")));
  double farthest = 0.0;
  for (int tick = 0; tick < 6 * 60; ++tick) {
    simulation.step();
    farthest = std::max(farthest, simulation.state({0}).position.x());
  }
  EXPECT_GT(farthest, 6.0 - 2.0 / 60 - 1e-9);  // it turns within a tick
}

}  // namespace
}  // namespace gaze
