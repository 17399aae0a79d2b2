// Values varied and limits found, against the values at which they must lie.

#include "gaze/tools/vary.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <tuple>

#include "gaze/tools/chart.hpp"
#include "gaze/tools/report.hpp"
#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

// A lamp looks at a guest who stands 6 m away, and hurts it by what it is told once a second: as
// many times as fit into the run after it has noticed it.
constexpr const char* kStanding = R"(
seconds = 4.5
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]
[kind.lamp]
team = "caretakers"
sight = { range = 9.0, field_of_view = 90.0, keep_range = 50.0 }
[kind.lamp.attack.ray]
how = "strike"
range = 20.0
damage = 5.0
cooldown = 1.0
[kind.guest]
team = "visitors"
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0]
[[agent]]
id = "guest-1"
kind = "guest"
at = [6.0, 0.0]
driver = "host"
[figure.hits]
count = "hurt"
)";

// Shots that spread, at a distance at which some miss.
constexpr const char* kShooting = R"(
seconds = 4.0
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]
[kind.lamp]
team = "caretakers"
sight = { range = 30.0, field_of_view = 90.0 }
[kind.lamp.attack.thorn]
how = "shot"
range = 20.0
speed = 20.0
damage = 5.0
cooldown = 0.2
spread = 12.0
[kind.guest]
team = "visitors"
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0]
[[agent]]
id = "guest-1"
kind = "guest"
at = [6.0, 0.0]
driver = "host"
)";

LevelSource source_of(const char* text) {
  return [text](const std::vector<Setting>& settings) {
    return read_level_text(text, "standing.toml", settings);
  };
}

TEST(AxisOf, ReadsRangesAndLists) {
  const Axis range = axis_of("a.b=0.1:0.7:0.2");
  EXPECT_EQ(range.path, "a.b");
  EXPECT_EQ(range.values, (std::vector<std::string>{"0.1", "0.3", "0.5", "0.7"}));
  EXPECT_EQ(axis_of("a=1:10:4").values, (std::vector<std::string>{"1", "5", "9"}));
  const Axis words = axis_of("a=lob,straight");
  EXPECT_TRUE(words.numbers.empty());
  EXPECT_EQ(axis_of("a=1,5,2.5").values.size(), 3U);
  for (const char* wrong : {"a", "=1", "a=", "a=1:2", "a=1:2:0", "a=2:1:1", "a=1:2:x", "a=1:2:3:4",
                            "a=0:1:0.00001", "a=1,,2", "a=nan:1:1", "a=1:inf:1"}) {
    EXPECT_THROW(axis_of(wrong), UsageError) << wrong;
  }
}

// In range from 6 m on: none below, and after it the time and the hits that the level gives.
TEST(Vary, PlaysEveryValueAndNarrowsTheJump) {
  const std::vector<Axis> axes{axis_of("kind.lamp.sight.range=2:12:1")};
  const std::vector<std::string> figures{"guest-1.first-noticed", "hits"};
  const Variation found = vary(source_of(kStanding), axes, figures);
  ASSERT_EQ(found.points.size(), 11U);
  for (std::size_t i = 0; i < 11; ++i) {
    const double range = 2.0 + static_cast<double>(i);
    const bool sees = range >= 6.0;
    EXPECT_EQ(found.points[i].values[0][0].has_value(), sees) << range;
    EXPECT_EQ(found.points[i].values[1][0], sees ? 5.0 : 0.0) << range;
  }
  ASSERT_EQ(found.jumps.size(), 2U);
  for (const Jump& jump : found.jumps) {
    EXPECT_LT(jump.from, 6.0);
    EXPECT_GE(jump.to, 6.0);
    EXPECT_LE(jump.to - jump.from, 1.0 / 32.0);
  }
  EXPECT_EQ(found.jumps[0].before, std::nullopt);
  EXPECT_EQ(found.jumps[1].before, 0.0);
  EXPECT_EQ(found.jumps[1].after, 5.0);
}

// The damage makes a slope, however steep, and no jump.
TEST(Vary, TakesNoSlopeForAJump) {
  const std::vector<Axis> axes{axis_of("kind.lamp.attack.ray.damage=0,0.5,1,1.5,2,15")};
  const std::vector<std::string> figures{"guest-1.health"};
  const Variation found = vary(source_of(kStanding), axes, figures);
  for (const VaryPoint& point : found.points) {
    const double damage = found.axes[0].numbers[point.at[0]];
    EXPECT_NEAR(*point.values[0][0], 100.0 - 5.0 * damage, 1e-9);
  }
  EXPECT_TRUE(found.jumps.empty());
}

// Listed in any order, numbers are played as they rise, and the jump is found.
TEST(Vary, PlaysUnsortedNumbersInRisingOrder) {
  const std::vector<Axis> axes{axis_of("kind.lamp.sight.range=8,2,12,4,10,5,7,3")};
  EXPECT_EQ(axes[0].values, (std::vector<std::string>{"2", "3", "4", "5", "7", "8", "10", "12"}));
  const std::vector<std::string> figures{"hits"};
  const Variation found = vary(source_of(kStanding), axes, figures);
  ASSERT_EQ(found.jumps.size(), 1U);
  EXPECT_LT(found.jumps[0].from, 6.0);
  EXPECT_GE(found.jumps[0].to, 6.0);
}

