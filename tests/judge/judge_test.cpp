#include <gtest/gtest.h>

#include <algorithm>

#include "gaze/tools/finding.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::placed;

const std::string kBase = R"(
[kind.pruner]
team = "caretakers"
radius = 0.4
[kind.pruner.sight]
range = 9.0
field_of_view = 110.0
[kind.pruner.move]
speed = 2.6
stop_distance = 1.0
[kind.pruner.attack.shears]
how = "strike"
range = 1.5
damage = 8
cooldown = 1.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 3.0
)" + block("planter", "[[3.0, 2.0], [4.5, 2.0], [4.5, 3.0], [3.0, 3.0]]") +
                          placed("pruner-1", "pruner", "[0.0, 0.0]") +
                          placed("collector", "collector", "[8.0, 0.0]", R"(driver = "host")");

std::vector<Finding> findings(const std::vector<Setting>& settings, const std::string& more = "") {
  return judge(garden(std::string(kBase) + more, settings));
}

const Finding* find(const std::vector<Finding>& all, const std::string& code) {
  const auto it =
      std::find_if(all.begin(), all.end(), [&](const Finding& f) { return f.code == code; });
  return it == all.end() ? nullptr : &*it;
}

constexpr int kOption = 0;  // the value was set by an option, and not in a line of the file

void expect(const std::vector<Finding>& all, const std::string& code, const std::string& message,
            int line) {
  const Finding* finding = find(all, code);
  ASSERT_NE(finding, nullptr) << code;
  EXPECT_EQ(finding->message, message);
  EXPECT_EQ(finding->place.line, line);
  EXPECT_EQ(finding->place.file.starts_with("--set "), line == kOption);
}

TEST(Judge, FindsNothingWrongWithASoundLevel) {
  const auto all = findings({});
  EXPECT_FALSE(has_fault(all));
  EXPECT_EQ(all.size(), 2U);  // notes: how the pair fares, and that it forgets at once
}

TEST(Judge, StrikeThatDoesNotReachBeyondTheStop) {
  expect(findings({{"kind.pruner.attack.shears.range", "0.8"}}), "strike-short-of-stop",
         "pruner stops 1 m from collector, but its strike 'shears' reaches 0.8 m: it will stand in "
         "front "
         "of it and not strike; let it reach 1 m or more, or stop nearer",
         kOption);
  EXPECT_NE(find(findings({{"kind.pruner.attack.shears.range", "0.99"}}), "strike-short-of-stop"),
            nullptr);
  EXPECT_EQ(find(findings({{"kind.pruner.attack.shears.range", "1.0"}}), "strike-short-of-stop"),
            nullptr);
}

TEST(Judge, StopAndAttackBeyondWhatIsNoticed) {
  expect(findings({{"kind.pruner.move.stop_distance", "9.5"}}), "stop-beyond-sight",
         "pruner notices collector within 9 m and stops 9.5 m from it: when it notices, it is near "
         "enough "
         "already and will not take a step",
         kOption);
  expect(findings({{"kind.pruner.attack.shears.range", "12"}}), "attack-beyond-sight",
         "'shears' of pruner reaches 12 m, but it notices within 9 m and sees no farther than 9 m: "
         "the "
         "last 3 m are never used",
         kOption);
  EXPECT_EQ(find(findings({{"kind.pruner.attack.shears.range", "12"},
                           {"kind.pruner.sight.keep_range", "12"}}),
                 "attack-beyond-sight"),
            nullptr);
}

TEST(Judge, AgentsInSolidsAndInEachOther) {
  expect(findings({{"agent.pruner-1.at", "[2.7, 2.5]"}}), "agent-in-solid",
         "pruner-1 (radius 0.4 m) is placed inside planter at [2.70, 2.50]: it can only walk away "
         "from it",
         kOption);
  EXPECT_EQ(find(findings({{"agent.pruner-1.at", "[2.6, 2.5]"}}), "agent-in-solid"),
            nullptr);  // touching
  expect(findings({{"agent.collector.at", "[0.5, 0.0]"}}), "agents-overlap",
         "collector is placed where pruner-1 is, 0.2 m inside it: bodies stop each other, so "
         "these can only go apart",
         30);
  EXPECT_EQ(find(findings({{"agent.collector.at", "[0.7, 0.0]"}}), "agents-overlap"), nullptr);
}

