// Bodies that touch solids exactly: they walk along, away, below and out, whatever their size.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::block;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

const std::vector<int> kRates{20, 30, 50, 60, 120, 240};

// Numbers with two digits, as they stand in a level file. Sums of them are off by a last bit.
std::string number(double value) {
  return fmt::format("{:.2f}", value);
}

std::string point(Plane plane, double x, double other) {
  return fmt::format("[{}, {}{}]", number(x), number(other), plane == Plane::space ? ", 0.0" : "");
}

std::string box_outline(double left, double low, double right, double high) {
  return fmt::format("[[{0}, {1}], [{2}, {1}], [{2}, {3}], [{0}, {3}]]", number(left), number(low),
                     number(right), number(high));
}

struct FlushWall {
  Plane plane = Plane::ground;
  double radius = 0.3;
  double wall = 4.0;  ///< Its face.
  bool is_right = true;
};

FlushWall random_wall(Choices& choices) {
  FlushWall scene;
  scene.plane = choices.one_in(2) ? Plane::ground : Plane::space;
  scene.radius = choices.between(0.05, 1.2);
  scene.wall = choices.between(-30.0, 30.0);
  scene.is_right = choices.one_in(2);
  return scene;
}

// A wall from y = -5 to 5 and a walker flush with it that goes 2 m along it and 1 m away.
std::string walker_along(const FlushWall& scene, const std::string& how, int rate) {
  const double side = scene.is_right ? 1.0 : -1.0;
  const double x = scene.wall - side * scene.radius;
  const double far = scene.wall + side;
  const std::string along = point(scene.plane, x, 2.0);
  const std::string away = point(scene.plane, x - side, 2.0);
  const std::string route = how == "script" ? "[{ go = " + along + " }, { go = " + away + " }]"
                                            : "[" + along + ", " + away + "]";
  return fmt::format("plane = \"{}\"\nticks_per_second = {}\n",
                     scene.plane == Plane::ground ? "ground" : "space", rate) +
         block("wall", box_outline(std::min(scene.wall, far), -5, std::max(scene.wall, far), 5)) +
         "[kind.guest]\nteam = \"visitors\"\nradius = " + number(scene.radius) +
         "\nmove.speed = 2.0\n" +
         placed("guest", "guest", point(scene.plane, x, 0.0), how + " = " + route);
}

TEST(Touching, AWalkerFlushWithAWallGoesAlongAndAway) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(150); ++seed) {
    Choices choices(seed);
    const FlushWall scene = random_wall(choices);
    const int rate = choices.of(kRates);
    Simulation simulation(garden(walker_along(scene, "script", rate)));
    const auto events = play(simulation, 2 * rate);
    EXPECT_EQ(only(events, Event::What::blocked).size(), 0U) << "seed " << seed;
    const auto arrived = only(events, Event::What::arrived);
    ASSERT_EQ(arrived.size(), 2U) << "seed " << seed;
    // 2 m and 1 m at 2 m/s.
    EXPECT_NEAR(testing::seconds_of(arrived[0], simulation), 1.0, 1.01 / rate) << "seed " << seed;
    EXPECT_NEAR(testing::seconds_of(arrived[1], simulation), 1.5, 1.01 / rate) << "seed " << seed;
  }
}

TEST(Touching, PatrolPointsExactlyARadiusFromAWallAreReached) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(100); ++seed) {
    Choices choices(seed);
    const FlushWall scene = random_wall(choices);
    const int rate = choices.of(kRates);
    Simulation simulation(garden(walker_along(scene, "patrol", rate)));
    const Level& level = simulation.level();
    EXPECT_EQ(only(play(simulation, 4 * rate), Event::What::blocked).size(), 0U) << "seed " << seed;
    std::array<double, 2> nearest{1e9, 1e9};
    for (int tick = 0; tick < 2 * rate; ++tick) {
      simulation.step();
      for (std::size_t i = 0; i < 2; ++i) {
        const Vector3d way = simulation.state({0}).position - level.agents[0].patrol[i];
        nearest[i] = std::min(nearest[i], way.norm());
      }
    }
    // It turns at the point itself, within the step in which it comes there.
    EXPECT_LT(nearest[0], 2.0 / rate) << "seed " << seed;
    EXPECT_LT(nearest[1], 2.0 / rate) << "seed " << seed;
  }
}

TEST(Touching, APassageOfExactlyItsSizeLetsABodyThrough) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(100); ++seed) {
    Choices choices(seed);
    const double height = choices.between(0.4, 2.5);
    const double floor = choices.between(-10.0, 10.0);
    const int rate = choices.of(kRates);
    // Seen from the side: a ceiling exactly as high above the floor as the body.
    Simulation simulation(
        garden(fmt::format("plane = \"upright\"\nticks_per_second = {}\nground_height = {}\n", rate,
                           number(floor)) +
               block("ceiling", box_outline(2.0, floor + height, 4.0, floor + height + 1.0)) +
               "[kind.guest]\nteam = \"visitors\"\nradius = 0.2\nheight = " + number(height) +
               "\nmove.speed = 3.0\n" +
               placed("guest", "guest", point(Plane::upright, 0.0, floor),
                      "script = [{ go = " + point(Plane::upright, 6.0, floor) + " }]")));
    const auto events = play(simulation, 3 * rate);
    EXPECT_EQ(only(events, Event::What::blocked).size(), 0U) << "seed " << seed;
    EXPECT_EQ(only(events, Event::What::arrived).size(), 1U) << "seed " << seed;
  }
}

TEST(Touching, WhatHangsFlushUnderACeilingFalls) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(100); ++seed) {
    Choices choices(seed);
    const bool is_upright = choices.one_in(2);
    const double height = choices.between(0.2, 2.0);
    const double ceiling = choices.between(3.0, 9.0);
    const int rate = choices.of(kRates);
    const double z = ceiling - height;
    std::string text = fmt::format("plane = \"{}\"\nticks_per_second = {}\ngravity = 10.0\n",
                                   is_upright ? "upright" : "space", rate);
    text += is_upright ? block("ceiling", box_outline(-5, ceiling, 5, ceiling + 1))
                       : block("ceiling", box_outline(-5, -5, 5, 5),
                               "base = " + number(ceiling) + "\nheight = 1.0");
    // The basket hangs in a corner, exactly a radius from the wall.
    text += is_upright ? block("wall", box_outline(-2, 0, -1, ceiling))
                       : block("wall", box_outline(-2, -5, -1, 5), "height = " + number(ceiling));
    text += "[kind.basket]\nteam = \"caretakers\"\nradius = 0.3\nheight = " + number(height) +
            "\nmove.gait = \"drop\"\nnearness.range = 50\nwhen.near = \"chase\"\n"
            "[kind.guest]\nteam = \"visitors\"\n";
    const auto at = [&](double x, double up) {
      return is_upright ? fmt::format("[{}, {}]", number(x), number(up))
                        : fmt::format("[{}, 0.0, {}]", number(x), number(up));
    };
    text += placed("basket", "basket", at(-0.7, z)) + placed("guest", "guest", at(3.0, 0.0));
    Simulation simulation(garden(text));
    const auto landed = only(play(simulation, 3 * rate), Event::What::landed);
    ASSERT_EQ(landed.size(), 1U) << "seed " << seed;
    EXPECT_NEAR(landed[0].distance, z, 1e-9) << "seed " << seed;
    EXPECT_NEAR(simulation.state({0}).position.z(), 0.0, 1e-9) << "seed " << seed;
  }
}

}  // namespace
}  // namespace gaze
