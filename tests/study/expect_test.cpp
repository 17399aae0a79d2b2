// Expectations: what holds, what does not, and what is told of it.

#include "gaze/tools/expect.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cstdlib>

#include "gaze/tools/report.hpp"
#include "support/command.hpp"
#include "support/levels.hpp"
#include "support/temporary_folder.hpp"

namespace gaze {
namespace {

// A lamp that fires at who stands before it: where its shots go is a matter of chance.
constexpr const char* kTarget = R"(
seconds = 4.0
[team.caretakers]
hostile = ["visitors"]
[team.visitors]
hostile = ["caretakers"]
[kind.lamp]
team = "caretakers"
sight = { range = 9.0, field_of_view = 90.0 }
[kind.lamp.attack.thorn]
how = "shot"
range = 9.0
speed = 10.0
damage = 5.0
cooldown = 0.5
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

LevelSource source_of(const std::string& text) {
  return [text](const std::vector<Setting>& settings) {
    return read_level_text(text, "target.toml", settings);
  };
}

ExpectResult result_of(const std::string& keys, const StudyOptions& options = {}) {
  const std::string text = kTarget + std::string("[[expect]]\nid = 'one'\n") + keys;
  return expect(source_of(text), {}, options).at(0);
}

TEST(Expect, HoldsUpToItsLimitAndNoFarther) {
  const double health = *result_of("figure = 'guest-1.health'\nat_least = 0").values[0];
  const auto holds = [&](const char* limit, double value) {
    return result_of(fmt::format("figure = 'guest-1.health'\n{} = {}", limit, value)).holds;
  };
  EXPECT_TRUE(holds("at_least", health));
  EXPECT_FALSE(holds("at_least", health + 0.1));
  EXPECT_TRUE(holds("at_most", health));
  EXPECT_FALSE(holds("at_most", health - 0.1));
  EXPECT_TRUE(holds("exactly", health));
  EXPECT_FALSE(holds("exactly", health + 0.1));
  EXPECT_NEAR(
      *result_of(fmt::format("figure = 'guest-1.health'\nat_least = {}", health + 2.5)).missed_by,
      2.5, 1e-9);
}

TEST(Expect, WhatDoesNotComeComesLaterThanAnyLimit) {
  EXPECT_TRUE(result_of("figure = 'guest-1.caught'\nnever = true").holds);
  EXPECT_FALSE(result_of("figure = 'guest-1.first-noticed'\nnever = true").holds);
  EXPECT_TRUE(result_of("figure = 'guest-1.caught'\nat_least = 3.0").holds);
  EXPECT_FALSE(result_of("figure = 'guest-1.caught'\nat_most = 3.0").holds);
  EXPECT_FALSE(result_of("figure = 'guest-1.caught'\nexactly = 3.0").holds);
}

// Each run is the one that `--seed` plays, and the share of those that hold decides.
TEST(Expect, ManyRunsHaveTheirSeeds) {
  const ExpectResult all = result_of("figure = 'guest-1.health'\nat_least = 90\nruns = 40");
  ASSERT_EQ(all.values.size(), 40U);
  std::size_t held = 0;
  std::optional<std::size_t> failing;
  for (std::size_t i = 0; i < 40; ++i) {
    EXPECT_EQ(all.seeds[i], i + 1);
    Simulation game(read_level_text(kTarget, "t", {{"seed", std::to_string(i + 1)}}));
    while (game.seconds() < 4.0) game.step();
    const double health = game.state(game.agent("guest-1")).health;
    EXPECT_EQ(all.values[i], health) << i;
    held += health >= 90.0 ? 1 : 0;
    if (health < 90.0 && !failing) failing = i;
  }
  ASSERT_TRUE(failing);
  ASSERT_GT(held, 1U);
  EXPECT_EQ(all.held, held);
  EXPECT_EQ(all.told, *failing);
  EXPECT_FALSE(all.holds);
  const auto with_share = [&](double share) {
    return result_of(
               fmt::format("figure = 'guest-1.health'\nat_least = 90\nruns = 40\nof_runs = {}",
                           share))
        .holds;
  };
  EXPECT_TRUE(with_share(static_cast<double>(held) / 40.0));
  EXPECT_FALSE(with_share(static_cast<double>(held + 1) / 40.0));
}

TEST(Expect, IsTheSameOnOneThreadAndOnMany) {
  const std::string keys = "figure = 'guest-1.health'\nat_least = 95\nruns = 60";
  StudyOptions one;
  one.threads = 1;
  StudyOptions many;
  many.threads = 4;
  ExpectResult first = result_of(keys, one);
  ExpectResult second = result_of(keys, many);
  first.wall_seconds = second.wall_seconds = 0.0;
  EXPECT_EQ(expect_json(std::vector<LevelResults>{{"t", {first}}}),
            expect_json(std::vector<LevelResults>{{"t", {second}}}));
}

TEST(Expect, SetsValuesForItselfAlone) {
  const std::string text = kTarget + std::string(R"(
[[expect]]
id = "harmless"
figure = "guest-1.health"
exactly = 100.0
set = { "kind.lamp.attack.thorn.damage" = 0.0, "agent.guest-1.at" = [6.0, 0.5] }
[[expect]]
id = "as-it-is"
figure = "guest-1.health"
at_most = 99.0
)");
  const auto results = expect(source_of(text));
  EXPECT_TRUE(results.at(0).holds);
  EXPECT_TRUE(results.at(1).holds);
  EXPECT_EQ(expect(source_of(text), std::vector<std::string>{"as-it-is"}).size(), 1U);
  EXPECT_THROW(expect(source_of(text), std::vector<std::string>{"as-it-si"}), UsageError);
}

TEST(Expect, TellsWhatLedThere) {
  const ExpectResult result = result_of("figure = 'guest-1.first-hurt'\nat_least = 3.0");
  ASSERT_FALSE(result.holds);
  ASSERT_EQ(result.reasons.size(), 1U);
  EXPECT_NEAR(result.reasons[0].seconds, *result.values[0], 1e-9);
  EXPECT_NE(result.reasons[0].what.find("thorn"), std::string::npos);
  EXPECT_NE(result.reasons[0].where.find("guest-1 at [6.00, 0.00]"), std::string::npos);
  EXPECT_NE(result.reasons[0].verdict.find("seen: 6.00 of 9.00 m away"), std::string::npos);
}

TEST(Expect, CanBeEndedInTheMidst) {
  StudyOptions options;
  options.threads = 1;
  std::size_t told = 0;
  options.goes_on = [&](std::size_t done, std::size_t all) {
    EXPECT_EQ(all, 41U);
    told = done;
    return done < 5;
  };
  const std::string text = kTarget + std::string(R"(
[[expect]]
id = "first"
figure = "guest-1.health"
at_least = 0.0
[[expect]]
id = "second"
figure = "guest-1.health"
at_least = 0.0
runs = 40
)");
  const auto results = expect(source_of(text), {}, options);
  ASSERT_EQ(results.size(), 1U);  // the one of which all was played
  EXPECT_EQ(results[0].expectation.id, "first");
  EXPECT_EQ(told, 5U);
}

class ExpectCommand : public testing::InTemporaryFolder {};

TEST_F(ExpectCommand, HasAStatusAndJUnitXmlForEachLevel) {
  const std::string good =
      write("good.toml", kTarget + std::string("[[expect]]\nid = 'calm'\nfigure = "
                                               "'guest-1.defeated'\nnever = true\n"));
  const std::string bad =
      write("bad.toml", kTarget + std::string("[[expect]]\nid = 'whole'\nfigure = "
                                              "'guest-1.health'\nexactly = 100\nruns = 3\n"));
  EXPECT_EQ(testing::gaze_call({"expect", good}).status, 0);
  const std::string xml = folder / "results.xml";
  const auto answer = testing::gaze_call({"expect", good, bad, "--junit", xml});
  EXPECT_EQ(answer.status, 1);
  EXPECT_NE(answer.out.find("FAILS  whole"), std::string::npos);
  EXPECT_NE(answer.out.find("holds  calm"), std::string::npos);
  const std::string schema = std::string(GAZE_TEST_FILES) + "/study/junit.xsd";
  EXPECT_EQ(std::system(("xmllint --noout --schema " + schema + " " + xml + " 2>&1").c_str()), 0);
  const std::string read =
      "import sys, junitparser\n"
      "xml = junitparser.JUnitXml.fromfile(sys.argv[1])\n"
      "cases = [(c.name, len(c.result)) for s in xml for c in s]\n"
      "assert cases == [('calm', 0), ('whole', 1)], cases\n"
      "assert [s.failures for s in xml] == [0, 1]\n";
  const std::string script = write("read.py", read);
  EXPECT_EQ(std::system(("/usr/bin/python3 " + script + " " + xml).c_str()), 0);
}

TEST_F(ExpectCommand, TellsErrorsOnOneLine) {
  const std::string level = write(
      "level.toml", kTarget + std::string("[[expect]]\nid = 'a'\nfigure = 'guest-1.health'\n"
                                          "at_least = 1\nset = { 'kind.lmap.height' = 2.0 }\n"));
  const auto answer = testing::gaze_call({"expect", level});
  EXPECT_EQ(answer.status, 2);
  EXPECT_NE(answer.err.find("expect.a.set: error: there is no kind 'lmap' to set a value of; did "
                            "you mean 'lamp'?"),
            std::string::npos)
      << answer.err;
  EXPECT_EQ(testing::gaze_call({"expect", level, "--only", "b"}).status, 2);
}

TEST(Expect, OfTheDemoLevelHold) {
  const auto answer = testing::gaze_call({"expect", GAZE_DEMO});
  EXPECT_EQ(answer.status, 0) << answer.out;
}

TEST(Expect, IsRefusedWhereItIsNone) {
  const auto fault = [](const std::string& keys) {
    return testing::faults_of(kTarget + std::string("[[expect]]\nid = 'one'\n") + keys);
  };
  EXPECT_NE(fault("figure = 'guest-1.health'").find("has none of at_least"), std::string::npos);
  EXPECT_NE(fault("figure = 'guest-1.helth'\nat_least = 1").find("did you mean 'guest-1.health'"),
            std::string::npos);
  EXPECT_NE(fault("figure = 'guest-1.health'\nat_least = 2\nat_most = 1").find("at least 2"),
            std::string::npos);
  EXPECT_NE(fault("figure = 'guest-1.health'\nnever = true\nat_most = 1").find("never stands"),
            std::string::npos);
  EXPECT_NE(fault("figure = 'guest-1.health'\nat_most = 1\nof_runs = 0").find("of_runs"),
            std::string::npos);
  EXPECT_NE(fault("figure = 'guest-1.health'\nat_most = 1\n[[expect]]\nid = 'one'\nfigure = "
                  "'guest-1.health'\nat_most = 1")
                .find("the id 'one' is that of another expectation"),
            std::string::npos);
}

}  // namespace
}  // namespace gaze
