// Hopping, hovering, hanging and dropping, and the use of links.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::placed;
using testing::play;

const std::string kToad = R"(
[kind.toad]
team = "caretakers"
radius = 0.3
height = 0.5
[kind.toad.move]
gait = "hop"
hop_height = 0.5
hop_length = 1.2
hop_rest = 0.4
)" + placed("toad", "toad", "[0.0, 0.0]", "patrol = [[0.0, 0.0], [30.0, 0.0]]");

constexpr double kGravity = 9.81;

// A hop rises to 0.5 m and takes 2 sqrt(2 h / g) seconds, then it rests: by closed form at any
// rate.
TEST(HopGait, MovesOnlyInTheAirByTheParabola) {
  const double flight = 2.0 * std::sqrt(2.0 * 0.5 / kGravity);
  const double up = std::sqrt(2.0 * kGravity * 0.5);
  for (const int rate : {20, 60, 144, 240}) {
    Simulation simulation(garden(kToad, {{"ticks_per_second", std::to_string(rate)}}));
    int in_the_air = 0;
    for (int tick = 1; tick <= 10 * rate; ++tick) {
      simulation.step();
      // It arrives at its first point at once and starts in the first step.
      const double seconds = double(tick) / rate;
      const double hop = std::floor(seconds / (flight + 0.4));
      const double since = seconds - hop * (flight + 0.4);
      const double share = std::min(1.0, since / flight);
      const double t = share * flight;
      const Vector3d at = simulation.state({0}).position;
      EXPECT_NEAR(at.x(), 1.2 * (hop + share), 1e-6) << rate << ", " << tick;
      EXPECT_NEAR(at.z(), up * t - kGravity * t * t / 2.0, 1e-6) << rate << ", " << tick;
      in_the_air += at.z() > 1e-6 ? 1 : 0;
    }
    EXPECT_GT(in_the_air, 5 * rate);
  }
}

TEST(HopGait, FitsBelowLowCeilings) {
  // 0.7 m between floor and shelf: the toad, 0.5 m high, cannot hop 0.5 m high there.
  Simulation simulation(garden(std::string(R"(
[[block]]
id = "shelf"
material = "brick"
outline = [[2.0, -50.0], [8.0, -50.0], [8.0, 50.0], [2.0, 50.0]]
base = 0.7
height = 0.2
)") + kToad));
  double highest = 0.0;
  for (int tick = 1; tick <= 1500; ++tick) {
    simulation.step();
    const Vector3d at = simulation.state({0}).position;
    ASSERT_FALSE(simulation.world().overlaps({at, 0.3, 0.5}, Stops::bodies)) << tick;
    if (at.x() > 1.8 && at.x() < 8.2) highest = std::max(highest, at.z());
  }
  EXPECT_GT(simulation.state({0}).position.x(), 20.0);
  EXPECT_GT(highest, 0.05);
  EXPECT_LE(highest, 0.2);
}

const std::string kShelves = R"(
plane = "upright"
)" + block("crate", "[[4.0, 0.0], [5.5, 0.0], [5.5, 0.8], [4.0, 0.8]]") +
                             block("shelf", "[[6.2, 1.4], [9.0, 1.4], [9.0, 1.6], [6.2, 1.6]]");

TEST(Links, AreUsedOneAfterTheOtherAndNeverThroughSolids) {
  const Level level =
      garden(std::string(kShelves) + R"(
[kind.toad]
team = "caretakers"
radius = 0.3
height = 0.5
[kind.toad.move]
gait = "hop"
hop_height = 1.0
hop_length = 1.6
hop_rest = 0.3
drop_height = 3.0
[kind.pruner]
like = "toad"
[kind.pruner.move]
gait = "walk"
speed = 2.0
)" + placed("toad", "toad", "[1.5, 0.0]", "patrol = [[8.0, 1.6], [1.5, 0.0]]") +
             placed("pruner", "pruner", "[2.5, 0.0]", "patrol = [[8.0, 1.6], [12.0, 0.0]]"));
  Simulation simulation(level);
  std::vector<int> visits(2);
  std::vector<bool> was_there(2);
  for (int tick = 1; tick <= 3600; ++tick) {
    simulation.step();
    for (std::uint32_t who = 0; who < 2; ++who) {
      const Vector3d at = simulation.state({who}).position;
      const Cylinder body{at + Vector3d{0.0, 0.0, 1e-6}, 0.3, 0.5 - 1e-6};
      ASSERT_FALSE(simulation.world().overlaps(body, Stops::bodies)) << who << ", " << tick;
      // The point lies on the shelf, and below it they do not come.
      const bool is_there = std::abs(at.x() - 8.0) < 0.04 && at.z() > 1.6 - 1e-9;
      visits[who] += is_there && !was_there[who] ? 1 : 0;
      was_there[who] = is_there;
    }
  }
  EXPECT_GE(visits[0], 3);
  EXPECT_GE(visits[1], 3);
}

