// Two runs held against each other.

#include "gaze/tools/compare.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "gaze/tools/report.hpp"
#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

// A runner comes straight up to a lamp, 2 m a second from 12 m away.
constexpr const char* kComing = R"(
seconds = 5.0
[kind.lamp]
team = "caretakers"
sight = { range = 6.0, field_of_view = 90.0 }
[kind.runner]
team = "visitors"
move = { speed = 2.0 }
[[agent]]
id = "lamp-1"
kind = "lamp"
at = [0.0, 0.0]
[[agent]]
id = "guest"
kind = "runner"
at = [12.0, 0.0]
script = [{ go = [1.0, 0.0] }]
)";

Level coming(const std::vector<Setting>& settings = {}) {
  return testing::garden(kComing, settings);
}

TEST(Compare, OfALevelWithItselfDoesNotPart) {
  const Comparison same = compare(coming(), coming());
  EXPECT_FALSE(same.fork);
  EXPECT_TRUE(same.events.empty());
  for (const auto& values : same.values) EXPECT_EQ(values[0], values[1]);
}

// Noticed from 6 m on in the one, after 3 s; from 8 m on in the other, after 2 s: there they part.
TEST(Compare, TellsWhereTheyPartAndWhy) {
  const Level near = coming();
  const Level far = coming({{"kind.lamp.sight.range", "8"}});
  const Comparison found = compare(near, far);
  ASSERT_TRUE(found.fork);
  EXPECT_NEAR(found.fork->seconds, 2.0, 1.5 / 60.0);
  EXPECT_EQ(found.fork->who, "lamp-1");
  EXPECT_EQ(found.fork->of, "guest");
  EXPECT_NE(found.fork->states[0].find("is unaware of guest"), std::string::npos);
  EXPECT_NE(found.fork->states[1].find("has noticed guest"), std::string::npos);
  EXPECT_NE(found.fork->verdicts[0].find("out of range by"), std::string::npos);
  EXPECT_NE(found.fork->verdicts[1].find("of 8.00 m away"), std::string::npos)
      << found.fork->verdicts[1];
  // Up to the tick before they are alike to the last bit; from then on they are not.
  Simulation one(near);
  Simulation other(far);
  const auto fork = static_cast<std::int64_t>(std::lround(found.fork->seconds * 60.0));
  const auto knows = [](const Simulation& game) {
    return game.awareness(game.agent("lamp-1"), game.agent("guest"));
  };
  for (; one.tick() + 1 < fork; one.step(), other.step()) EXPECT_EQ(knows(one), knows(other));
  EXPECT_EQ(one.state(one.agent("guest")).position, other.state(other.agent("guest")).position);
  one.step();
  other.step();
  EXPECT_NE(knows(one), knows(other));
  ASSERT_EQ(found.figures[0].name, "guest.first-noticed");
  EXPECT_NEAR(*found.values[0][0], 3.0, 2.0 / 60.0);
  EXPECT_NEAR(*found.values[0][1], 2.0, 2.0 / 60.0);
}

TEST(Compare, TellsOfPlacesAndOfEventsThatOneHasAlone) {
  const Comparison found = compare(coming(), coming({{"kind.runner.move.speed", "1"}}));
  ASSERT_TRUE(found.fork);
  EXPECT_NEAR(found.fork->seconds, 1.0 / 60.0, 1e-9);  // in the first step already
  EXPECT_EQ(found.fork->who, "guest");
  const auto noticed =
      std::find_if(found.events.begin(), found.events.end(),
                   [](const EventDifference& one) { return one.what == "lamp-1 noticed guest"; });
  ASSERT_NE(noticed, found.events.end());
  EXPECT_EQ(noticed->count, (std::array<int, 2>{1, 0}));
  EXPECT_NEAR(noticed->first[0], 3.0, 2.0 / 60.0);
}

