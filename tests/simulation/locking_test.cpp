// Beams that lock on, that go straight ahead, and that mirror.

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::faults_of;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using testing::wall;
using What = Event::What;

constexpr double kRadius = 0.3;

// A lamp without senses. The collector walks across its ray, 4 m ahead, at 1 m/s.
std::string lamp(const std::string& more = "") {
  return R"(
[kind.lamp]
team = "caretakers"
move = { gait = "fixed", turn_rate = 90.0 }
[kind.lamp.attack.ray]
how = "beam"
range = 10
damage = 30
cooldown = 5
hold = 3
locks_on = true
[kind.collector]
team = "visitors"
radius = 0.3
move.speed = 1.0
)" + placed("lamp", "lamp", "[0.0, 0.0]") +
         placed("collector", "collector", "[4.0, -2.0]", "script = [{ go = [4.0, 20.0] }]") + more;
}

double health_of(const Simulation& simulation) {
  return simulation.state(simulation.agent("collector")).health;
}

// The ray is y = 0: the body meets it from y = -0.3 on, after 1.7 s. From then on the lamp turns
// faster than the collector goes round it, so that all of the beam falls on it.
TEST(LockingBeam, StaysOnTheEnemyThatItMeets) {
  Simulation simulation(garden(lamp()));
  const auto events = play(simulation, 60 * 5);
  const auto attacked = only(events, What::attacked);
  ASSERT_EQ(attacked.size(), 1U);
  EXPECT_NEAR(testing::seconds_of(attacked[0], simulation), 1.7, 1.01 / 60);
  EXPECT_EQ(simulation.id_of(*attacked[0].other), "collector");
  EXPECT_TRUE(only(events, What::noticed).empty());
  EXPECT_NEAR(health_of(simulation), 100.0 - 30.0, 1e-9);
}

TEST(LockingBeam, TurnsTheBodyAfterItsTarget) {
  Simulation simulation(garden(lamp()));
  play(simulation, 60 * 3);
  const Vector3d at = simulation.state(simulation.agent("collector")).position;
  const Vector2d facing = simulation.state(simulation.agent("lamp")).facing;
  EXPECT_NEAR(std::atan2(facing.y(), facing.x()), std::atan2(at.y(), at.x()), 1e-12);
  play(simulation, 60 * 3);  // the beam has ended: it rests as it was placed
  EXPECT_EQ(simulation.state(simulation.agent("lamp")).facing, (Vector2d{1.0, 0.0}));
}

// Computed tick by tick: the lamp turns by at most its rate, and its ray leaves the body when the
// centre is farther than the radius from the ray.
TEST(LockingBeam, EndsWhereItLosesItsTarget) {
  for (const double rate : {2.0, 5.0, 8.0}) {
    const int ticks = 60;
    Simulation simulation(garden(lamp(), {{"kind.lamp.move.turn_rate", std::to_string(rate)},
                                          {"kind.lamp.attack.ray.aim_tolerance", "0"}}));
    const auto events = play(simulation, ticks * 6);
    const auto attacked = only(events, What::attacked);
    ASSERT_GE(attacked.size(), 1U);
    double turned = 0.0;
    std::int64_t tick = attacked[0].tick;
    const auto y_at = [&](std::int64_t t) { return -2.0 + static_cast<double>(t) / ticks; };
    const auto off_at = [&](std::int64_t t) {
      return std::abs(y_at(t) * std::cos(turned) - 4.0 * std::sin(turned));
    };
    while (off_at(tick) <= kRadius) {
      ++tick;
      const double wanted = std::atan2(y_at(tick), 4.0);
      const double most = rate / ticks * M_PI / 180.0;
      turned += std::clamp(wanted - turned, -most, most);
    }
    const double shone = static_cast<double>(tick - attacked[0].tick) / ticks;
    ASSERT_LT(shone, 3.0) << "else the test shows nothing";
    // The first tick of a beam may count in part.
    EXPECT_NEAR(100.0 - health_of(simulation), 30.0 * shone / 3.0, 30.0 / 3.0 * 1.01 / ticks)
        << rate;
  }
}

