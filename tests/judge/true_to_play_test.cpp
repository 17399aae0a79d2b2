// Findings agree with play. These levels must not be reported.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <random>

#include "scenes.hpp"
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

// In each plane a kind without [move] faces as it was placed, and hits only what is in front of it.
// The finding says so, and what mends it.
TEST(TrueToPlay, WhatHasNoMoveDoesNotTurn) {
  const auto reed = [](const std::string& plane, const std::string& move, const std::string& at) {
    return "plane = \"" + plane + "\"\ngravity = 0.0\n[kind.reed]\nteam = \"caretakers\"\n" + move +
           "sight = { range = 20, field_of_view = 360 }\n"
           "[kind.reed.attack.thorn]\nhow = \"shot\"\nspeed = 20\nrange = 20\ndamage = 1\ncooldown "
           "= 0.5\n"
           "[kind.guest]\nteam = \"visitors\"\n" +
           placed("reed", "reed", plane == "space" ? "[0, 0, 0]" : "[0, 0]") +
           placed("guest", "guest", at);
  };
  const auto hits = [](const std::string& text) {
    Simulation game(garden(text));
    return only(play(game, 240), Event::What::hit).size();
  };
  const std::string fixed = "move.gait = \"fixed\"\n";
  for (const std::string plane : {"ground", "upright", "space"}) {
    const std::string ahead = plane == "space" ? "[6, 0, 0]" : "[6, 0]";
    const std::string behind = plane == "space" ? "[-6, 0, 0]" : "[-6, 0]";
    EXPECT_GT(hits(reed(plane, "", ahead)), 0U) << plane;
    EXPECT_EQ(hits(reed(plane, "", behind)), 0U) << plane;
    EXPECT_GT(hits(reed(plane, fixed, behind)), 0U) << plane;
    ASSERT_EQ(findings_of(reed(plane, "", behind), "never-turns").size(), 1U) << plane;
    EXPECT_EQ(findings_of(reed(plane, "", behind), "never-turns")[0],
              "reed does not turn, and 'thorn' is made only at those in front of it; "
              "[kind.reed.move] gait = \"fixed\" lets it turn");
    EXPECT_EQ(findings_of(reed(plane, fixed, behind), "never-turns").size(), 0U);
  }
}

TEST(TrueToPlay, ATouchWithoutATeamHurtsNobody) {
  const auto spikes = [](const std::string& team) {
    return "[kind.spikes]\n" + team +
           "attack.prick = { how = \"touch\", damage = 5, cooldown = 1 }\n"
           "[kind.guest]\nteam = \"visitors\"\nmove.speed = 2\n" +
           placed("spikes", "spikes", "[2, 0]") +
           placed("guest", "guest", "[0, 0]", "script = [{ go = [4, 0] }]");
  };
  const auto hurts = [](const std::string& text) {
    Simulation game(garden(text));
    return only(play(game, 120), Event::What::hurt).size();
  };
  const std::string team = "team = \"caretakers\"\n";
  EXPECT_EQ(hurts(spikes("")), 0U);
  EXPECT_EQ(findings_of(spikes(""), "without-team").size(), 1U);
  EXPECT_GT(hurts(spikes(team)), 0U);
  EXPECT_EQ(findings_of(spikes(team), "without-team").size(), 0U);
}

// Somebody stands just within the reach of a strike, straight ahead. The strike is made if any
// sense reaches so far, and exactly then nothing is reported.
TEST(TrueToPlay, AStrikeIsBeyondSightOnlyIfNoSenseReachesSoFar) {
  scenes::Random random(301);
  std::uint64_t beyond = 0;
  std::uint64_t within = 0;
  for (std::uint64_t i = 0; i < testing::rounds(200); ++i) {
    const double reach = random.between(2.0, 12.0);
    std::string text = fmt::format(
        "[kind.pruner]\nteam = \"caretakers\"\nsight = {{ range = {}, field_of_view = 90, measure "
        "= \"{}\" }}\n",
        random.between(1.0, 12.0), random.next() % 2 == 0 ? "surface" : "centre");
    if (random.next() % 3 == 0)
      text += fmt::format("nearness.range = {}\n", random.between(1.0, 14.0));
    if (random.next() % 3 == 0) {
      text += fmt::format("feeler.ray = {{ toward = 0, length = {}, thickness = 0.1 }}\n",
                          random.between(1.0, 12.0));
    }
    text += fmt::format(
        "attack.shears = {{ how = \"strike\", range = {}, damage = 1, cooldown = 1 }}\n", reach);
    text +=
        fmt::format("[kind.guest]\nteam = \"visitors\"\nradius = {}\n", random.between(0.2, 0.6));
    text += placed("pruner", "pruner", "[0, 0]") +
            placed("guest", "guest", fmt::format("[{}, 0]", reach - 1e-6), "driver = \"host\"");
    const bool is_reported = !testing::findings_of(text, "attack-beyond-sight").empty();
    Simulation game(garden(text));
    const bool attacks = !only(play(game, 60), Event::What::attacked).empty();
    EXPECT_EQ(attacks, !is_reported) << i << "\n" << text;
    (attacks ? within : beyond) += 1;
  }
  EXPECT_GT(within, testing::enough(std::uint64_t{40}));
  EXPECT_GT(beyond, testing::enough(std::uint64_t{40}));
}

