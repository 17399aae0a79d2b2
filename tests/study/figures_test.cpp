// Figures of runs, each against what the level itself makes of it.

#include "gaze/tools/figures.hpp"

#include <fmt/format.h>

#include <cmath>

#include "fuzz/choices.hpp"
#include "fuzz/level_writer.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

// A runner passes a lamp that stands 3 m off its way and strikes what comes within 3.5 m. It runs
// 2 m a second from x = 0, and is beside the lamp after 5 s.
constexpr const char* kPassing = R"(
seconds = 12.0
[kind.lamp]
team = "caretakers"
health = 10.0
sight = { range = 5.0, field_of_view = 360.0, keep_range = 5.0, remember = 0.5 }
[kind.lamp.attack.ray]
how = "strike"
range = 3.5
damage = 7.0
cooldown = 100.0
[kind.runner]
team = "visitors"
tags = ["quick"]
move = { speed = 2.0, turn_rate = 36000.0 }
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [10.0, 3.0]
[[agent]]
id = "guest"
kind = "runner"
at = [0.0, 0.0]
script = [{ go = [30.0, 0.0] }]
)";

Level passing(const std::string& figures) {
  return testing::garden(kPassing + figures);
}

std::vector<FigureValue> values_of(const Level& level) {
  Simulation game(level);
  Figures figures(game, level.figures);
  figures.add(game);
  while (game.seconds() < level.seconds) {
    game.step();
    figures.add(game);
  }
  return figures.values();
}

// The number of the figure with these keys; the tests below know it from the way alone.
std::optional<double> number_of(const std::string& keys) {
  return values_of(passing("[figure.one]\n" + keys)).front().value;
}

constexpr double kStep = 1.0 / 60.0;

TEST(Figure, FirstAndLastAreTimesOfEvents) {
  // In sight from 4 m before the lamp to 4 m behind it.
  EXPECT_NEAR(*number_of("first = 'noticed'"), 3.0, 1.5 * kStep);
  EXPECT_NEAR(*number_of("last = 'lost'"), 7.0, 1.5 * kStep);
  EXPECT_NEAR(*number_of("first = 'forgot'\nof = 'guest'"), 7.5, 2.5 * kStep);
  EXPECT_EQ(number_of("first = 'noticed'\nby = 'guest'"), std::nullopt);
  EXPECT_EQ(number_of("last = 'defeated'"), std::nullopt);
}

TEST(Figure, CountsAndSumsOfNothingAreZero) {
  EXPECT_EQ(number_of("count = 'hurt'"), 1.0);
  EXPECT_EQ(number_of("count = 'defeated'"), 0.0);
  EXPECT_EQ(number_of("sum = 'damage'\nevent = 'hurt'"), 7.0);
  EXPECT_EQ(number_of("sum = 'damage'\nevent = 'hurt'\nby = 'lamp'"), 0.0);
  EXPECT_NEAR(*number_of("sum = 'distance'\nevent = 'noticed'"), 5.0, 3.0 * kStep);
}

TEST(Figure, BetweenIsFromOneEventToTheNextOther) {
  const double noticed = *number_of("first = 'noticed'");
  const double hurt = *number_of("first = 'hurt'");
  const std::string both =
      "between = [{ event = 'noticed', of = 'guest' }, { event = 'hurt', by = 'runner' }]";
  EXPECT_NEAR(*number_of(both), hurt - noticed, 1e-12);
  EXPECT_EQ(number_of("between = [{ event = 'hurt' }, { event = 'noticed' }]"), std::nullopt);
  EXPECT_EQ(number_of("between = [{ event = 'hurt' }, { event = 'hurt' }]"), 0.0);
}

