// Settings that do nothing or far too much: each is told where it is made, and not where it is
// right.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::findings_of;
using testing::placed;

struct Habit {
  const char* code;
  std::string wrong;    ///< Added to the level; tells.
  std::string right;    ///< The same done right; does not.
  const char* message;  ///< In what is told.
};

void PrintTo(const Habit& habit, std::ostream* out) {
  *out << habit.code;
}

/// A pruner of the caretakers that these keys belong to, a brick, and a host-driven collector.
std::string level_with(const std::string& keys) {
  return block("crate", "[[9, 9], [10, 9], [10, 10]]") +
         placed("collector", "collector", "[8.0, 0.0]", R"(driver = "host")") + R"(
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 3.0
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
         keys;
}

class Habits : public ::testing::TestWithParam<Habit> {};

TEST_P(Habits, AreToldWhereTheyAreWrongAlone) {
  const Habit& habit = GetParam();
  const auto told = findings_of(level_with(habit.wrong), habit.code);
  ASSERT_EQ(told.size(), 1U);
  EXPECT_NE(told[0].find(habit.message), std::string::npos) << told[0];
  EXPECT_TRUE(findings_of(level_with(habit.right), habit.code).empty());
}

const std::string kSees =
    "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.sight]\nrange = 9\nfield_of_view = 90\n";
const std::string kChases = "[kind.pruner.when]\nsees = \"chase\"\n";
const std::string kStrikes =
    "[kind.pruner.attack.snip]\nhow = \"strike\"\nrange = 1.5\ndamage = 2\ncooldown = 1.0\n";

const std::string kHides =
    "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.nearness]\nrange = 0.8\n"
    "[kind.pruner.when]\nnear = \"chase\"\n[kind.pruner.move]\ngait = \"drop\"\n";
const std::string kFeels =
    "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.feeler.tip]\nlength = 3.0\n"
    "[kind.pruner.when]\nfeels = { tip = { attack = \"thorn\" } }\n"
    "[kind.pruner.attack.thorn]\nhow = \"shot\"\nspeed = 9\ndamage = 1\ncooldown = 1\n";

const std::string kFeelsAside =
    "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.feeler.tip]\nlength = 3.0\ntoward = 90\n"
    "[kind.pruner.attack.thorn]\nhow = \"shot\"\nspeed = 9\ndamage = 1\ncooldown = 1\n"
    "aim = \"ahead\"\nalong = \"tip\"\n";

INSTANTIATE_TEST_SUITE_P(
    InVain, Habits,
    ::testing::Values(
        Habit{"key-without-effect", kSees + "[kind.pruner.move]\ngait = \"fixed\"\nspeed = 2\n",
              kSees + "[kind.pruner.move]\nspeed = 2\n",
              "kind.pruner.move.speed has no effect: it goes nowhere"},
        Habit{"key-without-effect", kSees + "[kind.pruner.move]\nhover_height = 2\n",
              kSees + "[kind.pruner.move]\ngait = \"hover\"\nhover_height = 2\n",
              "kind.pruner.move.hover_height has no effect: its gait is not \"hover\""},
        Habit{
            "key-without-effect", kSees + "[kind.pruner.move]\nflee_distance = 9\n",
            kSees + "[kind.pruner.move]\nflee_distance = 9\n[kind.pruner.when]\nsees = \"flee\"\n",
            "kind.pruner.move.flee_distance has no effect: nothing makes it flee"},
        Habit{"pass-too-short",
              kSees + "notice_time = 1.0\n[kind.pruner.scan]\nstyle = \"round\"\nrate = 180\n",
              kSees + "notice_time = 0.5\n[kind.pruner.scan]\nstyle = \"round\"\nrate = 180\n",
              "in view for 0.5 s a pass, and noticing takes 1 s"},
        Habit{"attack-short-of-feeler", kFeels + "range = 2.5\n", kFeels + "range = 3.0\n",
              "'thorn' of pruner reaches 2.5 m, and the feeler 'tip' that asks for it 3 m"},
        Habit{"held-by-tolerance",
              kFeels + "aim = \"ahead\"\nrange = 3\n[kind.pruner.move]\nturn_rate = 0\n",
              kFeels + "aim = \"ahead\"\nrange = 3\n[kind.pruner.move]\ngait = \"fixed\"\n",
              "goes ahead, and it does not turn to anybody"},
        Habit{"held-by-tolerance", kFeelsAside + "range = 3\n",
              kFeelsAside + "range = 3\naim_tolerance = 180\n", "goes 90 degrees off its facing"},
        Habit{"drop-never",
              "[kind.pruner]\nteam = \"caretakers\"\n[kind.pruner.nearness]\nrange = 9\n"
              "[kind.pruner.move]\ngait = \"drop\"\n",
              kHides + "drop_height = 0.5\n", "pruner hangs until it goes into another mode"},
        Habit{"drop-never", kHides + "drop_height = 0\n", kHides + "drop_height = 0.5\n",
              "pruner hangs at 0 m"}));