TEST(Links, AreDroppedFromByTheLawOfFalling) {
  Simulation simulation(garden(R"(
plane = "space"
ground_height = 0.0
)" + block("shelf", "[[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [0.0, 4.0]]", "height = 1.5") +
                               R"(
[kind.pruner]
radius = 0.3
[kind.pruner.move]
speed = 2.0
drop_height = 2.0
)" + placed("pruner", "pruner", "[2.0, 2.5, 1.5]", "patrol = [[8.0, 2.5, 0.0], [8.0, 2.5, 0.0]]")));
  // 2 m to the rim and 0.35 m beyond at 2 m/s, then 1.5 m down in sqrt(2 h / g).
  const double falls_from = 2.35 / 2.0;
  const double lands = falls_from + std::sqrt(2.0 * 1.5 / kGravity);
  for (int tick = 1; tick <= 600; ++tick) {
    simulation.step();
    const double t = tick / 60.0;
    const Vector3d at = simulation.state({0}).position;
    const double fallen = std::clamp(t - falls_from, 0.0, lands - falls_from);
    EXPECT_NEAR(at.z(), 1.5 - kGravity * fallen * fallen / 2.0, 0.01) << tick;
    const double x = t < falls_from ? 2.0 + 2.0 * t : 4.35 + 2.0 * std::max(0.0, t - lands);
    EXPECT_NEAR(at.x(), std::min(8.0, x), 0.01) << tick;
  }
}

TEST(Links, OfADesignerAreClimbed) {
  Simulation simulation(garden(R"(
plane = "space"
[[floor]]
id = "gallery"
material = "brick"
outline = [[0.0, 0.0], [6.0, 0.0], [6.0, 3.8], [0.0, 3.8]]
top = 3.0
[kind.pruner]
radius = 0.3
[kind.pruner.move]
speed = 1.0
[[link]]
id = "ladder"
from = [3.0, 4.5, 0.0]
to = [3.0, 3.5, 3.0]
)" + placed("pruner", "pruner", "[3.0, 5.5, 0.0]", "patrol = [[3.0, 1.5, 3.0], [3.0, 1.5, 3.0]]")));
  // 1 m on the ground, 3 m up, 1 m over the rim, 2 m on the gallery: 7 s.
  play(simulation, 150);
  EXPECT_NEAR(simulation.state({0}).position.z(), 1.5, 0.02);
  EXPECT_NEAR(simulation.state({0}).position.y(), 4.5, 1e-9);
  play(simulation, 420 - 150 + 1);
  EXPECT_NEAR(simulation.state({0}).position.y(), 1.5, 1e-9);
  EXPECT_NEAR(simulation.state({0}).position.z(), 3.0, 1e-9);
}

TEST(HoverGait, KeepsItsHeightRoundWhatStandsInTheWay) {
  Simulation simulation(garden(
      block("tower", "[[3.0, -1.0], [4.0, -1.0], [4.0, 1.0], [3.0, 1.0]]", "height = 3.0") +
      block("bench", "[[5.0, -9.0], [5.5, -9.0], [5.5, 9.0], [5.0, 9.0]]", "height = 1.2") + R"(
[kind.hornet]
radius = 0.2
height = 0.3
[kind.hornet.move]
gait = "hover"
speed = 3.0
hover_height = 1.5
)" + placed("hornet", "hornet", "[0.0, 0.0]", "patrol = [[8.0, 0.0], [8.0, 0.0]]")));
  // Over the bench and round the tower: the corners keep its radius, rounded.
  for (int tick = 1; tick <= 200; ++tick) {
    simulation.step();
    const Vector3d at = simulation.state({0}).position;
    EXPECT_EQ(at.z(), 1.5);
    ASSERT_FALSE(simulation.world().overlaps({at, 0.2, 0.3}, Stops::bodies)) << tick;
  }
  EXPECT_EQ(simulation.state({0}).position, Vector3d(8.0, 0.0, 1.5));
}

TEST(HoverGait, GoesOverAndUnderSeenFromTheSide) {
  const auto reaches = [](const std::string& gap) {
    Simulation simulation(
        garden(R"(
plane = "upright"
)" + block("post", "[[4.0, 0.0], [4.3, 0.0], [4.3, 3.0], [4.0, 3.0]]") +
               block("west", "[[-10.0, 0.0], [-9.0, 0.0], [-9.0, 9.0], [-10.0, 9.0]]") +
               block("east", "[[20.0, 0.0], [21.0, 0.0], [21.0, 9.0], [20.0, 9.0]]") + R"(
[[block]]
id = "ceiling"
material = "brick"
outline = [[-9.0, )" +
               gap + R"(], [20.0, )" + gap + R"(], [20.0, 9.0], [-9.0, 9.0]]
[kind.hornet]
radius = 0.2
height = 0.3
[kind.hornet.move]
gait = "hover"
speed = 3.0
)" + placed("hornet", "hornet", "[0.0, 1.0]", "patrol = [[8.0, 1.0], [8.0, 1.0]]")));
    double highest = 0.0;
    for (int tick = 1; tick <= 300; ++tick) {
      simulation.step();
      const Vector3d at = simulation.state({0}).position;
      highest = std::max(highest, at.z());
      EXPECT_FALSE(simulation.world().overlaps({at, 0.2, 0.3}, Stops::bodies)) << tick;
    }
    const bool is_there = simulation.state({0}).position == Vector3d(8.0, 0.0, 1.0);
    EXPECT_EQ(is_there, highest >= 3.0);
    return is_there;
  };
  EXPECT_TRUE(reaches("3.4"));
  EXPECT_FALSE(reaches("3.2"));  // 0.2 m above the post, and it is 0.3 m high
}

TEST(DropGait, HangsUntilSomebodyPassesAndLiesWhereItLands) {
  Simulation simulation(
      garden(R"(
plane = "upright"
)" + block("crate", "[[4.5, 0.0], [5.5, 0.0], [5.5, 0.5], [4.5, 0.5]]") +
             R"(
[kind.basket]
team = "caretakers"
radius = 0.3
height = 0.4
[kind.basket.move]
gait = "drop"
[kind.basket.nearness]
range = 1.0
axes = "x"
[kind.basket.when]
near = "chase"
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
)" + placed("basket", "basket", "[5.0, 4.0]") +
             placed("collector", "collector", "[0.0, 0.0]",
                    "script = [{ go = [4.0, 0.0] }, { wait = 1.0 }, { go = [0.0, 0.0] }]")));
  // It comes within 1 m in x after 2 s.
  int start = 0;
  for (int tick = 1; tick <= 600; ++tick) {
    simulation.step();
    const AgentState basket = simulation.state({0});
    if (start == 0 && basket.mode == Mode::chase) start = tick - 1;
    const double fallen = start == 0 ? 0.0 : double(tick - start) / 60.0;
    EXPECT_NEAR(basket.position.z(), std::max(0.5, 4.0 - kGravity * fallen * fallen / 2.0), 1e-9);
    EXPECT_EQ(basket.position.x(), 5.0);
  }
  EXPECT_NEAR(start, 120, 2);
}

TEST(ScriptedHops, LiftTheirAgentAndNotItsChaser) {
  Simulation simulation(garden(
      R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 20.0
field_of_view = 360.0
[kind.pruner.move]
speed = 1.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
hop_height = 0.8
)" + placed("pruner", "pruner", "[-3.0, 0.0]") +
      placed("collector", "collector", "[0.0, 0.0]",
             "script = [{ hop = true }, { go = [4.0, 0.0] }, { hop = true }, { wait = 1.0 }]")));
  double highest = 0.0;
  double left_ground_at = -1.0;
  for (int tick = 1; tick <= 400; ++tick) {
    simulation.step();
    EXPECT_EQ(simulation.state({0}).position.z(), 0.0);
    const Vector3d at = simulation.state({1}).position;
    highest = std::max(highest, at.z());
    if (tick <= 30) {
      EXPECT_NEAR(at.x(), 2.0 * tick / 60.0, 1e-9);  // it hops forwards
    }
    if (at.x() == 4.0 && at.z() > 0.0) left_ground_at = at.z();  // and on the spot
  }
  EXPECT_NEAR(highest, 0.8, 0.01);
  EXPECT_GT(left_ground_at, 0.0);
  EXPECT_EQ(simulation.state({1}).position, Vector3d(4.0, 0.0, 0.0));
}

TEST(Hops, HaveNoMeaningWithoutGravity) {
  EXPECT_EQ(
      testing::faults_of("gravity = 0.0\n[kind.toad.move]\ngait = \"hop\"\n"),
      "bad.toml:3:8: error: kind.toad.move.gait is \"hop\" in a level without gravity: it would "
      "never come down\n");
}

}  // namespace
}  // namespace gaze