TEST(Judge, PatrolPointsInSolids) {
  expect(findings({{"agent.pruner-1.patrol", "[[0, 0], [3.5, 2.5]]"}}), "patrol-point-in-solid",
         "patrol point 2 of pruner-1 at [3.50, 2.50] is inside planter for a body of radius 0.4 m: "
         "it will "
         "press against it for a second and go on to the next point",
         kOption);
  EXPECT_NE(find(findings({{"kind.pruner.when.idle", "patrol"}}), "patrol-without-points"),
            nullptr);
}

TEST(Judge, KindsAndTeamsThatPlayNoPart) {
  expect(findings({}, "[kind.spare]\n"), "kind-never-used",
         "kind spare is never used: no agent is of it and no kind is like it", 35);
  EXPECT_EQ(
      find(findings({},
                    "[kind.spare]\nlike = \"pruner\"\n[[agent]]\nid = \"s\"\nkind = \"spare\"\n"
                    "at = [0, 5]\n"),
           "kind-never-used"),
      nullptr);
  const auto all = findings({{"kind.collector.team", "caretakers"}});
  expect(all, "hostile-team-empty",
         "caretakers are hostile to visitors, but no agent is of that team: there is nobody of it "
         "to notice",
         36);
}

TEST(Judge, ChasersThatNeverCatchOrNeverLose) {
  const auto gain = [](const std::vector<Setting>& settings) {
    return find(findings(settings), "pair")->pair->gain;
  };
  EXPECT_NEAR(*gain({}), 0.4, 1e-12);  // 3 - 2.6 m/s
  EXPECT_NEAR(*gain({{"kind.pruner.move.speed", "3.1"}}), -0.1, 1e-12);
  EXPECT_FALSE(gain({{"kind.pruner.when.sees", "\"investigate\""}}).has_value());
  EXPECT_EQ(find(findings({{"kind.pruner.move.speed", "3.1"}}), "never-loses"), nullptr);  // cover
  const auto open =
      findings({{"kind.pruner.move.speed", "3.1"}, {"block.planter.material", "glass"}},
               "[material.glass]\nstops = [\"bodies\"]\n");
  expect(open, "never-loses",
         "pruner at 3.1 m/s can never lose collector at 3 m/s once it chases it: it comes up to 1 "
         "m, sees "
         "9 m far, and no solid of this level stops sight",
         kOption);
}

TEST(Judge, ReactionsThatNeverCome) {
  expect(findings({{"kind.pruner.when.hears", "search"}}), "reaction-without-sense",
         "pruner reacts to what it hears, but has no [kind.pruner.hearing]: that never happens",
         kOption);
  EXPECT_EQ(
      find(findings({{"kind.pruner.when.hears", "search"}, {"kind.pruner.hearing.range", "5"}}),
           "reaction-without-sense"),
      nullptr);
}

TEST(Judge, HeadsThatSweepPastWhatTheyDoNotSee) {
  const std::vector<Setting> narrow{{"kind.pruner.sight.field_of_view", "2"},
                                    {"kind.pruner.scan.style", "round"},
                                    {"kind.pruner.scan.rate", "180"}};
  expect(
      findings(narrow), "scan-skips",
      "pruner turns its head 3 degrees a step and sees 2 of them: it can sweep over somebody and "
      "not look; 90 steps a second or more would do",
      kOption);
  std::vector<Setting> faster = narrow;
  faster.push_back({"ticks_per_second", "90"});
  EXPECT_EQ(find(findings(faster), "scan-skips"), nullptr);
}

