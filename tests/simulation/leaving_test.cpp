// The bounds of a level, flights that end without a hit, and landings.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <random>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

/// A collector that walks east at 2 m/s, out of a level that ends at x = 5.
std::string walk_out(const std::string& leaving) {
  return R"([bounds]
outline = [[-5, -5], [5, -5], [5, 5], [-5, 5]]
)" + leaving +
         "[kind.collector]\nteam = \"visitors\"\nhealth = 50\n[kind.collector.move]\nspeed = 2\n" +
         placed("collector", "collector", "[1, 2]", "script = [{ go = [20, 2] }]");
}

TEST(Bounds, HaveWhoLeavesDefeatedByNobody) {
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(walk_out(""), {{"ticks_per_second", std::to_string(rate)}}));
    const auto events = play(simulation, 4 * rate);
    const auto left = only(events, Event::What::left);
    ASSERT_EQ(left.size(), 1U);
    EXPECT_GT(left[0].place.x(), 5.0);
    EXPECT_LE(left[0].place.x(), 5.0 + 2.0 / rate + 1e-9);
    const auto defeated = only(events, Event::What::defeated);
    ASSERT_EQ(defeated.size(), 1U);
    EXPECT_FALSE(defeated[0].other.has_value());
    EXPECT_EQ(simulation.describe(defeated[0]), "collector was defeated");
    EXPECT_FALSE(simulation.state(AgentId{0}).is_alive);
  }
}

// 1.58 m from the middle of who stands there: within its 3 m.
TEST(Bounds, LetWhoLeavesBurst) {
  const std::string pop = R"([kind.collector.attack.pop]
how = "burst"
range = 3
damage = 5
cooldown = 1
[kind.collector.defeat]
attack = "pop"
[kind.pruner]
team = "caretakers"
)";
  Simulation simulation(garden(walk_out("") + pop + placed("pruner", "pruner", "[4.5, 3.5]")));
  const auto events = play(simulation, 180);
  ASSERT_EQ(only(events, Event::What::blast).size(), 1U);
  const auto hurt = only(events, Event::What::hurt);
  ASSERT_EQ(hurt.size(), 1U);
  EXPECT_EQ(hurt[0].agent, simulation.agent("pruner"));
  EXPECT_EQ(hurt[0].tick, only(events, Event::What::left)[0].tick);
}

// 4 m in 2 s, and then it sets out once more.
TEST(Bounds, PutWhoLeavesBackToWhereItBegan) {
  Simulation simulation(garden(walk_out("leaving = \"back\"\n")));
  const auto events = play(simulation, 300);
  EXPECT_EQ(only(events, Event::What::left).size(), 2U);
  EXPECT_TRUE(only(events, Event::What::defeated).empty());
  const AgentState state = simulation.state(AgentId{0});
  EXPECT_TRUE(state.is_alive);
  EXPECT_EQ(state.health, 50.0);
  EXPECT_LT(state.position.x(), 5.0);
}

// Who has no place inside is gone, and told so.
TEST(Bounds, PutNobodyBackToAPlaceOutside) {
  Simulation simulation(garden("[bounds]\nlow = -1\nhigh = 1\nleaving = \"back\"\n[kind.pot]\n" +
                                   placed("pot", "pot", "[0, 0]"),
                               {{"plane", "space"}, {"agent.pot.at", "[0, 0, 9]"}}));
  const auto events = play(simulation, 2);
  ASSERT_EQ(only(events, Event::What::left).size(), 1U);
  EXPECT_EQ(simulation.describe(only(events, Event::What::left)[0]),
            "pot left the level at [0.00, 0.00, 9.00]");
  EXPECT_FALSE(simulation.state(AgentId{0}).is_alive);
}

TEST(Bounds, TheEdgeIsInside) {
  Simulation simulation(
      garden("[bounds]\noutline = [[0, 0], [4, 0], [4, 4], [0, 4]]\nlow = 0\n"
             "[kind.pot]\n" +
             placed("corner", "pot", "[4, 4]") + placed("edge", "pot", "[0, 1]") +
             placed("out", "pot", "[4.000001, 2]")));
  const auto left = only(play(simulation, 1), Event::What::left);
  ASSERT_EQ(left.size(), 1U);
  EXPECT_EQ(left[0].agent, simulation.agent("out"));
}

