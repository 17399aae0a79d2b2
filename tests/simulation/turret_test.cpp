// What stands fixed and turns: within limits, and as a friend does. And those who drive.

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

std::string lawn(const std::string& turret, const std::string& more = "") {
  return R"(
[kind.sprinkler]
team = "caretakers"
radius = 0.3
height = 1.0
[kind.sprinkler.sight]
range = 30.0
field_of_view = 360.0
[kind.sprinkler.move]
gait = "fixed"
turn_rate = 90.0
)" + turret +
         R"(
[kind.sprinkler.attack.jet]
how = "shot"
speed = 14.0
damage = 1
cooldown = 0.5
range = 20.0
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.0
[kind.collector.move]
speed = 40.0
)" + placed("sprinkler", "sprinkler", "[0.0, 0.0]", "facing = 90.0") +
         placed("collector", "collector", "[-0.1, -6.0]") + more;
}

double degrees_of(const Vector2d& facing) {
  return std::atan2(facing.y(), facing.x()) * 180.0 / 3.14159265358979323846;
}

// Placed to face 90 with 170 to either side: from one limit to the other it turns back the whole
// way, 340 degrees at 90 a second, though 20 would do.
TEST(TurnLimits, ArePassedNeitherWay) {
  Simulation simulation(
      garden(lawn("turn_limits = [-170.0, 170.0]\n"),
             {{"agent.collector.script",
               "[{ go = [-0.2, -6.0] }, { wait = 4.0 }, { go = [0.2, -6.0] }]"}}));
  const AgentId sprinkler = simulation.agent("sprinkler");
  double previous = 0.0;
  double turned = 0.0;
  for (int i = 0; i < 60 * 10; ++i) {
    simulation.step();
    const double now = std::remainder(degrees_of(simulation.state(sprinkler).facing) - 90.0, 360.0);
    EXPECT_LE(std::abs(now), 170.0 + 1e-9);
    if (i > 3 * 60) turned += std::abs(now - previous);
    previous = now;
  }
  EXPECT_NEAR(turned, 340.0, 1e-6);
  EXPECT_NEAR(previous, -170.0, 1e-6);
}

TEST(TurnLimits, AreWhyItDoesNotFire) {
  Simulation simulation(garden(lawn("turn_limits = [-45.0, 45.0]\n")));
  EXPECT_TRUE(only(play(simulation, 200), What::fired).empty());
  const auto answers =
      attacks_at(simulation, simulation.agent("sprinkler"), simulation.agent("collector"));
  ASSERT_EQ(answers.size(), 1U);
  // The collector is atan(0.1 / 6) = 0.95 degrees to the right of straight behind.
  const double wanted = 180.0 - std::atan(0.1 / 6.0) * 180.0 / 3.14159265358979323846;
  EXPECT_NEAR(answers[0].off, wanted - 45.0 - 3.0, 1e-6);
  EXPECT_EQ(answers[0].reason.substr(0, 21), "cannot turn so far by");
}

// Straight ahead 3 m away and 4 m up is atan(4 / 3) = 53.13 degrees.
TEST(TiltLimits, BoundWhatAShotRises) {
  const auto fires = [](const char* limits) {
    Simulation simulation(garden(lawn(std::string("tilt_limits = ") + limits + "\n"),
                                 {{"plane", "\"space\""},
                                  {"agent.sprinkler.at", "[0.0, 0.0, 0.0]"},
                                  {"agent.collector.at", "[0.0, 3.0, 4.0]"},
                                  {"kind.collector.move.gait", "\"fixed\""},
                                  {"kind.sprinkler.attack.jet.muzzle", "[0.0, 0.0, 0.5]"}}));
    const auto events = play(simulation, 3);
    const auto answers =
        attacks_at(simulation, simulation.agent("sprinkler"), simulation.agent("collector"));
    return std::pair{!only(events, What::fired).empty(), answers[0].off};
  };
  const double rise = std::atan(4.0 / 3.0) * 180.0 / 3.14159265358979323846;
  EXPECT_TRUE(fires("[-10.0, 53.2]").first);
  EXPECT_FALSE(fires("[-10.0, 53.1]").first);
  EXPECT_NEAR(fires("[-10.0, 45.0]").second, rise - 45.0, 1e-6);
  EXPECT_NEAR(fires("[60.0, 80.0]").second, 60.0 - rise, 1e-6);
}

/// A twin that mirrors the collector, who is driven, and a pruner for a target.
std::string twins(const std::string& more = "") {
  return R"(
[kind.twin]
team = "visitors"
radius = 0.3
height = 1.0
[kind.twin.move]
gait = "fixed"
turn_rate = 36000.0
[kind.twin.attack.jet]
how = "shot"
aim = "mirror"
mirror_radius = 5.0
speed = 14.0
damage = 1
cooldown = 0.25
range = 20.0
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.0
[kind.collector.move]
turn_rate = 36000.0
[kind.collector.attack.sling]
how = "shot"
speed = 14.0
damage = 1
cooldown = 0.5
range = 20.0
)" + placed("collector", "collector", "[0.0, 0.0]") +
         placed("twin", "twin", "[0.0, 4.0]") + more;
}

