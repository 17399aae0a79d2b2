// Senses as they are played: what is noticed when, and what follows from it.

#include <gtest/gtest.h>

#include <cmath>

#include "gaze/acquaintance.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::seconds_of;

const std::string kCollector = R"(
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
)";

std::string host(const std::string& at) {
  return kCollector + placed("collector", "collector", at, "driver = \"host\"");
}

std::string scripted(const std::string& at, const std::string& script) {
  return kCollector + placed("collector", "collector", at, "script = [" + script + "]");
}

struct PlayedScene {
  Simulation simulation;
  std::vector<Event> events;

  PlayedScene(const std::string& text, double seconds, const std::vector<Setting>& settings = {})
      : simulation(garden(text, settings)) {
    events = play(simulation, std::llround(seconds * simulation.level().ticks_per_second));
  }

  std::vector<double> times(Event::What what) const {
    std::vector<double> result;
    for (const Event& event : only(events, what)) result.push_back(seconds_of(event, simulation));
    return result;
  }
  std::string modes(const std::string& id) const {
    std::string result;
    for (const Event& event : only(events, Event::What::mode)) {
      if (simulation.id_of(event.agent) == id) result += std::string(name_of(event.to)) + " ";
    }
    return result;
  }
};

const std::string kLamp = R"(
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 10.0
field_of_view = 90.0
eye_height = 1.0
)";

TEST(Evidence, OfASlowTargetTakesAsMuchLonger) {
  const std::string level = kLamp + placed("lamp", "lamp", "[0, 0]") + host("[4, 0]");
  const auto noticed_at = [&](const std::vector<Setting>& more) {
    std::vector<Setting> settings{{"kind.lamp.sight.notice_time", "0.5"}};
    settings.insert(settings.end(), more.begin(), more.end());
    return PlayedScene(level, 8.0, settings).times(Event::What::noticed).at(0);
  };
  EXPECT_DOUBLE_EQ(noticed_at({}), 0.5);
  EXPECT_DOUBLE_EQ(noticed_at({{"kind.collector.visibility", "0.25"}}), 2.0);
  EXPECT_DOUBLE_EQ(noticed_at({{"kind.collector.still_visibility", "0.125"}}), 4.0);
  // 4 m of 10, fading from 2 m: (10 - 4) / 8 = 0.75.
  EXPECT_NEAR(noticed_at({{"kind.lamp.sight.fade_from", "0.2"}}), 0.5 / 0.75, 1.0 / 60);
}

TEST(Evidence, CountsMovingOnlyWhileItMoves) {
  // Still for 1 s at a quarter: half of 0.5 s. Then it moves (2 m/s for 1 s): the rest in 0.25 s.
  const PlayedScene run(
      kLamp + placed("lamp", "lamp", "[0, 0]") +
          scripted("[4, 0]", "{ wait = 1.0 }, { go = [6, 0] }"),
      3.0, {{"kind.lamp.sight.notice_time", "0.5"}, {"kind.collector.still_visibility", "0.25"}});
  EXPECT_NEAR(run.times(Event::What::noticed).at(0), 1.25, 2.0 / 60);
}

TEST(Evidence, ThinsInTheDark) {
  const std::string shade =
      "[[zone]]\nid = \"shade\"\noutline = [[3, -1], [5, -1], [5, 1], [3, 1]]\ndimness = 0.75\n";
  const PlayedScene run(kLamp + shade + placed("lamp", "lamp", "[0, 0]") + host("[4, 0]"), 4.0,
                        {{"kind.lamp.sight.notice_time", "0.5"}});
  EXPECT_DOUBLE_EQ(run.times(Event::What::noticed).at(0), 2.0);
  EXPECT_EQ(run.simulation.look("lamp", "collector").evidence.light, 0.25);
}

