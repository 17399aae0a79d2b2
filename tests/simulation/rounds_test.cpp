// Catches, and rounds that end and begin again.

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

/// A toad that chases and catches a collector who stands 4 m east of it.
std::string pond(const std::string& more) {
  return R"(
[kind.toad]
team = "caretakers"
radius = 0.3
height = 0.5
[kind.toad.sight]
range = 20.0
field_of_view = 360.0
[kind.toad.move]
speed = 2.0
[kind.toad.when]
sees = "chase"
[kind.toad.attack.gulp]
how = "catch"
[kind.collector]
team = "visitors"
radius = 0.2
height = 1.7
)" + placed("toad", "toad", "[0.0, 0.0]") +
         placed("collector", "collector", "[4.0, 0.0]") + more;
}

const char* const kRound = "[round]\nends = [\"caught\"]\nresets = true\n";

// 3.5 m until their surfaces touch, at 2 m/s: 1.75 s.
TEST(Catches, AtATouchWithoutHarm) {
  Simulation simulation(garden(pond("")));
  const auto caught = only(play(simulation, 200), What::caught);
  ASSERT_EQ(caught.size(), 1U);
  EXPECT_NEAR(testing::seconds_of(caught[0], simulation), 1.75, 2.5 / 60.0);
  EXPECT_EQ(simulation.id_of(caught[0].agent), "toad");
  EXPECT_EQ(simulation.id_of(*caught[0].other), "collector");
  const AgentState collector = simulation.state(simulation.agent("collector"));
  EXPECT_FALSE(collector.is_alive);
  EXPECT_EQ(collector.mode, Mode::out);
  EXPECT_EQ(collector.health, 100.0);
  EXPECT_FALSE(simulation.is_over());
}

TEST(Catches, FromAsFarAsItsRangeAndNotThroughAFence) {
  const std::string fence =
      "[[wall]]\nid = \"fence\"\nmaterial = \"trellis\"\npath = [[2.0, -9.0], [2.0, 9.0]]\n"
      "[material.trellis]\nstops = [\"bodies\"]\n";
  const auto catches = [&](const char* range, const std::string& more) {
    Simulation simulation(garden(
        pond(more), {{"kind.toad.attack.gulp.range", range}, {"kind.toad.move.speed", "0"}}));
    return only(play(simulation, 5), What::caught).size();
  };
  EXPECT_EQ(catches("4.0", ""), 1U);
  EXPECT_EQ(catches("3.99", ""), 0U);
  EXPECT_EQ(catches("4.0", fence), 0U);
}

// The second round goes like the first, as many steps later as that took.
TEST(Rounds, BeginAgainAsTheyBegan) {
  const std::string pots =
      "[[block]]\nid = \"pots\"\nmaterial = \"brick\"\nheight = 1.5\nhealth = 5\n"
      "outline = [[4.5, 1.0], [5.0, 1.0], [5.0, 1.5], [4.5, 1.5]]\n"
      "[kind.collector.move]\ngait = \"fixed\"\n"
      "[kind.collector.attack.sling]\nhow = \"shot\"\nspeed = 10\ndamage = 5\ncooldown = 0.5\n"
      "range = 9\n";
  std::string text = pond(kRound + pots);
  Simulation simulation(
      garden(text, {{"agent.collector.script", "[{ aim = [4.75, 1.25], fire = 1.0 }]"}}));
  Simulation first = simulation;
  auto events = play(first, 300);
  const auto ended = only(events, What::ended);
  ASSERT_GE(ended.size(), 2U);
  const std::int64_t length = ended[0].tick + 1;
  EXPECT_EQ(ended[1].tick, ended[0].tick + length);
  EXPECT_EQ(simulation.id_of(ended[0].agent), "toad");
  std::vector<std::string> rounds[2];
  for (const Event& event : events) {
    const auto round = static_cast<std::size_t>(event.tick / length);
    if (round < 2 && event.tick % length != 0) {
      rounds[round].push_back(std::to_string(event.tick % length) + first.describe(event));
    }
  }
  EXPECT_FALSE(only(events, What::broke).empty());
  EXPECT_EQ(rounds[0], rounds[1]);

  while (simulation.tick() < length) simulation.step();
  EXPECT_EQ(simulation.state(simulation.agent("toad")).position, (Vector3d{0.0, 0.0, 0.0}));
  EXPECT_TRUE(simulation.state(simulation.agent("collector")).is_alive);
  EXPECT_FALSE(simulation.world().is_gone({0}));
}

TEST(Rounds, DrawStartPlacesAnewNotTooNear) {
  const std::string start =
      "[[start]]\nid = \"start\"\nkind = \"toad\"\napart_from = \"collector\"\ndistance = 3.0\n"
      "outline = [[0.0, -4.0], [8.0, -4.0], [8.0, 4.0], [0.0, 4.0]]\n";
  Simulation simulation(garden(pond(kRound + start)));
  const AgentId toad = simulation.agent("toad");
  std::vector<Vector3d> places{simulation.state(toad).position};
  for (int i = 0; i < 3000 && places.size() < 4; ++i) {
    simulation.step();
    const auto events = simulation.events();
    if (std::any_of(events.begin(), events.end(),
                    [](const Event& event) { return event.what == What::ended; })) {
      simulation.step();
      places.push_back(simulation.state(toad).position);
    }
  }
  ASSERT_EQ(places.size(), 4U);
  for (std::size_t i = 0; i < places.size(); ++i) {
    EXPECT_GE(std::hypot(places[i].x() - 4.0, places[i].y()), 3.0);
    for (std::size_t j = 0; j < i; ++j) EXPECT_NE(places[i], places[j]);
  }
}

TEST(Rounds, StandStillOnceOverWithoutAReset) {
  Simulation simulation(garden(pond("[round]\nends = [\"caught\"]\n")));
  play(simulation, 120);
  ASSERT_TRUE(simulation.is_over());
  const Vector3d toad = simulation.state(simulation.agent("toad")).position;
  EXPECT_TRUE(play(simulation, 60).empty());
  EXPECT_EQ(simulation.tick(), 180);
  EXPECT_EQ(simulation.state(simulation.agent("toad")).position, toad);
}

// Two visitors fall to one blast: the round ends with both, unless they come back.
TEST(Rounds, EndWhenATeamIsOut) {
  const std::string more = R"(
[round]
ends = ["visitors out"]
resets = true
[kind.toad.attack.croak]
how = "burst"
range = 6.0
blast_fall_off = 0.0
damage = 60
cooldown = 1.0
[kind.collector.defeat]
score = 10
)" + placed("lantern", "collector", "[4.0, 1.0]", "health = 70");
  const std::vector<Setting> still{{"kind.toad.move.speed", "0"}};
  Simulation simulation(garden(pond(more), still));
  const auto events = play(simulation, 150);
  const auto ended = only(events, What::ended);
  ASSERT_EQ(ended.size(), 2U);  // both fall to the second croak; then once more
  EXPECT_EQ(ended[0].tick, 1 + 60);
  EXPECT_EQ(simulation.describe(ended[0]),
            "the round is over: all visitors are out; all begin again");
  EXPECT_EQ(simulation.state(simulation.agent("toad")).score, 40.0);  // over both rounds

  Simulation back(garden(pond(more), {still[0], {"kind.collector.defeat.respawn", "1.5"}}));
  EXPECT_TRUE(only(play(back, 150), What::ended).empty());
}

}  // namespace
}  // namespace gaze
