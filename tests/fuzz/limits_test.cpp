// Levels at the edge of what the reference allows: read, judged and played.

#include <fmt/format.h>
#include <gtest/gtest.h>
#include <sys/resource.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

/// So many as the reference allows; under sanitizers, which look for other things, a tenth.
int most(int count) {
  return testing::is_sanitized() ? count / 10 : count;
}

const char* const kPair =
    "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.sight]\nrange = 8\nfield_of_view = 90\n"
    "[kind.pruner.move]\nspeed = 2\n[kind.pruner.when]\nsees = \"chase\"\n"
    "[kind.collector]\nteam = \"visitors\"\n";

bool is_told(const std::vector<Finding>& findings, const std::string& part) {
  return std::any_of(findings.begin(), findings.end(), [&](const Finding& finding) {
    return finding.message.find(part) != std::string::npos;
  });
}

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
  EXPECT_EQ(is_told(findings, "ways are as short, and take longer to find"),
            !testing::is_sanitized());
  // Round the near end of it, which is 100 m away.
  const NavigationMesh mesh(level, World(level), body_size(level, level.kinds[0]), 0);
  const Path path = find_path(mesh, {100, 9, 0}, {100, -9, 0});
  EXPECT_GT(path.length, 200.0);
  EXPECT_LT(path.length, 203.0);
}

