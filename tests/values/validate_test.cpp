#include <gtest/gtest.h>

#include <algorithm>
#include <array>
#include <regex>

#include "fuzz/level_writer.hpp"
#include "fuzz/spoiler.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

// A level as a program would make it: two foes who see each other.
Level two_foes() {
  Level level;
  level.teams = {{"caretakers", {1}, {}}, {"visitors", {}, {}}};
  Kind pruner;
  pruner.name = "pruner";
  pruner.team = 0;
  pruner.sight.emplace().range = 8.0;
  pruner.sight->field_of_view = Angle::from_degrees(110.0);
  pruner.move.emplace();
  pruner.when.rules.emplace_back().reaction.mode = Mode::chase;
  Kind collector;
  collector.name = "collector";
  collector.team = 1;
  level.kinds = {pruner, collector};
  Agent one;
  one.id = "pruner-1";
  Agent other;
  other.id = "collector";
  other.kind = 1;
  other.position = {5.0, 0.0, 0.0};
  level.agents = {one, other};
  return level;
}

std::string faults_of(const Level& level) {
  std::string text;
  for (const Fault& fault : validate(level)) text += fault.text() + "\n";
  return text;
}

TEST(LevelInCode, WithNothingButWhatMustBeGivenPlays) {
  EXPECT_EQ(faults_of(two_foes()), "");
  Simulation simulation(two_foes());
  const Kind& pruner = simulation.level().kinds[0];
  EXPECT_EQ(pruner.sight->keep_range, 8.0);                       // its range
  EXPECT_EQ(pruner.sight->eye, (Vector3d{0.0, 0.0, 0.9 * 1.7}));  // of its height
  EXPECT_EQ(pruner.move->step_height, 0.3);
  EXPECT_EQ(simulation.level().named_kinds, 2U);
  for (int i = 0; i < 200; ++i) simulation.step();
  EXPECT_NEAR(simulation.state({0}).position.x(), 5.0 - 0.6, 0.05);  // where both bodies touch
}

// The same level from a file, in which the same is left out, is the same in every value.
TEST(LevelInCode, IsCompletedAsAFileIs) {
  Level made = two_foes();
  complete(made);
  const Level read = read_level_text(
      "[team.caretakers]\nhostile = [\"visitors\"]\n[team.visitors]\n[kind.pruner]\n"
      "team = \"caretakers\"\nsight = { range = 8, field_of_view = 110 }\nmove = {}\n"
      "when.sees = \"chase\"\n[kind.collector]\nteam = \"visitors\"\n" +
          testing::placed("pruner-1", "pruner", "[0, 0]") +
          testing::placed("collector", "collector", "[5, 0]"),
      "same.toml");
  ASSERT_TRUE(is_complete(read));
  Simulation one(made);
  Simulation other(read);
  for (int i = 0; i < 300; ++i) {
    one.step();
    other.step();
    for (std::uint32_t who = 0; who < 2; ++who) {
      ASSERT_EQ(one.state({who}).position, other.state({who}).position) << i;
    }
  }
}

TEST(LevelInCode, IsRefusedWithThePathsOfAllThatIsWrong) {
  Level level = two_foes();
  level.kinds[0].sight->keep_range = 3.0;
  level.kinds[0].sight->notice_time = Duration{-1};
  level.kinds[1].team = 7;
  level.kinds[1].radius = std::numeric_limits<double>::quiet_NaN();
  level.agents[1].id = "not a name";
  level.kinds[0].attacks.emplace_back().name = "shears";
  EXPECT_EQ(faults_of(level),
            "error: kind.pruner.sight.notice_time is -1e-09; 0 to 86400 s is allowed\n"
            "error: kind.pruner.attack.shears.range is 0; above 0 to 40000 m is allowed\n"
            "error: kind.pruner.attack.shears.cooldown is missing: it must be given\n"
            "error: kind.collector.team is team number 7; there are 2, from 0 on\n"
            "error: kind.collector.radius is nan; above 0 to 1000 m is allowed\n"
            "error: agent.not a name.id is \"not a name\"; letters, digits, _ and - are allowed\n");
  EXPECT_THROW(Simulation{level}, LevelError);
  level = two_foes();
  level.kinds[0].sight->keep_range = 3.0;
  level.agents.push_back(level.agents[0]);
  EXPECT_EQ(faults_of(level),
            "error: kind.pruner.sight.keep_range is 3; at least the range of 8 m is allowed\n");
}

