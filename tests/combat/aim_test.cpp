#include "combat/aim.hpp"

#include <gtest/gtest.h>

#include "geometry/plan.hpp"

namespace gaze {
namespace {

Attack shot(double tolerance_deg) {
  Attack attack;
  attack.how = Attack::How::shot;
  attack.range = 10;
  attack.speed = 20;
  attack.radius = 0.1;
  attack.muzzle = Vector3d{0.3, 0.0, 1.0};
  attack.aim_tolerance = Angle::from_degrees(tolerance_deg);
  return attack;
}

const Fighter kOne{.radius = 0.3, .height = 2.0};

Fighter at(double x, double y) {
  return {.feet = {x, y, 0}, .radius = 0.3, .height = 2.0};
}

TEST(MuzzlePlace, TurnsWithTheFacing) {
  const Fighter up{.feet = {1, 2, 3}, .facing = {0, 1}, .radius = 0.3, .height = 2.0};
  EXPECT_EQ(offset_place(Plane::ground, up.feet, up.facing, {0.5, 0.25, 1}),
            Vector3d(0.75, 2.5, 4));
  EXPECT_EQ(offset_place(Plane::upright, up.feet, up.facing, {0.5, 0.0, 1}), Vector3d(1, 2, 4.5));
  const Fighter left{.feet = {1, 0, 3}, .facing = {-1, 0}, .radius = 0.3, .height = 2.0};
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