// In 4.5 s floor(4.5 / cooldown) + 1 blows fall: a staircase with steps at 2.25 s and at 4.5 s.
// Both lie between the last two values.
TEST(Vary, FindsEveryStepBetweenTwoNeighbours) {
  const std::vector<Axis> axes{
      axis_of("kind.lamp.attack.ray.cooldown=1.6,1.7,1.8,1.9,2,2.1,2.2,5")};
  const std::vector<std::string> figures{"hits"};
  const Variation found = vary(source_of(kStanding), axes, figures);
  ASSERT_EQ(found.jumps.size(), 2U);
  constexpr double kTicks = 2.0 / 60.0;  // seconds, between noticing and the first blow
  for (const auto& [jump, step, hits] :
       {std::tuple(found.jumps[0], 2.25, 3.0), std::tuple(found.jumps[1], 4.5, 2.0)}) {
    EXPECT_LE(jump.from, step);
    EXPECT_GE(jump.to, step - kTicks);
    EXPECT_LE(jump.to - jump.from, (5.0 - 2.2) / 32.0);
    EXPECT_EQ(jump.before, hits);
    EXPECT_EQ(jump.after, hits - 1.0);
  }
}

TEST(Vary, OverTwoValuesHasEveryPair) {
  const std::vector<Axis> axes{axis_of("kind.lamp.sight.range=5,7"),
                               axis_of("kind.lamp.attack.ray.damage=1:3:1")};
  const std::vector<std::string> figures{"guest-1.health"};
  const Variation found = vary(source_of(kStanding), axes, figures);
  ASSERT_EQ(found.points.size(), 6U);
  for (const VaryPoint& point : found.points) {
    const double damage = found.axes[1].numbers[point.at[1]];
    EXPECT_NEAR(*point.values[0][0], point.at[0] == 0 ? 100.0 : 100.0 - 5.0 * damage, 1e-9);
  }
  const std::string csv = vary_csv(found);
  EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), 7);
  EXPECT_TRUE(
      csv.starts_with("kind.lamp.sight.range,kind.lamp.attack.ray.damage,run,"
                      "guest-1.health\n5,1,1,100\n"));
}

TEST(Vary, IsTheSameOnOneThreadAndOnMany) {
  const std::vector<Axis> axes{axis_of("kind.lamp.attack.thorn.spread=0:30:3")};
  const std::vector<std::string> figures{"guest-1.health", "guest-1.first-hurt"};
  StudyOptions one;
  one.threads = 1;
  StudyOptions many;
  many.threads = 5;
  const std::string first = vary_json(vary(source_of(kShooting), axes, figures, 9, one));
  EXPECT_EQ(first, vary_json(vary(source_of(kShooting), axes, figures, 9, many)));
}

TEST(Vary, CanBeEndedInTheMidst) {
  const std::vector<Axis> axes{axis_of("kind.lamp.attack.ray.damage=1:100:1")};
  const std::vector<std::string> figures{"guest-1.health"};
  StudyOptions options;
  options.threads = 1;
  options.goes_on = [](std::size_t done, std::size_t all) {
    EXPECT_EQ(all, 100U);
    return done < 70;
  };
  const Variation found = vary(source_of(kStanding), axes, figures, 1, options);
  EXPECT_FALSE(found.is_whole);
  EXPECT_EQ(found.points.size(), 70U);
  EXPECT_FALSE(draw(found).empty());
}

TEST(Spread, HasTheNearestRanks) {
  const Spread spread = spread_of({5.0, 1.0, std::nullopt, 3.0, 2.0, 4.0});
  EXPECT_EQ(spread.runs, 6U);
  EXPECT_EQ(spread.some, 5U);
  EXPECT_EQ(spread.least, 1.0);
  EXPECT_EQ(spread.low, 2.0);
  EXPECT_EQ(spread.median, 3.0);
  EXPECT_EQ(spread.high, 4.0);
  EXPECT_EQ(spread.most, 5.0);
  EXPECT_EQ(spread.mean, 3.0);
}

Wish wish_of(const char* figure, std::optional<double> at_least, std::optional<double> at_most) {
  Wish wish;
  wish.figure = figure;
  wish.at_least = at_least;
  wish.at_most = at_most;
  return wish;
}

