// Levels at the edge of what the reference allows: read, judged and played.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

/// So many as the reference allows; under sanitizers, which look for other things, a tenth.
constexpr int most(int count) {
  return testing::kIsSanitized ? count / 10 : count;
}

const char* const kPair =
    "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.sight]\nrange = 8\nfield_of_view = 90\n"
    "[kind.pruner.move]\nspeed = 2\n[kind.pruner.when]\nsees = \"chase\"\n"
    "[kind.collector]\nteam = \"visitors\"\n";

// Whoever is near is of the last kind of the row, and of the first by all that lie between.
TEST(Limits, TenThousandKindsInARowOfLike) {
  const int count = most(10'000) - 2;
  std::string text = "[kind.k0]\nteam = \"visitors\"\n";
  for (int i = 1; i < count; ++i) text += fmt::format("[kind.k{}]\nlike = \"k{}\"\n", i, i - 1);
  text +=
      "[kind.basket]\nteam = \"caretakers\"\n[kind.basket.nearness]\nrange = 3\n"
      "[kind.basket.when.near]\nk0 = \"search\"\n" +
      testing::placed("basket", "basket", "[0, 0]") +
      testing::placed("guest", fmt::format("k{}", count - 1), "[1, 0]");
  Simulation simulation(testing::garden(text));
  testing::play(simulation, 5);
  EXPECT_EQ(simulation.state(simulation.agent("basket")).mode, Mode::search);
}

TEST(Limits, AHundredThousandAgents) {
  std::string text = kPair;
  for (int i = 0; i < 10; ++i) {
    text += testing::placed(fmt::format("row{}", i), i % 2 == 0 ? "pruner" : "collector",
                            fmt::format("[-15000, {}]", 3 * i),
                            fmt::format("copies = {}\napart = [3, 0]", most(10'000)));
  }
  const Level level = testing::garden(text);
  EXPECT_EQ(level.agents.size(), static_cast<std::size_t>(10 * most(10'000)));
  EXPECT_FALSE(has_fault(judge(level)));
  Simulation simulation(level);
  testing::play(simulation, 2);
  EXPECT_EQ(simulation.tick(), 2);
}

// Which of its corners see each other is more than is kept: the judge says so, and ways are found.
TEST(Limits, AWallOfTenThousandCorners) {
  std::string points;
  for (int i = 0; i < most(10'000); ++i) points += fmt::format("[{}, {}], ", i, i % 2);
  const Level level =
      testing::garden(kPair + testing::placed("pruner", "pruner", "[100, 9]") +
                      testing::placed("guest", "collector", "[100, -9]", "driver = \"host\"") +
                      "[[wall]]\nid = \"hedge\"\nmaterial = \"brick\"\npath = [" + points + "]\n");
  const std::vector<Finding> findings = judge(level);
  EXPECT_FALSE(has_fault(findings));
  const bool is_told = std::any_of(findings.begin(), findings.end(), [](const Finding& finding) {
    return finding.code == "slow-ways";
  });
  EXPECT_EQ(is_told, !testing::kIsSanitized);
  // Round the near end of it, which is 100 m away.
  const NavigationMesh mesh(level, World(level), body_size(level, level.kinds[0]), 0);
  const Path path = find_path(mesh, {100, 9, 0}, {100, -9, 0});
  EXPECT_GT(path.length, 200.0);
  EXPECT_LT(path.length, 203.0);
}

TEST(Limits, AScriptOfTenThousandSteps) {
  std::string steps;
  for (int i = 1; i < most(10'000); ++i) steps += fmt::format("{{ face = {} }}, ", i % 360);
  Simulation simulation(testing::garden(
      kPair + testing::placed("guest", "collector", "[0, 0]",
                              "script = [" + steps + "{ noise = \"cough\", reach = 5 }]")));
  simulation.step();
  EXPECT_TRUE(simulation.last_noise(simulation.agent("guest")).has_value());
}

TEST(Limits, TenThousandZonesWithCosts) {
  std::string text = kPair;
  for (int i = 0; i < most(10'000); ++i) {
    const int x = i % 100 * 3;
    const int y = i / 100 * 3;
    text += fmt::format(
        "[[zone]]\nid = \"z{0}\"\noutline = [[{1}, {2}], [{3}, {2}], [{1}, {4}]]\n"
        "cost = {5}\n",
        i, x, y, x + 2, y + 2, 1 + i % 4);
  }
  const Level level = testing::garden(text + testing::placed("guest", "collector", "[0.5, 0.5]"));
  static_cast<void>(judge(level));
  Simulation simulation(level);
  testing::play(simulation, 2);
  EXPECT_EQ(level.zones.size(), static_cast<std::size_t>(most(10'000)));
}

TEST(Limits, AThousandStepsASecondAndOne) {
  for (const int rate : {1, 1000}) {
    Simulation simulation(
        testing::garden(kPair + testing::placed("pruner", "pruner", "[0, 0]") +
                            testing::placed("guest", "collector", "[6, 0]", "driver = \"host\""),
                        {{"ticks_per_second", std::to_string(rate)}}));
    testing::play(simulation, 4L * rate);
    const Vector3d at = simulation.state(simulation.agent("pruner")).position;
    EXPECT_NEAR(at.x(), 5.4, 1e-6) << rate;  // beside it: the sum of both radii
  }
}

}  // namespace
}  // namespace gaze
