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

}  // namespace
}  // namespace gaze
