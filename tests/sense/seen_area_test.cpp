#include "gaze/seen_area.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;

Looker watcher_at(const Vector2d& place, double facing_deg, double range, double field_deg) {
  const SineCosine way = sine_cosine(Angle::from_degrees(facing_deg));
  Sight sight{range, range, Angle::from_degrees(field_deg), Vector3d{0.0, 0.0, 1.5}, {}, {}};
  return {{place.x(), place.y(), 0.0}, {way.cosine, way.sine}, sight, false};
}

TEST(SeenArea, InTheOpenIsASectorOrADisc) {
  const World world{Level{}};
  EXPECT_NEAR(seen_area(world, watcher_at({3, 4}, 77, 5, 60)).area(), 25 * M_PI / 6, 1e-11);
  EXPECT_NEAR(seen_area(world, watcher_at({3, 4}, 77, 5, 300)).area(), 25 * M_PI * 5 / 6, 1e-11);
  EXPECT_NEAR(seen_area(world, watcher_at({3, 4}, 77, 5, 360)).area(), 25 * M_PI, 1e-11);
}

TEST(SeenArea, BeforeALongWallIsATriangle) {
  // A wall face at x = 2, the field 90 degrees: the triangle (0,0), (2,-2), (2,2).
  const World world(level_of({box({2, -50}, {3, 50})}));
  const SeenArea area = seen_area(world, watcher_at({0, 0}, 0, 30, 90));
  EXPECT_NEAR(area.area(), 4.0, 1e-12);
  ASSERT_EQ(area.edges.size(), 1U);
  EXPECT_FALSE(area.edges[0].at_range);
  EXPECT_TRUE(area.contains({1.99, 0}));
  EXPECT_FALSE(area.contains({2.01, 0}));
  EXPECT_FALSE(area.contains({1, 1.01}));
}

TEST(SeenArea, BehindABlockIsCutOut) {
  // All round within 10; the block's front face x = 1, |y| <= 1 hides a quarter but for the
  // triangle in front of it.
  const World world(level_of({box({1, -1}, {2, 1})}));
  const SeenArea area = seen_area(world, watcher_at({0, 0}, 123, 10, 360));
  EXPECT_NEAR(area.area(), 100 * M_PI * 0.75 + 1.0, 1e-10);
}

TEST(SeenArea, InARoomIsTheRoom) {
  Level level;
  Solid wall;
  wall.form = Solid::Form::wall;
  wall.points = {{0, 0}, {6, 0}, {6, 4}, {0, 4}, {0, 0}};
  wall.thickness = 0.5;
  level.solids = {wall};
  EXPECT_NEAR(seen_area(World(level), watcher_at({1, 1}, 0, 50, 360)).area(), 5.5 * 3.5, 1e-11);
}

TEST(SeenArea, IgnoresWhatIsLowerThanTheEyeOrLetsSightPass) {
  Level level = level_of({box({1, -1}, {2, 1}, 1.4)});
  EXPECT_NEAR(seen_area(World(level), watcher_at({0, 0}, 0, 10, 360)).area(), 100 * M_PI, 1e-10);
  level.solids[0].height = 3.0;
  level.materials[0].stops.reset(0);
  EXPECT_NEAR(seen_area(World(level), watcher_at({0, 0}, 0, 10, 360)).area(), 100 * M_PI, 1e-10);
}

TEST(SeenArea, OfAnEyeInASolidIsEmpty) {
  const World world(level_of({box({-1, -1}, {1, 1})}));
  EXPECT_TRUE(seen_area(world, watcher_at({0, 0}, 0, 10, 360)).edges.empty());
  EXPECT_EQ(seen_area(world, watcher_at({0, 0}, 0, 10, 360)).area(), 0.0);
}

TEST(SeenArea, HoldsExactlyThePointsThatARayReaches) {
  int inside = 0;
  int all = 0;
  for (std::uint64_t seed = 1; seed <= 8; ++seed) {
    Level level = scenes::make_scene(80, 30.0, seed);
    for (Solid& solid : level.solids) {  // let some cross each other
      if (solid.form == Solid::Form::block && seed % 2 == 0) {
        for (Vector2d& p : solid.points) p = p * 0.8 + Vector2d{3, 3};
      }
    }
    const World world(level);
    scenes::Random random(seed);
    for (int looker_number = 0; looker_number < 5; ++looker_number) {
      const Vector2d eye{random.between(1, 29), random.between(1, 29)};
      const Looker looker = watcher_at(eye, random.between(0, 360), 12.0,
                                       looker_number == 0 ? 360.0 : random.between(20, 350));
      const SeenArea area = seen_area(world, looker);
      for (int i = 0; i < 400; ++i) {
        const Vector2d p = eye + Vector2d{random.between(-13, 13), random.between(-13, 13)};
        const Segment ray{eye_of(Plane::ground, looker), {p.x(), p.y(), 1.5}};
        const Vector2d way = p - eye;
        const double angle = std::acos(way.normalized().dot(looker.facing)) * 180 / M_PI;
        const bool expected = way.norm() <= 12.0 &&
                              angle <= looker.sight.field_of_view.degrees() / 2 &&
                              world.is_clear(ray, Stops::sight);
        ASSERT_EQ(area.contains(p), expected) << seed << " " << looker_number << " " << i;
        inside += expected;
        ++all;
      }
    }
  }
  EXPECT_GT(inside, all / 20);
  EXPECT_LT(inside, all / 2);
}

}  // namespace
}  // namespace gaze