// Whatever a file can say can be said in code, and is right there too.
TEST(LevelInCode, OfAllRandomFilesIsRight) {
  int count = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(300); ++seed) {
    const auto level = fuzz::level_of_seed(seed);
    if (!level) continue;
    ++count;
    EXPECT_EQ(faults_of(*level), "") << seed;
    EXPECT_TRUE(is_complete(*level)) << seed;
  }
  EXPECT_GT(count, 20);
}

// Replaces a random number of a text by 0, a huge number, a limit of an angle or not-a-number.
std::string with_odd_number(std::string text, scenes::Random& random) {
  constexpr std::array kOdd{"0",    "-1",   "1e-12",  "1e-6",  "0.5",  "3",
                            "1000", "2e4",  "1e9",    "nan",   "-inf", "1e300",
                            "360",  "-0.0", "1e-300", "2.5e5", "90",   "-90"};
  const std::regex number(R"([-+]?\b\d+(\.\d+)?(e[-+]?\d+)?\b)");
  std::vector<std::smatch> all;
  for (std::sregex_iterator at(text.begin(), text.end(), number), end; at != end; ++at) {
    all.push_back(*at);
  }
  if (all.empty()) return text;
  const std::smatch& chosen = all[random.next() % all.size()];
  const auto from = static_cast<std::size_t>(chosen.position());
  const auto length = static_cast<std::size_t>(chosen.length());
  return text.replace(from, length, kOdd[random.next() % kOdd.size()]);
}

// `validate` accepts every level that can be read from a text.
TEST(LevelInCode, ReadingRefusesWhatValidateRefuses) {
  scenes::Random random(16);
  std::uint64_t read = 0;
  std::uint64_t refused = 0;
  const std::uint64_t count = testing::rounds(1500);
  for (std::uint64_t round = 0; round < count; ++round) {
    fuzz::Choices choices(round % 120 + 1);
    const std::string text = with_odd_number(fuzz::write_level(choices), random);
    try {
      const Level level = read_level_text(text, "odd.toml");
      EXPECT_EQ(faults_of(level), "") << text;
      ++read;
    } catch (const LevelError&) {
      ++refused;
    }
  }
  EXPECT_GT(read, testing::enough(count / 10));
  EXPECT_GT(refused, testing::enough(count / 10));
}

// Structure by structure: one value is spoilt, or several. Either it is refused with a text, or it
// plays, draws its numbers and ends.
TEST(LevelInCode, IsRefusedOrPlaysWhateverItHolds) {
  scenes::Random random(15);
  int refused = 0;
  int played = 0;
  const std::uint64_t count = testing::rounds(testing::is_sanitized() ? 120 : 400);
  for (std::uint64_t seed = 1; seed <= count; ++seed) {
    auto level = fuzz::level_of_seed(seed % 120 + 1);
    if (!level || level->agents.size() > 60) continue;
    for (int round = 0; round < 8; ++round) {
      Level spoilt = *level;
      for (std::uint64_t times = 0; times <= random.next() % 3; ++times) {
        fuzz::spoil(spoilt, random);
      }
      const auto faults = validate(spoilt);
      for (const Fault& fault : faults) ASSERT_FALSE(fault.message.empty());
      if (!faults.empty()) {
        ++refused;
        ASSERT_THROW(Simulation{spoilt}, LevelError);
        continue;
      }
      ++played;
      Simulation simulation(spoilt);
      for (int step = 0; step < 20; ++step) simulation.step();
      for (std::uint32_t who = 0; who < simulation.agent_count(); ++who) {
        ASSERT_TRUE(simulation.state({who}).position.allFinite()) << seed;
      }
    }
  }
  EXPECT_GT(refused, static_cast<int>(count));
  EXPECT_GT(played, static_cast<int>(count / 4));
}

}  // namespace
}  // namespace gaze
