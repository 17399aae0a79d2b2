// Findings agree with play. These levels must not be reported.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::findings_of;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

TEST(TrueToPlay, PositionsThatAStartReplacesDoNotOverlap) {
  const std::string crabs = "[kind.pruner]\nteam = \"caretakers\"\n" +
                            placed("one", "pruner", "[0, 0]") + placed("two", "pruner", "[0, 0]");
  EXPECT_EQ(findings_of(crabs, "agents-overlap").size(), 1U);
  const std::string start =
      "[[start]]\nid = \"bed\"\nkind = \"pruner\"\n"
      "outline = [[-9, -9], [9, -9], [9, 9], [-9, 9]]\n";
  EXPECT_EQ(findings_of(crabs + start, "agents-overlap").size(), 0U);
  // In play neither stands where the file says.
  Simulation simulation(garden(crabs + start));
  EXPECT_GT((simulation.state({0}).position - simulation.state({1}).position).norm(), 0.6);
}

TEST(TrueToPlay, APatrolOfOnePointThatAReactionLeadsToIsWalked) {
  const auto level = [](const std::string& when) {
    return "[kind.pruner]\nteam = \"caretakers\"\nnearness.range = 6.0\nmove.speed = 2\n" + when +
           "[kind.guest]\nteam = \"visitors\"\n" +
           placed("pruner", "pruner", "[0, 0]", "patrol = [[0.0, 3.0]]") +
           placed("guest", "guest", "[4, 0]");
  };
  EXPECT_EQ(findings_of(level(""), "patrol-of-one-point").size(), 1U);
  const std::string reacts = "when = { near = \"patrol\", idle = \"post\" }\n";
  EXPECT_EQ(findings_of(level(reacts), "patrol-of-one-point").size(), 0U);
  Simulation simulation(garden(level(reacts)));
  play(simulation, 120);
  EXPECT_NEAR(simulation.state({0}).position.y(), 3.0, 1e-9);
}

TEST(TrueToPlay, TheRestAfterAHopCountsForAWalkerThatHops) {
  const auto level = [](const std::string& rest) {
    return "plane = \"space\"\n" +
           testing::block("crates", "[[2, -50], [3, -50], [3, 50], [2, 50]]", "height = 1.0") +
           "[kind.pruner]\nteam = \"caretakers\"\nnearness.range = 50\nwhen.near = \"chase\"\n"
           "[kind.pruner.move]\nspeed = 4\nhop_height = 1.2\nhop_length = 3\n" +
           rest + "[kind.guest]\nteam = \"visitors\"\n" + placed("pruner", "pruner", "[0, 0, 0]") +
           placed("guest", "guest", "[9, 0, 0]");
  };
  EXPECT_EQ(findings_of(level("hop_rest = 2\n"), "key-without-effect").size(), 0U);
  EXPECT_EQ(findings_of("[kind.pruner.move]\nhop_rest = 2\n" + placed("p", "pruner", "[0, 0]"),
                        "key-without-effect")
                .size(),
            1U);
  const auto landings = [&](const std::string& rest) {
    Simulation simulation(garden(level(rest)));
    return only(play(simulation, 8 * 60), Event::What::landed);
  };
  const auto quick = landings("");
  const auto slow = landings("hop_rest = 2\n");
  ASSERT_GE(quick.size(), 2U);
  ASSERT_GE(slow.size(), 2U);
  EXPECT_NEAR(static_cast<double>(slow[1].tick - quick[1].tick) / 60.0, 2.0, 0.1);
}

TEST(TrueToPlay, WhatFallsForEverIsReported) {
  const auto level = [](const std::string& at, const std::string& more) {
    return "plane = \"space\"\n" + more +
           "[[floor]]\nid = \"deck\"\nmaterial = \"brick\"\n"
           "outline = [[0, 0], [4, 0], [4, 4], [0, 4]]\ntop = 0\n"
           "[kind.guest]\nteam = \"visitors\"\nradius = 0.3\nmove.speed = 2\n" +
           placed("guest", "guest", at);
  };
  const std::string open = "ground_height = false\n";
  struct Case {
    std::string at;
    std::string more;
    bool falls;
  };
  for (const Case& one : {Case{"[9, 2, 1]", open, true}, Case{"[4.2, 2, 1]", open, false},
                          Case{"[4.31, 2, 1]", open, true}, Case{"[2, 2, -5]", open, true},
                          Case{"[9, 2, 1]", "", false}}) {
    const std::string text = level(one.at, one.more);
    EXPECT_EQ(findings_of(text, "nothing-below").size(), one.falls ? 1U : 0U) << one.at;
    Simulation simulation(garden(text));
    play(simulation, 600);
    EXPECT_EQ(simulation.state({0}).position.z() < -100.0, one.falls) << one.at;
  }
}

}  // namespace
}  // namespace gaze