TEST(Evidence, EbbsInsteadOfGoingAtOnce) {
  // 0.3 s in sight, 0.3 s behind the wall, then in sight again: with an ebb of 3 s a tenth of the
  // evidence is gone, 0.2 of 0.3 s; without, all of it.
  const std::string level =
      "[[wall]]\nid = \"wall\"\nmaterial = \"brick\"\npath = [[3, 0.6], [3, 1.2]]\n" + kLamp +
      placed("lamp", "lamp", "[0, 0]") + scripted("[6, 0]", "{ go = [6, 6] }");
  const auto noticed_at = [&](const std::string& ebb) {
    return PlayedScene(level, 3.0,
                       {{"kind.lamp.sight.notice_time", "0.8"}, {"kind.lamp.sight.ebb_time", ebb}})
        .times(Event::What::noticed)
        .at(0);
  };
  // Hidden from y = 1.2 - 0.2 to 2.4 + 0.2 or so, about 0.6 s in to 1.3 s.
  EXPECT_GT(noticed_at("0"), noticed_at("8.0") + 0.4);
}

TEST(Scanning, SeesWhatTheHeadSweepsOver) {
  // 45 degrees a second from straight ahead to the left; the collector stands at 60 degrees, half
  // the field is 10: in view from 50 degrees on.
  const std::string level = kLamp +
                            "[kind.lamp.scan]\nstyle = \"sweep\"\nrate = 45.0\narc = 160.0\n" +
                            placed("lamp", "lamp", "[0, 0]") + host("[2.0, 3.4641016151377544]");
  const PlayedScene run(level, 2.0, {{"kind.lamp.sight.field_of_view", "20"}});
  EXPECT_NEAR(run.times(Event::What::noticed).at(0), 50.0 / 45.0, 1.0 / 60);
  // Then the head stays on it, and the body turns too.
  const Vector2d head = run.simulation.state(run.simulation.agent("lamp")).head;
  EXPECT_NEAR(std::atan2(head.y(), head.x()) * 180 / M_PI, 60.0, 1e-6);
}

TEST(Head, KeepsWithinItsLimits) {
  const std::string level = kLamp +
                            "[kind.lamp.head]\nturn_rate = 360.0\nlimits = [-30.0, 30.0]\n"
                            "[kind.lamp.move]\nturn_rate = 0.0\n" +
                            placed("lamp", "lamp", "[0, 0]") + host("[0.5, 3]");
  const PlayedScene run(level, 1.0, {{"kind.lamp.sight.field_of_view", "200"}});
  const AgentState state = run.simulation.state(run.simulation.agent("lamp"));
  EXPECT_NEAR(std::atan2(state.head.y(), state.head.x()) * 180 / M_PI, 30.0, 1e-9);
  EXPECT_EQ(state.facing, Vector2d(1, 0));
}

const std::string kReed = R"(
[kind.reed]
team = "caretakers"
height = 1.0
[kind.reed.feeler.ahead]
from = [0.2, 0.0, 0.5]
length = 6.0
[kind.reed.attack.thorn]
how = "shot"
speed = 20.0
muzzle = [0.3, 0.0, 0.5]
damage = 4
cooldown = 0.5
range = 6.0
aim_tolerance = 30.0
[kind.reed.when]
feels = { ahead = { attack = "thorn" } }
)";

TEST(Feelers, NoticeAndLetItsAttackGoAsLongAsTheyFeel) {
  // Across the ray at x = 4 at 2 m/s, 0.3 m to either side of it: 0.3 s in it.
  const PlayedScene run(
      kReed + placed("reed", "reed", "[0, 0]") + scripted("[4, -2]", "{ go = [4, 2] }"), 3.0,
      {{"kind.reed.move.turn_rate", "0"}});
  const auto noticed = only(run.events, Event::What::noticed);
  ASSERT_EQ(noticed.size(), 1U);
  EXPECT_EQ(noticed[0].by, Sense::feeler);
  EXPECT_NEAR(seconds_of(noticed[0], run.simulation), 0.85, 1.0 / 60);
  EXPECT_NEAR(run.times(Event::What::lost).at(0), 1.15, 2.0 / 60);
  EXPECT_EQ(only(run.events, Event::What::attacked).size(), 1U);  // 0.3 s of a cooldown of 0.5
}

TEST(Feelers, AttackOfAReactionIsMadeForItAlone) {
  // It sees the collector all the time but may shoot only what its feeler meets.
  const PlayedScene run(
      kReed + "[kind.reed.sight]\nrange = 9.0\nfield_of_view = 360.0\n" +
          placed("reed", "reed", "[0, 0]") + host("[0, 4]"),
      2.0, {{"kind.reed.move.turn_rate", "0"}, {"kind.reed.attack.thorn.aim_tolerance", "180"}});
  EXPECT_EQ(only(run.events, Event::What::noticed).size(), 1U);
  EXPECT_TRUE(only(run.events, Event::What::attacked).empty());
}

