// Findings about attacks: what a runner suffers, what is hit by nothing, what is left behind.

#include <fmt/format.h>

#include <algorithm>

#include "support/levels.hpp"

namespace gaze {
namespace {

/// A pruner that chases and strikes, a sprinkler that stands, and a collector who walks.
const char* const kGarden = R"(
[kind.satchel]
[kind.pruner]
team = "caretakers"
radius = 0.4
[kind.pruner.sight]
range = 9.0
field_of_view = 360.0
[kind.pruner.move]
speed = 2.0
stop_distance = 1.0
[kind.pruner.when]
sees = "chase"
[kind.pruner.attack.shears]
how = "strike"
range = 2.0
damage = 8
cooldown = 0.3
[kind.pruner.defeat]
leaves = "satchel"
[kind.sprinkler]
like = "pruner"
[kind.sprinkler.move]
gait = "fixed"
[kind.sprinkler.defeat]
leaves = false
[kind.collector]
team = "visitors"
radius = 0.3
[kind.collector.move]
speed = 3.0
[[agent]]
id = "pruner"
kind = "pruner"
at = [0.0, 0.0]
[[agent]]
id = "sprinkler"
kind = "sprinkler"
at = [20.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [8.0, 0.0]
)";

std::vector<std::string> messages(const std::vector<Finding>& findings, const std::string& code) {
  std::vector<std::string> result;
  for (const Finding& finding : findings) {
    if (finding.code == code) result.push_back(finding.message);
  }
  return result;
}

std::vector<std::string> found(const std::string& code, const std::string& more = "",
                               const std::vector<Setting>& settings = {}) {
  return messages(judge(testing::garden(kGarden + more, settings)), code);
}

// From 1 m to 2 m at 3 - 2 m/s: 1 s, with blows at 0, 0.3, 0.6 and 0.9 s. Before the sprinkler, who
// stands, from 0.7 m to 2 m at 3 m/s: 0.433 s, with blows at 0 and 0.3 s.
TEST(RunningAway, IsSufferedForAsLongAsItIsInReach) {
  const auto all = found("running-away");
  ASSERT_EQ(all.size(), 2U);
  EXPECT_EQ(
      all[0],
      "a collector that runs straight away at 3 m/s from 1.00 m before a pruner loses at most "
      "32 of its 100 health and is out of its reach after 1 s");
  EXPECT_EQ(all[1],
            "a collector that runs straight away at 3 m/s from 0.70 m before a sprinkler loses at "
            "most 16 of its 100 health and is out of its reach after 0.433 s");
}

// The same run, played: it is struck just as often.
TEST(RunningAway, IsWhatIsPlayed) {
  Simulation simulation(
      testing::garden(kGarden, {{"agent.collector.at", "[1.0, 0.0]"},
                                {"agent.sprinkler.at", "[0.0, 90.0]"},
                                {"agent.collector.script", "[{ go = [60.0, 0.0] }]"}}));
  testing::play(simulation, 300);
  EXPECT_EQ(simulation.state(simulation.agent("collector")).health, 100.0 - 32.0);
}

TEST(RunningAway, FromWhoIsAsFastIsForEver) {
  const auto all = found("running-away", "", {{"kind.pruner.move.speed", "3.0"}});
  EXPECT_EQ(all[0],
            "a collector that runs straight away at 3 m/s from 1.00 m before a pruner does not get "
            "out of its reach and loses 100 of its 100 health");
}

// Bricked in on all four sides, 0.6 m from its middle.
TEST(AttackBlocked, WhereWhatStandsFixedHitsNobody) {
  const std::string niche =
      "[[wall]]\nid = \"niche\"\nmaterial = \"brick\"\nheight = 3.0\nthickness = 0.2\npath = "
      "[[19.3, -0.7], [20.7, -0.7], [20.7, 0.7], [19.3, 0.7], [19.3, -0.8]]\n"
      "[material.glass]\nstops = [\"bodies\", \"shots\"]\n";
  const auto all = found("attack-blocked", niche);
  ASSERT_EQ(all.size(), 1U);
  EXPECT_EQ(
      all[0],
      "sprinkler hits nobody with 'shears' from where it stands, wherever they stand within 2 "
      "m and however it turns; ahead of it stands niche, 0.60 m away");
  EXPECT_TRUE(found("attack-blocked").empty());
  // Behind glass it sees, and is blocked all the same; a low wall it shoots over.
  EXPECT_EQ(found("attack-blocked", niche, {{"wall.niche.material", "\"glass\""}}).size(), 1U);
  EXPECT_TRUE(found("attack-blocked", niche, {{"wall.niche.height", "0.5"}}).empty());
  // It walks out.
  EXPECT_TRUE(found("attack-blocked", niche, {{"agent.sprinkler.move.gait", "\"walk\""}}).empty());
}

TEST(AttackBlocked, ByLimitsOfItsTurning) {
  const std::string shelf =
      "[[wall]]\nid = \"shelf\"\nmaterial = \"brick\"\npath = [[20.7, -9.0], [20.7, 9.0]]\n";
  EXPECT_TRUE(found("attack-blocked", shelf).empty());
  const std::vector<Setting> narrow{{"kind.sprinkler.move.turn_limits", "[-20, 20]"},
                                    {"kind.sprinkler.attack.shears.arc", "20"}};
  EXPECT_EQ(found("attack-blocked", shelf, narrow).size(), 1U);
}

TEST(LeavesInherited, IsSaidWithItsSource) {
  EXPECT_TRUE(found("leaves-inherited").empty());  // the sprinkler says that it leaves nothing
  const std::string twin =
      "[kind.twin]\nlike = \"pruner\"\n[[agent]]\nid = \"twin\"\nkind = "
      "\"twin\"\nat = [0.0, 9.0]\n";
  const auto all = found("leaves-inherited", twin);
  ASSERT_EQ(all.size(), 1U);
  EXPECT_EQ(all[0],
            "a twin that is defeated leaves a satchel, but only because it is like a pruner, for "
            "which garden.toml:20:10 says so; let [kind.twin.defeat] say what it leaves, or leaves "
            "= false");
  EXPECT_TRUE(
      found("leaves-inherited", twin + "[kind.twin.defeat]\nleaves = \"satchel\"\n").empty());
}

TEST(AttackWithoutSight, IsNoFaultWhereNoneIsNeeded) {
  const std::string more = R"(
[kind.jar]
[kind.jar.thing]
[kind.jar.attack.burst]
how = "burst"
range = 2.0
damage = 9
cooldown = 1.0
[kind.jar.defeat]
attack = "burst"
[kind.twin]
team = "visitors"
[kind.twin.attack.jet]
how = "shot"
aim = "mirror"
range = 9.0
speed = 9.0
damage = 1
cooldown = 1.0
[[agent]]
id = "jar"
kind = "jar"
at = [0.0, 12.0]
[[agent]]
id = "twin"
kind = "twin"
at = [0.0, 14.0]
)";
  EXPECT_TRUE(found("attack-without-sight", more).empty());
  EXPECT_EQ(found("attack-without-sight", more, {{"kind.twin.attack.jet.aim", "\"lead\""}}).size(),
            1U);
  EXPECT_EQ(found("attack-without-sight", more,
                  {{"kind.jar.defeat.attack", "\"burst\""},
                   {"kind.jar.attack.puff.how", "\"burst\""},
                   {"kind.jar.attack.puff.range", "1.0"},
                   {"kind.jar.attack.puff.damage", "1"},
                   {"kind.jar.attack.puff.cooldown", "1"}})
                .size(),
            1U);
}

}  // namespace
}  // namespace gaze
