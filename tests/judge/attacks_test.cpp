// Findings about attacks: what a runner suffers, what is hit by nothing, what is left behind.

#include <fmt/format.h>

#include <algorithm>

#include "gaze/tools/report.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
/// A pruner that chases and strikes, a sprinkler that stands, and a collector who walks.
const std::string kGarden = R"(
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
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                            placed("sprinkler", "sprinkler", "[20.0, 0.0]") +
                            placed("collector", "collector", "[8.0, 0.0]");

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

// Who fares how against the collector.
std::vector<PairFigures> pairs(const std::vector<Setting>& settings = {}) {
  std::vector<PairFigures> result;
  for (const Finding& finding : judge(testing::garden(kGarden, settings))) {
    if (finding.pair && finding.pair->whom == "collector") result.push_back(*finding.pair);
  }
  return result;
}

// From 1 m to 2 m at 3 - 2 m/s: 1 s, with blows at 0, 0.3, 0.6 and 0.9 s. Before the sprinkler, who
// stands, from 0.7 m to 2 m at 3 m/s: 0.433 s, with blows at 0 and 0.3 s.
TEST(RunningAway, IsSufferedForAsLongAsItIsInReach) {
  const auto all = pairs();
  ASSERT_EQ(all.size(), 2U);
  EXPECT_DOUBLE_EQ(all[0].running_away->from, 1.0);
  EXPECT_DOUBLE_EQ(all[0].running_away->lost, 32.0);
  EXPECT_DOUBLE_EQ(*all[0].running_away->seconds, 1.0);
  EXPECT_DOUBLE_EQ(all[1].running_away->from, 0.7);
  EXPECT_DOUBLE_EQ(all[1].running_away->lost, 16.0);
  EXPECT_NEAR(*all[1].running_away->seconds, 1.3 / 3.0, 1e-12);
  // 13 blows of 8 take 100 health: the last of them 3.6 s after the first.
  EXPECT_EQ(describe(all[0]),
            "pruner against collector of 100 health: if all of it hits, shears in 3.6 s (27.78 "
            "points/s); running straight away from 1 m it loses 32 and is out of reach after 1 s; "
            "chased straight away the gap grows by 1 m each second");
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
  const PairFigures pair = pairs({{"kind.pruner.move.speed", "3.0"}})[0];
  EXPECT_DOUBLE_EQ(pair.running_away->lost, 100.0);
  EXPECT_FALSE(pair.running_away->seconds.has_value());
  EXPECT_EQ(*pair.gain, 0.0);
}

// All pairs are rows of one table, and those that say the same are one row.
TEST(PairTable, HasARowForEachPair) {
  const std::vector<Finding> once = judge(testing::garden(kGarden));
  std::vector<Finding> all = once;
  const auto lines = [&] {
    const std::string table = pair_table(all, 0);
    return std::count(table.begin(), table.end(), '\n');
  };
  EXPECT_EQ(lines(), 5);  // a blank one, the head, two rows, and the legend
  all.insert(all.end(), once.begin(), once.end());
  EXPECT_EQ(lines(), 5);
  EXPECT_EQ(pair_table({}, 0), "");
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
      "m and however it turns; ahead of it stands niche, 0.6 m away");
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
)" + placed("jar", "jar", "[0.0, 12.0]") +
                           placed("twin", "twin", "[0.0, 14.0]");
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