// Five hits: 60 points are left up to a damage of 8.
TEST(Find, BracketsTheLimit) {
  const Search found = find(source_of(kStanding), "kind.lamp.attack.ray.damage", 0.0, 20.0,
                            wish_of("guest-1.health", 60.0, {}));
  ASSERT_EQ(found.limits.size(), 1U);
  const Limit& limit = found.limits[0];
  EXPECT_TRUE(limit.before.holds);
  EXPECT_FALSE(limit.after.holds);
  EXPECT_LE(limit.before.value, 8.0);
  EXPECT_GT(limit.after.value, 8.0);
  EXPECT_LE(limit.after.value - limit.before.value, 20.0 / 1000.0);
  EXPECT_NEAR(*limit.before.numbers[0], 100.0 - 5.0 * limit.before.value, 1e-9);
  const Search narrow = find(source_of(kStanding), "kind.lamp.attack.ray.damage", 0.0, 20.0,
                             wish_of("guest-1.health", 60.0, {}), 1e-6);
  EXPECT_LE(narrow.limits[0].after.value - narrow.limits[0].before.value, 1e-6);
}

// The guest is in sight only where the lamp looks its way: from 315 to 45 degrees.
TEST(Find, NamesSeveralLimitsNoneAndAlways) {
  const auto search = [](double low, double high) {
    return find(source_of(kStanding), "agent.lamp-1.facing", low, high, wish_of("hits", 1.0, {}));
  };
  const Search both = search(-120.0, 120.0);
  ASSERT_EQ(both.limits.size(), 2U);
  EXPECT_NEAR(both.limits[0].after.value, -45.0, 0.25);
  EXPECT_NEAR(both.limits[1].before.value, 45.0, 0.25);
  EXPECT_TRUE(search(-40.0, 40.0).limits.empty());
  EXPECT_TRUE(search(-40.0, 40.0).tried.front().holds);
  EXPECT_NE(find_text(search(-40.0, 40.0)).find("holds always"), std::string::npos);
  EXPECT_NE(find_text(search(50.0, 150.0)).find("holds nowhere"), std::string::npos);
  EXPECT_NE(find_text(both).find("2 limits"), std::string::npos);
}

// Whole numbers are brought as near to each other as they come.
TEST(Find, OfWholeNumbersEndsBetweenTwo) {
  const Search found = find(source_of(kStanding), "ticks_per_second", 20.0, 200.0,
                            wish_of("guest-1.first-hurt", {}, 0.02));
  ASSERT_EQ(found.limits.size(), 1U);  // a step is that long at 50 a second
  EXPECT_EQ(found.limits[0].after.value - found.limits[0].before.value, 1.0);
  EXPECT_EQ(found.limits[0].after.value, 50.0);
}

TEST(Find, OfManyRunsGoesByTheirShare) {
  Wish wish = wish_of("guest-1.health", 80.0, {});
  wish.runs = 20;
  wish.of_runs = 0.5;
  const Search found = find(source_of(kShooting), "kind.lamp.attack.thorn.damage", 0.0, 40.0, wish);
  ASSERT_EQ(found.limits.size(), 1U);
  for (const Tried* side : {&found.limits[0].before, &found.limits[0].after}) {
    std::size_t held = 0;
    for (int seed = 1; seed <= 20; ++seed) {
      Simulation game(
          read_level_text(kShooting, "t",
                          {{"seed", std::to_string(seed)},
                           {"kind.lamp.attack.thorn.damage", fmt::format("{}", side->value)}}));
      while (game.seconds() < 4.0) game.step();
      held += game.state(game.agent("guest-1")).health >= 80.0 ? 1 : 0;
    }
    EXPECT_EQ(side->share, static_cast<double>(held) / 20.0);
    EXPECT_EQ(side->holds, held >= 10U);
  }
}

class VaryCommand : public testing::InTemporaryFolder {};

TEST_F(VaryCommand, WritesTableFilesAndErrors) {
  const std::string level = write("standing.toml", kStanding);
  const std::string csv = folder / "v.csv";
  const std::string png = folder / "v.png";
  const auto answer =
      testing::gaze_call({"vary", level, "--over", "kind.lamp.sight.range=5:7:1", "--figure",
                          "hits,guest-1.health", "--csv", csv, "--output", png});
  EXPECT_EQ(answer.status, 0) << answer.err;
  EXPECT_NE(answer.out.find("hits jumps from 0 to 5 between"), std::string::npos) << answer.out;
  EXPECT_TRUE(std::filesystem::exists(csv) && std::filesystem::exists(png));
  const auto error = [&](const std::vector<std::string>& more) {
    std::vector<std::string> arguments{"vary", level};
    arguments.insert(arguments.end(), more.begin(), more.end());
    const auto wrong = testing::gaze_call(arguments);
    EXPECT_EQ(wrong.status, 2);
    return wrong.err;
  };
  EXPECT_NE(error({"--over", "kind.lamp.sight.rnage=1:2:1", "--figure", "hits"})
                .find("did you mean 'range'?"),
            std::string::npos);
  EXPECT_NE(error({"--over", "kind.lamp.sight.range=1:2:1", "--figure", "hit"})
                .find("did you mean 'hits'?"),
            std::string::npos);
  EXPECT_NE(error({"--over", "kind.lamp.sight.range=0:60:30", "--figure", "hits"})
                .find("with kind.lamp.sight.range = "),
            std::string::npos);
  EXPECT_EQ(testing::gaze_call({"find", level, "--over", "seed=1:9", "--figure", "hits"}).status,
            2);
}

}  // namespace
}  // namespace gaze