TEST(Figure, QuantitiesFollowTheWay) {
  EXPECT_NEAR(*number_of("least = 'distance'\nby = 'lamp'"), 3.0, 1e-3);
  EXPECT_NEAR(*number_of("most = 'distance'\nby = 'lamp'"), std::hypot(14.0, 3.0), 2.0 * kStep);
  EXPECT_NEAR(*number_of("start = 'distance'\nby = 'lamp'\nof = 'quick'"), std::hypot(10.0, 3.0),
              1e-9);
  EXPECT_NEAR(*number_of("end = 'distance'\nby = 'lamp'"), std::hypot(14.0, 3.0), 2.0 * kStep);
  EXPECT_EQ(number_of("end = 'health'\nby = 'guest'"), 93.0);
  EXPECT_EQ(number_of("most = 'health'\nby = 'guest'"), 100.0);
  EXPECT_NEAR(*number_of("mean = 'speed'\nby = 'guest'\nfrom = 1.0"), 2.0, 1e-9);
  EXPECT_EQ(number_of("most = 'seen by'\nby = 'guest'"), 1.0);
  EXPECT_EQ(number_of("most = 'seen by'\nby = 'guest'\nof = 'runner'"), 0.0);
  EXPECT_EQ(number_of("most = 'visible'\nby = 'lamp'\nof = 'guest'"), 1.0);
  EXPECT_EQ(number_of("most = 'evidence'\nby = 'lamp'\nof = 'guest'"), 1.0);
  // Nobody is beside itself.
  EXPECT_EQ(number_of("least = 'distance'\nby = 'guest'\nof = 'guest'"), std::nullopt);
  // From straight ahead: the lamp looks along x, and the guest comes from behind.
  EXPECT_NEAR(*number_of("start = 'angle'\nby = 'lamp'"),
              180.0 - std::atan2(3.0, 10.0) * 180.0 / M_PI, 1e-6);
}

TEST(Figure, SharesAreOfTheTime) {
  EXPECT_NEAR(*number_of("share = 'seen'\nby = 'guest'"), 4.0 / 12.0, 2.0 * kStep / 12.0 + 1e-3);
  EXPECT_NEAR(*number_of("share = 'unseen'\nby = 'guest'"), 8.0 / 12.0, 2.0 * kStep / 12.0 + 1e-3);
  EXPECT_NEAR(*number_of("share = 'noticed'\nby = 'guest'"), 4.0 / 12.0, 3.0 * kStep / 12.0 + 1e-3);
  EXPECT_EQ(number_of("share = 'post'\nby = 'lamp'"), 1.0);
  EXPECT_EQ(number_of("share = 'chase'\nby = 'lamp'"), 0.0);
  EXPECT_EQ(number_of("share = 'seen'\nby = 'guest'\nfrom = 4.0\nto = 6.0"), 1.0);
}

TEST(Figure, CountsOnlyWhatLiesInItsTime) {
  EXPECT_EQ(number_of("count = 'noticed'\nfrom = 0.0\nto = 2.5"), 0.0);
  EXPECT_EQ(number_of("count = 'noticed'\nfrom = 2.5\nto = 3.5"), 1.0);
  EXPECT_EQ(number_of("first = 'noticed'\nfrom = 3.5"), std::nullopt);
  EXPECT_NEAR(*number_of("start = 'distance'\nby = 'lamp'\nfrom = 5.0"), 3.0, 1e-3);
}

TEST(Figure, OfPlayersAreThere) {
  const Level level = passing("");
  Simulation game(level);
  const std::vector<Figure> all = all_figures(level);
  ASSERT_EQ(all.size(), 7U);
  Figures figures(game, all);
  figures.add(game);
  while (game.seconds() < level.seconds) {
    game.step();
    figures.add(game);
  }
  const auto values = figures.values();
  EXPECT_EQ(all[0].name, "guest.first-noticed");
  EXPECT_EQ(values[0].value, number_of("first = 'noticed'"));
  EXPECT_EQ(values[1].value, number_of("first = 'hurt'"));
  EXPECT_EQ(values[2].value, 93.0);
  EXPECT_EQ(values[3].value, std::nullopt);
  EXPECT_EQ(values[4].value, std::nullopt);
  EXPECT_NEAR(*values[5].value, *values[1].value - *values[0].value, 1e-12);
  EXPECT_EQ(values[6].value, number_of("share = 'seen'\nby = 'guest'"));
  EXPECT_EQ(figure_text(all[3], values[3].value), "none");
}

