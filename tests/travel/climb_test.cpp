// Hoverers climb to their targets. Hoppers hop below theirs.

#include <array>
#include <cmath>
#include <random>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::enough;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::rounds;

std::string sky(const std::string& target, const std::string& more = "") {
  return R"(
plane = "space"
[kind.drone]
team = "caretakers"
radius = 0.3
height = 0.4
nearness.range = 200.0
move = { gait = "hover", speed = 2.0, climb_speed = 1.0, stop_distance = 1.0 }
when = { near = "chase", forgets = "return" }
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.5
)" + placed("drone", "drone", "[0.0, 0.0, 5.0]") +
         placed("collector", "collector", target) + more;
}

double height_of(const Simulation& simulation, const char* id) {
  return simulation.state(simulation.agent(id)).position.z();
}

// The drone descends from the tick after it notices its target: z = 5 - t, down to `hover_height`
// above the feet of the target.
TEST(Climb, GoesAtItsSpeedToTheHeightOfItsTarget) {
  for (const int rate : {20, 60, 144, 240}) {
    Simulation simulation(
        garden(sky("[30.0, 0.0, 1.0]"), {{"ticks_per_second", std::to_string(rate)},
                                         {"kind.drone.move.hover_height", "0.5"},
                                         {"agent.drone.at", "[0.0, 0.0, 4.5]"}}));
    for (int tick = 1; tick <= 6 * rate; ++tick) {
      simulation.step();
      const double wanted = std::max(1.5, 5.0 - static_cast<double>(tick) / rate);
      ASSERT_NEAR(height_of(simulation, "drone"), wanted, 1e-9) << rate << " " << tick;
    }
  }
}

TEST(Climb, GoesBackToItsOwnHeight) {
  Simulation simulation(garden(sky("[6.0, 0.0, 1.0]")));
  play(simulation, 60 * 8);
  ASSERT_NEAR(height_of(simulation, "drone"), 1.0, 1e-9);
  simulation.hurt(simulation.agent("collector"), 1000.0);
  play(simulation, 60 * 8);
  EXPECT_EQ(height_of(simulation, "drone"), 5.0);
}

TEST(Climb, IsNothingWithoutTheKey) {
  Simulation simulation(garden(sky("[6.0, 0.0, 1.0]"), {{"kind.drone.move.climb_speed", "0"}}));
  play(simulation, 60 * 8);
  EXPECT_EQ(height_of(simulation, "drone"), 5.0);
}

// Random blocks lower than the drone's own height, and a target beside which a body can stand. The
// drone never enters a block, and comes down beside the target.
TEST(Climb, EntersNothingAndComesToItsTarget) {
  std::mt19937_64 random(11);
  std::uniform_real_distribution<double> share(0.0, 1.0);
  const auto between = [&](double low, double high) { return low + (high - low) * share(random); };
  std::uint64_t arrived = 0;
  for (std::uint64_t round = 0; round < rounds(120); ++round) {
    std::string blocks;
    const double target_x = between(8.0, 14.0);
    const double target_y = between(-4.0, 4.0);
    for (int i = 0; i < 8; ++i) {
      const double x = between(1.5, 12.0);
      const double y = between(-5.0, 5.0);
      const double w = between(0.3, 2.0);
      const double d = between(0.3, 2.0);
      const bool is_near = x - 2.2 < target_x && target_x < x + w + 2.2 && y - 2.2 < target_y &&
                           target_y < y + d + 2.2;
      if (is_near) continue;
      const auto corner = [](double a, double b) {
        return "[" + std::to_string(a) + ", " + std::to_string(b) + "]";
      };
      blocks += block("block-" + std::to_string(i),
                      "[" + corner(x, y) + ", " + corner(x + w, y) + ", " + corner(x + w, y + d) +
                          ", " + corner(x, y + d) + "]",
                      "base = 0.0\nheight = " + std::to_string(between(0.5, 4.0)));
    }
    const int rate = std::array{20, 60, 144, 240}[round % 4];
    const Level level = garden(
        sky("[" + std::to_string(target_x) + ", " + std::to_string(target_y) + ", 0.0]", blocks),
        {{"ticks_per_second", std::to_string(rate)},
         {"kind.drone.move.climb_speed", std::to_string(between(0.5, 4.0))}});
    Simulation simulation(level);
    for (int tick = 0; tick < 40 * rate; ++tick) {
      simulation.step();
      const Vector3d feet = simulation.state(simulation.agent("drone")).position;
      // A hundredth of a millimetre inside: what merely touches is not inside.
      const Cylinder core{feet + Vector3d{0.0, 0.0, 1e-5}, 0.3 - 1e-5, 0.4 - 2e-5};
      ASSERT_FALSE(simulation.world().overlaps(core, Stops::bodies)) << round << " " << tick;
    }
    const Vector3d feet = simulation.state(simulation.agent("drone")).position;
    const double off = std::hypot(feet.x() - target_x, feet.y() - target_y);
    EXPECT_LE(off, 1.0 + 1e-6) << round;
    EXPECT_LE(feet.z(), 1e-3) << round;
    ++arrived;
  }
  EXPECT_GE(arrived, enough(120U));
}

