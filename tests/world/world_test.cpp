#include "gaze/world.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "plain.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using scenes::Random;
using testing::box;
using testing::level_of;

const Vector3d kUp{0.0, 0.0, 1.0};

Segment between(double ax, double ay, double az, double bx, double by, double bz) {
  return {{ax, ay, az}, {bx, by, bz}};
}

// ---- the rules of touching, on one box [1,2] x [0,1] x [0,2]

class OneBox : public ::testing::Test {
 protected:
  const World world{level_of({box({1, 0}, {2, 1}, 2.0)})};

  std::optional<double> share(const Segment& segment) const {
    const auto touch = world.first_touch(segment, Stops::sight);
    EXPECT_EQ(touch.has_value(), !world.is_clear(segment, Stops::sight));
    return touch ? std::optional(touch->share) : std::nullopt;
  }
};

TEST_F(OneBox, SegmentIsStoppedWhereItEnters) {
  EXPECT_EQ(share(between(0, 0.5, 1, 4, 0.5, 1)), 0.25);
  EXPECT_EQ(share(between(4, 0.5, 1, 0, 0.5, 1)), 0.5);
  EXPECT_EQ(share(between(1.5, 0.5, 4, 1.5, 0.5, 0)), 0.5);
  EXPECT_EQ(share(between(0, 0.5, 1, 0.9, 0.5, 1)), std::nullopt);
}

TEST_F(OneBox, GrazingAFaceEdgeOrCornerStops) {
  EXPECT_EQ(share(between(0, 1, 1, 4, 1, 1)), 0.25);      // along the side
  EXPECT_EQ(share(between(0, 0.5, 2, 4, 0.5, 2)), 0.25);  // along the top
  EXPECT_EQ(share(between(0, 2, 1, 2, 0, 1)), 0.5);       // through one upright edge
  EXPECT_EQ(share(between(0, 2, 3, 2, 0, 1)), 0.5);       // through one corner
  EXPECT_EQ(share(between(0, 1.0000001, 1, 4, 1.0000001, 1)), std::nullopt);
}

TEST_F(OneBox, OnlyTheFarEndMayTouch) {
  EXPECT_EQ(share(between(0, 0.5, 1, 1, 0.5, 1)), std::nullopt);
  EXPECT_EQ(share(between(1, 0.5, 1, 0, 0.5, 1)), 0.0);      // starting on it
  EXPECT_EQ(share(between(1.5, 0.5, 1, 9, 0.5, 1)), 0.0);    // starting inside
  EXPECT_EQ(share(between(1.5, 0.5, 1, 1.5, 0.5, 1)), 0.0);  // no length, inside
  EXPECT_EQ(share(between(1, 0.5, 1, 1, 0.5, 1)), 0.0);      // no length, on it
  EXPECT_EQ(share(between(0.5, 0.5, 1, 0.5, 0.5, 1)), std::nullopt);
}

TEST_F(OneBox, WhatIsNotFiniteFindsNothing) {
  EXPECT_TRUE(world.is_clear(between(0, NAN, 1, 4, 0.5, 1), Stops::sight));
  EXPECT_TRUE(world.is_clear(between(0, 0.5, 1, INFINITY, 0.5, 1), Stops::sight));
  EXPECT_TRUE(world.is_clear(between(0, 0.5, 1, 1e300, 0.5, 1), Stops::sight));
  EXPECT_FALSE(world.is_clear(between(0, 0.5, 1, 1e11, 0.5, 1), Stops::sight));
  EXPECT_FALSE(world.overlaps({{NAN, 0, 0}, 1, 1}, Stops::bodies));
  EXPECT_FALSE(world.first_touch(BallPath{between(0, 0.5, 1, 4, 0.5, 1), NAN}, Stops::sight));
}

TEST_F(OneBox, FewAtOnceAndOddOnesAmongThem) {
  const std::vector<Segment> segments{between(0, 0.5, 1, 4, 0.5, 1), between(NAN, 0, 0, 4, 0, 0),
                                      between(0, 5, 1, 4, 5, 1)};
  std::vector<std::uint8_t> clear(3, 9);
  world.are_clear(segments, Stops::sight, clear);
  EXPECT_EQ(clear, (std::vector<std::uint8_t>{0, 1, 1}));
  World(Level{}).are_clear(segments, Stops::sight, clear);
  EXPECT_EQ(clear, (std::vector<std::uint8_t>{1, 1, 1}));
  world.are_clear(std::span<const Segment>{}, Stops::sight, std::span<std::uint8_t>{});
}