TEST(Fields, UpAndDownMeanNothingSeenFromTheSide) {
  const auto told = [&](const std::string& plane) {
    return findings_of(level_with(kSees + "vertical_field_of_view = 40\n"), "key-without-effect",
                       {{"plane", "\"" + plane + "\""}});
  };
  ASSERT_EQ(told("upright").size(), 1U);
  EXPECT_NE(told("upright")[0].find("the field of view itself is up and down"), std::string::npos);
  EXPECT_TRUE(told("ground").empty());
}

// The nearness counts all axes and the pruner hangs 4 m up. (Left out, axes leave z out.)
TEST(Nearness, ThatNobodyComesIntoIsTold) {
  const auto told = [&](const std::string& axes) {
    return findings_of(level_with(kHides + "drop_height = 4\n"), "nearness-out-of-reach",
                       {{"kind.pruner.nearness.axes", axes}});
  };
  ASSERT_EQ(told("\"xyz\"").size(), 1U);
  EXPECT_NE(told("\"xyz\"")[0].find("pruner is 4 m above or below all"), std::string::npos);
  EXPECT_TRUE(told("\"xy\"").empty());
}

// A planter of 0.9 m before it: the eye at 1.5 m looks over it, the muzzle at 0.5 m does not.
TEST(Muzzles, BehindWhatTheEyeLooksOverAreTold) {
  const std::string planter =
      "[[block]]\nid = \"planter\"\nmaterial = \"brick\"\nheight = 0.9\n"
      "outline = [[1, -1], [1.5, -1], [1.5, 1], [1, 1]]\n";
  const auto told = [&](double muzzle) {
    return findings_of(level_with(planter + kSees +
                                  "eye_height = 1.5\n[kind.pruner.move]\ngait = \"fixed\"\n"
                                  "[kind.pruner.attack.jet]\nhow = \"shot\"\nspeed = 9\n"
                                  "range = 8\ndamage = 1\ncooldown = 1\n" +
                                  fmt::format("muzzle = [0, 0, {}]\n", muzzle)),
                       "muzzle-behind-cover");
  };
  ASSERT_EQ(told(0.5).size(), 1U);
  EXPECT_NE(told(0.5)[0].find("looks over planter from 1.5 m up, and 'jet' leaves from 0.5 m up"),
            std::string::npos);
  EXPECT_TRUE(told(1.2).empty());
}

