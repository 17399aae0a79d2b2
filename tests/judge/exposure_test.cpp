// Views that nobody is in for as long as noticing takes.

#include <fmt/format.h>

#include <random>

#include "support/levels.hpp"

namespace gaze {
namespace {

/// A lamp that looks along x and does not turn, and a collector that runs straight somewhere.
std::string lamp_and_runner(double range, double field, double notice, double speed,
                            const Vector2d& from, const Vector2d& to) {
  return fmt::format(R"([kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = {}
field_of_view = {}
notice_time = {}
[kind.collector]
team = "visitors"
radius = 0.3
[kind.collector.move]
speed = {}
)",
                     range, field, notice, speed) +
         testing::placed("lamp", "lamp", "[0, 0]") +
         testing::placed("collector", "collector", fmt::format("[{}, {}]", from.x(), from.y()),
                         fmt::format("script = [{{ go = [{}, {}] }}]", to.x(), to.y()));
}

bool is_noticed(const std::string& level) {
  Simulation simulation(testing::garden(level));
  for (const Event& event : testing::play(simulation, 900)) {
    if (event.what == Event::What::noticed && event.agent == simulation.agent("lamp")) return true;
  }
  return false;
}

// 2 (6 sin 10 degrees + 0.3) = 2.684 m at 4 m/s: 0.671 s.
TEST(Exposure, OfWhoRunsAcrossIsToldWhereItIsTooShort) {
  const auto level = [](double notice) {
    return lamp_and_runner(6.0, 20.0, notice, 4.0, {5.9, -5.0}, {5.9, 5.0});
  };
  EXPECT_EQ(
      testing::findings_of(level(0.9), "crossed-too-fast"),
      std::vector<std::string>{
          "collector at 4 m/s crosses the view of lamp in 0.67 s even where it is widest, and "
          "noticing takes 0.9 s: whoever runs across is never noticed; a notice_time below "
          "0.67 s would do, or an ebb_time"});
  EXPECT_FALSE(is_noticed(level(0.9)));
  EXPECT_TRUE(testing::findings_of(level(0.4), "crossed-too-fast").empty());
  EXPECT_TRUE(is_noticed(level(0.4)));
}

// Whoever runs straight across, nearer or farther, is not noticed where the finding says so.
TEST(Exposure, IsNotSaidOfWhoIsNoticed) {
  std::mt19937_64 random(41);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  };
  std::uint64_t told = 0;
  for (std::uint64_t round = 0; round < testing::rounds(150); ++round) {
    const double range = between(3.0, 8.0);
    const double away = between(0.5, range);
    const std::string level = lamp_and_runner(range, between(5.0, 60.0), between(0.2, 1.5),
                                              between(2.0, 6.0), {away, -12.0}, {away, 12.0});
    if (testing::findings_of(level, "crossed-too-fast").empty()) continue;
    ++told;
    EXPECT_FALSE(is_noticed(level)) << level;
  }
  EXPECT_GT(told, testing::enough(30U));
}

// The scan has the collector in view for 1 s. With `notice_time` 1.6 s a visibility of 1.6 is
// enough.
TEST(Exposure, OfAScanGoesByTheVisibilityOfItsFoes) {
  const auto level = [](double visibility) {
    return fmt::format(R"([kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 10
field_of_view = 40
notice_time = 1.6
[kind.lamp.scan]
style = "round"
rate = 40
[kind.collector]
team = "visitors"
visibility = {}
)",
                       visibility) +
           testing::placed("lamp", "lamp", "[0, 0]") +
           testing::placed("collector", "collector", "[5, 5]");
  };
  for (const double visibility : {0.5, 1.0, 1.5, 1.7, 2.0, 4.0}) {
    const bool is_reported = !testing::findings_of(level(visibility), "pass-too-short").empty();
    EXPECT_EQ(is_reported, visibility < 1.6) << visibility;
    EXPECT_EQ(is_reported, !is_noticed(level(visibility))) << visibility;
  }
}

TEST(Exposure, InARunGoesByTheVisibilityOfItsFoes) {
  const auto level = [](double visibility) {
    return fmt::format(
               "seconds = 5\n[kind.lamp]\nteam = \"caretakers\"\nsight = {{ range = 10, "
               "field_of_view = 40, notice_time = 6 }}\n[kind.collector]\n"
               "team = \"visitors\"\nvisibility = {}\n",
               visibility) +
           testing::placed("lamp", "lamp", "[0, 0]") +
           testing::placed("collector", "collector", "[5, 0]");
  };
  EXPECT_EQ(testing::findings_of(level(1.0), "never-in-time").size(), 1U);
  EXPECT_EQ(testing::findings_of(level(1.5), "never-in-time").size(), 0U);
}

// A toad crosses the view in hops of 1 m, and rests after each hop.
TEST(Exposure, OfAHopperCountsItsRests) {
  for (const double rest : {0.0, 0.05, 2.0, 4.0}) {
    const std::string hops =
        fmt::format(
            R"([kind.lamp]
team = "caretakers"
sight = {{ range = 6, field_of_view = 20, notice_time = 1.5 }}
[kind.toad]
team = "visitors"
radius = 0.3
move = {{ gait = "hop", hop_height = 0.2, hop_length = 1.0, hop_rest = {} }}
)",
            rest) +
        testing::placed("lamp", "lamp", "[0, 0]") +
        testing::placed("toad", "toad", "[5.5, -3]", "script = [{ go = [5.5, 5] }]");
    const bool is_reported = !testing::findings_of(hops, "crossed-too-fast").empty();
    EXPECT_EQ(is_reported, rest < 1.0) << rest;
    if (is_reported) {
      EXPECT_FALSE(is_noticed(hops)) << rest;
    }
    if (rest >= 2.0) {
      EXPECT_TRUE(is_noticed(hops)) << rest;
    }
  }
}

}  // namespace
}  // namespace gaze
