#include "travel/walk.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;

constexpr int kRate = 60;

WalkingBody body_at(double x, double y) {
  return {{x, y, 0}, 0.4, 1.7, 0.3};
}

TEST(Walk, CoversSpeedTimesTimeAndArrivesToTheBit) {
  const World world{Level{}};
  const LegResult half =
      walk(world, body_at(0, 0), {{3, 4, 0}, 0.0, 2.0}, kMomentsPerTick * 60, kRate);
  EXPECT_FALSE(half.arrived);
  EXPECT_NEAR((half.feet - Vector3d(1.2, 1.6, 0)).norm(), 0.0, 1e-12);
  const LegResult all =
      walk(world, body_at(0, 0), {{3, 4, 0}, 0.0, 2.0}, kMomentsPerTick * 200, kRate);
  EXPECT_TRUE(all.arrived);
  EXPECT_EQ(all.feet, Vector3d(3, 4, 0));
  EXPECT_EQ(all.used, kMomentsPerTick * 150);  // 5 m at 2 m/s
}

TEST(Walk, StopsAtTheDistanceAndNeverBacksAway) {
  const World world{Level{}};
  const LegResult result =
      walk(world, body_at(0, 0), {{5, 0, 0}, 1.5, 2.0}, kMomentsPerTick * 999, kRate);
  EXPECT_TRUE(result.arrived);
  EXPECT_NEAR(result.feet.x(), 3.5, 1e-12);
  const LegResult near = walk(world, body_at(4, 0), {{5, 0, 0}, 1.5, 2.0}, kMomentsPerTick, kRate);
  EXPECT_TRUE(near.arrived);
  EXPECT_EQ(near.feet, Vector3d(4, 0, 0));
  EXPECT_EQ(near.used, 0);
}

TEST(Walk, KeepsItsHeightAndInAnUprightPlaneItsDepth) {
  Level level;
  level.plane = Plane::upright;
  const LegResult result =
      walk(World(level), body_at(0, 0), {{2, 7, 9}, 0.0, 2.0}, kMomentsPerTick * 999, kRate);
  EXPECT_TRUE(result.arrived);
  EXPECT_EQ(result.feet, Vector3d(2, 0, 0));
}

TEST(Walk, WithoutSpeedGetsNowhere) {
  const World world{Level{}};
  EXPECT_FALSE(walk(world, body_at(0, 0), {{2, 0, 0}, 0.0, 0.0}, kMomentsPerTick, kRate).arrived);
}

TEST(Slide, GoesOnAlongAWallByItsShare) {
  const World world(level_of({box({2, -50}, {3, 50})}));
  // 45 degrees into the wall: reaches it at x = 1.6, y = 1.6, then only the y part is left.
  const Vector3d end = slide(world, {{0, 0, 0.3}, 0.4, 1.4}, {4, 4, 0});
  EXPECT_NEAR(end.x(), 1.6, 2 * kContactGap);
  EXPECT_LT(end.x(), 1.6);
  EXPECT_NEAR(end.y(), 4.0, 1e-5);
}

TEST(Slide, StopsInACorner) {
  const World world(level_of({box({2, -50}, {3, 50}), box({-50, 2}, {50, 3})}));
  const Vector3d end = slide(world, {{0, 0, 0.3}, 0.4, 1.4}, {9, 7, 0});
  EXPECT_NEAR(end.x(), 1.6, 1e-5);
  EXPECT_NEAR(end.y(), 1.6, 1e-5);
}

TEST(Slide, StepsOverWhatIsLowAndUnderWhatIsHigh) {
  Level level = level_of({box({2, -5}, {3, 5}, 0.25)});
  level.solids.push_back(box({4, -5}, {5, 5}, 1.0));
  level.solids[1].base = 1.7;
  const LegResult result =
      walk(World(level), body_at(0, 0), {{8, 0, 0}, 0, 9}, kMomentsPerTick * 999, kRate);
  EXPECT_TRUE(result.arrived);
}

TEST(Slide, NeverEntersASolidHoweverItIsPushed) {
  int moved = 0;
  for (std::uint64_t seed = 1; seed <= 6; ++seed) {
    const World world(scenes::make_scene(90, 30.0, seed));
    scenes::Random random(seed);
    for (int walker = 0; walker < 30; ++walker) {
      Cylinder body{{random.between(1, 29), random.between(1, 29), 0.3}, 0.4, 1.4};
      if (world.overlaps(body, Stops::bodies)) continue;
      for (int push = 0; push < 60; ++push) {
        const Vector3d wish{random.between(-3, 3), random.between(-3, 3), 0};
        const Vector3d before = body.feet;
        body.feet = slide(world, body, wish);
        moved += body.feet != before;
        ASSERT_FALSE(world.overlaps(body, Stops::bodies)) << seed << " " << walker << " " << push;
        ASSERT_LE((body.feet - before).norm(), wish.norm() + 1e-9);
      }
    }
  }
  EXPECT_GT(moved, 5000);
}

}  // namespace
}  // namespace gaze
