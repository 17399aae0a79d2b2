// Every key of the senses: what it becomes, and each way to get it wrong, word for word.

#include <gtest/gtest.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::faults_of;
using testing::placed;

TEST(SensesFile, EveryKeyOfTheContractIsRead) {
  const Level level = testing::garden(R"(
[material.mat]
stops = ["sound"]
muffles = 0.6
[kind.pruner]
team = "caretakers"
height = 2.0
body_points = [0.0, 1.0]
visibility = 0.9
still_visibility = 0.5
tags = ["machine"]
[kind.pruner.sight]
range = 9.0
field_of_view = 110.0
vertical_field_of_view = 60.0
eye = [0.2, 0.0, 1.5]
near_ring = 1.5
visible_at_least = 0.3
measure = "surface"
fade_from = 0.5
ebb_time = 2.0
[kind.pruner.scan]
style = "sweep"
rate = 45.0
arc = 90.0
pause = 0.5
[kind.pruner.head]
turn_rate = 180.0
limits = [-90.0, 80.0]
[kind.pruner.hearing]
range = 15.0
acuity = 1.5
around_corners = true
remember = 5.0
[kind.pruner.tell]
range = 10.0
delay = 0.5
[kind.pruner.choose]
by = "nearest"
stick = 1.0
tags = ["machine"]
[kind.pruner.feeler.ahead]
from = [0.2, 0.0, 0.5]
toward = 10.0
tilt = -5.0
length = 12.0
thickness = 0.2
finds = "anything"
[kind.pruner.nearness]
range = 1.0
axes = "x"
once = true
[kind.pruner.touch]
sides = ["front", "bottom"]
[kind.pruner.when]
sees = "chase"
hears = { pebble = "investigate", any = "search" }
feels = { ahead = { noise = "click", reach = 3.0 } }
hurt = { mode = "search", after = 0.2 }
near = "chase"
)" + placed("pruner-1", "pruner", "[1, 1]") +
                                      R"(
[[zone]]
id = "fernery"
outline = [[0, 0], [3, 0], [3, 3], [0, 3]]
base = 0.0
height = 3.0
tags = ["quiet"]
dimness = 0.6
grants = ["gloves"]
wakes = ["pruner-1"]
once = true
)");
  const Kind& pruner = level.kinds[0];
  EXPECT_EQ(level.materials[1].muffles, 0.6);
  EXPECT_EQ(*pruner.still_visibility, 0.5);
  EXPECT_EQ(*pruner.sight->eye, Vector3d(0.2, 0.0, 1.5));
  EXPECT_EQ(pruner.sight->vertical_field_of_view->degrees(), 60.0);
  EXPECT_EQ(pruner.sight->measure, Measure::surface);
  EXPECT_EQ(pruner.sight->ebb_time.nanoseconds, 2'000'000'000);
  EXPECT_EQ(pruner.scan->arc.degrees(), 90.0);
  EXPECT_EQ(pruner.head->high.degrees(), 80.0);
  EXPECT_TRUE(pruner.hearing->around_corners);
  EXPECT_EQ(pruner.tell->delay.nanoseconds, 500'000'000);
  EXPECT_EQ(pruner.choose.stick, 1.0);
  EXPECT_EQ(pruner.feelers.at(0).finds, Feeler::Finds::anything);
  EXPECT_EQ(pruner.feelers.at(0).tilt.degrees(), -5.0);
  EXPECT_EQ(pruner.nearness->axes, (std::array{true, false, false}));
  EXPECT_EQ(pruner.touch->sides, SideSet(0b100001));
  ASSERT_EQ(pruner.when.rules.size(), 6U);
  EXPECT_EQ(pruner.when.rules[1].cause, Cause::hurt);
  EXPECT_EQ(pruner.when.rules[1].reaction.after.nanoseconds, 200'000'000);
  EXPECT_TRUE(level.agents[0].is_asleep);
  EXPECT_EQ(level.zones[0].grants, std::vector<std::string>{"gloves"});
}

struct BadSenseCase {
  const char* lines;
  const char* fault;
};

class BadSenses : public ::testing::TestWithParam<BadSenseCase> {};

TEST_P(BadSenses, AreReportedInOneClearLine) {
  EXPECT_EQ(faults_of(GetParam().lines), std::string("bad.toml:") + GetParam().fault + "\n");
}

