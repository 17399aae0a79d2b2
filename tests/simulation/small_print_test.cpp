// What used to go wrong in rare places: grace by steps, aim from the side, hops that never arrive.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::wall;

const char* const kSnips = R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 9.0
field_of_view = 360.0
[kind.pruner.attack.shears]
how = "{}"
range = 5.0
damage = 1
cooldown = {}
[kind.collector]
team = "visitors"
grace = {}
[[agent]]
id = "pruner"
kind = "pruner"
at = [0.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [1.5, 0.0]
driver = "host"
)";

// A blow falls at each whole cooldown c from 0 on; it hurts if the last one that did is at least
// the grace ago. Counted in whole milliseconds.
int hurts_within(int seconds, int cooldown_ms, int grace_ms) {
  int count = 0;
  int last = -grace_ms;
  for (int at = 0; at < seconds * 1000; at += cooldown_ms) {
    if (at - last < grace_ms) continue;
    last = at;
    ++count;
  }
  return count;
}

TEST(Grace, SparesTheSameBlowsAtAnyRate) {
  for (const auto& [cooldown, grace] :
       {std::pair{780, 800}, {780, 770}, {333, 1000}, {250, 260}, {1, 900}}) {
    for (const int rate : {20, 25, 30, 60, 144, 240}) {
      for (const char* how : {"strike", "beam"}) {
        Simulation simulation(
            garden(fmt::format(fmt::runtime(kSnips), how, cooldown / 1000.0, grace / 1000.0),
                   {{"ticks_per_second", std::to_string(rate)}}));
        const auto hurt = only(play(simulation, 6 * rate), Event::What::hurt);
        EXPECT_EQ(static_cast<int>(hurt.size()), hurts_within(6, cooldown, grace))
            << how << " " << cooldown << " " << grace << " at " << rate;
      }
    }
  }
}

// A jar that was never hurt itself bursts where it lands: at that moment, so long after an earlier
// hit.
TEST(Grace, CountsForTheBurstOfAThrownJarToo) {
  const auto hurts = [](double grace) {
    Simulation simulation(garden(fmt::format(R"(
[kind.jar]
radius = 0.1
height = 0.2
[kind.jar.thing]
speed = 8.0
breaks = true
[kind.jar.attack.splash]
how = "burst"
range = 2.0
damage = 5
cooldown = 1.0
[kind.jar.defeat]
attack = "splash"
[kind.thrower]
team = "caretakers"
[kind.collector]
team = "visitors"
grace = {}
[[agent]]
id = "jar-1"
kind = "jar"
at = [0.5, 0.0]
[[agent]]
id = "jar-2"
kind = "jar"
at = [0.0, 0.5]
[[agent]]
id = "thrower"
kind = "thrower"
at = [0.0, 0.0]
script = [{{ take = "jar-1" }}, {{ take = "jar-2" }}, {{ throw = "jar", to = [5, 0] }}, {{ wait = 2 }}, {{ throw = "jar", to = [5, 0] }}]
[[agent]]
id = "collector"
kind = "collector"
at = [5.0, 0.8]
driver = "host"
)",
                                             grace)));
    return only(play(simulation, 300), Event::What::hurt).size();
  };
  EXPECT_EQ(hurts(0.5), 2U);  // 2 s apart
  EXPECT_EQ(hurts(3.0), 1U);
}

/// Seen from the side: a walker that shoots, and somebody this far to its side and up.
std::string cellar(double x, double z, const std::string& gait) {
  return fmt::format(R"(
plane = "upright"
ground_height = 0.0
[[block]]
id = "shelf"
material = "brick"
outline = [[{0}, {1}], [{2}, {1}], [{2}, {3}], [{0}, {3}]]
[kind.spitter]
team = "caretakers"
[kind.spitter.sight]
range = 20.0
field_of_view = 360.0
[kind.spitter.move]
gait = "{4}"
[kind.spitter.attack.spit]
how = "shot"
range = 20.0
damage = 1
cooldown = 1.0
speed = 20.0
[kind.collector]
team = "visitors"
[[agent]]
id = "spitter"
kind = "spitter"
at = [0.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [{5}, {6}]
driver = "host"
)",
                     x - 1.0, z - 0.3, x + 1.0, z - 0.01, gait, x, z);
}

