// Rules that turn the body round: where it stands, on a patrol, and as it wanders.

#include <gtest/gtest.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;

double facing_deg(const Simulation& simulation, const std::string& id) {
  return angle_of(simulation.state(simulation.agent(id)).facing).degrees();
}

// After 1 s at its post a sentry turns by 120 degrees, at 90 a second, and stays so.
TEST(TurnRule, TurnsWhoStandsAtItsRateAndForGood) {
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(
        R"([kind.sentry]
team = "caretakers"
[kind.sentry.move]
turn_rate = 90.0
speed = 1.0
[kind.sentry.when]
lasts = { post = { turn = 120, after = 1.0 } }
)" + placed("sentry", "sentry", "[0, 0]", "facing = 30"),
        {{"ticks_per_second", std::to_string(rate)}}));
    testing::play(simulation, rate + rate / 5);
    const double on_its_way = facing_deg(simulation, "sentry");
    EXPECT_GT(on_its_way, 30.0);
    EXPECT_LT(on_its_way, 60.0);
    testing::play(simulation, 5 * rate);
    EXPECT_NEAR(facing_deg(simulation, "sentry"), 150.0, 1e-9);
  }
}

/// A pruner on its rounds that turns back when it is hurt by nothing but a cough.
std::string rounds_of(const std::string& style, const std::string& script) {
  return R"([kind.pruner]
team = "caretakers"
[kind.pruner.move]
speed = 1.0
[kind.pruner.hearing]
range = 50.0
[kind.pruner.when]
hears = { turn = 180 }
[kind.collector]
team = "visitors"
)" + placed("pruner", "pruner", "[0, 0]", "patrol = [[0, 0], [4, 0], [4, 4], [0, 4]]\n" + style) +
         placed("collector", "collector", "[10, 10]", "script = [" + script + "]");
}

Vector3d place_after(const std::string& level, double seconds) {
  Simulation simulation(garden(level));
  testing::play(simulation, std::lround(seconds * 60.0));
  return simulation.state(simulation.agent("pruner")).position;
}

// After 6 s it is half the way from [4, 0] to [4, 4]; sent back it is at [2, 0] 4 s later, round
// the circle the other way at [0, 2] after 8 s, and sent back once more at [2, 0] 4 s after that.
TEST(TurnRule, SendsAPatrolBackTheWayThatItCame) {
  const std::string cough = "{ noise = \"cough\", reach = 40 }";
  const std::string once = "{ wait = 6 }, " + cough;
  const Vector3d back = place_after(rounds_of("", once), 10.0);
  EXPECT_NEAR(back.x(), 2.0, 0.05);
  EXPECT_NEAR(back.y(), 0.0, 0.05);
  const Vector3d round = place_after(rounds_of("", once), 14.0);
  EXPECT_NEAR(round.x(), 0.0, 0.05);
  EXPECT_NEAR(round.y(), 2.0, 0.05);
  const std::string twice = once + ", { wait = 8 }, " + cough;
  const Vector3d again = place_after(rounds_of("", twice), 18.0);
  EXPECT_NEAR(again.x(), 2.0, 0.05);
  EXPECT_NEAR(again.y(), 0.0, 0.05);
  // To and fro it comes to the first point and turns there.
  const std::string fro = "patrol_style = \"to and fro\"\n";
  const Vector3d home = place_after(rounds_of(fro, once), 14.0);
  EXPECT_NEAR(home.x(), 2.0, 0.05);
  EXPECT_NEAR(home.y(), 0.0, 0.05);
}

// Seen from the side: to and fro between two low kerbs that its feeler finds, not its feet: the
// feeler ends 1 m ahead.
TEST(TurnRule, HasAWandererTurnAtWhatItsFeelerFinds) {
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(
        R"(plane = "upright"
ground_height = 0.0
[material.marker]
stops = ["shots"]
[[block]]
id = "left"
material = "marker"
outline = [[-3.2, 0], [-3, 0], [-3, 3], [-3.2, 3]]
[[block]]
id = "right"
material = "marker"
outline = [[3, 0], [3.2, 0], [3.2, 3], [3, 3]]
[kind.toad]
team = "caretakers"
[kind.toad.move]
speed = 2.0
[kind.toad.wander]
style = "to and fro"
pause = 0.0
[kind.toad.feeler.ahead]
length = 1.0
finds = "anything"
stopped_by = "shots"
[kind.toad.when]
feels = { turn = 180 }
)" + placed("toad", "toad", "[0, 0]"),
        {{"ticks_per_second", std::to_string(rate)}}));
    double least = 0.0;
    double most = 0.0;
    int turns = 0;
    double facing = 1.0;
    for (int i = 0; i < 20 * rate; ++i) {
      simulation.step();
      const AgentState state = simulation.state(simulation.agent("toad"));
      least = std::min(least, state.position.x());
      most = std::max(most, state.position.x());
      turns += state.facing.x() != facing;
      facing = state.facing.x();
    }
    // It feels at 2 m and turns in the step after: 40 m in 20 s, 4 m each way.
    EXPECT_NEAR(most, 2.0, 2.0 * 2.0 / rate + 1e-9);
    EXPECT_NEAR(least, -2.0, 2.0 * 2.0 / rate + 1e-9);
    EXPECT_GE(most, 2.0);
    EXPECT_NEAR(turns, 10, 1);
  }
}

}  // namespace
}  // namespace gaze
