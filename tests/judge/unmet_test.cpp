// Causes that nothing brings about, and names that are nearly the same.

#include <algorithm>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
/// A listener with these rules and senses, a warden of its team, and a player who makes this noise.
std::string listening(const std::string& listener, const std::string& warden = "",
                      const std::string& script = "{ noise = \"pebble\", reach = 9.0 }") {
  return R"([kind.listener]
team = "caretakers"
[kind.listener.hearing]
range = 12.0
)" + listener +
         R"(
[kind.warden]
team = "caretakers"
)" + warden +
         R"(
[kind.collector]
team = "visitors"
)" + placed("listener", "listener", "[0.0, 0.0]") +
         placed("warden", "warden", "[2.0, 0.0]") + placed("collector", "collector", "[4.0, 0.0]") +
         R"(
script = [)" +
         script + "]\n";
}

using testing::findings_of;
using Lines = std::vector<std::string>;

TEST(Unmet, ANoiseThatNobodyMakesWithTheNearestThatSomebodyDoes) {
  const std::string wrong = "[kind.listener.when.hears]\npebbel = \"investigate\"\n";
  EXPECT_EQ(findings_of(listening(wrong), "cause-never-comes"),
            Lines{"listener reacts to when.hears.pebbel, but nothing makes a noise 'pebbel' (did "
                  "you mean 'pebble'?): that never happens"});
  const std::string right = "[kind.listener.when.hears]\npebble = \"investigate\"\n";
  EXPECT_EQ(findings_of(listening(right), "cause-never-comes"), Lines{});
  const std::string any = "[kind.listener.when]\nhears = \"investigate\"\n";
  EXPECT_EQ(findings_of(listening(any), "cause-never-comes"), Lines{});
  EXPECT_EQ(
      findings_of(listening(any, "", "{ wait = 1 }"), "cause-never-comes"),
      Lines{"listener reacts to when.hears, but nothing makes any noise: that never happens"});
}

// What is in the level under that name is silent: told even where a program might make noises.
TEST(Unmet, AThingThatLandsWithoutANoise) {
  const std::string rule = "[kind.listener.when.hears]\ncone = \"investigate\"\n";
  const auto told = [&](const std::string& reach) {
    return findings_of(listening(rule) + "[kind.cone]\n[kind.cone.thing]\n" + reach +
                           "[[agent]]\nid = \"guest\"\nkind = \"collector\"\nat = [9, 9]\n"
                           "driver = \"host\"\n",
                       "cause-never-comes");
  };
  EXPECT_EQ(told(""), Lines{"listener reacts to when.hears.cone, but a cone makes no noise: its "
                            "noise_reach is 0: that never happens"});
  EXPECT_EQ(told("noise_reach = 8\n"), Lines{});
}

TEST(Unmet, StepsAndShotsAreNoisesToo) {
  const std::string steps = "[kind.listener.when.hears]\nstep = \"investigate\"\n";
  EXPECT_EQ(findings_of(listening(steps), "cause-never-comes").size(), 1U);
  EXPECT_EQ(findings_of(listening(steps, "[kind.warden.move]\nspeed = 1\nstep_reach = 4\n"),
                        "cause-never-comes"),
            Lines{});
}

TEST(Unmet, ATellerOfItsOwnTeamHasToTell) {
  const std::string rule = "[kind.listener.when.told]\nwarden = \"investigate\"\n";
  EXPECT_EQ(findings_of(listening(rule), "cause-never-comes"),
            Lines{"listener reacts to when.told.warden, but no warden of its team has a [tell]: "
                  "that never happens"});
  EXPECT_EQ(findings_of(listening(rule, "[kind.warden.tell]\nrange = 9\n"), "cause-never-comes"),
            Lines{});
  // A kind that is like a warden tells as a warden does.
  const std::string like =
      "[kind.head_warden]\nlike = \"warden\"\n[kind.head_warden.tell]\n"
      "range = 9\n[[agent]]\nid = \"h\"\nkind = \"head_warden\"\nat = [9, 9]\n";
  EXPECT_EQ(findings_of(listening(rule) + like, "cause-never-comes"), Lines{});
}

TEST(Unmet, OtherCausesThatNothingBringsAbout) {
  const auto only_line = [](const std::string& rule) {
    const Lines lines = findings_of(listening(rule), "cause-never-comes");
    return lines.size() == 1 ? lines[0] : std::to_string(lines.size());
  };
  EXPECT_EQ(only_line("[kind.listener.when]\ntriggered = \"chase\"\n"),
            "listener reacts to when.triggered, but no zone and no defeat tells or wakes it: that "
            "never happens");
  EXPECT_EQ(only_line("[kind.listener.when]\nhurt = \"chase\"\n"),
            "listener reacts to when.hurt, but nobody has an attack that can hurt it: that never "
            "happens");
  EXPECT_EQ(only_line("[kind.listener.when]\narrives = \"chase\"\n"),
            "listener reacts to when.arrives, but nothing makes it investigate or search: that "
            "never happens");
  EXPECT_EQ(only_line("[kind.listener.nearness]\nrange = 2\n[kind.listener.when.near]\n"
                      "warden = \"chase\"\n"),
            "listener reacts to when.near.warden, but no warden is of a team that it is hostile "
            "to: that never happens");
  EXPECT_EQ(only_line("[kind.listener.touch]\nsides = [\"top\"]\n[kind.listener.when.touches]\n"
                      "front = \"chase\"\n"),
            "listener reacts to when.touches.front, but its touch does not feel by its front side: "
            "that never happens");
}

TEST(Unmet, TagsThatDifferByCaseAlone) {
  const std::string tags = "tags = [\"Guest\"]\n";
  const std::string zone =
      "[[zone]]\nid = \"z\"\noutline = [[0, 0], [1, 0], [1, 1]]\ngrants = [\"guest\"]\n";
  EXPECT_EQ(findings_of(listening("", tags) + zone, "tags-alike"),
            Lines{"the tags 'Guest' and 'guest' differ by upper and lower case alone: they are two "
                  "tags, and who looks for one does not find the other"});
  EXPECT_EQ(findings_of(listening("", "tags = [\"guest\"]\n") + zone, "tags-alike"), Lines{});
}

TEST(Unmet, ALevelWithoutAnyAgent) {
  EXPECT_EQ(findings_of("", "no-agents").size(), 1U);
  EXPECT_EQ(findings_of(listening(""), "no-agents").size(), 0U);
}

// Foes face each other without a sense; one sense, or an attack, of anybody is enough.
TEST(Unmet, FoesWithoutAnySense) {
  const auto count = [](const std::string& more, const std::vector<Setting>& settings = {}) {
    const std::string text =
        "[kind.lamp]\nteam = \"caretakers\"\n[kind.guest]\nteam = \"visitors\"\n" + more +
        testing::placed("lamp-1", "lamp", "[0.0, 0.0]") +
        testing::placed("guest-1", "guest", "[5.0, 0.0]");
    return findings_of(text, "nobody-notices", settings).size();
  };
  EXPECT_EQ(count(""), 1U);
  EXPECT_EQ(count("[kind.lamp.sight]\nrange = 3.0\nfield_of_view = 90.0\n"), 0U);
  EXPECT_EQ(count("[kind.guest.nearness]\nrange = 1.0\n"), 0U);
  EXPECT_EQ(count("[kind.lamp.attack.thorn]\nhow = \"touch\"\ndamage = 1\ncooldown = 1\n"), 0U);
  EXPECT_EQ(count("", {{"kind.guest.team", "caretakers"}}), 0U);
}

}  // namespace
}  // namespace gaze
