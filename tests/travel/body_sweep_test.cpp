// Where a body that moves first meets others: held to small steps along the same way.

#include "travel/body_sweep.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"

namespace gaze {
namespace {

const Cylinder kOwn{{0, 0, 0}, 0.3, 1.6};

TEST(FirstBodyMet, IsWhereTheyTouch) {
  const Cylinder other{{5, 0, 0}, 0.5, 1.0};
  const auto touch = first_body_met(Plane::ground, kOwn, {10, 0, 0}, false, {&other, 1});
  ASSERT_TRUE(touch);
  EXPECT_NEAR(touch->share, 0.42, 1e-9);  // 5 - 0.3 - 0.5 of 10 m
  EXPECT_NEAR((touch->normal - Vector3d{-1, 0, 0}).norm(), 0.0, 1e-9);
}

TEST(FirstBodyMet, GrazingPassingAboveAndLeavingAreFree) {
  const Cylinder beside{{5, 0.8, 0}, 0.5, 1.0};
  EXPECT_FALSE(first_body_met(Plane::ground, kOwn, {10, 0, 0}, false, {&beside, 1}));
  const Cylinder above{{5, 0, 1.6}, 0.5, 1.0};
  EXPECT_FALSE(first_body_met(Plane::ground, kOwn, {10, 0, 0}, false, {&above, 1}));
  const Cylinder touching{{0.8, 0, 0}, 0.5, 1.0};
  EXPECT_FALSE(first_body_met(Plane::ground, kOwn, {-1, 0, 0}, false, {&touching, 1}));
  EXPECT_FALSE(first_body_met(Plane::ground, kOwn, {0, 1, 0}, false, {&touching, 1}));
  EXPECT_TRUE(first_body_met(Plane::ground, kOwn, {0.01, 1, 0}, false, {&touching, 1}));
}

TEST(FirstBodyMet, WhoOverlapsMayGoApartOnly) {
  const Cylinder other{{0.5, 0, 0}, 0.5, 1.0};
  EXPECT_FALSE(first_body_met(Plane::ground, kOwn, {-1, 0, 0}, false, {&other, 1}));
  const auto deeper = first_body_met(Plane::ground, kOwn, {1, 0, 0}, false, {&other, 1});
  ASSERT_TRUE(deeper);
  EXPECT_EQ(deeper->share, 0.0);
  const Cylinder same{{0, 0, 0}, 0.5, 1.0};
  EXPECT_FALSE(first_body_met(Plane::ground, kOwn, {1, 0, 0}, false, {&same, 1}));
}

TEST(FirstBodyMet, SeenFromTheSideBodiesAreRectangles) {
  const Cylinder other{{3, 9, 0}, 0.5, 1.0};  // depth does not count
  const auto touch = first_body_met(Plane::upright, kOwn, {4, 0, 0}, false, {&other, 1});
  ASSERT_TRUE(touch);
  EXPECT_NEAR(touch->share, 0.55, 1e-9);
  EXPECT_EQ(touch->normal, Vector3d(-1, 0, 0));
  // What flies comes down on its top, 1 m up.
  const Cylinder flier{{3, 0, 2}, 0.3, 1.6};
  const auto from_above = first_body_met(Plane::upright, flier, {0, 0, -4}, true, {&other, 1});
  ASSERT_TRUE(from_above);
  EXPECT_NEAR(from_above->share, 0.25, 1e-9);
  EXPECT_EQ(from_above->normal, Vector3d(0, 0, 1));
  EXPECT_FALSE(first_body_met(Plane::upright, flier, {0, 0, -4}, false, {&other, 1}));
}

bool overlap(Plane plane, const Cylinder& a, const Cylinder& b) {
  const double x = a.feet.x() - b.feet.x();
  const double y = plane == Plane::upright ? 0.0 : a.feet.y() - b.feet.y();
  return std::sqrt(x * x + y * y) < a.radius + b.radius - kBodySlack &&
         a.feet.z() + a.height > b.feet.z() + kBodySlack &&
         b.feet.z() + b.height > a.feet.z() + kBodySlack;
}

// By small steps: none before the share that is told overlaps anybody, and the one after it does.
TEST(FirstBodyMet, IsTheFirstOverlapOfARandomWay) {
  scenes::Random random(17);
  int met = 0;
  for (int round = 0; round < 3000; ++round) {
    const Plane plane = round % 2 == 0 ? Plane::space : Plane::upright;
    const bool flies = plane == Plane::upright && round % 4 == 1;
    std::vector<Cylinder> others;
    for (int i = 0; i < 4; ++i) {
      others.push_back({{random.between(-4, 4), random.between(-4, 4), random.between(-2, 2)},
                        random.between(0.1, 1.0),
                        random.between(0.2, 2.0)});
    }
    Cylinder own{{random.between(-4, 4), random.between(-4, 4), random.between(-2, 2)}, 0.3, 1.0};
    bool begins_inside = false;
    for (const Cylinder& other : others) begins_inside |= overlap(plane, own, other);
    if (begins_inside) continue;
    const double rise = flies ? random.between(-4, 4) : 0.0;
    const double depth = plane == Plane::upright ? 0.0 : random.between(-4, 4);
    const Vector3d way{random.between(-4, 4), depth, rise};
    const auto touch = first_body_met(plane, own, way, flies, others);
    constexpr int kSteps = 400;
    const double end = touch ? touch->share : 1.0;
    const Vector3d start = own.feet;
    for (int step = 0; step <= kSteps; ++step) {
      own.feet = start + way * (end * step / kSteps * (1.0 - 1e-6));
      for (const Cylinder& other : others) ASSERT_FALSE(overlap(plane, own, other)) << round;
    }
    if (!touch) continue;
    own.feet = start + way * (end + 1e-3);
    bool overlaps = false;
    for (const Cylinder& other : others) overlaps |= overlap(plane, own, other);
    // One that is merely grazed may have been left again by then.
    met += overlaps ? 1 : 0;
    EXPECT_TRUE(overlaps || std::abs(touch->normal.dot(way.normalized())) < 0.1) << round;
  }
  EXPECT_GT(met, 300);
}

}  // namespace
}  // namespace gaze
