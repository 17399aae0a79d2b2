#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
using testing::wall;
const std::string kGlasshouse = wall("hedge", "[[4.0, -6.0], [4.0, 6.0]]") + R"(
[kind.toad]
team = "caretakers"
[kind.toad.move]
gait = "walk"
[kind.collector]
team = "visitors"
[[start]]
id = "toad-start"
kind = "toad"
outline = [[-5.0, -5.0], [9.0, -5.0], [9.0, 5.0], [-5.0, 5.0]]
apart_from = "collector"
distance = 5.0
out_of_sight = true
)" + placed("collector", "collector", "[0.0, 0.0]") +
                                placed("toad", "toad", "[1.0, 1.0]");

// Behind the hedge, which reaches from y = -6 to 6: any ray from the eye at x = 0 to a point of
// the outline with x above 4.1 crosses it, and none else does.
TEST(StartPlaces, AreFarEnoughAndOutOfSight) {
  std::vector<Vector3d> places;
  for (int seed = 1; seed <= 40; ++seed) {
    const Level level = testing::garden(kGlasshouse, {{"seed", std::to_string(seed)}});
    const Vector3d at = Simulation(level).state({1}).position;
    EXPECT_GE(at.norm(), 5.0) << seed;
    EXPECT_GE(at.x(), 4.1 + 0.3 - 1e-3) << seed;
    EXPECT_LE(at.x(), 9.0) << seed;
    EXPECT_LE(std::abs(at.y()), 5.0) << seed;
    EXPECT_EQ(at, Simulation(level).state({1}).position) << seed;
    for (const Vector3d& other : places) EXPECT_NE(at, other) << seed;
    places.push_back(at);
  }
  // All over the place: in each quarter of what is behind the hedge.
  for (const double x : {4.4, 6.7}) {
    for (const double y : {-5.0, 0.0}) {
      EXPECT_TRUE(std::any_of(places.begin(), places.end(), [&](const Vector3d& p) {
        return p.x() >= x && p.x() < x + 2.3 && p.y() >= y && p.y() < y + 5.0;
      }));
    }
  }
}

// The lawn is closed to whoever is muddy: it comes back clean.
TEST(StartPlaces, AreForWhoComesBackAsItBegan) {
  Simulation simulation(testing::garden(
      R"(
[[zone]]
id = "moss"
outline = [[0, 0], [2, 0], [2, 2], [0, 2]]
grants = ["muddy"]
[[zone]]
id = "lawn"
outline = [[10, -4], [16, -4], [16, 4], [10, 4]]
closed_to = ["muddy"]
[[start]]
id = "lawn-start"
kind = "toad"
outline = [[11, -3], [15, -3], [15, 3], [11, 3]]
[kind.nettle]
team = "caretakers"
[kind.nettle.sight]
range = 2
field_of_view = 360
[kind.nettle.attack.sting]
how = "strike"
range = 0.9
arc = 360
damage = 100
cooldown = 1
[kind.toad]
team = "visitors"
health = 10
[kind.toad.move]
speed = 5
[kind.toad.defeat]
respawn = 0.5
)" + placed("nettle", "nettle", "[1, 1]") +
      placed("toad", "toad", "[20, 20]", "script = [{ wait = 1 }, { go = [1.5, 1.5] }]")));
  const auto events = testing::play(simulation, 60 * 8);
  const std::int64_t defeated = testing::only(events, Event::What::defeated).at(0).tick;
  EXPECT_LT(testing::only(events, Event::What::triggered).at(0).tick, defeated);
  Simulation again(simulation.level());
  while (again.tick() <= defeated + 45) again.step();
  const Vector3d at = again.state(again.agent("toad")).position;
  EXPECT_TRUE(again.state(again.agent("toad")).is_alive);
  EXPECT_GE(at.x(), 11.0);
  EXPECT_LE(at.x(), 15.0);
  EXPECT_LE(std::abs(at.y()), 3.0);
}

TEST(StartPlaces, AreTheBestThereIsAndCheckSaysSo) {
  const Level level = testing::garden(kGlasshouse, {{"start.toad-start.distance", "40.0"}});
  EXPECT_GE(Simulation(level).state({1}).position.x(), 4.1);
  const auto findings = judge(level);
  EXPECT_TRUE(std::any_of(findings.begin(), findings.end(),
                          [](const Finding& finding) { return finding.code == "no-start-place"; }));
  const auto fine = judge(testing::garden(kGlasshouse));
  EXPECT_TRUE(std::none_of(fine.begin(), fine.end(), [](const Finding& finding) {
    return finding.code == "no-start-place";
  }));
}

TEST(StartPlaces, KeepBodiesOffEachOther) {
  const Level level = testing::garden(R"(
[kind.toad]
[kind.toad.move]
gait = "walk"
[[start]]
id = "pen"
kind = "toad"
outline = [[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [0.0, 4.0]]
[[agent]]
id = "toad"
kind = "toad"
at = [-9.0, 0.0]
copies = 12
apart = [-1.0, 0.0]
)");
  const Simulation simulation(level);
  for (std::uint32_t i = 0; i < 12; ++i) {
    const Vector3d at = simulation.state({i}).position;
    EXPECT_GE(at.x(), 0.0);
    for (std::uint32_t k = 0; k < i; ++k) {
      EXPECT_GE((at - simulation.state({k}).position).norm(), 0.6);
    }
  }
}

}  // namespace
}  // namespace gaze
