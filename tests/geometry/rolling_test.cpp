#include "geometry/rolling.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"

namespace gaze {
namespace {

const Cylinder kBody{{0, 0, 0}, 0.5, 2.0};
const Vector3d kStill{0, 0, 0};

TEST(RollingTouch, HitsSideTopAndRimInClosedForm) {
  const auto side = first_touch(BallPath{{{-4, 0, 1}, {4, 0, 1}}, 0.25}, kBody, kStill);
  EXPECT_NEAR(side.value(), (4 - 0.75) / 8, 1e-12);
  const auto top = first_touch(BallPath{{{0.1, 0, 6}, {0.1, 0, 0}}, 0.25}, kBody, kStill);
  EXPECT_NEAR(top.value(), (6 - 2.25) / 6, 1e-12);
  // Down at x = 0.65, 0.15 beside the rim: meets it sqrt(0.25^2 - 0.15^2) = 0.2 above.
  const auto rim = first_touch(BallPath{{{0.65, 0, 6}, {0.65, 0, 0}}, 0.25}, kBody, kStill);
  EXPECT_NEAR(rim.value(), (6 - 2.2) / 6, 1e-12);
  EXPECT_FALSE(first_touch(BallPath{{{0.76, 0, 6}, {0.76, 0, 0}}, 0.25}, kBody, kStill));
}

TEST(RollingTouch, SeesWhatMovesAcrossItsWayMeanwhile) {
  // A point flies along x, a body crosses along y: both are at the origin at the half.
  const BallPath ball{{{-50, 0, 1}, {50, 0, 1}}, 0.0};
  const Cylinder body{{0, -50, 0}, 0.5, 2.0};
  EXPECT_FALSE(first_touch(ball, body, kStill));
  const auto touch = first_touch(ball, body, {0, 100, 0});
  EXPECT_NEAR(touch.value(), 0.5 - 0.5 / (100 * std::sqrt(2.0)), 1e-12);
}

TEST(RollingTouch, AgreesWithSmallSteps) {
  scenes::Random random(8);
  int hits = 0;
  for (int i = 0; i < 400; ++i) {
    const auto point = [&] {
      return Vector3d{random.between(-3, 3), random.between(-3, 3), random.between(-2, 4)};
    };
    const BallPath ball{{point(), point()}, random.between(0.0, 0.5)};
    const Vector3d motion = point() * 0.3;
    const auto distance = [&](double share) {
      const Vector3d p = ball.path.from + (ball.path.to - ball.path.from - motion) * share;
      const double out = std::max(0.0, std::hypot(p.x(), p.y()) - 0.5);
      const double above = std::max({0.0, p.z() - 2.0, -p.z()});
      return std::hypot(out, above);
    };
    const auto touch = first_touch(ball, kBody, motion);
    for (int step = 0; step < 200; ++step) {
      const double share = step / 200.0;
      if (!touch || share < *touch) {
        ASSERT_GT(distance(share), ball.radius - 1e-9);
      }
    }
    if (!touch) continue;
    ++hits;
    ASSERT_LE(distance(*touch), ball.radius + 1e-9);
  }
  EXPECT_GT(hits, 60);
  EXPECT_LT(hits, 340);
}

TEST(FloorTouch, CountsOnTheWayDownOnly) {
  EXPECT_NEAR(first_touch_of_floor({{{0, 0, 3}, {9, 0, -1}}, 0.5}, 0.5).value(), 2.0 / 4.0, 1e-12);
  EXPECT_FALSE(first_touch_of_floor({{{0, 0, 0.1}, {9, 0, 0.1}}, 0.5}, 0.0));  // level, and too low
  EXPECT_EQ(first_touch_of_floor({{{0, 0, 0.1}, {9, 0, 0}}, 0.5}, 0.0), 0.0);
}

TEST(RollingTouch, OfAPointIsThatOfAnEverSmallerBall) {
  scenes::Random random(21);
  int touched = 0;
  for (int i = 0; i < 20'000; ++i) {
    const auto place = [&] {
      return Vector3d{random.between(-2, 2), random.between(-2, 2), random.between(-1, 3)};
    };
    const Segment way{place(), place()};
    const auto point = first_touch(BallPath{way, 0.0}, kBody, kStill);
    const auto ball = first_touch(BallPath{way, 1e-7}, kBody, kStill);
    if (point.has_value() != ball.has_value()) {
      // Only a graze, or an end just short of it, may tell them apart.
      EXPECT_FALSE(first_touch(BallPath{way, 0.0}, {{0, 0, 1e-3}, 0.499, 1.998}, kStill));
      continue;
    }
    if (!point) continue;
    EXPECT_NEAR(*point, *ball, 1e-4);
    ++touched;
  }
  EXPECT_GT(touched, 2'000);
}

TEST(RollingTouch, OfAPointInClosedForm) {
  EXPECT_NEAR(first_touch(BallPath{{{-4, 0, 1}, {4, 0, 1}}, 0.0}, kBody, kStill).value(), 3.5 / 8,
              1e-15);
  EXPECT_NEAR(first_touch(BallPath{{{0.1, 0, 6}, {0.1, 0, 0}}, 0.0}, kBody, kStill).value(),
              4.0 / 6, 1e-15);
  EXPECT_EQ(first_touch(BallPath{{{0.1, 0, 1}, {5, 0, 1}}, 0.0}, kBody, kStill), 0.0);
  EXPECT_FALSE(first_touch(BallPath{{{-4, 0, 2.01}, {4, 0, 2.01}}, 0.0}, kBody, kStill));
}

}  // namespace
}  // namespace gaze
