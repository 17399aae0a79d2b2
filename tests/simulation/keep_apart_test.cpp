// Bodies that give way to each other: in the open, through doors, and round a target.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::wall;

const char* const kWalker = R"(
[kind.pruner]
team = "caretakers"
radius = 0.3
[kind.pruner.move]
speed = 2.0
[kind.collector]
team = "visitors"
)";

std::string agent(int number, double x, double y, double to_x, double to_y) {
  return fmt::format(R"(
[[agent]]
id = "pruner-{}"
kind = "pruner"
at = [{:.3f}, {:.3f}]
patrol = [[{:.3f}, {:.3f}], [{:.3f}, {:.3f}]]
)",
                     number, x, y, to_x, to_y, to_x, to_y);
}

/// How deep any two agents are in each other, metres.
double deepest(const Simulation& simulation) {
  double depth = -1.0;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    for (std::uint32_t k = 0; k < i; ++k) {
      const double apart = (simulation.state({i}).position - simulation.state({k}).position).norm();
      depth = std::max(depth, 0.6 - apart);
    }
  }
  return depth;
}

TEST(KeepApart, TwoThatMeetHeadOnPassEachOther) {
  Simulation simulation(garden(fmt::format("{}{}{}", kWalker, agent(1, 0.0, 0.0, 10.0, 0.0),
                                           agent(2, 10.0, 0.0, 0.0, 0.0))));
  for (int tick = 0; tick < 60 * 8; ++tick) {
    simulation.step();
    ASSERT_LT(deepest(simulation), 1e-6) << tick;
  }
  EXPECT_NEAR((simulation.state({0}).position - Vector3d(10, 0, 0)).norm(), 0.0, 1e-9);
  EXPECT_NEAR((simulation.state({1}).position - Vector3d(0, 0, 0)).norm(), 0.0, 1e-9);
}

TEST(KeepApart, ACircleOfTwelveCrossesItsMiddle) {
  std::string level = kWalker;
  std::vector<Vector3d> goals;
  for (int i = 0; i < 12; ++i) {
    const SineCosine way = sine_cosine(Angle::from_degrees(30.0 * i));
    level += agent(i, 6.0 * way.cosine, 6.0 * way.sine, -6.0 * way.cosine, -6.0 * way.sine);
    goals.emplace_back(-6.0 * way.cosine, -6.0 * way.sine, 0.0);
  }
  Simulation simulation(garden(level));
  for (int tick = 0; tick < 60 * 20; ++tick) {
    simulation.step();
    ASSERT_LT(deepest(simulation), 1e-6) << tick;
  }
  for (std::uint32_t i = 0; i < 12; ++i) {
    EXPECT_LT((simulation.state({i}).position - goals[i]).norm(), 0.01) << i;
  }
}

TEST(KeepApart, TwoHundredGoThroughOneDoor) {
  std::string level = kWalker;
  level += wall("west", "[[0.0, -20.0], [0.0, -0.6]]") + wall("east", "[[0.0, 0.6], [0.0, 20.0]]");
  int number = 0;
  for (int column = 0; column < 20; ++column) {
    for (int row = 0; row < 10; ++row) {
      const double x = 2.0 + 0.9 * column;
      const double y = -4.05 + 0.9 * row;
      level += agent(number++, x, y, x - 24.0, y);
    }
  }
  Simulation simulation(garden(level));
  double worst = 0.0;
  int through = 0;
  // Under sanitizers the first press at the door is enough.
  const int most_seconds = testing::is_sanitized() ? 15 : 150;
  for (int second = 0; second < most_seconds && through < 200; ++second) {
    testing::play(simulation, 60);
    worst = std::max(worst, deepest(simulation));
    through = 0;
    for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
      through += simulation.state({i}).position.x() < -0.5 ? 1 : 0;
    }
  }
  EXPECT_TRUE(through == 200 || testing::is_sanitized()) << through;
  EXPECT_LT(worst, 1e-6);
}

}  // namespace
}  // namespace gaze