TEST(Judge, NoisesThatEchoForEver) {
  const std::vector<Setting> echo{
      {"kind.pruner.hearing.range", "5"},
      {"kind.pruner.hearing.friends", "true"},
      {"kind.pruner.when.hears", "{ knock = { noise = \"knock\", reach = 5.0 } }"}};
  const auto all = findings(echo);
  ASSERT_NE(find(all, "when-circle"), nullptr);
  EXPECT_EQ(find(all, "when-circle")->message,
            "a noise that is heard leads to another for ever, one a step: knock -> knock; let one "
            "of them come after some seconds, or not react to it");
  std::vector<Setting> own = echo;
  own[1] = {"kind.pruner.hearing.friends", "false"};
  EXPECT_EQ(find(findings(own), "when-circle"), nullptr);  // it does not hear its like
}

TEST(Judge, BlindSpotsOfTurrets) {
  // On a pillar 3 m up that sees 30 degrees up and down: right below it nobody is seen.
  const auto all = findings({{"kind.pruner.move.gait", "fixed"},
                             {"kind.pruner.sight.vertical_field_of_view", "30"},
                             {"kind.pruner.sight.eye_height", "4"}});
  const Finding* blind = find(all, "blind-spots");
  ASSERT_NE(blind, nullptr);
  EXPECT_NE(blind->message.find("pruner-1 can never see a collector in"), std::string::npos);
  EXPECT_NE(blind->message.find("outside the vertical field of view by"), std::string::npos);
  // With all in view and nothing in the way there is none.
  EXPECT_EQ(find(findings({{"kind.pruner.move.gait", "fixed"}, {"block.planter.height", "0.1"}}),
                 "blind-spots"),
            nullptr);
}

TEST(Judge, AStickWithoutDistance) {
  const std::vector<Setting> weakest{{"kind.pruner.choose.by", "weakest"},
                                     {"kind.pruner.choose.stick", "2"}};
  EXPECT_NE(find(findings(weakest), "stick-without-distance"), nullptr);
  EXPECT_EQ(find(findings({weakest[1]}), "stick-without-distance"), nullptr);
}

TEST(Judge, SleepersThatNothingWakes) {
  EXPECT_NE(find(findings({{"agent.pruner-1.asleep", "true"}}), "never-woken"), nullptr);
  EXPECT_EQ(find(findings({{"agent.pruner-1.asleep", "true"},
                           {"kind.collector.when.sees", "{ wakes = [\"pruner-1\"] }"}}),
                 "never-woken"),
            nullptr);
}

// 13 blows of 8 take 100 health: the last of them 12 s after the first.
TEST(Judge, HowFastAttacksDefeat) {
  const std::string water =
      "[kind.collector.resist]\nwater = 0.5\n[kind.lobber]\nlike = \"pruner\"\nsight.range = 20\n"
      "[kind.lobber.attack]\nshears = false\n[kind.lobber.attack.pod]\nhow = \"shot\"\nspeed = 5\n"
      "range = 9\ndamage = 10\ndamage_kind = \"water\"\ncooldown = 1\nwind_up = 0.5\nburst = 2\n"
      "burst_interval = 0.25\nammunition = 6\n[[agent]]\nid = \"lobber\"\nkind = \"lobber\"\n"
      "at = [0, 3]\n";
  const auto harm_of = [&](const std::string& kind, const std::vector<Setting>& settings) {
    for (const Finding& finding : findings(settings, water)) {
      if (finding.pair && finding.pair->by == kind) return finding.pair->harms.at(0);
    }
    return PairFigures::Harm{};
  };
  EXPECT_DOUBLE_EQ(*harm_of("pruner", {}).seconds, 12.0);
  EXPECT_EQ(harm_text(harm_of("lobber", {})), "pod is empty after 30");
  // 20 shots of 5, by six and then 4 s to reload: pulls at 0, 1, 2, each 0.75 s long, then
  // from 6.75 on, from 13.5 on, and at 20.25 the last two of them, 0.75 s later.
  EXPECT_EQ(harm_text(harm_of("lobber", {{"kind.lobber.attack.pod.reload", "4.0"}})),
            "pod in 21 s (4.76 points/s)");
}