// Random towers, muzzles and speeds. A lob is reported if and only if play does not throw it at an
// enemy at its range.
TEST(TrueToPlay, ALobIsOutOfReachOnlyIfItIsNotThrownThere) {
  std::mt19937_64 random(5);
  std::uniform_real_distribution<double> share(0.0, 1.0);
  const auto between = [&](double low, double high) { return low + (high - low) * share(random); };
  std::uint64_t reported = 0;
  std::uint64_t silent = 0;
  for (std::uint64_t round = 0; round < testing::rounds(200); ++round) {
    const double range = between(4.0, 14.0);
    const std::string level = fmt::format(
        R"(plane = "space"
[[block]]
id = "tower"
material = "brick"
outline = [[-0.5, -0.5], [0.5, -0.5], [0.5, 0.5], [-0.5, 0.5]]
height = {0}
[kind.lobber]
team = "caretakers"
sight = {{ range = 40, field_of_view = 360 }}
[kind.lobber.attack.pod]
how = "shot"
aim = "{1}"
range = {2}
damage = 1
cooldown = 1
speed = {3}
muzzle = [{4}, {5}, {6}]
aim_tolerance = 180
[kind.guest]
team = "visitors"
height = {7}
)",
        between(0.1, 5.0), share(random) < 0.5 ? "lob" : "high lob", range, between(4.0, 13.0),
        between(0.0, 0.6), between(-0.4, 0.4), between(0.5, 1.6), between(0.4, 2.0));
    const std::string height = level.substr(level.find("height = ") + 9, 8);
    const double drop = std::stod(height);
    if (drop >= range) continue;
    const double away = std::sqrt(range * range - drop * drop) - 1e-6;
    const std::string placed_there = level +
                                     placed("lobber", "lobber", fmt::format("[0, 0, {}]", drop)) +
                                     placed("guest", "guest", fmt::format("[{}, 0, 0]", away));
    const bool is_reported = !findings_of(placed_there, "lob-out-of-reach").empty();
    Simulation simulation(garden(placed_there));
    const bool is_thrown = !only(play(simulation, 30), Event::What::fired).empty();
    ASSERT_NE(is_reported, is_thrown) << placed_there;
    ++(is_reported ? reported : silent);
  }
  EXPECT_GE(reported, testing::enough(30U));
  EXPECT_GE(silent, testing::enough(30U));
}

// Random flights of steps in side view. No point that the goat reaches is reported as inside a
// solid, and a point inside a wall is.
TEST(TrueToPlay, PointsOnStepsAreNotInSolids) {
  std::mt19937_64 random(9);
  std::uniform_real_distribution<double> share(0.0, 1.0);
  const auto between = [&](double low, double high) { return low + (high - low) * share(random); };
  std::uint64_t reached = 0;
  for (std::uint64_t round = 0; round < testing::rounds(80); ++round) {
    std::string level = "plane = \"upright\"\n[kind.goat]\nmove.speed = 3.0\n" +
                        testing::block("ground", "[[-5, -1], [30, -1], [30, 0], [-5, 0]]");
    double top = 0.0;
    for (int i = 0; i < 5; ++i) {
      top = std::max(0.0, top + between(-0.45, 0.45));
      const double x = 2.0 + 2.0 * i;
      if (top > 1e-3) {
        level += testing::block(
            fmt::format("step-{}", i),
            fmt::format("[[{0}, 0], [{1}, 0], [{1}, {2}], [{0}, {2}]]", x, x + 2.0, top));
      }
    }
    const double goal = between(1.0, 13.0);
    level +=
        placed("goat", "goat", "[0, 0]", fmt::format("patrol = [[{}, 0.0], [0.0, 0.0]]", goal));
    Simulation simulation(garden(level));
    bool has_come = false;
    for (int tick = 0; tick < 600 && !has_come; ++tick) {
      simulation.step();
      has_come = std::abs(simulation.state({0}).position.x() - goal) < 0.03;
    }
    const bool is_reported = !findings_of(level, "patrol-point-in-solid").empty();
    ASSERT_FALSE(has_come && is_reported) << level;
    reached += has_come ? 1 : 0;
  }
  EXPECT_GE(reached, testing::enough(30U));
  const std::string walled = "plane = \"upright\"\n[kind.goat]\nmove.speed = 3.0\n" +
                             testing::block("ground", "[[-5, -1], [30, -1], [30, 0], [-5, 0]]") +
                             testing::block("wall", "[[4, 0], [6, 0], [6, 9], [4, 9]]") +
                             placed("goat", "goat", "[0, 0]", "patrol = [[5.0, 0.0], [0.0, 0.0]]");
  EXPECT_EQ(findings_of(walled, "patrol-point-in-solid").size(), 1U);
}

}  // namespace
}  // namespace gaze
