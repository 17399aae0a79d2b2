// Sneaking past doors, breakable solids, hazards, darkness and standing bodies.

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "gaze/tools/sneak.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
using testing::wall;

// A room of 8 m by 6 m. A wall at x = 4 parts it, with a gap from y = 2.5 to y = 3.7. An owl looks
// about in a corner.
std::string halves(const std::string& in_the_gap, const std::string& owl_range = "1.0") {
  return "seconds = 10.0\n" + wall("rim", "[[0, 0], [8, 0], [8, 6], [0, 6], [0, 0]]") +
         wall("low", "[[4, 0], [4, 2.5]]") + wall("high", "[[4, 3.7], [4, 6]]") + in_the_gap +
         "[kind.owl]\nteam = \"caretakers\"\nsight = { range = " + owl_range +
         ", field_of_view = 360.0 }\n[kind.mouse]\nteam = \"visitors\"\nradius = 0.25\nmove.speed "
         "= 3.0\n" +
         placed("owl", "owl", "[7.0, 5.5]") +
         placed("mouse", "mouse", "[1.0, 3.0]", "driver = \"host\"");
}

Sneak sneak_across(const std::string& text) {
  SneakTask task;
  task.agent = "mouse";
  task.to = {7.0, 3.0, 0.0};
  return sneak(testing::garden(text), task);
}

/// What happens to the mouse on a track.
struct Fate {
  bool is_noticed = false;
  bool is_defeated = false;
  double least_gap = 1e9;  ///< To the surface of any other body, metres.
};

Fate fate_on(Level level, const Track& track) {
  complete(level);
  const auto mouse = std::find_if(level.agents.begin(), level.agents.end(),
                                  [](const Agent& agent) { return agent.id == "mouse"; });
  mouse->driver = Driver::track;
  mouse->track = std::make_shared<const Track>(track);
  Simulation game(level);
  const AgentId who = game.agent("mouse");
  Fate fate;
  while (game.seconds() < track.points.back().seconds) {
    game.step();
    for (const Event& event : game.events()) {
      fate.is_noticed |= event.what == Event::What::noticed && event.other == who;
      fate.is_defeated |= event.what == Event::What::defeated && event.agent == who;
    }
    for (const Agent& agent : level.agents) {
      if (agent.id == "mouse") continue;
      const Vector3d off = game.state(game.agent(agent.id)).position - game.state(who).position;
      const double radii = level.kind_of(agent).radius + level.kind_of(*mouse).radius;
      fate.least_gap = std::min(fate.least_gap, std::hypot(off.x(), off.y()) - radii);
    }
  }
  return fate;
}

TEST(SneakEdges, AnOpenGapIsPassed) {
  EXPECT_EQ(sneak_across(halves("")).outcome, Sneak::Outcome::found);
}

// The wall without a gap: nothing may open, and it is certain that no path leads there.
TEST(SneakEdges, AWallIsNone) {
  const Sneak answer = sneak_across(halves(wall("gap", "[[4, 2.5], [4, 3.7]]")));
  EXPECT_EQ(answer.outcome, Sneak::Outcome::none);
}

// Whether it opens in play is not searched, so it is not certain that there is no path.
TEST(SneakEdges, WhatOpensOrBreaksIsUndecided) {
  const std::string gap = "material = \"brick\"\npath = [[4, 2.5], [4, 3.7]]\n";
  for (const std::string& shut :
       {"[[door]]\nid = \"hatch\"\nopens_for = [\"owl\"]\n" + gap,
        "[[door]]\nid = \"hatch\"\nopens_for = [\"key\"]\n" + gap +
            "[[zone]]\nid = \"shelf\"\ngrants = [\"key\"]\noutline = "
            "[[0.5, 4], [1.5, 4], [1.5, 5], [0.5, 5]]\n",
        std::string("[[block]]\nid = \"pane\"\nhealth = 5\nmaterial = \"brick\"\n"
                    "outline = [[3.9, 2.5], [4.1, 2.5], [4.1, 3.7], [3.9, 3.7]]\n")}) {
    const Sneak answer = sneak_across(halves(shut));
    EXPECT_EQ(answer.outcome, Sneak::Outcome::undecided) << shut;
    const std::string name = shut.find("hatch") != std::string::npos ? "hatch" : "pane";
    EXPECT_NE(answer.reason.find(name), std::string::npos) << answer.reason;
  }
}

// The gap is open and watched. Beside it is a door that may open in play: round that way it may be
// possible.
TEST(SneakEdges, AWatchedGapBesideADoorIsUndecided) {
  const std::string watched =
      "[kind.lamp]\nteam = \"caretakers\"\nsight = { range = 2.0, field_of_view = 360.0 }\n" +
      placed("lamp", "lamp", "[4.9, 3.9]");
  EXPECT_EQ(sneak_across(halves(watched)).outcome, Sneak::Outcome::none);
  std::string with_door =
      halves(watched +
             "[[door]]\nid = \"hatch\"\nopens_for = [\"lamp\"]\nmaterial = \"brick\"\n"
             "path = [[4, 0.1], [4, 1.1]]\n");
  const std::string low = "path = [[4, 0], [4, 2.5]]";
  with_door.replace(with_door.find(low), low.size(), "path = [[4, 1.1], [4, 2.5]]");
  EXPECT_EQ(sneak_across(with_door).outcome, Sneak::Outcome::undecided);
}

