// Gravity, ledges, slopes and steps.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

/// One walker that a script moves, in a level of that plane with those solids.
Simulation walker(const std::string& plane, const std::string& at, const std::string& go,
                  const std::string& solids) {
  return Simulation(garden("plane = \"" + plane + "\"\n" + solids + R"(
[kind.guest]
team = "visitors"
radius = 0.3
height = 1.7
[kind.guest.move]
speed = 3.0
[[agent]]
id = "guest"
kind = "guest"
at = )" + at + "\nscript = [" +
                           go + "]\n"));
}

double height_of(const Simulation& simulation) {
  return simulation.state({0}).position.z();
}

TEST(Footing, FallsAsGravitySays) {
  Simulation simulation = walker("space", "[0.0, 0.0, 5.0]", "", "");
  for (int tick = 1; tick <= 60; ++tick) {
    simulation.step();
    const double t = tick / 60.0;
    EXPECT_NEAR(height_of(simulation), std::max(0.0, 5.0 - 9.81 * t * t / 2.0), 1e-9) << tick;
  }
  play(simulation, 60);
  EXPECT_EQ(height_of(simulation), 0.0);
}

TEST(Footing, LandsOnWhateverIsBelow) {
  const std::string shelf = R"(
[[block]]
id = "shelf"
material = "brick"
outline = [[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]]
base = 1.0
height = 0.5
)";
  Simulation above = walker("space", "[0.0, 0.0, 4.0]", "", shelf);
  play(above, 120);
  EXPECT_NEAR(height_of(above), 1.5, 1e-9);
  // The middle is beside the shelf, but the body is not: it comes to rest on the rim.
  Simulation beside = walker("space", "[1.2, 0.0, 4.0]", "", shelf);
  play(beside, 120);
  EXPECT_NEAR(height_of(beside), 1.5, 1e-9);
  Simulation clear = walker("space", "[1.31, 0.0, 4.0]", "", shelf);
  play(clear, 120);
  EXPECT_EQ(height_of(clear), 0.0);
}

TEST(Footing, FollowsSlopesUpAndDown) {
  const std::string ramp = R"(
[[ramp]]
id = "ramp"
material = "brick"
from = [2.0, 0.0, 0.0]
to = [8.0, 0.0, 3.0]
width = 2.0
[[floor]]
id = "gallery"
material = "brick"
outline = [[8.0, -1.0], [12.0, -1.0], [12.0, 1.0], [8.0, 1.0]]
top = 3.0
)";
  Simulation simulation = walker("space", "[0.0, 0.0, 0.0]",
                                 "{ go = [10.0, 0.0, 3.0] }, { go = [0.0, 0.0, 0.0] }", ramp);
  double highest = 0.0;
  for (int tick = 0; tick < 450; ++tick) {
    simulation.step();
    const Vector3d feet = simulation.state({0}).position;
    EXPECT_NEAR(feet.z(), std::clamp((feet.x() - 2.0) / 2.0, 0.0, 3.0), 1e-9) << feet.x();
    highest = std::max(highest, feet.z());
  }
  EXPECT_EQ(highest, 3.0);
  EXPECT_NEAR(simulation.state({0}).position.x(), 0.0, 1e-9);
}

TEST(Footing, FollowsThePathUpTheVeryEdgeOfARamp) {
  // From below the gallery the shortest way goes round the foot of the ramp and up along its edge.
  Simulation simulation(garden(R"(
plane = "space"
[[ramp]]
id = "ramp"
material = "brick"
from = [0.0, 0.0, 0.0]
to = [0.0, 8.0, 3.2]
width = 1.77
[[floor]]
id = "gallery"
material = "brick"
outline = [[-4.0, 8.0], [4.0, 8.0], [4.0, 14.0], [-4.0, 14.0]]
top = 3.2
[kind.pruner]
team = "caretakers"
radius = 0.4
[kind.pruner.move]
speed = 2.0
)" + placed("pruner", "pruner", "[2.0, 10.0, 0.0]",
            "patrol = [[2.0, 10.0, 3.2], [2.0, 10.0, 0.0]]")));
  double highest = 0.0;
  for (int tick = 0; tick < 60 * 30; ++tick) {
    simulation.step();
    const Vector3d feet = simulation.state({0}).position;
    const bool on_ramp = std::abs(feet.x()) < 0.89 && feet.y() > 0.0 && feet.y() < 8.0;
    if (on_ramp) {
      EXPECT_NEAR(feet.z(), feet.y() * 0.4, 0.02) << tick;
    }
    highest = std::max(highest, feet.z());
  }
  EXPECT_EQ(highest, 3.2);
  EXPECT_TRUE(testing::only(testing::play(simulation, 600), Event::What::blocked).empty());
}