TEST_F(OneBox, RayIsTheSegmentOfItsLength) {
  EXPECT_TRUE(world.is_clear(Ray{{0, 0.5, 1}, {2, 0, 0}, 0.99}, Stops::sight));
  EXPECT_FALSE(world.is_clear(Ray{{0, 0.5, 1}, {2, 0, 0}, 1.01}, Stops::sight));
}

TEST_F(OneBox, BallStopsOneRadiusBeforeAFace) {
  const auto touch = world.first_touch(BallPath{between(0, 0.5, 1, 4, 0.5, 1), 0.25}, Stops::shots);
  ASSERT_TRUE(touch);
  EXPECT_NEAR(touch->place.x(), 0.75, 1e-12);
  EXPECT_TRUE(world.is_clear(BallPath{between(0, 1.26, 1, 4, 1.26, 1), 0.25}, Stops::shots));
  EXPECT_FALSE(world.is_clear(BallPath{between(0, 1.24, 1, 4, 1.24, 1), 0.25}, Stops::shots));
}

TEST_F(OneBox, BallRollsRoundEdgesAndCorners) {
  // Down beside the upright edge at (1, 1), 0.15 away in x and in y: 0.2121 from it.
  const Segment down = between(0.85, 1.15, 5, 0.85, 1.15, 1);
  EXPECT_TRUE(world.is_clear(BallPath{down, 0.2121}, Stops::shots));
  EXPECT_FALSE(world.is_clear(BallPath{down, 0.2122}, Stops::shots));
  // Along x past the corner (1, 1, 2), 0.1 beside and 0.1 above the edge: 0.1414 from it.
  const Segment past = between(0, 1.1, 2.1, 3, 1.1, 2.1);
  EXPECT_TRUE(world.is_clear(BallPath{past, 0.1414}, Stops::shots));
  const auto touch = world.first_touch(BallPath{past, 0.2}, Stops::shots);
  ASSERT_TRUE(touch);  // a sphere of 0.2 about the corner: x = 1 - sqrt(0.04 - 0.02)
  EXPECT_NEAR(touch->place.x(), 1.0 - std::sqrt(0.02), 1e-12);
}

TEST_F(OneBox, CylinderBesideOrOnTopDoesNotOverlap) {
  EXPECT_FALSE(world.overlaps({{0.5, 0.5, 0}, 0.5, 1.7}, Stops::bodies));
  EXPECT_TRUE(world.overlaps({{0.501, 0.5, 0}, 0.5, 1.7}, Stops::bodies));
  EXPECT_FALSE(world.overlaps({{1.5, 0.5, 2}, 0.5, 1.7}, Stops::bodies));
  EXPECT_FALSE(world.overlaps({{1.5, 0.5, -1.7}, 0.5, 1.7}, Stops::bodies));
  EXPECT_EQ(world.first_overlap({{1.5, 0.5, 1.99}, 0.5, 1.7}, Stops::bodies), SolidId{0});
}

TEST_F(OneBox, CylinderIsStoppedOnlyByWhatItEnters) {
  const Cylinder body{{0, 0.5, 0}, 0.25, 1.0};
  const auto touch = world.sweep(body, {2, 0, 0}, Stops::bodies);
  ASSERT_TRUE(touch);
  EXPECT_NEAR(touch->share, 0.375, 1e-12);
  EXPECT_NEAR((touch->normal - Vector3d(-1, 0, 0)).norm(), 0.0, 1e-12);
  const Cylinder beside{{0.75, 0.5, 0}, 0.25, 1.0};  // touching
  EXPECT_FALSE(world.sweep(beside, {0, 5, 0}, Stops::bodies));
  EXPECT_FALSE(world.sweep(beside, {-5, 0, 0}, Stops::bodies));
  EXPECT_EQ(world.sweep(beside, {1, 0, 0}, Stops::bodies)->share, 0.0);
  const Cylinder falling{{1.5, 0.5, 4}, 0.25, 1.0};
  const auto landed = world.sweep(falling, {0, 0, -4}, Stops::bodies);
  ASSERT_TRUE(landed);
  EXPECT_EQ(landed->share, 0.5);
  EXPECT_EQ(landed->normal, kUp);
  EXPECT_EQ(world.sweep({{1.5, 0.5, 0}, 0.2, 1}, {9, 0, 0}, Stops::bodies)->normal,
            Vector3d(0, 0, 0));  // from inside
}