std::string below(const std::string& more = "") {
  return R"(
[kind.toad]
team = "caretakers"
radius = 0.3
height = 0.5
nearness.range = 30.0
when.near = "chase"
move = { gait = "hop", hop_height = 0.5, hop_length = 1.0, hop_rest = 0.4, hops_in_place = true }
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.5
[[floor]]
id = "gallery"
material = "brick"
outline = [[-2.0, -2.0], [2.0, -2.0], [2.0, 2.0], [-2.0, 2.0]]
top = 3.0
)" + placed("toad", "toad", "[0.0, 0.0]") +
         placed("collector", "collector", "[0.1, 0.0, 3.0]") + more;
}

// A hop on the spot takes 2 sqrt(2 h / g), followed by a rest of 0.4 s.
TEST(HopsInPlace, BelowATargetAtAnyRate) {
  const double period = 2.0 * std::sqrt(2.0 * 0.5 / 9.81) + 0.4;
  for (const int rate : {20, 60, 144, 240}) {
    Simulation simulation(garden(below(), {{"plane", "space"},
                                           {"agent.toad.at", "[0.0, 0.0, 0.0]"},
                                           {"ticks_per_second", std::to_string(rate)}}));
    const int seconds = 20;
    const auto landed = only(play(simulation, seconds * rate), Event::What::landed);
    ASSERT_FALSE(landed.empty());
    EXPECT_NEAR(static_cast<double>(landed.size()), seconds / period, 1.0) << rate;
    for (std::size_t i = 1; i < landed.size(); ++i) {
      const double since = static_cast<double>(landed[i].tick - landed[0].tick) / rate;
      EXPECT_NEAR(since, static_cast<double>(i) * period, 1.01 / rate) << rate;
    }
    EXPECT_EQ(landed.back().place.x(), 0.0);
    EXPECT_NEAR(landed.back().distance, 0.5, 1e-9);
  }
}

TEST(HopsInPlace, NotOnceItsTargetStandsNoHigher) {
  const std::vector<Setting> level{{"plane", "space"},
                                   {"agent.toad.at", "[0.0, 0.0, 0.0]"},
                                   {"agent.collector.at", "[0.5, 0.0, 0.0]"}};
  Simulation simulation(garden(below(), level));
  EXPECT_TRUE(only(play(simulation, 300), Event::What::landed).empty());
  Simulation without(garden(below(), {{"plane", "space"},
                                      {"agent.toad.at", "[0.0, 0.0, 0.0]"},
                                      {"kind.toad.move.hops_in_place", "false"}}));
  EXPECT_TRUE(only(play(without, 300), Event::What::landed).empty());
}

// A walker moves as if it were alone while a frog hops across its path.
TEST(Flight, BlocksNoOtherBody) {
  const std::string crossing = R"(
[kind.hen]
team = "visitors"
radius = 0.3
height = 1.2
move.speed = 2.0
[kind.frog]
team = "visitors"
radius = 0.3
height = 0.4
move = { gait = "hop", hop_height = 0.8, hop_length = 3.0 }
)" + placed("frog", "frog", "[-1.5, 0.0]", "script = [{ wait = 0.3 }, { go = [1.5, 0.0] }]");
  const std::string hen = placed("hen", "hen", "[0.0, -1.2]", "script = [{ go = [0.0, 6.0] }]");
  Simulation alone(garden(crossing + hen, {{"agent.frog.at", "[-90.0, 0.0]"}}));
  Simulation both(garden(crossing + hen));
  double nearest = 9.0;
  for (int tick = 0; tick < 240; ++tick) {
    alone.step();
    both.step();
    const Vector3d at = both.state(both.agent("hen")).position;
    ASSERT_EQ(at, alone.state(alone.agent("hen")).position) << tick;
    const Vector3d frog = both.state(both.agent("frog")).position;
    nearest = std::min(nearest, std::hypot(at.x() - frog.x(), at.y() - frog.y()));
  }
  EXPECT_LT(nearest, 0.6) << "else the test shows nothing";
}

}  // namespace
}  // namespace gaze