// A crowd in which everybody stands beside everybody, and strikes.
TEST(Limits, AHundredThousandAgentsSideBySide) {
  std::string text =
      "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.sight]\nrange = 2\n"
      "field_of_view = 120\n[kind.pruner.attack.shears]\nhow = \"strike\"\nrange = 1.2\n"
      "damage = 1\ncooldown = 0.5\n[kind.collector]\nlike = \"pruner\"\nteam = \"visitors\"\n";
  for (int i = 0; i < 100; ++i) {
    text += testing::placed(fmt::format("row{}", i), i % 2 == 0 ? "pruner" : "collector",
                            fmt::format("[0, {}]", i),
                            fmt::format("facing = {}\ncopies = {}\napart = [1, 0]",
                                        i % 2 == 0 ? 90 : -90, most(1'000)));
  }
  Simulation simulation(testing::garden(text));
  const auto events = testing::play(simulation, 2);
  // All but the last row have somebody before them, 1 m away, within range and field.
  EXPECT_GE(testing::only(events, Event::What::attacked).size(),
            static_cast<std::size_t>(98 * most(1'000)));
}

TEST(Limits, TwoHundredThousandSolids) {
  const int count = most(200'000);
  std::string text = std::string(kPair) + testing::placed("guest", "collector", "[0, 0]");
  for (int i = 0; i < count; ++i) {
    text += fmt::format(
        "[[block]]\nid = \"b{0}\"\nmaterial = \"brick\"\noutline = [[{1}, {2}], [{3}, {2}], "
        "[{1}, {4}]]\n",
        i, i % 500 * 4 + 1, i / 500 * 4 + 1, i % 500 * 4 + 2, i / 500 * 4 + 2);
  }
  const Level level = testing::garden(text);
  const World world(level);
  // Through the middle of the first row of blocks, and between the rows.
  EXPECT_FALSE(world.is_clear(Segment{{0.0, 1.4, 1.0}, {1999.0, 1.4, 1.0}}, Stops::sight));
  EXPECT_TRUE(world.is_clear(Segment{{0.0, 3.5, 1.0}, {1999.0, 3.5, 1.0}}, Stops::sight));
  Simulation simulation(level);
  testing::play(simulation, 2);
  EXPECT_EQ(level.solids.size(), static_cast<std::size_t>(count));
}

TEST(Limits, OutlinesOfFiveHundredPointsByTheHundred) {
  std::string text = std::string(kPair) + testing::placed("pruner", "pruner", "[-20, -20]") +
                     testing::placed("guest", "collector", "[220, 220]", "driver = \"host\"");
  for (int k = 0; k < most(100); ++k) {
    text += fmt::format("[[block]]\nid = \"s{}\"\nmaterial = \"brick\"\noutline = [", k);
    for (int i = 0; i < 500; ++i) {
      const double away = i % 2 == 0 ? 3.0 : 8.0;
      const double angle = 2.0 * 3.14159265358979323846 * i / 500;
      text += fmt::format("[{:.4f}, {:.4f}], ", k % 10 * 20 + away * std::cos(angle),
                          k / 10 * 20 + away * std::sin(angle));
    }
    text += "]\n";
  }
  const Level level = testing::garden(text);
  const NavigationMesh mesh(level, World(level), body_size(level, level.kinds[0]), 0);
  EXPECT_EQ(find_path(mesh, {-20, -20, 0}, {220, 220, 0}).outcome, Path::Outcome::whole);
}

// From corner to corner of all that there may be, along a wall through the middle of it.
TEST(Limits, FortyKilometres) {
  const Level level = testing::garden(
      std::string(kPair) + testing::wall("hedge", "[[-20000, 0], [20000, 0]]") +
          testing::placed("pruner", "pruner", "[-20000, -20000]") +
          testing::placed("guest", "collector", "[20000, 20000]", "driver = \"host\""),
      {{"kind.pruner.sight.range", "40000"}, {"kind.pruner.sight.field_of_view", "360"}});
  EXPECT_FALSE(has_fault(judge(level)));
  Simulation simulation(level);
  testing::play(simulation, 2);
  const Verdict verdict = simulation.look(AgentId{0}, AgentId{1});
  EXPECT_FALSE(verdict.sees);
  EXPECT_NEAR(verdict.range.value, 40'000.0 * std::sqrt(2.0), 1.0);
}

// What takes time for each is asked of so many, and the judge says so.
TEST(Limits, MoreTurretsThanAreJudged) {
  const Level level = testing::garden(
      "[kind.lamp]\nteam = \"caretakers\"\n[kind.lamp.sight]\nrange = 5\nfield_of_view = 90\n"
      "[kind.lamp.attack.drop]\nhow = \"shot\"\nrange = 5\nspeed = 9\ndamage = 1\n"
      "cooldown = 1\n[kind.collector]\nteam = \"visitors\"\n[kind.collector.move]\nspeed = 2\n" +
      testing::placed("lamp", "lamp", "[0, 0]", "copies = 300\napart = [2, 0]") +
      testing::placed("guest", "collector", "[0, 4]", "driver = \"host\"") +
      testing::wall("hedge", "[[0, 5], [600, 5]]"));
  const auto findings = judge(level);
  EXPECT_TRUE(is_told(findings, "for 100 who stay at their posts, and not for the other 200"));
  EXPECT_TRUE(is_told(findings, "for 200 who stay at their posts, and not for the other 100"));
}

TEST(Limits, MorePairsThanAreJudged) {
  std::string text = std::string(kPair) + testing::wall("hedge", "[[-5, 0], [-5, 600]]") +
                     testing::placed("pruner", "pruner", "[0, 0]", "copies = 500\napart = [2, 0]");
  text += testing::placed("guest", "collector", "[0, 4]",
                          "driver = \"host\"\ncopies = 500\napart = [2, 0]");
  EXPECT_TRUE(is_told(judge(testing::garden(text)),
                      "for 200000 pairs of chaser and player, and not for the other 50000"));
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

/// Returns the peak memory of this process, bytes.
std::size_t peak_memory() {
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  return static_cast<std::size_t>(usage.ru_maxrss) * 1024;
}

// An observer that sees 4 km far, and searches of 1 to 60 s.
TEST(Limits, SneakStaysBelowAGigabyteInAWideLevel) {
  if (testing::is_sanitized()) GTEST_SKIP() << "sanitizers take memory of their own";
  const std::string text =
      "[kind.owl]\nteam = \"caretakers\"\n[kind.owl.sight]\nrange = 4000\nfield_of_view = 10\n"
      "[kind.guest]\nteam = \"visitors\"\n[kind.guest.move]\nspeed = 2\n" +
      testing::placed("owl", "owl", "[0, 0]", "facing = 180") +
      testing::placed("guest", "guest", "[20, 0]");
  for (const char* seconds : {"1", "10", "60"}) {
    const Level level = testing::garden(text, {{"seconds", seconds}});
    SneakTask task;
    task.agent = "guest";
    task.to = {21.0, 1.0, 0.0};
    const std::size_t before = peak_memory();
    EXPECT_EQ(sneak(level, task).outcome, Sneak::Outcome::found) << seconds;
    EXPECT_LT(peak_memory() - before, 1'000'000'000U) << seconds;
  }
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
