// Giving way to others never leads off a ledge.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

std::string floor_of(double length, double width) {
  return fmt::format(
      "plane = \"space\"\nground_height = false\n[[floor]]\nid = \"bridge\"\nmaterial = \"brick\"\n"
      "outline = [[0, 0], [{0}, 0], [{0}, {1}], [0, {1}]]\ntop = 0\n",
      length, width);
}

std::string chaser(double radius, double speed) {
  return fmt::format(
      "[kind.pruner]\nteam = \"caretakers\"\nradius = {}\n"
      "sight = {{ range = 60, field_of_view = 360 }}\nmove = {{ speed = {} }}\n"
      "when = {{ sees = \"chase\" }}\n[kind.guest]\nteam = \"visitors\"\nsolid_to = []\n",
      radius, speed);
}

std::string at(double x, double y) {
  return fmt::format("[{:.2f}, {:.2f}, 0.0]", x, y);
}

// Expects that no agent is ever below the bridge.
void expect_no_falls(Simulation& simulation, int ticks, const std::string& what) {
  for (int tick = 0; tick < ticks; ++tick) {
    simulation.step();
    for (const AgentId agent : simulation.agents()) {
      ASSERT_GE(simulation.state(agent).position.z(), -0.31)
          << what << ": " << simulation.id_of(agent) << " at tick " << tick;
    }
  }
}

TEST(Ledges, ChasersOnABridgeStayOnIt) {
  // As many as stand side by side on a bridge, 2 to 40, and a target at its end.
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    Choices choices(seed);
    const double width = choices.between(1.0, 4.0);
    const double radius = choices.between(0.2, 0.45);
    const double gap = 2.0 * radius + 0.05;
    const auto abreast = static_cast<std::uint32_t>((width - 0.02) / gap);
    const std::uint32_t count = 2 + choices.below(39);
    std::string text = floor_of(40, width) + chaser(radius, choices.between(1.5, 4.0));
    for (std::uint32_t i = 0; i < count; ++i) {
      const double x = 0.5 + gap * (i / std::max(1U, abreast));
      const double y = radius + 0.01 + gap * (i % std::max(1U, abreast));
      text += placed(fmt::format("pruner-{}", i), "pruner", at(x, y));
    }
    text += placed("guest", "guest", at(39, width / 2), "driver = \"host\"");
    const int rate = choices.of<int>({20, 30, 60, 120});
    Simulation simulation(garden(text, {{"ticks_per_second", std::to_string(rate)}}));
    expect_no_falls(simulation, 25 * rate, fmt::format("seed {}", seed));
    if (HasFatalFailure()) return;
  }
}

TEST(Ledges, PatrolsThatMeetOnABridgeStayOnIt) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    Choices choices(seed);
    const double width = choices.between(1.0, 3.0);
    std::string text = floor_of(20, width) +
                       "[kind.sweeper]\nteam = \"caretakers\"\nradius = 0.4\nmove.speed = 1.5\n";
    const std::uint32_t count = 2 + choices.below(7);
    for (std::uint32_t i = 0; i < count; ++i) {
      const double x = 1.0 + 18.0 * i / count;
      const double y = choices.between(0.3, width - 0.3);
      const double y2 = choices.between(0.3, width - 0.3);
      text +=
          placed(fmt::format("sweeper-{}", i), "sweeper", at(x, y),
                 "patrol = [" + at(1, y2) + ", " + at(19, y) + "]\npatrol_style = \"to and fro\"");
    }
    const int rate = choices.of<int>({20, 30, 60, 120});
    Simulation simulation(garden(text, {{"ticks_per_second", std::to_string(rate)}}));
    expect_no_falls(simulation, 40 * rate, fmt::format("seed {}", seed));
    if (HasFatalFailure()) return;
  }
}

TEST(Ledges, TwoPatrolsPassEachOtherOnABridge) {
  // 2.4 m has room for both: 4 radii are 1.6 m.
  Simulation simulation(garden(
      floor_of(20, 2.4) +
      "[kind.sweeper]\nteam = \"caretakers\"\nradius = 0.4\nmove.speed = 1.5\n" +
      placed("one", "sweeper", at(1, 1.2), "patrol = [" + at(19, 1.2) + ", " + at(1, 1.2) + "]") +
      placed("two", "sweeper", at(19, 1.2), "patrol = [" + at(1, 1.2) + ", " + at(19, 1.2) + "]")));
  expect_no_falls(simulation, 12 * 60 + 30, "two");  // 18 m at 1.5 m/s
  EXPECT_GT(simulation.state({0}).position.x(), 17.0);
  EXPECT_LT(simulation.state({1}).position.x(), 3.0);
}

}  // namespace
}  // namespace gaze