TEST(Feelers, FindALedgeAsNothing) {
  // Seen from the side without a ground: a shelf ends at x = 4. The feeler points down 0.5 m ahead.
  const std::string level =
      "plane = \"upright\"\nground_height = false\n[[block]]\nid = \"shelf\"\nmaterial = "
      "\"brick\"\n"
      "outline = [[-1, 1], [4, 1], [4, 1.2], [-1, 1.2]]\n[kind.sweeper]\nteam = \"caretakers\"\n"
      "[kind.sweeper.feeler.edge]\nfrom = [0.5, 0.0, 0.5]\ntilt = -90.0\nlength = 1.0\n"
      "finds = \"nothing\"\n[kind.sweeper.move]\nspeed = 1.0\n[kind.sweeper.when]\n"
      "feels = { edge = { noise = \"scrape\", reach = 5.0 } }\n" +
      placed("sweeper", "sweeper", "[0, 1.2]", "patrol = [[3.9, 1.2], [0, 1.2]]") + kCollector +
      placed("listener", "collector", "[2, 3]", "hearing.range = 9.0\nsolid_to = []");
  const PlayedScene run(level, 5.0);
  const auto heard = only(run.events, Event::What::heard);
  ASSERT_EQ(heard.size(), 1U);
  EXPECT_EQ(heard[0].noise, "scrape");
  EXPECT_NEAR(seconds_of(heard[0], run.simulation), 3.5, 2.0 / 60);
}

TEST(Nearness, CountsTheAxesAskedForAndOnceIfOnce) {
  const std::string basket =
      "[kind.basket]\nteam = \"caretakers\"\n[kind.basket.nearness]\nrange = 1.0\naxes = \"x\"\n";
  const std::string walk = scripted("[-4, 5]", "{ go = [4, 5] }, { go = [-4, 5] }");
  const PlayedScene again(basket + placed("basket", "basket", "[0, 0]") + walk, 8.0);
  EXPECT_EQ(again.times(Event::What::noticed).size(), 2U);
  EXPECT_NEAR(again.times(Event::What::noticed)[0], 1.5, 1.0 / 60);
  // Told by the axis that counts, and not as 5 m away.
  const Event first = only(again.events, Event::What::noticed)[0];
  EXPECT_NEAR(first.distance, 1.0, 2.0 / 60);
  EXPECT_NE(again.simulation.describe(first).find("m away along x"), std::string::npos)
      << again.simulation.describe(first);
  EXPECT_NEAR(again.times(Event::What::lost)[0], 2.5, 2.0 / 60);
  const PlayedScene once(basket + "once = true\n" + placed("basket", "basket", "[0, 0]") + walk,
                         8.0);
  EXPECT_EQ(once.times(Event::What::noticed).size(), 1U);
}

const std::string kListener = R"(
[kind.listener]
team = "caretakers"
[kind.listener.hearing]
range = 12.0
remember = 2.0
[kind.listener.move]
speed = 2.0
[kind.listener.when]
hears = { pebble = "investigate", any = "search" }
)";

TEST(Hearing, GoesToLookAndComesBackAfterSomeSeconds) {
  const PlayedScene run(
      kListener + placed("listener", "listener", "[0, 0]", "facing = 180.0") +
          scripted("[6, 0]", "{ wait = 1.0 }, { noise = \"pebble\", reach = 9.0 }"),
      12.0);
  const auto heard = only(run.events, Event::What::heard);
  ASSERT_EQ(heard.size(), 1U);
  EXPECT_DOUBLE_EQ(seconds_of(heard[0], run.simulation), 1.0);
  EXPECT_EQ(heard[0].distance, 6.0);
  EXPECT_EQ(run.modes("listener"), "investigate return post ");
  // 5.3 m at 2 m/s, to where it all but touches who stands there; and it forgets 2 s after that.
  EXPECT_NEAR(run.times(Event::What::arrived).at(0), 3.65, 2.0 / 60);
  EXPECT_NEAR(run.times(Event::What::forgot).at(0), 5.65, 2.0 / 60);
  EXPECT_NEAR(run.simulation.state({0}).position.norm(), 0.0, 1e-9);
}