TEST(Compare, OfOtherAgentsNamesThem) {
  const Level more = testing::garden(kComing + testing::placed("lamp-2", "lamp", "[0, 40]"));
  const Comparison found = compare(coming(), more);
  EXPECT_EQ(found.only_in_other, std::vector<std::string>{"lamp-2"});
  EXPECT_TRUE(found.only_in_one.empty());
  EXPECT_FALSE(found.fork);  // what both have is alike
}

TEST(Compare, OfOtherRatesComparesEventsAlone) {
  const Comparison found = compare(coming(), coming({{"ticks_per_second", "30"}}));
  EXPECT_FALSE(found.fork);
  EXPECT_TRUE(found.events.empty());
  EXPECT_NEAR(*found.values[0][0], *found.values[0][1], 1.0 / 30.0);
}

class CompareCommand : public testing::InTemporaryFolder {};

TEST_F(CompareCommand, ShowsBothAndTheirValues) {
  const std::string one = write("one.toml", kComing + std::string(testing::kTeams));
  std::string text = kComing;
  text.replace(text.find("range = 6.0"), 11, "range = 8.0");
  const std::string other = write("other.toml", text + testing::kTeams);
  const std::string png = folder / "both.png";
  const auto answer = testing::gaze_call({"compare", one, other, "--output", png});
  EXPECT_EQ(answer.status, 0) << answer.err;
  EXPECT_NE(answer.out.find("The runs part at 2.0"), std::string::npos) << answer.out;
  EXPECT_NE(answer.out.find(
                fmt::format("kind.lamp.sight.range: 6.0 ({}:5:19) | 8.0 ({}:5:19)", one, other)),
            std::string::npos)
      << answer.out;
  EXPECT_TRUE(std::filesystem::exists(png));
  const auto with = testing::gaze_call({"compare", one, "--with", "kind.lamp.sight.range=8"});
  EXPECT_NE(with.out.find("with kind.lamp.sight.range = 8"), std::string::npos);
  EXPECT_NE(with.out.find("8 (--with kind.lamp.sight.range)"), std::string::npos) << with.out;
  EXPECT_EQ(testing::gaze_call({"compare", one}).status, 2);
  EXPECT_EQ(testing::gaze_call({"compare", one, other, "--with", "seed=2"}).status, 2);
  const auto wrong = testing::gaze_call({"compare", one, "--with", "kind.lmap.sight.range=8"});
  EXPECT_EQ(wrong.status, 2);
  EXPECT_NE(wrong.err.find("did you mean 'lamp'?"), std::string::npos);
}

}  // namespace
constexpr const char* kYard = R"(
seconds = 8.0
[material.glass]
stops = ["bodies", "shots"]
[kind.sprinkler]
team = "caretakers"
attack.jet = { how = "shot", range = 50.0, speed = 10.0, damage = 5.0, cooldown = 1.0, aim = "ahead", lifetime = 3.0 }
[[agent]]
id = "sprinkler"
kind = "sprinkler"
at = [0.0, 0.0]
script = [{ aim = [10.0, 0.0], fire = 2.5 }]
[[block]]
id = "pane"
material = "glass"
outline = [[5.0, -1.0], [5.5, -1.0], [5.5, 1.0], [5.0, 1.0]]
health = 40.0
[kind.lamp]
team = "caretakers"
sight = { range = 9.0, field_of_view = 360.0, remember = 5.0 }
attack.glow = { how = "strike", range = 5.0, damage = 50.0, cooldown = 1.0 }
[kind.guest]
team = "visitors"
defeat.score = 10.0
[[agent]]
id = "lamp"
kind = "lamp"
at = [0.0, 20.0]
[[agent]]
id = "guest"
kind = "guest"
at = [2.0, 20.0]
driver = "host"
[kind.cart]
move.speed = 3.0
[[agent]]
id = "cart"
kind = "cart"
at = [-6.0, -20.0]
script = [{ go = [6.0, -20.0] }]
[[door]]
id = "hatch"
material = "brick"
path = [[0.0, -21.0], [0.0, -19.0]]
)";

