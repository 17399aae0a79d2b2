// A crowd that walks for eight minutes: no agent stands for a minute.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "fuzz/choices.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

constexpr double kHallSide = 60.0;  // metres, of a square hall
constexpr double kPillars = 8.0;    // metres from pillar to pillar
constexpr int kAgents = 410;

/// Returns a position in the hall, farther from the pillars than the radius of a body.
std::string free_place(fuzz::Choices& choices) {
  while (true) {
    const double x = choices.between(1.0, kHallSide - 1.0);
    const double y = choices.between(1.0, kHallSide - 1.0);
    const double beside = std::fmod(x + 2.0, kPillars);  // pillars begin at 6, 14, and so on
    const double below = std::fmod(y + 2.0, kPillars);
    const bool is_clear = (beside > 3.0 && beside < 7.4) || (below > 1.8 && below < 7.4);
    if (is_clear) return fmt::format("[{}, {}]", x, y);
  }
}

std::string hall() {
  std::string text = testing::wall("round", "[[0, 0], [60, 0], [60, 60], [0, 60], [0, 0]]");
  int number = 0;
  for (double x = 6.0; x < kHallSide - 4.0; x += kPillars) {
    for (double y = 6.0; y < kHallSide - 4.0; y += kPillars, ++number) {
      text += testing::block(fmt::format("pillar-{}", number),
                             fmt::format("[[{}, {}], [{}, {}], [{}, {}]]", x, y,
                                         x + 0.5 + number % 4 * 0.6, y + 0.3, x + 0.4, y + 1.2));
    }
  }
  return text;
}

std::string walkers(fuzz::Choices& choices) {
  std::string text =
      "[kind.quick]\nradius = 0.3\n[kind.quick.move]\nspeed = 2\n"
      "[kind.quick.when]\nidle = \"patrol\"\n"
      "[kind.slow]\nradius = 0.35\n[kind.slow.move]\nspeed = 1.2\n"
      "[kind.slow.when]\nidle = \"patrol\"\n";
  for (int i = 0; i < kAgents; ++i) {
    const std::string style = i % 2 == 0 ? "" : "\npatrol_style = \"to and fro\"";
    const std::string first = free_place(choices);
    const std::string second = free_place(choices);
    const std::string third = free_place(choices);
    text += testing::placed(fmt::format("walker-{}", i), i % 3 == 0 ? "slow" : "quick",
                            free_place(choices),
                            fmt::format("patrol = [{}, {}, {}]", first, second, third) + style);
  }
  return text;
}

// Each agent has three patrol points and no pause. An agent that stands is blocked by others.
TEST(Soak, NobodyStandsForAMinuteInACrowd) {
  fuzz::Choices choices(1);
  Simulation simulation(testing::garden(hall() + walkers(choices), {{"ticks_per_second", "30"}}));
  std::vector<Vector3d> since_place(kAgents);
  std::vector<std::int64_t> since(kAgents, 0);
  std::int64_t longest = 0;
  const int minutes = testing::is_sanitized() ? 1 : 8;
  for (int step = 0; step < minutes * 60 * 30; ++step) {
    for (std::uint32_t i = 0; i < kAgents; ++i) {
      const Vector3d place = simulation.state({i}).position;
      if (step == 0 || (place - since_place[i]).norm() > 0.5) {
        since_place[i] = place;
        since[i] = step;
      }
      longest = std::max(longest, step - since[i]);
    }
    simulation.step();
  }
  EXPECT_LT(longest, 60 * 30);
}

}  // namespace
}  // namespace gaze