TEST(Hearing, ReactsByTheNoisesName) {
  const PlayedScene run(kListener + placed("listener", "listener", "[0, 0]") +
                            scripted("[6, 0]", "{ noise = \"crash\", reach = 9.0 }"),
                        1.0);
  EXPECT_EQ(run.modes("listener"), "search ");
}

TEST(Hearing, IgnoresOwnAndFriendsNoisesUnlessWanted) {
  const std::string maker =
      placed("maker", "listener", "[3, 0]", "script = [{ noise = \"knock\", reach = 9.0 }]");
  const std::string level = kListener + placed("listener", "listener", "[0, 0]") + maker;
  EXPECT_TRUE(PlayedScene(level, 0.5).times(Event::What::heard).empty());
  EXPECT_EQ(PlayedScene(level, 0.5, {{"kind.listener.hearing.friends", "true"}})
                .times(Event::What::heard)
                .size(),
            1U);
  EXPECT_EQ(PlayedScene(level, 0.5, {{"kind.listener.hearing.own", "true"}})
                .times(Event::What::heard)
                .size(),
            1U);
}

TEST(Hearing, StepsAreHeardOnceAStrideAndNotWhenQuiet) {
  const std::string walk = "{ go = [9, 0] }";
  const std::string level = kListener + placed("listener", "listener", "[0, 0]");
  const std::vector<Setting> loud{{"kind.collector.move.step_reach", "10"},
                                  {"kind.collector.move.stride", "0.5"}};
  // 3 m at 0.5 m a stride.
  EXPECT_EQ(
      PlayedScene(level + scripted("[6, 0]", walk), 2.0, loud).times(Event::What::heard).size(),
      6U);
  EXPECT_TRUE(PlayedScene(level + scripted("[6, 0]", "{ quiet = true }, " + walk), 2.0, loud)
                  .times(Event::What::heard)
                  .empty());
}

TEST(Hearing, OfTenThousandNoisesTheNearestOfEachName) {
  Simulation simulation(garden(kListener + placed("listener", "listener", "[0, 0]")));
  for (int i = 0; i < 10'000; ++i) {
    simulation.make_noise({1.0 + (i * 7919 % 10'000) / 1000.0, 0.0, 1.0}, 15.0,
                          i % 2 == 0 ? "rain" : "hail");
  }
  simulation.step();
  const auto heard =
      only({simulation.events().begin(), simulation.events().end()}, Event::What::heard);
  ASSERT_EQ(heard.size(), 2U);
  EXPECT_EQ(heard[0].noise, "rain");
  EXPECT_EQ(heard[0].distance, 1.0);
  EXPECT_THROW(simulation.make_noise({0, 0, 0}, -1.0, "rain"), UsageError);
}

TEST(Hearing, ALandingShotIsHeardWhereItLands) {
  const std::string level = kReed + placed("reed", "reed", "[0, 0]") + host("[4, 0]") +
                            placed("listener", "collector", "[6, 0]", "hearing.range = 9.0");
  const PlayedScene run(level, 1.0, {{"kind.reed.attack.thorn.noise_reach", "9.0"}});
  const auto heard = only(run.events, Event::What::heard);
  ASSERT_FALSE(heard.empty());
  EXPECT_EQ(heard[0].noise, "thorn");
  EXPECT_NEAR(heard[0].place.x(), 4.0 - 0.3 - 0.05, 1e-9);  // at the collector's skin
}

TEST(Touch, TellsBySideAndHurtTellsByWhom) {
  const std::string level = R"(
[kind.sweeper]
team = "caretakers"
[kind.sweeper.touch]
sides = ["front"]
[kind.sweeper.when]
touches = { front = { noise = "bump", reach = 3.0 } }
)" + placed("sweeper", "sweeper", "[0, 0]") +
                            placed("back", "sweeper", "[8, 0]") +
                            scripted("[4, 0]", "{ go = [0.5, 0] }, { go = [7.5, 0] }");
  const PlayedScene run(level, 5.0);
  const auto noticed = only(run.events, Event::What::noticed);
  ASSERT_EQ(noticed.size(), 1U);  // the other one is touched from behind
  EXPECT_EQ(noticed[0].by, Sense::touch);
  EXPECT_NEAR(seconds_of(noticed[0], run.simulation), (4.0 - 0.6) / 2.0, 1.0 / 60);
}

TEST(Hurt, IsNoticedByWhomAndReactedTo) {
  const std::string level = R"(
[kind.toad]
team = "caretakers"
[kind.toad.hurt]
remember = 2.0
[kind.toad.when]
hurt = { mode = "search", after = 0.5 }
[kind.stinger]
team = "visitors"
[kind.stinger.sight]
range = 5.0
field_of_view = 360.0
[kind.stinger.attack.sting]
how = "strike"
range = 3.0
damage = 1
cooldown = 100.0
)" + placed("toad", "toad", "[0, 0]") +
                            placed("stinger", "stinger", "[2, 0]");
  const PlayedScene run(level, 4.0);
  const double hurt = run.times(Event::What::hurt).at(0);
  const auto noticed = only(run.events, Event::What::noticed);
  ASSERT_EQ(noticed.size(), 2U);
  EXPECT_EQ(noticed[1].by, Sense::hurt);
  EXPECT_DOUBLE_EQ(seconds_of(noticed[1], run.simulation), hurt);
  EXPECT_EQ(run.modes("toad"), "search return post ");
  EXPECT_NEAR(run.times(Event::What::mode).at(0), hurt + 0.5, 1.5 / 60);
  EXPECT_NEAR(run.times(Event::What::forgot).at(0), hurt + 2.0, 1.5 / 60);
}