TEST(Judge, ShotsThatFallShort) {
  const std::string lobber =
      "[kind.lobber]\nlike = \"pruner\"\nsight.range = 20\n[kind.lobber.attack]\nshears = false\n"
      "[kind.lobber.attack.pod]\nhow = \"shot\"\nspeed = 10\nrange = 15\ndamage = 1\ncooldown = 1\n"
      "muzzle = [0, 0, 0.85]\n[[agent]]\nid = \"lobber\"\nkind = \"lobber\"\nat = [0, 3]\n";
  const auto find_in = [&](const std::string& code, const std::vector<Setting>& settings) {
    const auto all = findings(settings, lobber);
    const Finding* finding = find(all, code);
    return finding == nullptr ? std::string() : finding->message;
  };
  // 100 / 9.81 m on the level.
  EXPECT_EQ(
      find_in("lob-out-of-reach", {{"kind.lobber.attack.pod.aim", "\"lob\""}}),
      "'pod' of lobber comes down within 10.19 m at 10 m/s: collector at its range of 15 m is "
      "out of "
      "reach by 4.81 m");
  EXPECT_EQ(find_in("lob-without-gravity",
                    {{"kind.lobber.attack.pod.aim", "\"high lob\""}, {"gravity", "0"}}),
            "'pod' of lobber is lobbed, but the level has no gravity: it is never fired");
  EXPECT_EQ(find_in("shot-falls-short", {{"kind.lobber.attack.pod.lifetime", "1.2"}}),
            "'pod' of lobber flies 12 m and is gone: what it is fired at within its range of 15 "
            "m is out "
            "of reach by up to 3 m");
  EXPECT_EQ(find_in("shot-falls-short", {}), "");
  EXPECT_EQ(find_in("shot-too-slow", {{"kind.lobber.attack.pod.speed", "3"}}),
            "'pod' of lobber flies at 3 m/s: it never reaches collector, who runs straight away at "
            "3 m/s");
}

// The line and column of a word in a text, counted from 1.
std::pair<int, int> where(const std::string& text, const std::string& word) {
  const std::size_t at = text.find(word);
  const auto line = std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(at), '\n');
  const std::size_t begin = text.rfind('\n', at);
  return {static_cast<int>(line) + 1, static_cast<int>(at - begin)};
}

TEST(Judge, FindingsStandAtTheirKeyWhereverItsTableBegins) {
  for (const char* rules :
       {"[kind.listener.when]\nhears = { pebble = \"chase\", cluck = \"investigate\" }\n",
        "[kind.listener.when.hears]\ncluck = \"investigate\"\n",
        "[kind.listener.when.hears.cluck]\nmode = \"investigate\"\n"}) {
    const std::string text =
        "[kind.listener]\nteam = \"caretakers\"\n[kind.listener.hearing]\nrange = "
        "9\n[kind.listener.move]\n" +
        std::string(rules) + "[kind.collector]\nteam = \"visitors\"\n" +
        placed("listener", "listener", "[0, 0]") +
        placed("collector", "collector", "[4, 0]", "script = [{ noise = \"pebble\", reach = 9 }]");
    const auto findings = judge(garden(text));
    const auto found = std::find_if(findings.begin(), findings.end(), [](const Finding& finding) {
      return finding.code == "cause-never-comes";
    });
    ASSERT_NE(found, findings.end()) << rules;
    const auto [line, column] = where(text, "cluck");
    EXPECT_EQ(found->place.line, line) << rules;
    EXPECT_EQ(found->place.column, column) << rules;
  }
}

}  // namespace
}  // namespace gaze
