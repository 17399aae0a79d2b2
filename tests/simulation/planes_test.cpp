// What differs between the three planes in play.

#include <gtest/gtest.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::play;
using What = Event::What;

const char* const kPair = R"(
[kind.guard]
team = "caretakers"
height = 2.0
[kind.guard.sight]
range = 20.0
field_of_view = 90.0
eye_height = 1.0
[kind.guard.move]
speed = 2.0
turn_rate = 90.0
[kind.guard.attack.jet]
how = "shot"
speed = 30.0
damage = 5
cooldown = 1.0
range = 20.0
[kind.guard.when]
sees = "chase"
[kind.guest]
team = "visitors"
height = 2.0
solid_to = []
[kind.guest.move]
speed = 4.0
[[agent]]
id = "guard"
kind = "guard"
)";

TEST(Upright, WalkersFlipAtOnceAndStayOnTheGround) {
  Simulation simulation(garden(std::string("plane = \"upright\"\nground_height = 3.0\n") + kPair +
                               "at = [0.0, 3.0]\n[[agent]]\nid = \"guest\"\nkind = \"guest\"\n"
                               "at = [5.0, 3.0]\nscript = [{ go = [-9.0, 0.0] }]\n"));
  play(simulation, 30);
  EXPECT_EQ(simulation.state({0}).facing, Vector2d(1, 0));
  EXPECT_EQ(simulation.state({1}).facing, Vector2d(-1, 0));
  EXPECT_NEAR(simulation.state({1}).position.x(), 3.0, 1e-9);
  EXPECT_EQ(simulation.state({1}).position.z(), 3.0);
  play(simulation, 60);
  EXPECT_EQ(simulation.state({0}).facing,
            Vector2d(-1, 0));  // the guest has run past below its eyes
  EXPECT_EQ(simulation.state({0}).position.z(), 3.0);
}

TEST(Upright, WhatIsFixedTurnsInThePlaneAndShootsUpward) {
  // From (0, 0) to a shelf at (6, 6): 45 degrees up, at 90 degrees a second.
  Simulation simulation(
      garden(std::string("plane = \"upright\"\n") + kPair +
                 "at = [0.0, 0.0]\n[[agent]]\nid = \"guest\"\nkind = \"guest\"\nat = [6.0, 6.0]\n",
             {{"kind.guard.move.gait", "fixed"},
              {"kind.guest.move.gait", "fixed"},
              {"kind.guard.sight.field_of_view", "100"}}));
  const auto events = play(simulation, 120);
  const auto fired = only(events, What::fired);
  ASSERT_GE(fired.size(), 1U);
  EXPECT_NEAR(static_cast<double>(fired[0].tick), 60 * (45.0 - 3.0) / 90.0, 2.0);
  EXPECT_EQ(only(events, What::hurt).size(), 2U);
  EXPECT_NEAR(angle_of(simulation.state({0}).facing).degrees(), 45.0, 1e-9);
}

TEST(Space, MeasuresRangeInHeightAndAimsByItsHeading) {
  const std::string level = std::string("plane = \"space\"\n") + kPair +
                            "at = [0.0, 0.0, 0.0]\n[[agent]]\nid = \"guest\"\nkind = \"guest\"\n";
  // 12 across and 9 up: 15 away; the elevation of atan(3/4) = 36.9 degrees is within half of 90.
  Simulation simulation(garden(level + "at = [12.0, 0.0, 9.0]\n"));
  const auto events = play(simulation, 90);
  ASSERT_EQ(only(events, What::noticed).size(), 1U);
  EXPECT_NEAR(only(events, What::noticed)[0].distance, 15.0, 1e-12);
  EXPECT_GE(only(events, What::hurt).size(), 1U);
  EXPECT_EQ(simulation.state({0}).position.z(), 0.0);
  Simulation higher(garden(level + "at = [9.0, 0.0, 12.0]\n"));  // 53 degrees up
  EXPECT_TRUE(play(higher, 30).empty());
}

TEST(Ground, SeesOverWhatIsLowerThanTheRay) {
  const std::string level =
      std::string(kPair) +
      "at = [0.0, 0.0]\n[[agent]]\nid = \"guest\"\nkind = \"guest\"\nat = [8.0, 0.0]\n"
      "[[wall]]\nid = \"low\"\nmaterial = \"brick\"\npath = [[4.0, -9.0], [4.0, 9.0]]\n";
  // Eye at 1 m, top of the body at 2 m: half way the highest ray is at 1.5 m.
  Simulation over(garden(level + "height = 1.45\n"));
  EXPECT_EQ(only(play(over, 1), What::noticed).size(), 1U);
  Simulation behind(garden(level + "height = 1.55\n"));
  EXPECT_TRUE(play(behind, 1).empty());
}

}  // namespace
}  // namespace gaze