TEST_F(OneBox, CylinderMayHaveLeftBeforeItComesToItsHeight) {
  // Falling across the box so fast sideways that it is past before it is low enough.
  EXPECT_FALSE(world.sweep({{0, 0.5, 4}, 0.1, 1}, {40, 0, -4}, Stops::bodies));
  EXPECT_TRUE(world.sweep({{0, 0.5, 4}, 0.1, 1}, {2, 0, -4}, Stops::bodies));
}

// ---- planes and materials

TEST(Planes, UprightSolidsAreEndlessAcrossTheView) {
  const World world(level_of({box({1, 0}, {2, 1})}, Plane::upright));
  EXPECT_FALSE(world.is_clear(between(0, 77, 0.5, 4, 77, 0.5), Stops::sight));
  EXPECT_TRUE(world.is_clear(between(0, 77, 1.5, 4, 77, 1.5), Stops::sight));
  // A body is a rectangle from the side: 0.3 wide to either side, 1.7 high.
  EXPECT_FALSE(world.overlaps({{0.7, 0, 0}, 0.3, 1.7}, Stops::bodies));
  EXPECT_TRUE(world.overlaps({{0.71, 0, 0}, 0.3, 1.7}, Stops::bodies));
  EXPECT_FALSE(world.overlaps({{1.5, 0, 1.0}, 0.3, 1.7}, Stops::bodies));
  const auto touch = world.sweep({{0, 0, 0}, 0.3, 1.7}, {2, 0, 0}, Stops::bodies);
  ASSERT_TRUE(touch);
  EXPECT_NEAR(touch->share, 0.35, 1e-12);
  EXPECT_EQ(touch->normal, Vector3d(-1, 0, 0));
}

TEST(Planes, GroundAndSpaceShareTheirSolids) {
  const Level ground = scenes::make_scene(100, 40.0, 3);
  Level space = ground;
  space.plane = Plane::space;
  const World one(ground);
  const World other(space);
  for (const Segment& segment : scenes::sight_segments(one, 40.0, 2000, 5)) {
    ASSERT_EQ(one.is_clear(segment, Stops::sight), other.is_clear(segment, Stops::sight));
  }
}

TEST(Materials, StopEachOfTheFourThingsApart) {
  for (int bit = 0; bit < 4; ++bit) {
    Level level = level_of({box({1, 0}, {2, 1})});
    level.materials[0].stops = StopSet(1U << bit);
    const World world(level);
    for (int what = 0; what < 4; ++what) {
      EXPECT_EQ(world.is_clear(between(0, 0.5, 1, 4, 0.5, 1), static_cast<Stops>(what)),
                what != bit);
      EXPECT_EQ(world.overlaps({{1, 0.5, 0}, 0.3, 1}, static_cast<Stops>(what)), what == bit);
    }
  }
}

TEST(Ties, GoToTheSolidThatComesFirst) {
  const World world(level_of({box({1, 0}, {2, 1}), box({1, 0}, {2, 1}), box({1, -1}, {2, 2})}));
  EXPECT_EQ(world.first_touch(between(0, 0.5, 1, 4, 0.5, 1), Stops::sight)->solid.index, 0U);
  EXPECT_EQ(world.first_overlap({{1, 0.5, 0}, 0.3, 1}, Stops::bodies)->index, 0U);
}