TEST(AimFromTheSide, IsAnywhereInThePlaneOfThePicture) {
  for (const double x : {6.0, -6.0}) {
    for (const double z : {0.31, 2.0, 4.0}) {
      for (const char* gait : {"walk", "fixed"}) {
        Simulation simulation(garden(cellar(x, z, gait)));
        simulation.set_pose(simulation.agent("collector"), {x, 0.0, z}, {});
        const auto hurt = only(play(simulation, 180), Event::What::hurt);
        EXPECT_GE(hurt.size(), 2U) << x << ", " << z << " " << gait;
      }
    }
  }
}

TEST(Hops, EndAtTheirStopDistance) {
  for (const double away : {8.0, 7.3, 5.1, 3.7}) {
    const Level level = garden(fmt::format(R"(
[kind.toad]
team = "caretakers"
[kind.toad.sight]
range = 20.0
field_of_view = 360.0
[kind.toad.move]
gait = "hop"
hop_height = 0.5
hop_length = 1.3
hop_rest = 0.2
stop_distance = 0.9
[kind.toad.when]
sees = "chase"
[kind.collector]
team = "visitors"
[[agent]]
id = "toad"
kind = "toad"
at = [0.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [{}, {}]
driver = "host"
)",
                                           away * 0.6, away * 0.8));
    Simulation simulation(level);
    play(simulation, 1200);
    const AgentId toad = simulation.agent("toad");
    const Vector3d there = simulation.state(toad).position;
    EXPECT_NEAR((Vector3d{away * 0.6, away * 0.8, 0.0} - there).norm(), 0.9, 1e-6);
    for (int i = 0; i < 240; ++i) {
      simulation.step();
      ASSERT_EQ(simulation.state(toad).position, there) << away;  // not even up and down
    }
  }
}

// Ways over the top begin at places all along it: as many as there are of use.
TEST(Hops, BesideALowWallOfFourKilometresArePlayedAtOnce) {
  const Level level = garden(wall("low", "[[0, 0], [4000, 0]]", "height = 0.44") + R"(
[kind.toad]
team = "caretakers"
[kind.toad.sight]
range = 20.0
field_of_view = 360
[kind.toad.move]
gait = "hop"
hop_height = 0.6
hop_length = 1.5
hop_rest = 0.2
[kind.toad.when]
sees = "chase"
[kind.collector]
team = "visitors"
)" + placed("toad", "toad", "[2000, 5]") +
                             placed("collector", "collector", "[2000, -5]", R"(driver = "host")"));
  EXPECT_FALSE(has_fault(judge(level)));
  Simulation simulation(level);
  play(simulation, 900);
  EXPECT_LT(simulation.state(simulation.agent("toad")).position.y(), -3.0);
}

// Falls on a flat sweeper from above, from any height and at any rate: it comes down on its top.
TEST(Touch, FromAboveIsOnTheTopAtAnyRate) {
  for (const int rate : {20, 30, 60, 240}) {
    for (const double height : {1.0, 2.3, 3.1, 4.7}) {
      const Level level = garden(fmt::format(R"(
plane = "space"
[kind.sweeper]
team = "caretakers"
radius = 0.4
height = 0.5
[kind.sweeper.touch]
[kind.sweeper.attack.bump]
how = "touch"
damage = 1
cooldown = 9.0
sides = ["front", "back", "left", "right"]
[kind.sweeper.attack.squeak]
how = "touch"
damage = 2
cooldown = 9.0
sides = ["top"]
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.7
[kind.collector.move]
speed = 2.0
[[agent]]
id = "sweeper"
kind = "sweeper"
at = [0.0, 0.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [0.1, 0.1, {}]
script = [{{ wait = 1 }}]
)",
                                             height),
                                 {{"ticks_per_second", std::to_string(rate)}});
      Simulation simulation(level);
      const auto hurt = only(play(simulation, 2 * rate), Event::What::hurt);
      ASSERT_EQ(hurt.size(), 1U) << rate << ", " << height;  // however far it sinks in after that
      EXPECT_EQ(hurt[0].attack, "squeak") << rate << ", " << height;
      EXPECT_EQ(hurt[0].damage, 2.0);
    }
  }
}

}  // namespace
}  // namespace gaze