// Without ground a pot falls out of a level that ends 3 m below it.
TEST(Bounds, HaveHeights) {
  const std::string level = R"(plane = "upright"
ground_height = false
[bounds]
low = -3.0
[kind.pot]
[kind.pot.move]
speed = 1.0
)" + placed("pot", "pot", "[0, 0]");
  Simulation simulation(garden(level));
  const auto events = play(simulation, 120);
  const auto left = only(events, Event::What::left);
  ASSERT_EQ(left.size(), 1U);
  // 3 m of fall take sqrt(6 / 9.81) s.
  EXPECT_NEAR(double(left[0].tick) / 60.0, std::sqrt(6.0 / 9.81), 1.01 / 60.0);
}

TEST(Bounds, OfWhichSomethingIsWrongAreTold) {
  const auto fault_of = [](const std::string& bounds) -> std::string {
    try {
      static_cast<void>(garden("[bounds]\n" + bounds));
    } catch (const LevelError& error) {
      return error.what();
    }
    return "";
  };
  EXPECT_NE(fault_of("").find("bounds has no outline, no low and no high"), std::string::npos);
  EXPECT_NE(fault_of("low = 3\nhigh = 1\n").find("bounds.high is 1; above the low of 3 m"),
            std::string::npos);
  EXPECT_NE(fault_of("outline = [[0, 0], [1, 1]]\n").find("bounds.outline has 2 points"),
            std::string::npos);
  EXPECT_NE(fault_of("low = 0\nleaving = \"gone\"\n").find("bounds.leaving"), std::string::npos);
  EXPECT_NE(fault_of("low = 0\ntop = 4\n").find("unknown key 'top'"), std::string::npos);
}

TEST(Bounds, ThatAgentsStandOutsideOfOrAreLedOutOfAreFound) {
  const std::string level = walk_out("") + placed("guest", "collector", "[7, 0]");
  EXPECT_EQ(testing::findings_of(level, "out-of-bounds"),
            std::vector<std::string>{"guest is placed at [7.00, 0.00], outside of the bounds of "
                                     "the level: it is gone at the first step"});
  EXPECT_EQ(testing::findings_of(level, "leads-out-of-bounds"),
            std::vector<std::string>{"the script of collector leads to [20.00, 2.00], outside of "
                                     "the bounds of the level: there it is gone"});
}

/// Shots straight ahead from [0, 0] at so many metres a second, and what is in their way.
std::string shots(double speed, double lifetime, const std::string& more) {
  return fmt::format(R"([kind.hose]
team = "caretakers"
[kind.hose.attack.jet]
how = "shot"
aim = "ahead"
range = 50
damage = 1
cooldown = 10
speed = {}
lifetime = {}
gravity_share = 0
radius = 0.05
blast_radius = 2
muzzle = [0, 0, 1]
)",
                     speed, lifetime) +
         placed("hose", "hose", "[0, 0]", "script = [{ aim = [30, 0], fire = 1 }]") + more;
}

// At any rate it is lost exactly where it gets out, without a blast, and hits nothing behind.
TEST(Spent, IsAShotThatLeavesTheLevel) {
  const std::string edge =
      "[bounds]\noutline = [[-1, -9], [7.3, -9], [7.3, 9], [-1, 9]]\n[[block]]\nid = \"pot\"\n"
      "material = \"brick\"\noutline = [[7.4, -1], [8, -1], [8, 1], [7.4, 1]]\n";
  for (const int rate : {20, 30, 60, 144, 240}) {
    Simulation simulation(
        garden(shots(23.0, 30.0, edge), {{"ticks_per_second", std::to_string(rate)}}));
    const auto events = play(simulation, 2 * rate);
    const auto spent = only(events, Event::What::spent);
    ASSERT_EQ(spent.size(), 1U) << rate;
    EXPECT_NEAR(spent[0].place.x(), 7.3, 1e-9) << rate;
    EXPECT_TRUE(spent[0].is_outside);
    EXPECT_TRUE(only(events, Event::What::blast).empty());
    EXPECT_TRUE(only(events, Event::What::hit).empty());
  }
}

