// Ramps as solids, through the world: rays, balls and bodies against points tried one by one.

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// From (0, 0, 0) up to (6, 0, 3), 2 wide, 0.4 thick.
Level ramp_level() {
  return testing::garden(R"(
plane = "space"
[[ramp]]
id = "ramp"
material = "brick"
from = [0.0, 0.0, 0.0]
to = [6.0, 0.0, 3.0]
width = 2.0
thickness = 0.4
)");
}

bool is_in_ramp(const Vector3d& p) {
  const double top = p.x() / 2.0;
  return p.x() >= 0.0 && p.x() <= 6.0 && std::abs(p.y()) <= 1.0 && p.z() <= top &&
         p.z() >= top - 0.4;
}

// The ramp as many points, and the least distance to them: never less than the true one, and at
// most the points' spacing more.
double distance_by_points(const Vector3d& p) {
  double best2 = 1e30;
  for (int i = 0; i <= 120; ++i) {
    for (int k = 0; k <= 40; ++k) {
      for (int m = 0; m <= 8; ++m) {
        const double x = 6.0 * i / 120.0;
        const Vector3d q{x, -1.0 + 2.0 * k / 40.0, x / 2.0 - 0.4 * m / 8.0};
        best2 = std::min(best2, (p - q).squaredNorm());
      }
    }
  }
  return std::sqrt(best2);
}

Vector3d anywhere(scenes::Random& random) {
  return {random.between(-1.5, 7.5), random.between(-2.0, 2.0), random.between(-1.5, 4.0)};
}

TEST(Slanted, SegmentsMeetARampWhereItIs) {
  const World world(ramp_level());
  scenes::Random random(1);
  int met = 0;
  for (int i = 0; i < 4'000; ++i) {
    const Segment way{anywhere(random), anywhere(random)};
    const auto touch = world.first_touch(way, Stops::sight);
    constexpr int kSteps = 2'000;
    int first = 0;
    while (first <= kSteps &&
           !is_in_ramp(way.from + (way.to - way.from) * (double(first) / kSteps))) {
      ++first;
    }
    if (first <= kSteps) {
      ++met;
      ASSERT_TRUE(touch) << i;
      EXPECT_LE(touch->share, double(first) / kSteps + 1e-9);
    }
    if (!touch) continue;
    EXPECT_GE(touch->share, double(first - 1) / kSteps - 1e-9);
    EXPECT_LT(distance_by_points(touch->place), 0.06);
  }
  EXPECT_GT(met, 400);
}

TEST(Slanted, BallsAndBodiesMeetItByTheirDistance) {
  const World world(ramp_level());
  scenes::Random random(2);
  int met = 0;
  for (int i = 0; i < 400; ++i) {
    const BallPath ball{{anywhere(random), anywhere(random)}, random.between(0.05, 0.5)};
    if (const auto touch = world.first_touch(ball, Stops::shots)) {
      ++met;
      const double away = distance_by_points(touch->place);
      EXPECT_GE(away, touch->share > 0.0 ? ball.radius - 1e-9 : 0.0);
      if (touch->share > 0.0) {
        EXPECT_LE(away, ball.radius + 0.04);
      }
    } else {
      for (int k = 0; k <= 20; ++k) {
        const Vector3d p = ball.path.from + (ball.path.to - ball.path.from) * (k / 20.0 * 0.999);
        EXPECT_GT(distance_by_points(p), ball.radius - 1e-9);
      }
    }
  }
  EXPECT_GT(met, 100);
}

// Whether the cylinder holds any of many points of the ramp.
bool overlaps_by_points(const Cylinder& body, double grow) {
  for (int i = 0; i <= 240; ++i) {
    const double x = 6.0 * i / 240.0;
    const double low = x / 2.0 - 0.4;
    if (!(low < body.feet.z() + body.height + grow && x / 2.0 > body.feet.z() - grow)) continue;
    const double across = std::clamp(body.feet.y(), -1.0, 1.0) - body.feet.y();
    if (std::hypot(x - body.feet.x(), across) < body.radius + grow) return true;
  }
  return false;
}

TEST(Slanted, CylindersOverlapAndSweepLevelOrFalling) {
  const World world(ramp_level());
  scenes::Random random(3);
  int inside = 0;
  int stopped = 0;
  for (int i = 0; i < 3'000; ++i) {
    const Cylinder body{anywhere(random), random.between(0.1, 0.6), random.between(0.3, 1.8)};
    const bool overlaps = world.overlaps(body, Stops::bodies);
    if (overlaps_by_points(body, -0.03)) {
      EXPECT_TRUE(overlaps) << i;
    }
    if (!overlaps_by_points(body, 0.03)) {
      EXPECT_FALSE(overlaps) << i;
    }
    inside += overlaps ? 1 : 0;
    if (overlaps) continue;
    const Vector3d level{random.between(-6.0, 6.0), random.between(-3.0, 3.0), 0.0};
    const Vector3d down{0.0, 0.0, random.between(-5.0, 5.0)};
    for (const Vector3d& motion : {level, down, Vector3d(level + down)}) {
      const auto touch = world.sweep(body, motion, Stops::bodies);
      const double share = touch ? touch->share : 1.0;
      stopped += touch ? 1 : 0;
      for (int k = 0; k < 20; ++k) {
        Cylinder before = body;
        before.feet += motion * (share * k / 20.0);
        EXPECT_FALSE(overlaps_by_points(before, -0.03)) << i;
      }
      if (!touch || share == 0.0) continue;
      Cylinder there = body;
      there.feet += motion * share;
      EXPECT_TRUE(overlaps_by_points(there, 0.04)) << i;
    }
  }
  EXPECT_GT(inside, 300);
  EXPECT_GT(stopped, 500);
}

TEST(Slanted, AFallingBodyComesToRestWhereItsRimTouches) {
  // Over x = 3 the ramp is at 1.5; its slope of 1 in 2 rises 0.2 within the radius of 0.4.
  const World world(ramp_level());
  const auto touch = world.sweep({{3.0, 0.0, 4.0}, 0.4, 1.0}, {0.0, 0.0, -4.0}, Stops::bodies);
  ASSERT_TRUE(touch);
  EXPECT_NEAR(touch->place.z(), 1.7, 1e-9);
}

TEST(Slanted, StairsAreStepsForEyesAndARampForBodies) {
  // 10 steps of 0.3 m on 6 m: the first tread lies at 0.15 m up to x = 0.6.
  const World world(testing::garden(R"(
plane = "space"
[[stairs]]
id = "stairs"
material = "brick"
from = [0.0, 0.0, 0.0]
to = [6.0, 0.0, 3.0]
width = 2.0
steps = 10
)"));
  const auto height = [&](double x, Stops what) {
    return world.first_touch(Segment{{x, 0.0, 9.0}, {x, 0.0, -9.0}}, what)->place.z();
  };
  EXPECT_NEAR(height(0.3, Stops::sight), 0.15, 1e-9);
  EXPECT_NEAR(height(0.5, Stops::sight), 0.15, 1e-9);
  EXPECT_NEAR(height(0.7, Stops::shots), 0.45, 1e-9);
  EXPECT_NEAR(height(0.5, Stops::bodies), 0.25, 1e-9);
}

}  // namespace
}  // namespace gaze