TEST(SneakEdges, NoPathLeadsThroughSomebodyWhoStandsInTheGap) {
  // 1.2 m less a body of 0.8 m leaves 0.2 m on each side.
  const std::string post = "[kind.post]\nradius = 0.4\n" + placed("post", "post", "[4.0, 3.1]");
  EXPECT_NE(sneak_across(halves(post)).outcome, Sneak::Outcome::found);
}

TEST(SneakEdges, NoPathLeadsThroughWhatDefeats) {
  const std::string coal =
      "[kind.coal]\nteam = \"caretakers\"\nsolid_to = []\nattack.heat = { how = \"touch\", damage "
      "= 200.0, "
      "cooldown = 0.5 }\n" +
      placed("coal", "coal", "[4.0, 3.1]");
  const Sneak answer = sneak_across(halves(coal));
  EXPECT_NE(answer.outcome, Sneak::Outcome::found);
}

// In the dark no evidence gathers, so it walks right below the owl. An owl that needs none notices
// it at once.
TEST(SneakEdges, TheDarkHides) {
  const auto outcome = [](const std::string& dimness, const std::string& notice_time) {
    return sneak_across(halves("[[zone]]\nid = \"dark\"\ndimness = " + dimness +
                                   "\noutline = [[0, 0], [8, 0], [8, 4.5], [0, 4.5]]\n",
                               "9.0, notice_time = " + notice_time))
        .outcome;
  };
  EXPECT_EQ(outcome("1.0", "0.3"), Sneak::Outcome::found);
  EXPECT_EQ(outcome("0.0", "0.3"), Sneak::Outcome::none);
  EXPECT_EQ(outcome("1.0", "0.0"), Sneak::Outcome::none);
}

// Pots stand about, some in the dark. On each path that is found nobody notices the mouse, and it
// touches nobody.
TEST(SneakEdges, PathsAmongStandingBodiesAreFree) {
  std::uint64_t found = 0;
  const std::uint64_t rooms = testing::rounds(60);
  for (std::uint64_t seed = 1; seed <= rooms; ++seed) {
    scenes::Random random(seed * 31 + 5);
    std::string more = "[kind.pot]\nradius = 0.3\n";
    const auto pots = 1 + random.next() % 6;
    for (std::uint64_t i = 0; i < pots; ++i) {
      const double x = random.between(2.0, 6.0);
      const double y = random.between(0.5, 5.5);
      more += placed("pot-" + std::to_string(i), "pot",
                     "[" + std::to_string(x) + ", " + std::to_string(y) + "]");
    }
    const double edge = random.between(0.5, 5.0);
    more += "[[zone]]\nid = \"dark\"\ndimness = 1.0\noutline = [[0, 0], [8, 0], [8, " +
            std::to_string(edge) + "], [0, " + std::to_string(edge) + "]]\n";
    const std::string text =
        halves(more, std::to_string(random.between(1.0, 6.0)) + ", notice_time = 0.2");
    const Sneak answer = sneak_across(text);
    if (answer.outcome != Sneak::Outcome::found) continue;
    ++found;
    const Fate fate = fate_on(testing::garden(text), answer.track);
    EXPECT_FALSE(fate.is_noticed) << seed;
    EXPECT_FALSE(fate.is_defeated) << seed;
    EXPECT_GE(fate.least_gap, -1e-5) << seed;
  }
  EXPECT_GT(found, testing::enough(std::uint64_t{10}));
}

// The range that is said to open a path opens one as it is printed, in whole centimetres.
TEST(SneakEdges, TheRangeThatOpensHoldsAsPrinted) {
  std::uint64_t hints = 0;
  const std::uint64_t rooms = testing::rounds(20);
  for (std::uint64_t seed = 1; seed <= rooms; ++seed) {
    scenes::Random random(seed * 13 + 1);
    const std::string text =
        halves("[kind.lamp]\nteam = \"caretakers\"\nsight = { range = " +
               std::to_string(random.between(2.5, 6.0)) + ", field_of_view = 360.0 }\n" +
               placed("lamp", "lamp",
                      "[" + std::to_string(random.between(4.6, 6.0)) + ", " +
                          std::to_string(random.between(1.5, 4.7)) + "]"));
    const Sneak answer = sneak_across(text);
    for (const SneakBarrier& barrier : answer.barriers) {
      if (!barrier.range) continue;
      ++hints;
      const double centimetres = *barrier.range * 100.0;
      EXPECT_NEAR(centimetres, std::round(centimetres), 1e-9);
      Level level = testing::garden(text);
      for (Kind& kind : level.kinds) {
        if (kind.name == barrier.watcher) kind.sight->range = std::round(centimetres) / 100.0;
      }
      SneakTask task;
      task.agent = "mouse";
      task.to = {7.0, 3.0, 0.0};
      EXPECT_EQ(sneak(level, task).outcome, Sneak::Outcome::found)
          << seed << ": " << *barrier.range;
    }
  }
  EXPECT_GE(hints, testing::enough(std::uint64_t{6}));
}

}  // namespace
}  // namespace gaze