TEST(Spent, IsAShotWhoseTimeIsOver) {
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(
        garden(shots(10.0, 0.7, ""), {{"ticks_per_second", std::to_string(rate)}}));
    const auto spent = only(play(simulation, 2 * rate), Event::What::spent);
    ASSERT_EQ(spent.size(), 1U);
    EXPECT_NEAR(spent[0].place.x(), 7.0, 1e-6);
    EXPECT_FALSE(spent[0].is_outside);
  }
}

// Whatever flies in the demo comes to an end, by what it hits or spent, and not twice.
TEST(Spent, OrAHitEndsEveryFlight) {
  struct Flown {
    int hits = 0;
    int spent = 0;
    bool bounces = false;
  };
  Simulation simulation(read_level(GAZE_DEMO));
  std::map<std::int64_t, Flown> flown;
  for (const Event& event : play(simulation, 1800)) {
    if (event.projectile < 0) continue;
    Flown& flight = flown[event.projectile];
    flight.hits += event.what == Event::What::hit;
    flight.spent += event.what == Event::What::spent;
    flight.bounces |= event.attack == "pebble";
  }
  for (const Projectile& shot : simulation.projectiles()) flown.erase(shot.number);
  EXPECT_GT(flown.size(), 20U);
  for (const auto& [number, flight] : flown) {
    if (flight.bounces) {
      EXPECT_GE(flight.hits + flight.spent, 1) << number;
      EXPECT_LE(flight.spent, 1) << number;
    } else {
      EXPECT_EQ(flight.hits + flight.spent, 1) << number;
    }
  }
}

// In a notched outline it gets out where it first goes over an edge, by another method: a walk in
// steps of 0.1 mm.
TEST(Spent, WhereItFirstGoesOverTheEdgeOfANotchedLevel) {
  std::mt19937_64 random(8);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  };
  const auto is_inside = [](double x, double y) {
    const bool is_in_square = x >= -4.0 && x <= 4.0 && y >= -4.0 && y <= 4.0;
    const bool is_in_notch = x > 0.5 && std::abs(y) < 1.5;
    return is_in_square && !is_in_notch;
  };
  for (int round = 0; round < 40; ++round) {
    const double degrees = between(0.0, 360.0);
    const double radians = degrees * 3.14159265358979323846 / 180.0;
    double away = 0.0;
    while (is_inside(away * std::cos(radians), away * std::sin(radians))) away += 1e-4;
    const std::string level =
        shots(between(5.0, 60.0), 30.0,
              "[bounds]\noutline = [[-4, -4], [4, -4], [4, -1.5], [0.5, -1.5], [0.5, 1.5], "
              "[4, 1.5], [4, 4], [-4, 4]]\n");
    Simulation simulation(garden(
        level,
        {{"agent.hose.facing", fmt::format("{}", degrees)},
         {"agent.hose.script", fmt::format("[{{ aim = [{}, {}], fire = 1 }}]",
                                           30.0 * std::cos(radians), 30.0 * std::sin(radians))}}));
    const auto spent = only(play(simulation, 180), Event::What::spent);
    ASSERT_EQ(spent.size(), 1U);
    EXPECT_NEAR(std::hypot(spent[0].place.x(), spent[0].place.y()), away, 2e-4) << degrees;
  }
}

// Off a shelf 1.5 m up; and a hop of 0.4 m on the spot.
TEST(Landing, IsToldWithHowFarItWentDown) {
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(
        R"(plane = "upright"
)" + block("shelf", "[[-2, 0], [1, 0], [1, 1.5], [-2, 1.5]]") +
            R"(
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
hop_height = 0.4
)" +
            placed("collector", "collector", "[0, 1.5]",
                   "script = [{ hop = true }, { go = [4, 0] }, { wait = 1 }, { hop = true }]"),
        {{"ticks_per_second", std::to_string(rate)}}));
    const auto landed = only(play(simulation, 8 * rate), Event::What::landed);
    ASSERT_GE(landed.size(), 2U);
    EXPECT_NEAR(landed.back().distance, 0.4, 1e-6);
    EXPECT_NEAR(landed.back().place.z(), 0.0, 1e-9);
    double most = 0.0;
    for (const Event& event : landed) most = std::max(most, event.distance);
    EXPECT_NEAR(most, landed.size() == 2 ? 1.9 : 1.5, 1e-6);
  }
}

}  // namespace
}  // namespace gaze