TEST(Tell, PassesOnWithDelayWithinItsRangeAndNoFurther) {
  const std::string level =
      kLamp + "[kind.lamp.tell]\nrange = 5.0\ndelay = 0.5\n[kind.deaf]\nteam = \"caretakers\"\n" +
      placed("lamp", "lamp", "[0, 0]") + placed("near", "deaf", "[-5, 0]") +
      placed("far", "deaf", "[-5.1, 0]") + host("[4, 0]");
  const PlayedScene run(level, 2.0);
  const auto noticed = only(run.events, Event::What::noticed);
  ASSERT_EQ(noticed.size(), 2U);
  EXPECT_EQ(run.simulation.id_of(noticed[1].agent), "near");
  EXPECT_EQ(noticed[1].by, Sense::told);
  EXPECT_EQ(noticed[1].teller, run.simulation.agent("lamp"));
  EXPECT_DOUBLE_EQ(seconds_of(noticed[1], run.simulation), 0.5);
  EXPECT_EQ(run.simulation.last_place(run.simulation.agent("near"), noticed[1].other.value()),
            Vector3d(4, 0, 0));
}

TEST(Zones, GrantTakeWakeAndTell) {
  const std::string level = R"(
[[zone]]
id = "doormat"
outline = [[2, -1], [3, -1], [3, 1], [2, 1]]
triggered_by = ["visitors"]
grants = ["muddy"]
wakes = ["lamp"]
[[zone]]
id = "brush"
outline = [[5, -1], [6, -1], [6, 1], [5, 1]]
takes = ["muddy"]
once = true
)" + kLamp + placed("lamp", "lamp", "[8, 0]", "facing = 180.0\nchoose.tags = [\"muddy\"]") +
                            scripted("[0, 0]", "{ go = [7, 0] }, { go = [0, 0] }, { go = [7, 0] }");
  const PlayedScene run(level, 4.0);
  // Asleep until the doormat at 2 m, then the collector is muddy up to 5 m.
  EXPECT_EQ(run.times(Event::What::triggered).size(), 2U);  // one on each
  EXPECT_NEAR(run.times(Event::What::noticed).at(0), 1.0, 1.5 / 60);
  EXPECT_NEAR(run.times(Event::What::lost).at(0), 2.5, 1.5 / 60);
  const Verdict verdict = Simulation(garden(level)).look("lamp", "collector");
  EXPECT_EQ(verdict.hindrance, "lamp is asleep until something wakes it");
  const PlayedScene longer(level, 9.0);  // the brush works once: it stays muddy the second time
  EXPECT_EQ(longer.simulation.state(longer.simulation.agent("collector")).tags,
            std::vector<std::string>{"muddy"});
}

