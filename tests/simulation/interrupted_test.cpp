// What becomes of what an agent was about when something else came up.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

/// A pruner on its round of four corners, and a host-driven player who is far away at first.
const std::string kInterruptedRound =
    R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 4.0
field_of_view = 360.0
remember = 0.5
[kind.pruner.move]
speed = 2.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
)" + placed("pruner", "pruner", "[0.0, 0.0]", "patrol = [[0, 0], [6, 0], [6, 6], [0, 6]]") +
    placed("collector", "collector", "[50.0, 50.0]", R"(driver = "host")");

TEST(Interrupted, APatrolGoesOnToThePointThatItWasGoingTo) {
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(kInterruptedRound, {{"ticks_per_second", std::to_string(rate)}}));
    const AgentId pruner = simulation.agent("pruner");
    const AgentId collector = simulation.agent("collector");
    play(simulation, 4 * rate);  // 8 m along: it is on its way to the third corner
    ASSERT_NEAR(simulation.state(pruner).position.y(), 2.0, 0.15);
    simulation.set_pose(collector, {9.0, 2.0, 0.0}, {});
    play(simulation, rate / 2);
    ASSERT_EQ(simulation.state(pruner).mode, Mode::chase);
    simulation.set_pose(collector, {50.0, 50.0, 0.0}, {});
    double lowest = 10.0;
    for (int i = 0; i < 6 * rate && simulation.state(pruner).position.y() < 5.9; ++i) {
      simulation.step();
      lowest = std::min(lowest, simulation.state(pruner).position.y());
    }
    EXPECT_GT(simulation.state(pruner).position.y(), 5.8) << rate;
    EXPECT_GT(lowest, 1.7) << rate;  // and not by its first point
  }
}

/// A lamp that turns round and round, and sees the player for a while.
const std::string kInterruptedLamp =
    R"(
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 8.0
field_of_view = 30.0
[kind.lamp.move]
gait = "fixed"
turn_rate = 45.0
[kind.collector]
team = "visitors"
)" + placed("lamp", "lamp", "[0.0, 0.0]") +
    placed("collector", "collector", "[0.0, 5.0]", R"(driver = "host")");

double head_degrees(const Simulation& simulation) {
  const Vector2d head = simulation.state(simulation.agent("lamp")).head;
  return std::atan2(head.y(), head.x()) * 180.0 / M_PI;
}

TEST(Interrupted, AScanFallsBackIntoStep) {
  for (const std::string style : {"style = \"round\"\n", "style = \"sweep\"\narc = 200.0\n"}) {
    for (const std::string head : {"", "[kind.lamp.head]\nturn_rate = 60.0\n"}) {
      for (const int rate : {20, 60, 240}) {
        const std::string text =
            kInterruptedLamp + head + "[kind.lamp.scan]\nrate = 90.0\n" + style;
        const std::vector<Setting> settings{{"ticks_per_second", std::to_string(rate)}};
        Simulation seen(garden(text, settings));
        Simulation never(garden(text, settings));
        never.set_pose(never.agent("collector"), {50.0, 50.0, 0.0}, {});
        const auto noticed = only(play(seen, 3 * rate), Event::What::noticed);
        play(never, 3 * rate);
        ASSERT_EQ(noticed.size(), 1U);
        EXPECT_GT(std::abs(head_degrees(seen) - head_degrees(never)), 5.0);
        seen.set_pose(seen.agent("collector"), {50.0, 50.0, 0.0}, {});
        play(seen, 12 * rate);
        play(never, 12 * rate);
        EXPECT_NEAR(head_degrees(seen), head_degrees(never), 1e-9) << style << head << rate;
      }
    }
  }
}

TEST(Interrupted, ADelayedReactionDoesNotOutliveADefeat) {
  const std::string level = R"(
[kind.pruner]
team = "caretakers"
health = 5
[kind.pruner.sight]
range = 9.0
field_of_view = 360.0
[kind.pruner.defeat]
respawn = 1.0
[kind.pruner.when]
sees = { mode = "chase", noise = "alarm", reach = 20.0, after = 2.0 }
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 3.0
[kind.collector.attack.pea]
how = "shot"
range = 20
damage = 9
cooldown = 0.2
speed = 30
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                            R"(
[[agent]]
id = "collector"
kind = "collector"
at = [5.0, 0.0]
facing = 180
script = [{ wait = 0.5 }, { aim = [0, 0], fire = 0.1 }, { wait = 0.1 }, { go = [60, 0], speed = 200 }]
)";
  Simulation simulation(garden(level));
  const auto events = play(simulation, 300);
  ASSERT_EQ(only(events, Event::What::defeated).size(), 1U);
  EXPECT_TRUE(simulation.state(simulation.agent("pruner")).is_alive);
  EXPECT_FALSE(simulation.last_noise(simulation.agent("pruner")));
  for (const Event& event : only(events, Event::What::mode)) EXPECT_NE(event.to, Mode::chase);
}