// Solids that are put in one by one, a few or many at once, into nothing or among others.
TEST(World, WithSolidsPutInAnswersAsOneMadeWithThem) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(20); ++seed) {
    const Level all = scenes::make_scene(120, 40.0, seed);
    scenes::Random random(seed);
    Level level = all;
    level.solids.resize(seed % 3 == 0 ? 0 : 20);
    World grown(level);
    if (!level.solids.empty()) grown.set_gone({3}, true);
    while (level.solids.size() < all.solids.size()) {
      const std::size_t more = 1 + random.next() % 30;
      for (std::size_t i = 0; i < more && level.solids.size() < all.solids.size(); ++i) {
        level.solids.push_back(all.solids[level.solids.size()]);
      }
      grown = grown.with_solids(level);
    }
    World fresh(level);
    if (seed % 3 != 0) fresh.set_gone({3}, true);
    EXPECT_EQ(grown.is_gone({3}), seed % 3 != 0);
    for (int i = 0; i < 300; ++i) {
      const Segment segment{{random.between(0, 40), random.between(0, 40), random.between(0, 3)},
                            {random.between(0, 40), random.between(0, 40), random.between(0, 3)}};
      const auto expected = fresh.first_touch(segment, Stops::sight);
      const auto found = grown.first_touch(segment, Stops::sight);
      ASSERT_EQ(found.has_value(), expected.has_value());
      if (!found) continue;
      EXPECT_EQ(found->solid, expected->solid);
      EXPECT_EQ(found->share, expected->share);
      const Cylinder body{segment.from, 0.4, 1.7};
      EXPECT_EQ(grown.first_overlap(body, Stops::bodies), fresh.first_overlap(body, Stops::bodies));
    }
  }
}

TEST(World, WithoutSolidsIsClear) {
  const World world{Level{}};
  EXPECT_TRUE(world.is_clear(between(0, 0, 0, 9, 9, 9), Stops::sight));
  EXPECT_FALSE(world.sweep({{0, 0, 0}, 1, 1}, {9, 0, 0}, Stops::bodies));
}

// ---- against other methods, on generated scenes

class Generated : public ::testing::TestWithParam<std::uint64_t> {
 protected:
  const Level level = scenes::make_scene(120, 40.0, GetParam());
  const World world{level};
  Random random{GetParam() + 100};

  Vector3d point() {
    return {random.between(-2.0, 42.0), random.between(-2.0, 42.0), random.between(-0.5, 3.5)};
  }
};

TEST_P(Generated, SegmentsAgreeWithThePlainLoopBothWays) {
  const auto outlines = plain::outlines_of(level);
  int clear = 0;
  constexpr int kCount = 4000;
  for (int i = 0; i < kCount; ++i) {
    const Vector3d from = point();
    const Segment segment{from, from + (point() - from) * random.between(0.0, 0.6)};
    const bool expected = plain::is_clear(outlines, segment);
    clear += expected;
    ASSERT_EQ(world.is_clear(segment, Stops::sight), expected) << i;
    const auto touch = world.first_touch(segment, Stops::sight);
    ASSERT_EQ(touch.has_value(), !expected) << i;
    if (!touch || touch->share == 0.0) continue;
    // Just before the touch the way is free, just after it is not.
    const double gap = 1e-7;
    const Vector3d way = segment.to - segment.from;
    ASSERT_TRUE(plain::is_clear(outlines, {segment.from, touch->place - way * gap}));
    ASSERT_FALSE(plain::is_clear(outlines, {segment.from, touch->place + way * gap}));
  }
  EXPECT_GT(clear, kCount / 10);
  EXPECT_LT(clear, kCount * 9 / 10);
}

// Distance from a point to a box-shaped prism, by trying all its sides: no code shared.
double distance_to_solids(const std::vector<plain::Outline>& outlines, const Vector3d& p) {
  double best = 1e9;
  for (const plain::Outline& outline : outlines) {
    const double dz = std::max({outline.base - p.z(), p.z() - outline.top, 0.0});
    Vector3d level = p;
    level.z() = (outline.base + outline.top) / 2;
    double flat = plain::is_inside(outline, level) ? 0.0 : 1e9;
    for (std::size_t i = 0, j = outline.corners.size() - 1; i < outline.corners.size(); j = i++) {
      const Vector2d along = outline.corners[i] - outline.corners[j];
      const Vector2d to = p.head<2>() - outline.corners[j];
      const double t = std::clamp(to.dot(along) / along.squaredNorm(), 0.0, 1.0);
      flat = std::min(flat, (to - along * t).norm());
    }
    best = std::min(best, std::hypot(flat, dz));
  }
  return best;
}