INSTANTIATE_TEST_SUITE_P(
    Gallery, Habits,
    ::testing::Values(
        Habit{"notices-in-vain", kSees + "[kind.pruner.move]\nspeed = 2\n",
              kSees + "[kind.pruner.move]\nspeed = 2\n" + kChases,
              "pruner notices and can move, but nothing makes it do anything about it"},
        Habit{"mode-without-legs", kSees + "[kind.pruner.move]\ngait = \"fixed\"\n" + kChases,
              kSees + "[kind.pruner.move]\ngait = \"walk\"\n" + kChases,
              "pruner goes into the mode chase, but its gait is fixed"},
        Habit{"mode-without-legs", kSees + kChases,
              kSees + kChases + "[kind.pruner.move]\nspeed = 2\n",
              "pruner goes into the mode chase, but it has no [kind.pruner.move]"},
        Habit{"forgets-at-once", kSees + kChases + "[kind.pruner.move]\nspeed = 2\n",
              kSees + "remember = 2\n" + kChases + "[kind.pruner.move]\nspeed = 2\n",
              "it gives up at the first corner"},
        Habit{"blows-pour",
              kSees + "[kind.pruner.attack.snip]\nhow = \"strike\"\nrange = 1.5\ndamage = 2\n"
                      "cooldown = 0.016\n",
              kSees + kStrikes, "0.016 s: 62.5 blows and 125 points a second"},
        Habit{"touch-without-sides", kSees + "[kind.pruner.touch]\nsides = []\n",
              kSees + "[kind.pruner.touch]\nsides = [\"top\"]\n",
              "the touch of pruner names no sides"},
        Habit{
            "resists-nothing",
            kSees + kStrikes + "damage_kind = \"water\"\n[kind.pruner.resist]\nwatre = 0.5\n",
            kSees + kStrikes + "damage_kind = \"water\"\n[kind.pruner.resist]\nwater = 0.5\n",
            "pruner resists 'watre', a kind of damage that no attack does; did you mean 'water'?"},
        Habit{"stops-before-touching",
              kSees + kChases +
                  "[kind.pruner.move]\nstop_distance = 1.2\n"
                  "[kind.pruner.attack.sting]\nhow = \"touch\"\ndamage = 2\ncooldown = 1.0\n",
              kSees + kChases +
                  "[kind.pruner.move]\nstop_distance = 0.5\n"
                  "[kind.pruner.attack.sting]\nhow = \"touch\"\ndamage = 2\ncooldown = 1.0\n",
              "pruner stops 1.2 m from collector, but 'sting' works by touching, at 0.6 m"},
        Habit{"follows-nobody", kSees + "[kind.pruner.when]\nidle = \"follow\"\n",
              kSees + "[kind.pruner.when]\nidle = \"follow\"\n[kind.pruner.move]\n"
                      "follows = [\"collector\"]\n",
              "pruner is to follow, but move.follows names nobody"},
        Habit{"mirrors-nobody",
              kSees + "[kind.pruner.attack.jet]\nhow = \"shot\"\naim = \"mirror\"\nrange = 9\n"
                      "damage = 1\ncooldown = 1\nspeed = 9\n",
              kSees + "[kind.pruner.attack.jet]\nhow = \"shot\"\naim = \"direct\"\nrange = 9\n"
                      "damage = 1\ncooldown = 1\nspeed = 9\n",
              "no agent of its team is driven by a script or the program"},
        Habit{"driven-never-reacts",
              kSees + kChases +
                  "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\n"
                  "script = [{ go = [3, 5] }]\n",
              kSees + kChases +
                  "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\n"
                  "patrol = [[3, 3], [3, 5]]\n",
              "guard is driven by its script, and reactions of pruner do not apply"},
        Habit{"patrol-of-one-point",
              kSees +
                  "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\npatrol = [[3, 5]]\n",
              kSees + "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\n"
                      "patrol = [[3, 3], [3, 5]]\n",
              "the patrol of guard has one point"},
        Habit{"script-without-legs",
              kSees + "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\n"
                      "script = [{ go = [1, 1] }]\n",
              kSees + "[kind.pruner.move]\nspeed = 2\n[[agent]]\nid = \"guard\"\n"
                      "kind = \"pruner\"\nat = [3, 3]\nscript = [{ go = [1, 1] }]\n",
              "guard is to go, but pruner has no [move]: it stays where it is"},
        Habit{"fires-nothing",
              kSees + "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\n"
                      "script = [{ aim = [1, 1], fire = 1 }]\n",
              kSees + kStrikes +
                  "[[agent]]\nid = \"guard\"\nkind = \"pruner\"\nat = [3, 3]\n"
                  "script = [{ aim = [1, 1], fire = 1 }]\n",
              "guard is to fire, but a pruner has no attack"},
        Habit{"hostile-to-nobody",
              std::string(
                  "[team.moles]\n[kind.pruner]\nteam = \"moles\"\n[kind.pruner.sight]\nrange = 9\n"
                  "field_of_view = 90\n") +
                  kStrikes,
              kSees + kStrikes, "moles are hostile to nobody, though pruner of them"},
        Habit{"nobody-catches", kSees + "[round]\nends = [\"caught\"]\n",
              kSees + "[kind.pruner.attack.grab]\nhow = \"catch\"\n[round]\nends = [\"caught\"]\n",
              "no agent has an attack that catches"},
        Habit{"breaks-for-no-shot",
              kSees + "[material.veil]\nstops = [\"bodies\"]\n[[block]]\nid = \"pot\"\n"
                      "material = \"veil\"\nhealth = 5\noutline = [[5, 5], [6, 5], [6, 6]]\n",
              kSees + "[material.veil]\nstops = [\"bodies\", \"shots\"]\n[[block]]\nid = \"pot\"\n"
                      "material = \"veil\"\nhealth = 5\noutline = [[5, 5], [6, 5], [6, 6]]\n",
              "pot breaks, but veil lets shots pass"}));