TEST(Interrupted, WhoHasDefeatedItsTargetGoesBackAtOnce) {
  const std::string level = R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 9.0
field_of_view = 360.0
remember = 4.0
[kind.pruner.move]
speed = 2.0
[kind.pruner.attack.shears]
how = "strike"
range = 1.5
damage = 200
cooldown = 1.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                            placed("collector", "collector", "[5.0, 0.0]", R"(driver = "host")");
  for (const int rate : {20, 60, 240}) {
    Simulation simulation(garden(level, {{"ticks_per_second", std::to_string(rate)}}));
    const auto events = play(simulation, 5 * rate);
    const auto defeated = only(events, Event::What::defeated);
    const auto forgot = only(events, Event::What::forgot);
    ASSERT_EQ(defeated.size(), 1U);
    ASSERT_EQ(forgot.size(), 1U);
    EXPECT_EQ(forgot[0].tick, defeated[0].tick) << rate;
    EXPECT_NEAR(simulation.state(simulation.agent("pruner")).position.x(), 0.0, 0.05) << rate;
  }
}

// Who only remembers where it was, and does not see it go, still goes there.
TEST(Interrupted, WhoDoesNotSeeItGoGoesOnLooking) {
  Simulation simulation(garden(std::string(kInterruptedRound) + R"(
[kind.other]
team = "caretakers"
[kind.other.attack.pea]
how = "shot"
range = 90
damage = 200
cooldown = 9
speed = 300
[[agent]]
id = "other"
kind = "other"
at = [50.0, 58.0]
facing = 270
script = [{ wait = 1.2 }, { aim = [50, 50], fire = 0.1 }]
)",
                               {{"kind.pruner.sight.remember", "3.0"}}));
  const AgentId collector = simulation.agent("collector");
  simulation.set_pose(collector, {3.0, 3.0, 0.0}, {});
  play(simulation, 30);
  ASSERT_EQ(simulation.state(simulation.agent("pruner")).mode, Mode::chase);
  simulation.set_pose(collector, {50.0, 50.0, 0.0}, {});
  const auto events = play(simulation, 90);
  ASSERT_EQ(only(events, Event::What::defeated).size(), 1U);
  EXPECT_EQ(simulation.awareness(simulation.agent("pruner"), collector), Awareness::remembers);
}

// A sentinel on a turntable: the head is where its scan has it at every time, whomever it notices.
// Without `goes_on` it stays on its target.
TEST(Interrupted, AScanThatGoesOnNoticesAndTurnsOn) {
  for (const bool goes_on : {true, false}) {
    const std::string text =
        std::string(
            "[kind.lamp]\nteam = \"caretakers\"\nsight = { range = 9, field_of_view = 40 }\n"
            "scan = { style = \"round\", rate = 90, goes_on = ") +
        (goes_on ? "true" : "false") + " }\n[kind.guest]\nteam = \"visitors\"\n" +
        testing::placed("lamp", "lamp", "[0, 0]") +
        testing::placed("guest", "guest", "[0, 5]", "driver = \"host\"");
    Simulation game(testing::garden(text));
    const AgentId lamp = game.agent("lamp");
    int noticed = 0;
    double apart = 0.0;
    while (game.seconds() < 12.0) {
      game.step();
      for (const Event& event : game.events())
        noticed += event.what == Event::What::noticed ? 1 : 0;
      const Vector2d head = game.state(lamp).head;
      const double turned = 90.0 * game.seconds() * M_PI / 180.0;
      apart = std::max(apart, (head - Vector2d{std::cos(turned), std::sin(turned)}).norm());
    }
    EXPECT_EQ(noticed, goes_on ? 3 : 1);  // once each turn of 4 s
    EXPECT_EQ(apart < 1e-9, goes_on) << apart;
  }
}

}  // namespace
}  // namespace gaze