TEST_P(Generated, BallsAgreeWithWalkingInSmallSteps) {
  const auto outlines = plain::outlines_of(level);
  int stopped = 0;
  for (int i = 0; i < 120; ++i) {
    const Vector3d from = point();
    const BallPath ball{{from, from + (point() - from) * 0.3}, random.between(0.05, 0.8)};
    const auto touch = world.first_touch(ball, Stops::shots);
    ASSERT_EQ(world.is_clear(ball, Stops::shots), !touch);
    const double end = touch ? touch->share : 1.0;
    for (int step = 0; step <= 60; ++step) {
      const double share = end * step / 60.0;
      const Vector3d at = from + (ball.path.to - from) * share;
      if (share < end || !touch) {
        ASSERT_GE(distance_to_solids(outlines, at), ball.radius - 1e-9) << i;
      }
    }
    if (!touch) continue;
    ++stopped;
    if (touch->share > 0.0) {
      ASSERT_NEAR(distance_to_solids(outlines, touch->place), ball.radius, 1e-7);
    }
  }
  EXPECT_GT(stopped, 20);
  EXPECT_LT(stopped, 115);
}

// Coming down beside the rim of something while moving away from it: walked in small steps.
TEST(Sweep, MeetsWhatItComesDownOnThoughItMovesAway) {
  Solid ramp = testing::box({0.0, 0.0}, {0.0, 0.0});
  ramp.form = Solid::Form::ramp;
  ramp.from = {0.0, 2.0, 1.0};
  ramp.to = {4.0, 2.0, 0.8};
  ramp.width = 4.0;
  ramp.thickness = 0.5;
  const World block(testing::level_of({testing::box({0.0, 0.0}, {4.0, 4.0}, 1.0)}, Plane::space));
  const World slope(testing::level_of({ramp}, Plane::space));
  scenes::Random random(3);
  int met = 0;
  int missed = 0;
  for (int i = 0; i < 400; ++i) {
    const World& world = i % 2 == 0 ? block : slope;
    const Cylinder body{{-random.between(0.0, 0.29), random.between(0.5, 3.5), 1.01},
                        0.3,
                        random.between(0.2, 1.0)};
    const Vector3d motion{-random.between(0.0, 2.0), random.between(-0.1, 0.1),
                          -random.between(0.02, 0.3)};
    const auto touch = world.sweep(body, motion, Stops::bodies);
    constexpr int kSteps = 2000;
    int first = 0;
    while (first <= kSteps) {
      Cylinder there = body;
      there.feet += motion * (double(first) / kSteps);
      if (world.overlaps(there, Stops::bodies)) break;
      ++first;
    }
    if (first > kSteps) {
      ++missed;
      EXPECT_TRUE(!touch || touch->share > 0.998) << i;
      continue;
    }
    ++met;
    ASSERT_TRUE(touch.has_value()) << i;
    EXPECT_LE(touch->share, double(first) / kSteps + 1e-9) << i;
    // A rim that is only grazed may be met before a step finds it.
    Cylinder before = body;
    before.feet += motion * (touch->share - 2e-3);
    EXPECT_FALSE(world.overlaps(before, Stops::bodies)) << i;
  }
  EXPECT_GT(met, 80);
  EXPECT_GT(missed, 40);
}

TEST_P(Generated, CylindersOverlapAndSweepAsTheDistanceInThePlanSays) {
  const auto outlines = plain::outlines_of(level);
  const auto overlaps = [&](const Vector3d& feet, double radius, double height) {
    for (const plain::Outline& outline : outlines) {
      if (feet.z() >= outline.top || feet.z() + height <= outline.base) continue;
      const Vector3d inside{feet.x(), feet.y(), (outline.base + outline.top) / 2};
      if (distance_to_solids({outline}, inside) < radius) return true;
    }
    return false;
  };
  int stopped = 0;
  for (int i = 0; i < 200; ++i) {
    const Cylinder body{point(), random.between(0.1, 0.8), random.between(0.5, 2.0)};
    const bool starts_inside = overlaps(body.feet, body.radius, body.height);
    ASSERT_EQ(world.overlaps(body, Stops::bodies), starts_inside) << i;
    if (starts_inside) continue;
    Vector3d motion = (point() - body.feet) * 0.3;
    if (i % 3 != 0) motion.z() = 0.0;
    const auto touch = world.sweep(body, motion, Stops::bodies);
    const double end = touch ? touch->share : 1.0;
    for (int step = 0; step < 60; ++step) {
      const Vector3d at = body.feet + motion * (end * step / 60.0);
      ASSERT_FALSE(overlaps(at, body.radius - 1e-9, body.height)) << i << " " << step;
    }
    if (!touch) continue;
    ++stopped;
    const Vector3d beyond = body.feet + motion * std::min(1.0, end + 1e-6);
    ASSERT_TRUE(overlaps(beyond, body.radius + 1e-6, body.height)) << i;
    ASSERT_LT(touch->normal.dot(motion), 1e-9) << i;
  }
  EXPECT_GT(stopped, 20);
}