TEST(BlowsSpared, AreToldWhereEveryOtherIsWasted) {
  const auto told = [](const std::string& grace) {
    std::string text;
    for (const Finding& finding :
         judge(testing::garden(level_with(kSees + kStrikes), {{"kind.collector.grace", grace}}))) {
      if (finding.code == "blows-spared") text += finding.message;
    }
    return text;
  };
  EXPECT_EQ(told("3.5"),
            "collector is spared for 3.5 s after each hit: of 4 blows of 'snip' of "
            "pruner, 1 s apart, 3 do nothing");
  EXPECT_EQ(told("1.9"), "");
}

// What agents have and can do nothing with.
INSTANTIATE_TEST_SUITE_P(
    Powerless, Habits,
    ::testing::Values(
        Habit{"without-team",
              "[kind.pruner]\n[kind.pruner.sight]\nrange = 9\nfield_of_view = 90\n" + kStrikes,
              kSees + kStrikes, "pruner has no team: it is hostile to nobody"},
        Habit{"looks-for-nobody", kSees + "[kind.pruner.choose]\nteams = [\"caretakers\"]\n",
              kSees + "[kind.pruner.choose]\nteams = [\"visitors\"]\n",
              "[kind.pruner.choose] leaves out all that are there"},
        Habit{"looks-for-nobody",
              kSees + "[kind.pruner.choose]\ntags = [\"wet\"]\n[kind.other]\ntags = [\"wet\"]\n",
              kSees + "[kind.pruner.choose]\ntags = [\"wet\"]\n[[zone]]\nid = \"pond\"\n"
                      "outline = [[0, 0], [1, 0], [1, 1]]\ngrants = [\"wet\"]\n",
              "it notices nobody"},
        Habit{"harms-nobody",
              kSees + "[kind.pruner.attack.snip]\nhow = \"strike\"\nrange = 1.5\ndamage = 0\n"
                      "cooldown = 1\n",
              kSees + kStrikes, "'snip' of pruner takes no health from anybody: its damage is 0"},
        Habit{"harms-nobody",
              kSees + kStrikes + "damage_kind = \"water\"\n[kind.collector.resist]\nwater = 1\n",
              kSees + kStrikes + "damage_kind = \"water\"\n[kind.collector.resist]\nwater = 0.9\n",
              "collector resists all of its water"},
        Habit{"tells-nobody", kSees + "[kind.pruner.tell]\nrange = 5\n",
              kSees + "[kind.pruner.tell]\nrange = 5\n" +
                  testing::placed("second", "pruner", "[3, 3]"),
              "nobody else is of its team"},
        Habit{"never-in-time", kSees + "notice_time = 60\n", kSees + "notice_time = 5\n",
              "pruner notices after 60 s in view, and a run lasts 30 s"},
        Habit{"legs-without-speed", kSees + kChases + "[kind.pruner.move]\nspeed = 0\n",
              kSees + kChases + "[kind.pruner.move]\nspeed = 1\n", "its speed is 0"},
        Habit{"wanders-nowhere", kSees + "[kind.pruner.when]\nidle = \"wander\"\n",
              kSees + "[kind.pruner.when]\nidle = \"wander\"\n[kind.pruner.wander]\n",
              "has no [kind.pruner.wander]: it stands"},
        Habit{"too-near-to-use",
              kSees + kChases + "[kind.pruner.move]\nspeed = 1\n" + kStrikes + "min_range = 1\n",
              kSees + kChases + "[kind.pruner.move]\nspeed = 1\nstop_distance = 1.2\n" + kStrikes +
                  "min_range = 1\n",
              "pruner comes up to 0.6 m from collector, and 'snip' is not made nearer than 1 m"},
        Habit{"outlasts-cooldown", kSees + kStrikes + "wind_up = 1.5\n",
              kSees + kStrikes + "wind_up = 1\n",
              "takes 1.5 s from the pull to its end, and is pulled again after 1 s"},
        Habit{"patrol-unused",
              kSees + "[kind.pruner.when]\nidle = \"post\"\n" +
                  testing::placed("guard", "pruner", "[3, 3]", "patrol = [[3, 3], [3, 5]]"),
              kSees + testing::placed("guard", "pruner", "[3, 3]", "patrol = [[3, 3], [3, 5]]"),
              "guard has 2 points to patrol, but its idle mode is post"}));

}  // namespace
}  // namespace gaze