TEST(LockingBeam, LocksOnToNoFriendAndThroughNoWall) {
  Simulation behind(garden(lamp(wall("hedge", "[[2.0, -5.0], [2.0, 5.0]]"))));
  EXPECT_TRUE(only(play(behind, 300), What::attacked).empty());
  Simulation friends(garden(lamp(), {{"kind.collector.team", "caretakers"}}));
  EXPECT_TRUE(only(play(friends, 300), What::attacked).empty());
}

// `gaze why` reports a miss exactly when the ray misses the body.
TEST(LockingBeam, TellsWhyNot) {
  Simulation simulation(garden(lamp(), {{"kind.lamp.move.turn_rate", "0"}}));
  int past = 0;
  for (int tick = 0; tick < 240; ++tick) {
    simulation.step();
    const double y = simulation.state(simulation.agent("collector")).position.y();
    const auto answer =
        attacks_at(simulation, simulation.agent("lamp"), simulation.agent("collector"));
    const bool is_past = answer[0].reason.find("falls past it") != std::string::npos;
    if (std::abs(std::abs(y) - kRadius) < 1e-9) continue;  // it grazes the body
    ASSERT_EQ(is_past, std::abs(y) > kRadius) << y << " " << answer[0].reason;
    past += is_past ? 1 : 0;
  }
  EXPECT_GT(past, 100);
}

TEST(LockingBeam, NeedsATimeToStayOn) {
  const std::string wrong =
      faults_of(lamp() + testing::kTeams, {{"kind.lamp.attack.ray.hold", "0"}});
  EXPECT_NE(wrong.find("locks_on needs hold"), std::string::npos) << wrong;
}

// The beam goes along the facing, which is 20 degrees off, and so misses.
TEST(Beam, GoesAheadIfItSaysSo) {
  const std::vector<Setting> sees{{"kind.lamp.attack.ray.locks_on", "false"},
                                  {"kind.lamp.sight", "{ range = 20, field_of_view = 360 }"},
                                  {"kind.lamp.attack.ray.aim_tolerance", "180"},
                                  {"kind.lamp.move.turn_rate", "0"},
                                  {"agent.collector.script", "[{ wait = 9.0 }]"}};
  Simulation at(garden(lamp(), sees));
  play(at, 240);
  EXPECT_LT(health_of(at), 100.0);
  std::vector<Setting> ahead = sees;
  ahead.push_back({"kind.lamp.attack.ray.aim", "ahead"});
  Simulation misses(garden(lamp(), ahead));
  const auto events = play(misses, 240);
  EXPECT_FALSE(only(events, What::attacked).empty());
  EXPECT_EQ(health_of(misses), 100.0);
  EXPECT_NE(faults_of(lamp() + testing::kTeams, {{"kind.lamp.attack.ray.aim", "lead"}}).find("aim"),
            std::string::npos);
}

// The twin shines at the point at which its driven friend aims, while that fires.
TEST(Beam, MirrorsADrivenFriend) {
  const std::string twin = placed("leader", "lamp", "[0.0, 6.0]", "driver = \"host\"");
  Simulation simulation(garden(lamp(twin), {{"kind.lamp.attack.ray.locks_on", "false"},
                                            {"kind.lamp.attack.ray.aim", "mirror"},
                                            {"kind.lamp.attack.ray.mirror_radius", "8"},
                                            {"kind.lamp.attack.ray.hold", "0.5"},
                                            {"kind.lamp.move.turn_rate", "3600"},
                                            {"agent.collector.at", "[40.0, -2.0]"}}));
  EXPECT_TRUE(only(play(simulation, 60), What::attacked).empty());
  simulation.set_aim(simulation.agent("leader"), Vector3d{3.0, 4.0, 0.0}, true);
  play(simulation, 5);
  bool shines = false;
  for (const BeamRay& ray : simulation.beams()) {
    if (simulation.id_of(ray.who) != "lamp") continue;
    shines = true;
    const Vector3d way = ray.to - ray.from;
    EXPECT_NEAR(way.y() * 3.0 - way.x() * 4.0, 0.0, 1e-9);
  }
  EXPECT_TRUE(shines);
}

}  // namespace
}  // namespace gaze