TEST_P(Generated, ManyAtOnceAreAnsweredLikeOneByOne) {
  std::vector<Segment> segments;
  std::vector<Ray> rays;
  std::vector<BallPath> balls;
  std::vector<Cylinder> cylinders;
  std::vector<Vector3d> motions;
  for (int i = 0; i < 300; ++i) {
    segments.push_back({point(), point()});
    rays.push_back({point(), point(), 5.0});
    balls.push_back({segments.back(), 0.3});
    cylinders.push_back({point(), 0.4, 1.7});
    motions.push_back(point() * 0.1);
  }
  std::vector<std::uint8_t> flags(300);
  std::vector<std::optional<Touch>> touches(300);
  world.are_clear(segments, Stops::sight, flags);
  for (std::size_t i = 0; i < 300; ++i)
    EXPECT_EQ(flags[i], world.is_clear(segments[i], Stops::sight));
  world.are_clear(rays, Stops::sight, flags);
  for (std::size_t i = 0; i < 300; ++i) EXPECT_EQ(flags[i], world.is_clear(rays[i], Stops::sight));
  world.are_clear(balls, Stops::sight, flags);
  for (std::size_t i = 0; i < 300; ++i) EXPECT_EQ(flags[i], world.is_clear(balls[i], Stops::sight));
  world.overlap(cylinders, Stops::bodies, flags);
  for (std::size_t i = 0; i < 300; ++i)
    EXPECT_EQ(flags[i], world.overlaps(cylinders[i], Stops::bodies));
  const auto same = [](const std::optional<Touch>& a, const std::optional<Touch>& b) {
    return a.has_value() == b.has_value() &&
           (!a || (a->share == b->share && a->solid == b->solid && a->normal == b->normal));
  };
  world.first_touches(segments, Stops::sight, touches);
  for (std::size_t i = 0; i < 300; ++i) {
    EXPECT_TRUE(same(touches[i], world.first_touch(segments[i], Stops::sight)));
  }
  world.first_touches(rays, Stops::sight, touches);
  for (std::size_t i = 0; i < 300; ++i) {
    EXPECT_TRUE(same(touches[i], world.first_touch(rays[i], Stops::sight)));
  }
  world.first_touches(balls, Stops::sight, touches);
  for (std::size_t i = 0; i < 300; ++i) {
    EXPECT_TRUE(same(touches[i], world.first_touch(balls[i], Stops::sight)));
  }
  world.sweeps(cylinders, motions, Stops::bodies, touches);
  for (std::size_t i = 0; i < 300; ++i) {
    EXPECT_TRUE(same(touches[i], world.sweep(cylinders[i], motions[i], Stops::bodies)));
  }
}

INSTANTIATE_TEST_SUITE_P(Scenes, Generated, ::testing::Values(1, 2, 3, 4));

TEST(World, IsIndexedInAFewBytesATriangle) {
  const World world(scenes::campus());
  EXPECT_LE(static_cast<double>(world.index_bytes()),
            150.0 * static_cast<double>(world.triangle_count()));
  EXPECT_GT(world.triangle_count(), 12U * 2000U - 1U);
}

TEST(Ball, WithoutSizeIsASegment) {
  const Level level = scenes::hall();
  const World world(level);
  scenes::Random random(31);
  int stopped = 0;
  for (int i = 0; i < 5'000; ++i) {
    const auto place = [&] {
      return Vector3d{random.between(0, 60), random.between(0, 60), random.between(0.1, 3)};
    };
    const Vector3d from = place();
    const Segment way{from, from + (place() - from) * 0.2};
    const auto segment = world.first_touch(way, Stops::shots);
    const auto ball = world.first_touch(BallPath{way, 0.0}, Stops::shots);
    ASSERT_EQ(segment.has_value(), ball.has_value());
    if (!segment) continue;
    EXPECT_EQ(segment->share, ball->share);
    ++stopped;
  }
  EXPECT_GT(stopped, 500);
}

}  // namespace
}  // namespace gaze