// At any rate of steps, in every plane, the times differ by less than the steps.
TEST(Figure, IsTheSameAtAnyRateInEachPlane) {
  for (const char* plane : {"ground", "upright", "space"}) {
    for (const int rate : {20, 60, 144, 240}) {
      std::string text = fmt::format("plane = '{}'\nticks_per_second = {}\n", plane, rate);
      if (std::string(plane) == "upright") text += "gravity = 0.0\n";
      text += kPassing;
      if (std::string(plane) == "space") {
        for (const char* point : {"[10.0, 3.0", "[0.0, 0.0", "[30.0, 0.0"}) {
          text.insert(text.find(point) + std::string(point).size(), ", 0.0");
        }
      }
      const Level level = testing::garden(text + "[figure.a]\nfirst = 'noticed'\n[figure.b]\n" +
                                          "least = 'distance'\nby = 'lamp'\nof = 'guest'\n");
      const auto values = values_of(level);
      ASSERT_TRUE(values[0].value && values[1].value) << plane << rate;
      EXPECT_NEAR(*values[0].value, 3.0, 2.0 / rate + 0.02) << plane << rate;
      EXPECT_NEAR(*values[1].value, 3.0, 2.0 / rate) << plane << rate;
    }
  }
}

TEST(Figure, IsRefusedWhereItIsNone) {
  const auto fault = [](const std::string& keys) {
    return testing::faults_of(kPassing + std::string("[figure.one]\n") + keys + testing::kTeams);
  };
  EXPECT_NE(fault("by = 'guest'").find("has none of first, last, count"), std::string::npos);
  EXPECT_NE(fault("first = 'hurt'\ncount = 'hurt'").find("count stands beside first"),
            std::string::npos);
  EXPECT_NE(fault("first = 'notised'").find("noticed"), std::string::npos);
  EXPECT_NE(fault("least = 'distanse'").find("distance"), std::string::npos);
  EXPECT_NE(fault("share = 'sean'").find("seen"), std::string::npos);
  EXPECT_NE(fault("first = 'hurt'\nby = 'gest'").find("did you mean 'guest'"), std::string::npos);
  EXPECT_NE(fault("sum = 'damage'").find("needs event"), std::string::npos);
  EXPECT_NE(fault("between = [{ event = 'hurt' }]").find("2 are needed"), std::string::npos);
  EXPECT_NE(fault("first = 'hurt'\nfrom = 3\nto = 2").find("above 3 s"), std::string::npos);
  EXPECT_NE(fault("first = 'hurt'\nfirs = 1").find("first"), std::string::npos);
  Simulation game(passing(""));
  Figure nothing;
  EXPECT_THROW(Figures(game, {&nothing, 1}), UsageError);
  EXPECT_THROW(static_cast<void>(figure_called(game.level(), "guest.helth")), UsageError);
}

TEST(FigureText, ComparesWithItsLimitsAsTheValueDoes) {
  Figure points;
  points.sum = Carried::damage;
  points.event = Event::What::hurt;
  Figure seconds;
  seconds.first = Event::What::noticed;
  fuzz::Choices choices(3);
  for (int i = 0; i < 20'000; ++i) {
    const double limit = choices.between(-30.0, 30.0);
    const double off = std::pow(10.0, -static_cast<double>(choices.below(11)));
    const double value = limit + (choices.one_in(2) ? off : -off);
    for (const Figure& figure : {points, seconds}) {
      const std::string text = figure_text(figure, value, std::vector{limit, limit + 5.0});
      const double shown = std::stod(text);
      ASSERT_EQ(shown < limit, value < limit) << text << " beside " << limit;
      ASSERT_EQ(shown > limit, value > limit) << text << " beside " << limit;
    }
  }
  EXPECT_EQ(figure_text(seconds, 24.9996, std::vector{25.0}), "24.9996 s");
  EXPECT_EQ(figure_text(seconds, 24.9996), "25.000 s");
  EXPECT_EQ(figure_text(seconds, 25.0, std::vector{25.0}), "25.000 s");
}

}  // namespace
}  // namespace gaze