std::size_t fired_by(const Simulation& simulation, const std::vector<Event>& events,
                     const char* id) {
  std::size_t count = 0;
  for (const Event& event : only(events, What::fired)) {
    count += simulation.id_of(event.agent) == id ? 1U : 0U;
  }
  return count;
}

class Triggers : public ::testing::TestWithParam<int> {};

// Held for 2 s: floor(2 / 0.5) + 1 of the collector and floor(2 / 0.25) + 1 of the twin, which
// needs a step to turn.
TEST_P(Triggers, FireAsOftenAsTheirTimeHolds) {
  const int rate = GetParam();
  Simulation simulation(garden(
      twins(), {{"ticks_per_second", std::to_string(rate)},
                {"agent.collector.script", "[{ wait = 0.5 }, { aim = [6.0, 0.0], fire = 2.0 }]"}}));
  const auto events = play(simulation, 4 * rate);
  EXPECT_EQ(fired_by(simulation, events, "collector"), 5U);
  EXPECT_NEAR(static_cast<double>(fired_by(simulation, events, "twin")), 9.0, 1.0);
  EXPECT_EQ(simulation.state(simulation.agent("twin")).mode, Mode::mirror);
}

INSTANTIATE_TEST_SUITE_P(Rates, Triggers, ::testing::Values(20, 60, 240));

// Both at the same place: their shots cross there.
TEST(Mirrors, AimWhereTheirFriendAims) {
  Simulation simulation(
      garden(twins(), {{"agent.collector.script", "[{ aim = [6.0, 0.0], fire = 0.1 }]"}}));
  play(simulation, 4);
  const Vector2d facing = simulation.state(simulation.agent("twin")).facing;
  EXPECT_NEAR(facing.y() / facing.x(), -4.0 / 6.0, 1e-9);
  bool any = false;
  for (const Projectile& shot : simulation.projectiles()) {
    if (simulation.id_of(shot.shooter) != "twin") continue;
    any = true;
    EXPECT_NEAR(shot.velocity.y() / shot.velocity.x(), -4.0 / 6.0, 1e-9);
  }
  EXPECT_TRUE(any);
}

TEST(Mirrors, FollowNobodyFartherThanTheirRadius) {
  Simulation simulation(
      garden(twins(), {{"agent.collector.script", "[{ aim = [6.0, 0.0], fire = 2.0 }]"},
                       {"agent.twin.at", "[0.0, 5.01]"}}));
  EXPECT_EQ(fired_by(simulation, play(simulation, 120), "twin"), 0U);
}

// A host moves its player, sets its aim and lets go again.
TEST(Mirrors, FollowTheHostToo) {
  Simulation simulation(garden(twins(), {{"agent.collector.driver", "\"host\""}}));
  const AgentId collector = simulation.agent("collector");
  simulation.set_pose(collector, {0.0, 1.0, 0.0}, Angle::from_degrees(90.0));
  simulation.step();
  const Vector2d facing = simulation.state(simulation.agent("twin")).facing;
  EXPECT_NEAR(facing.y(), 1.0, 1e-12);  // as its friend faces
  simulation.set_aim(collector, Vector3d{0.0, 9.0, 0.5}, true);
  auto events = play(simulation, 60);
  EXPECT_EQ(fired_by(simulation, events, "collector"), 2U);
  EXPECT_EQ(fired_by(simulation, events, "twin"), 4U);
  simulation.set_aim(collector, std::nullopt, false);
  EXPECT_TRUE(only(play(simulation, 60), What::fired).empty());
  EXPECT_THROW(simulation.set_aim(simulation.agent("twin"), std::nullopt, true), UsageError);
}

// With a sword in hand it strikes the nearest foe in reach, as long as the script holds.
TEST(Triggers, StrikeWhomTheyReach) {
  const std::string more = R"(
[kind.collector.attack.shears]
how = "strike"
range = 1.5
damage = 4
cooldown = 1.0
[kind.pruner]
team = "caretakers"
)" + placed("far", "pruner", "[1.4, 0.0]") +
                           placed("near", "pruner", "[1.0, 0.5]");
  Simulation simulation(garden(
      twins(more),
      {{"agent.collector.script", "[{ aim = [6.0, 0.0], fire = 2.5, attack = \"shears\" }]"}}));
  const auto events = play(simulation, 240);
  EXPECT_EQ(fired_by(simulation, events, "collector"), 0U);
  const auto hurt = only(events, What::hurt);
  double near = 0.0;
  for (const Event& event : hurt) {
    if (simulation.id_of(event.agent) == "near" && event.attack == "shears") near += event.damage;
  }
  EXPECT_EQ(near, 12.0);
}

}  // namespace
}  // namespace gaze