constexpr const char* kAtOrigin = "\n[[agent]]\nid='x'\nkind='a'\nat=[0,0]";

INSTANTIATE_TEST_SUITE_P(
    Gallery, BadSenses,
    ::testing::Values(
        BadSenseCase{
            "[kind.a.sight]\nrange=1\nfield_of_view=9\nvertical_field_of_view=190",
            "4:24: error: kind.a.sight.vertical_field_of_view is 190; above 0 to 180 degrees is "
            "allowed"},
        BadSenseCase{"[kind.a.sight]\nrange=1\nfield_of_view=9\ntilt=95",
                     "4:6: error: kind.a.sight.tilt is 95; -90 to 90 degrees is allowed"},
        BadSenseCase{"[kind.a.feeler.w]\nlength=1\nturns='neck'",
                     "3:7: error: kind.a.feeler.w.turns is the text \"neck\"; allowed: \"body\", "
                     "\"head\""},
        BadSenseCase{"[kind.a.when]\nhurt={turn=400}",
                     "2:12: error: kind.a.when.hurt.turn is 400; -360 to 360 degrees is allowed"},
        BadSenseCase{"[kind.a.feeler.w]\nlength=1\n[kind.a.when]\nfeels={tunr=180}",
                     "4:8: error: kind.a.when.feels: there is no feeler 'tunr'; did you mean "
                     "'turn'?"},
        BadSenseCase{"[kind.a.sight]\nrange=1\nfield_of_view=9\neye=[1,2]",
                     "4:5: error: kind.a.sight.eye is a list of 2; 3 numbers are needed"},
        BadSenseCase{
            "[kind.a.sight]\nrange=1\nfield_of_view=9\neye=[1,2,3]\neye_height=1",
            "4:5: error: kind.a.sight.eye stands beside eye_height; one of them is allowed"},
        BadSenseCase{"[kind.a.sight]\nrange=1\nfield_of_view=9\nnear_ring=-1",
                     "4:11: error: kind.a.sight.near_ring is -1; 0 to 40000 m is allowed"},
        BadSenseCase{"[kind.a.sight]\nrange=1\nfield_of_view=9\nvisible_at_least=1.5",
                     "4:18: error: kind.a.sight.visible_at_least is 1.5; 0 to 1 is allowed"},
        BadSenseCase{
            "[kind.a.sight]\nrange=1\nfield_of_view=9\nmeasure='center'",
            "4:9: error: kind.a.sight.measure is the text \"center\"; allowed: \"centre\", "
            "\"surface\"; did you "
            "mean 'centre'?"},
        BadSenseCase{"[kind.a.sight]\nrange=1\nfield_of_view=9\nfade_from=2",
                     "4:11: error: kind.a.sight.fade_from is 2; 0 to 1 is allowed"},
        BadSenseCase{"[kind.a.sight]\nrange=1\nfield_of_view=9\nebb_time='2'",
                     "4:10: error: kind.a.sight.ebb_time is the text \"2\"; a number is needed"},
        BadSenseCase{
            "[kind.a.scan]\nstyle='swipe'\nrate=1\narc=9",
            "2:7: error: kind.a.scan.style is the text \"swipe\"; allowed: \"sweep\", \"round\", "
            "\"list\""},
        BadSenseCase{"[kind.a.scan]\nstyle='sweep'\nrate=0\narc=9",
                     "3:6: error: kind.a.scan.rate is 0; above 0 to 36000 degrees/s is allowed"},
        BadSenseCase{"[kind.a.scan]\nstyle='list'\nrate=9\nheadings=[]",
                     "4:10: error: kind.a.scan.headings is empty; 1 to 1000 are allowed"},
        BadSenseCase{
            "[kind.a.scan]\nstyle='round'\nrate=9\narc=90",
            "4:1: error: unknown key 'arc' in kind.a.scan; allowed: style, rate, pause, goes_on"},
        BadSenseCase{
            "[kind.a.head]\nlimits=[10,20]",
            "2:8: error: kind.a.head.limits is [10, 20]; the first must be 0 or less and the "
            "second "
            "0 or more: straight ahead lies between them"},
        BadSenseCase{"[kind.a.hearing]\nrange=-5",
                     "2:7: error: kind.a.hearing.range is -5; above 0 to 40000 m is allowed"},
        BadSenseCase{"[kind.a.hearing]\nrange=5\naround_corners=1",
                     "3:16: error: kind.a.hearing.around_corners is 1; true or false is needed"},
        BadSenseCase{"[kind.a.feeler.b]\nlength=0",
                     "2:8: error: kind.a.feeler.b.length is 0; above 0 to 40000 m is allowed"},
        BadSenseCase{
            "[kind.a.feeler.b]\nlength=1\nfinds='noting'",
            "3:7: error: kind.a.feeler.b.finds is the text \"noting\"; allowed: \"hostile\", "
            "\"anything\", "
            "\"nothing\"; did you mean 'nothing'?"},
        BadSenseCase{
            "[kind.a.nearness]\nrange=1\naxes='xx'",
            "3:6: error: kind.a.nearness.axes is the text \"xx\"; some of the letters x, y and z "
            "are allowed, "
            "each once"},
        BadSenseCase{"[kind.a.touch]\nsides=['Front']",
                     "2:8: error: there is no side 'Front'; did you mean 'front'?"},
        BadSenseCase{"[kind.a.tell]\ndelay=1",
                     "1:1: error: kind.a.tell.range is missing: a number must be given"},
        BadSenseCase{"[kind.a.choose]\nby='first'\nstick=-2",
                     "3:7: error: kind.a.choose.stick is -2; 0 to 40000 m is allowed"},
        BadSenseCase{"[kind.a]\nvisibility=-1",
                     "2:12: error: kind.a.visibility is -1; 0 to 100 is allowed"},
        BadSenseCase{
            "[kind.a]\ntags=['two words']",
            "2:7: error: kind.a.tags holds the text \"two words\"; letters, digits, _ and - are "
            "allowed"},
        BadSenseCase{
            "[kind.a.when]\nhears={pebble='run'}",
            "2:15: error: kind.a.when.hears.pebble is the text \"run\"; allowed: \"post\", "
            "\"patrol\", "
            "\"chase\", \"investigate\", \"search\", \"return\", \"wander\", \"follow\", \"flee\""},
        BadSenseCase{"[kind.a.when]\nfeels={ahead='chase'}",
                     "2:8: error: kind.a.when.feels: there is no feeler 'ahead'"},
        BadSenseCase{"[kind.a.when]\nsees={attack='bite'}",
                     "2:14: error: there is no attack 'bite'"},
        BadSenseCase{
            "[kind.a.when]\nlasts={post='chase'}",
            "2:13: error: kind.a.when.lasts.post is the text \"chase\"; { mode = ..., after = ... "
            "} is needed"},
        BadSenseCase{"[kind.a.when]\nhurt={mode='search',after=-1}",
                     "2:27: error: kind.a.when.hurt.after is -1; 0 to 86400 s is allowed"},
        BadSenseCase{"[material.m]\nstops=[]\nmuffles=2",
                     "3:9: error: material.m.muffles is 2; 0 to 1 is allowed"},
        BadSenseCase{"[[zone]]\nid='z'\noutline=[[0,0],[1,0],[1,1]]\ndimness=2",
                     "4:9: error: zone.z.dimness is 2; 0 to 1 is allowed"},
        BadSenseCase{"[[zone]]\nid='z'\noutline=[[0,0],[1,0],[1,1]]\nwakes=['nobody']",
                     "4:8: error: there is no agent 'nobody'"},
        BadSenseCase{"[[zone]]\nid='z'\noutline=[[0,0],[1,0]]",
                     "3:9: error: zone.z.outline has 2 points; 3 to 500 are allowed"}));

TEST(SensesFile, NamesOfTagsAgentsAndNoisesAreLookedUp) {
  const std::string agent = kAtOrigin;
  EXPECT_EQ(faults_of("[kind.a]\ntags=['Guest']\n[kind.a.choose]\ntags=['guest']" + agent),
            "bad.toml:4:6: error: there is no tag 'guest'; did you mean 'Guest'?\n");
  EXPECT_EQ(faults_of("[kind.a.when]\nsees={wakes=['y']}" + agent),
            "bad.toml:2:13: error: there is no agent 'y'; did you mean 'x'?\n");
  EXPECT_EQ(faults_of("[kind.a]" + agent + "\nscript=[{noise='boo', reach=-2}]"),
            "bad.toml:6:29: error: agent.x.script[1].reach is -2; above 0 to 40000 m is allowed\n");
}

}  // namespace
}  // namespace gaze