struct OneChange {
  const char* path;
  const char* value;
  const char* who;  ///< Agent, solid or projectile that differs first.
};

TEST(Compare, SeesWhatNoPoseShows) {
  const Level yard = testing::garden(kYard);
  EXPECT_FALSE(compare(yard, yard).fork);
  for (const OneChange& change :
       {OneChange{"kind.sprinkler.attack.jet.speed", "10.5", "a projectile of sprinkler"},
        OneChange{"block.pane.health", "45", "pane"},
        OneChange{"kind.guest.defeat.score", "11", "lamp"},
        OneChange{"door.hatch.opens_within", "3", "hatch"}}) {
    const Comparison found = compare(yard, testing::garden(kYard, {{change.path, change.value}}));
    ASSERT_TRUE(found.fork) << change.path;
    EXPECT_EQ(found.fork->who, change.who) << change.path;
    EXPECT_NE(found.fork->states[0], found.fork->states[1]);
  }
}

TEST(Compare, SaysWhatItCannotCompare) {
  const Level yard = testing::garden(kYard);
  const Level slow = testing::garden(kYard, {{"ticks_per_second", "240"}});
  const Comparison rates = compare(yard, slow);
  EXPECT_FALSE(rates.is_compared_by_tick);
  EXPECT_NE(compare_text(rates, {}, {"one", "two"}).find("different tick rates"),
            std::string::npos);
  EXPECT_EQ(compare_text(rates, {}, {"one", "two"}).find("to the last bit"), std::string::npos);
}

TEST(Compare, ReportsMemoriesThatDiffer) {
  // The target is lost behind a wall and remembered until after the end of the run.
  const std::string text = std::string(kComing) +
                           "[[wall]]\nid = \"hedge\"\nmaterial = \"brick\"\n"
                           "path = [[4.0, -1.0], [4.0, 1.0]]\n";
  const auto level = [&](const char* remember) {
    return testing::garden(text, {{"kind.lamp.sight.remember", remember},
                                  {"agent.guest.at", "[5.5, 2.0]"},
                                  {"agent.guest.script", "[{ go = [5.5, 0.0] }]"}});
  };
  const Comparison found = compare(level("60"), level("70"));
  EXPECT_FALSE(found.fork);
  EXPECT_TRUE(found.differs_inside);
  EXPECT_FALSE(compare(level("60"), level("60")).differs_inside);
}

TEST(Compare, ReportsEventsAtOtherTimes) {
  const Comparison found =
      compare(coming(), coming({{"agent.guest.script", "[{ wait = 0.5 }, { go = [1.0, 0.0] }]"}}));
  const auto noticed = std::find_if(found.events.begin(), found.events.end(), [](const auto& one) {
    return one.what == "lamp-1 noticed guest";
  });
  ASSERT_NE(noticed, found.events.end());
  EXPECT_EQ(noticed->count, (std::array{1, 1}));
  EXPECT_NEAR(noticed->first[1] - noticed->first[0], 0.5, 1e-9);
}

TEST(SortOf, NamesWhoSuffersFirstAndWhoDidIt) {
  Simulation game(testing::garden(kYard));
  std::set<std::string> sorts;
  for (const Event& event : testing::play(game, 60)) sorts.insert(sort_of(game, event));
  EXPECT_TRUE(sorts.contains("guest hurt by lamp with glow"));
  EXPECT_TRUE(sorts.contains("lamp noticed guest"));
  Figure figure;
  figure.count = Event::What::hurt;
  figure.by = "guest";
  EXPECT_EQ(describe(figure), "count of hurt of guest");
  figure.of = "lamp";
  EXPECT_EQ(describe(figure), "count of hurt by lamp of guest");
}

}  // namespace gaze