TEST(Choose, LooksForThoseOfATagKindOrTeamOnlyAndSaysSo) {
  const std::string level = kLamp + placed("lamp", "lamp", "[0, 0]") + host("[4, 0]") +
                            "[kind.guest]\nlike = \"collector\"\ntags = [\"guest\"]\n" +
                            placed("guest", "guest", "[5, 0]", "driver = \"host\"");
  const auto noticed = [&](const std::string& key, const std::string& value) {
    const PlayedScene run(level, 0.5, {{"kind.lamp.choose." + key, value}});
    std::string who;
    for (const Event& event : only(run.events, Event::What::noticed)) {
      who += run.simulation.id_of(*event.other) + " ";
    }
    return who + run.simulation.look("lamp", "collector").hindrance;
  };
  EXPECT_EQ(noticed("tags", "[\"guest\"]"),
            "guest lamp looks for agents tagged guest only; collector has no tag");
  EXPECT_EQ(noticed("kinds", "[\"guest\"]"),
            "guest lamp looks for agents of the kind guest only; collector is a collector");
  EXPECT_EQ(noticed("kinds", "[\"collector\"]"), "collector guest ");  // a guest is like it
  EXPECT_EQ(noticed("teams", "[\"caretakers\"]"),
            "lamp looks for agents of caretakers only; collector is of visitors");
}

TEST(When, AModeLastsAndThenLeadsOn) {
  const PlayedScene run(kListener + "arrives = { noise = \"knock\", reach = 2.0 }\n" +
                            "lasts = { search = { mode = \"return\", after = 1.5 } }\n" +
                            placed("listener", "listener", "[0, 0]") +
                            scripted("[6, 0]", "{ noise = \"crash\", reach = 9.0 }"),
                        6.0, {{"kind.listener.hearing.remember", "60"}});
  EXPECT_EQ(run.modes("listener"), "search return post ");
  const auto modes = run.times(Event::What::mode);
  EXPECT_NEAR(modes.at(1) - modes.at(0), 1.5, 1.5 / 60);
}

TEST(When, ForEverIsOnceAStepAndIsFound) {
  const std::string level =
      "[kind.top]\nteam = \"caretakers\"\n[kind.top.when]\nlasts = { post = { mode = \"search\", "
      "after = 0 }, search = { mode = \"post\", after = 0 } }\n" +
      placed("top", "top", "[0, 0]");
  EXPECT_LE(PlayedScene(level, 1.0).times(Event::What::mode).size(), 60U);
  const auto findings = judge(garden(level));
  const auto circle = std::find_if(findings.begin(), findings.end(),
                                   [](const Finding& f) { return f.code == "when-circle"; });
  ASSERT_NE(circle, findings.end());
  EXPECT_EQ(circle->message,
            "top goes from mode to mode for ever, once a step: post -> search -> "
            "post; let one of them last");
}

TEST(Acquaintance, HoldsTheNumbersOfEachSense) {
  const std::string level = kReed +
                            "[kind.reed.nearness]\nrange = 3.0\n[kind.reed.touch]\n"
                            "[kind.reed.hearing]\nrange = 9.0\n" +
                            placed("reed", "reed", "[0, 0]") +
                            scripted("[4, 0]", "{ noise = \"sneeze\", reach = 3.0 }");
  const PlayedScene run(level, 0.5);
  const Acquaintance knows = acquaintance(run.simulation, {0}, {1});
  EXPECT_EQ(knows.awareness, Awareness::noticed);
  EXPECT_EQ(knows.by, Sense::feeler);
  ASSERT_EQ(knows.feelers.size(), 1U);
  EXPECT_TRUE(knows.feelers[0].is_yes && knows.feelers[0].is_other);
  EXPECT_NEAR(knows.feelers[0].felt.distance.value(), 4.0 - 0.3 - 0.2, 1e-9);
  EXPECT_EQ(knows.nearness->value, 4.0);
  EXPECT_FALSE(knows.nearness->pass);
  EXPECT_FALSE(knows.touched);
  EXPECT_EQ(knows.noise->name, "sneeze");
  EXPECT_FALSE(knows.noise->verdict.hears);
}

}  // namespace
}  // namespace gaze
