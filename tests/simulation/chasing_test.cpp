// Ways of chasing and patrolling: waits, held distances, meeting ahead, acceleration, facing.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;
using testing::play;
using testing::wall;

/// A pruner that sees all round at the origin, and a collector.
std::string chase_level(const std::string& move, const std::string& collector) {
  return R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 100.0
field_of_view = 360.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
[kind.pruner.move]
)" + move +
         placed("pruner", "pruner", "[0.0, 0.0]") + R"(
[[agent]]
id = "collector"
kind = "collector"
)" + collector;
}

TEST(Patrol, WaitsAndLooksAtItsPoints) {
  Simulation simulation(garden(R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.move]
speed = 2.0
turn_rate = 36000.0
)" + placed("pruner", "pruner", "[0.0, 0.0]",
            "patrol = [{ at = [4.0, 0.0], wait = 1.5, look = 90.0 }, [0.0, 0.0]]")));
  // 2 s there, 1.5 s of waiting, 2 s back, and again.
  const auto at = [&](double seconds) {
    while (simulation.seconds() < seconds - 1e-9) simulation.step();
    return simulation.state({0});
  };
  EXPECT_NEAR(at(1.0).position.x(), 2.0, 1e-9);
  EXPECT_NEAR(at(2.5).position.x(), 4.0, 1e-9);
  EXPECT_NEAR(angle_of(at(3.0).facing).degrees(), 90.0, 1e-9);
  EXPECT_NEAR(at(4.5).position.x(), 2.0, 1e-9);
  EXPECT_NEAR(at(6.5).position.x(), 2.0, 1e-9);
}

TEST(Chase, HoldsItsDistanceFromBothSides) {
  Simulation far(garden(chase_level("speed = 3.0\nkeep_away = 6.0\n", "at = [20.0, 0.0]\n")));
  play(far, 600);
  EXPECT_NEAR(far.state({0}).position.x(), 14.0, 1e-9);
  Simulation near(garden(chase_level("speed = 3.0\nkeep_away = 6.0\n", "at = [2.0, 0.0]\n")));
  play(near, 600);
  const double apart = 2.0 - near.state({0}).position.x();
  EXPECT_GE(apart, 5.4 - 1e-9);  // a tenth less is near enough
  EXPECT_LE(apart, 6.0 + 1e-9);
}

TEST(Chase, AheadMeetsACourseThatItCannotCatchUpWith) {
  // The collector goes north at 2 m/s past (6, -4); the pruner, as fast, meets it half way.
  const std::string collector = "at = [6.0, -4.0]\nscript = [{ go = [6.0, 60.0] }]\n";
  const auto nearest = [&](const char* style) {
    Simulation simulation(
        garden(chase_level(std::string("speed = 2.0\nchase = \"") + style + "\"\n", collector)));
    double least = 100.0;
    for (int tick = 0; tick < 60 * 10; ++tick) {
      simulation.step();
      least =
          std::min(least, (simulation.state({0}).position - simulation.state({1}).position).norm());
    }
    return least;
  };
  EXPECT_LT(nearest("ahead"), 0.7);
  // Of equal speed, distance and lead along the course change by the same: in the end both are
  // (r - 4) / 2 with r = |(6, 4)|.
  EXPECT_NEAR(nearest("at"), (std::sqrt(52.0) - 4.0) / 2.0, 0.03);
}

// The wall's face is at 4.9 m: a body of 0.3 m stands there at 4.6, one of 0.5 m only at 4.4.
TEST(Chase, StopsBeforeATargetThatStandsNearerToAWallThanItCan) {
  for (const char* at : {"at = [4.6, 3.0]\n", "at = [4.6, 0.0]\n", "at = [4.6, -7.0]\n"}) {
    Simulation simulation(garden(wall("wall", "[[5.0, -9.0], [5.0, 9.0]]") +
                                     chase_level("speed = 2.0\nstop_distance = 1.0\n", at),
                                 {{"kind.pruner.radius", "0.5"}}));
    double least = 100.0;
    for (int tick = 0; tick < 60 * 8; ++tick) {
      simulation.step();
      least =
          std::min(least, (simulation.state({0}).position - simulation.state({1}).position).norm());
    }
    EXPECT_GE(least, 1.0 - 1e-9) << at;
    EXPECT_LE(least, 1.0 + 1e-6) << at;
  }
}

TEST(Chase, GivesUpWhatItCannotReachIfItsKindSaysSo) {
  const std::string cage = R"(
[[wall]]
id = "cage"
material = "glass"
path = [[8.0, -2.0], [12.0, -2.0], [12.0, 2.0], [8.0, 2.0], [8.0, -2.0]]
[material.glass]
stops = ["bodies"]
)";
  const auto played = [&](const char* no_path) {
    Simulation simulation(garden(
        cage + chase_level(std::string("no_path = \"") + no_path + "\"\n", "at = [9.5, 0.0]\n")));
    play(simulation, 60 * 8);
    return simulation.state({0});
  };
  EXPECT_EQ(played("wait").position, Vector3d(0.0, 0.0, 0.0));
  EXPECT_EQ(played("wait").mode, Mode::chase);
  EXPECT_EQ(played("give up").mode, Mode::post);
  // The cage's face is at 7.9 m, and its corners leave the body 0.3 m and up to a centimetre.
  EXPECT_NEAR(played("nearest").position.x(), 7.6, 0.011);
}

TEST(Walk, GathersSpeedByItsAcceleration) {
  for (const int rate : {20, 60, 144, 240}) {
    Simulation simulation(
        garden(chase_level("speed = 4.0\nacceleration = 2.0\n", "at = [50.0, 0.0]\n"),
               {{"ticks_per_second", std::to_string(rate)}}));
    simulation.step();  // it has seen and decides: the first step of walking follows
    const double steps = simulation.state({0}).position.x() > 0.0 ? rate : rate - 1;
    play(simulation, rate - 1);
    const double seconds = steps / rate;
    EXPECT_NEAR(simulation.state({0}).position.x(), 2.0 * seconds * seconds / 2.0, 1e-9) << rate;
    play(simulation, 2 * rate);
    const double before = simulation.state({0}).position.x();
    play(simulation, rate);
    EXPECT_NEAR(simulation.state({0}).position.x() - before, 4.0, 1e-9) << rate;
  }
}

TEST(Walk, FacesAsItsKindSays) {
  const auto facing = [](const char* face) {
    Simulation simulation(garden(
        chase_level(std::string("speed = 1.0\nturn_rate = 36000.0\nkeep_away = 20.0\nface = \"") +
                        face + "\"\n",
                    "at = [0.0, 8.0]\n")));
    play(simulation, 60);
    return angle_of(simulation.state({0}).facing).degrees();
  };
  EXPECT_NEAR(facing("target"), 90.0, 1e-9);  // it backs off, its eyes on the collector
  EXPECT_NEAR(facing("travel"), 270.0, 1e-9);
  EXPECT_NEAR(facing("keep"), 0.0, 1e-9);
}

}  // namespace
}  // namespace gaze