TEST(Footing, StepsOntoWhatIsLowAndIsStoppedByWhatIsHigher) {
  const auto kerb = [](const std::string& height) {
    return block("kerb", "[[2.0, -2.0], [4.0, -2.0], [4.0, 2.0], [2.0, 2.0]]",
                 "height = " + height);
  };
  Simulation low = walker("ground", "[0.0, 0.0]", "{ go = [3.0, 0.0] }", kerb("0.3"));
  play(low, 120);
  EXPECT_EQ(low.state({0}).position, Vector3d(3.0, 0.0, 0.3));
  Simulation high = walker("space", "[0.0, 0.0, 0.0]", "{ go = [3.0, 0.0, 0.0] }", kerb("0.31"));
  play(high, 120);
  EXPECT_NEAR(high.state({0}).position.x(), 1.7, 1e-5);
  EXPECT_EQ(height_of(high), 0.0);
}

TEST(Footing, WalksOffALedgeAndFallsOnceItIsClear) {
  Simulation simulation = walker("upright", "[0.0, 2.0]", "{ go = [6.0, 2.0] }", R"(
[[block]]
id = "shelf"
material = "brick"
outline = [[-2.0, 1.8], [2.0, 1.8], [2.0, 2.0], [-2.0, 2.0]]
)");
  // The body is 0.6 m wide: its rear leaves the shelf at x = 2.3, then it keeps its 3 m/s.
  for (int tick = 1; tick <= 180; ++tick) {
    simulation.step();
    const Vector3d feet = simulation.state({0}).position;
    if (feet.x() < 2.3 - 1e-9) {
      EXPECT_EQ(feet.z(), 2.0) << tick;
    }
    EXPECT_GE(feet.z(), 0.0);
  }
  EXPECT_EQ(simulation.state({0}).position, Vector3d(6.0, 0.0, 0.0));
}

// Its middle is beyond the rim, and a part of it is not: it stands there and lands on nothing.
TEST(Footing, StandsOnARimWithPartOfIt) {
  const std::string shelf = R"(
[[floor]]
id = "shelf"
material = "brick"
outline = [[-1, -1], [1, -1], [1, 1], [-1, 1]]
top = 2.0
)";
  Simulation simulation = walker("space", "[1.2, 0.0, 2.0]", "", shelf);
  const auto events = play(simulation, 120);
  EXPECT_EQ(only(events, Event::What::landed).size(), 0U);
  EXPECT_EQ(height_of(simulation), 2.0);
  // Who goes off it lands once, below.
  Simulation leaving = walker("space", "[0.0, 0.0, 2.0]", "{ go = [4.0, 0.0, 2.0] }", shelf);
  const auto landings = only(play(leaving, 120), Event::What::landed);
  ASSERT_EQ(landings.size(), 1U);
  EXPECT_NEAR(landings[0].distance, 2.0, 1e-9);
}

// Who is placed in the air falls straight down, wherever it wants to go, at any rate of steps; and
// hops only once it stands.
TEST(Footing, FallsFirstWherePlacedInTheAir) {
  for (const int rate : {20, 60, 240}) {
    for (const char* step : {"{ go = [9.0, 0.0, 0.0] }", "{ hop = true }"}) {
      Simulation simulation(
          garden("plane = \"space\"\n[kind.guest]\nteam = \"visitors\"\n"
                 "[kind.guest.move]\nspeed = 3.0\nhop_height = 0.5\n" +
                     testing::placed("guest", "guest", "[0, 0, 5]",
                                     "script = [" + std::string(step) + "]"),
                 {{"ticks_per_second", std::to_string(rate)}}));
      for (int tick = 1; tick <= rate; ++tick) {
        simulation.step();
        const double t = double(tick) / rate;
        const Vector3d feet = simulation.state({0}).position;
        EXPECT_EQ(feet.x(), 0.0) << rate << step;
        EXPECT_NEAR(feet.z(), std::max(0.0, 5.0 - 9.81 * t * t / 2.0), 1e-9) << rate << step;
      }
    }
  }
}

}  // namespace
}  // namespace gaze
