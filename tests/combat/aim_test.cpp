#include "combat/aim.hpp"

#include <gtest/gtest.h>

#include "geometry/plan.hpp"

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;

Attack strike(double range, double arc_deg) {
  Attack attack;
  attack.range = range;
  attack.arc = Angle::from_degrees(arc_deg);
  return attack;
}

Attack shot(double tolerance_deg) {
  Attack attack;
  attack.how = Attack::How::shot;
  attack.range = 10;
  attack.speed = 20;
  attack.radius = 0.1;
  attack.muzzle = {0.3, 0.0, 1.0};
  attack.aim_tolerance = Angle::from_degrees(tolerance_deg);
  return attack;
}

bool could_shoot(const World& world, const Attack& attack, const Fighter& one,
                 const Fighter& other) {
  return can_shoot(world, attack, one, other, {0, 0, 0}, 9.81).has_value();
}

const Fighter kOne{{0, 0, 0}, {1, 0}, 0.3, 2.0};

Fighter at(double x, double y) {
  return {{x, y, 0}, {1, 0}, 0.3, 2.0};
}

TEST(CanStrike, NeedsRangeArcAndAFreeWay) {
  const World open{Level{}};
  EXPECT_TRUE(can_strike(open, strike(2, 90), kOne, at(2, 0)));
  EXPECT_FALSE(can_strike(open, strike(2, 90), kOne, at(2.01, 0)));
  EXPECT_TRUE(can_strike(open, strike(2, 90), kOne, at(1, 1)));
  EXPECT_FALSE(can_strike(open, strike(2, 90), kOne, at(1, 1.01)));
  Level level = level_of({box({0.9, -1}, {1.1, 1}, 0.9)});
  EXPECT_TRUE(can_strike(World(level), strike(2, 90), kOne, at(2, 0)));  // over a low wall
  level.solids[0].height = 1.0;                                          // as high as the middles
  EXPECT_FALSE(can_strike(World(level), strike(2, 90), kOne, at(2, 0)));
}

TEST(CanShoot, NeedsTheFacingAndRoomForTheBall) {
  const World open{Level{}};
  EXPECT_TRUE(could_shoot(open, shot(45), kOne, at(5, 5)));
  EXPECT_FALSE(could_shoot(open, shot(44.9), kOne, at(5, 5)));
  EXPECT_FALSE(could_shoot(open, shot(0), kOne, at(5, 0.001)));
  EXPECT_TRUE(could_shoot(open, shot(0), kOne, at(5, 0)));
  const World slit(level_of({box({2, 0.11}, {3, 5}), box({2, -5}, {3, -0.11})}));
  EXPECT_TRUE(could_shoot(slit, shot(3), kOne, at(5, 0)));
  Attack thick = shot(3);
  thick.radius = 0.12;
  EXPECT_FALSE(could_shoot(slit, thick, kOne, at(5, 0)));
}

TEST(MuzzlePlace, TurnsWithTheFacing) {
  const Fighter up{{1, 2, 3}, {0, 1}, 0.3, 2.0};
  EXPECT_EQ(offset_place(Plane::ground, up.feet, up.facing, {0.5, 0.25, 1}),
            Vector3d(0.75, 2.5, 4));
  EXPECT_EQ(offset_place(Plane::upright, up.feet, up.facing, {0.5, 0.0, 1}), Vector3d(1, 2, 4.5));
  const Fighter left{{1, 0, 3}, {-1, 0}, 0.3, 2.0};
  EXPECT_EQ(offset_place(Plane::upright, left.feet, left.facing, {0.5, 0.25, 1}),
            Vector3d(0.5, -0.25, 4));
}

TEST(LaunchAt, PointsFromTheMuzzleToTheMiddle) {
  const Vector3d still{0, 0, 0};
  const auto launch = launch_at(Plane::ground, shot(3), kOne, at(4.3, 3), still, 9.81);
  ASSERT_TRUE(launch);
  EXPECT_NEAR((launch->velocity - Vector3d(16, 12, 0)).norm(), 0.0, 1e-12);
  Fighter there = kOne;
  there.feet = {0.3, 0, 0};  // its middle is where the muzzle is
  EXPECT_EQ(launch_at(Plane::ground, shot(3), kOne, there, still, 9.81)->velocity,
            Vector3d(20, 0, 0));
}

}  // namespace
}  // namespace gaze
