#include "gaze/sight.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/sights.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::kThreePoints;
using testing::level_of;

Looker looker_at(const Vector3d& feet, double facing_deg, double range, double field_deg) {
  const SineCosine way = sine_cosine(Angle::from_degrees(facing_deg));
  Sight sight{range, range, Angle::from_degrees(field_deg), Vector3d{0.0, 0.0, 1.5}, {}, {}};
  return {feet, {way.cosine, way.sine}, sight, false};
}

LookedAt body_at(const Vector3d& feet, double height = 2.0) {
  return {feet, height, kThreePoints};
}

Verdict look_in(const Level& level, const Looker& looker, const LookedAt& other) {
  const World world(level);
  const Verdict verdict = look(world, level, looker, other);
  EXPECT_EQ(verdict.sees, can_see(world, looker, other));
  return verdict;
}

TEST(Range, OnTheLimitIsInside) {
  const Looker looker = looker_at({0, 0, 0}, 0, 5.0, 360);
  EXPECT_TRUE(look_in({}, looker, body_at({3, 4, 0})).range.pass);
  EXPECT_FALSE(look_in({}, looker, body_at({3, 4.0001, 0})).range.pass);
  EXPECT_EQ(look_in({}, looker, body_at({3, 4, 0})).range.value, 5.0);
}

TEST(Range, CountsTheAxesOfThePlane) {
  const Looker looker = looker_at({0, 0, 0}, 0, 5.0, 360);
  const LookedAt other = body_at({3, 4, 12});
  Level level;
  EXPECT_EQ(look_in(level, looker, other).range.value, 5.0);
  level.plane = Plane::upright;
  EXPECT_DOUBLE_EQ(look_in(level, looker, other).range.value, std::hypot(3.0, 12.0));
  level.plane = Plane::space;
  EXPECT_DOUBLE_EQ(look_in(level, looker, other).range.value, 13.0);
}

TEST(Range, IsKeepRangeOnceNoticed) {
  Looker looker = looker_at({0, 0, 0}, 0, 5.0, 360);
  looker.sight.keep_range = 8.0;
  EXPECT_FALSE(look_in({}, looker, body_at({7, 0, 0})).sees);
  looker.has_noticed = true;
  const Verdict verdict = look_in({}, looker, body_at({7, 0, 0}));
  EXPECT_TRUE(verdict.sees);
  EXPECT_EQ(verdict.range.limit, 8.0);
}

TEST(FieldOfView, ComparesHalfTheOpeningAngle) {
  const Looker looker = looker_at({0, 0, 0}, 90, 50.0, 90);
  EXPECT_TRUE(look_in({}, looker, body_at({3, 3, 0})).field.pass);  // exactly 45 degrees
  EXPECT_TRUE(look_in({}, looker, body_at({-3, 3, 0})).field.pass);
  EXPECT_FALSE(look_in({}, looker, body_at({3.001, 3, 0})).field.pass);
  const Verdict verdict = look_in({}, looker, body_at({3, std::sqrt(3.0) * 3, 0}));
  EXPECT_NEAR(verdict.field.value_deg, 30.0, 1e-12);
  EXPECT_EQ(verdict.field.limit_deg, 45.0);
}

TEST(FieldOfView, OfAllRoundSeesBehindAndOnTheSpot) {
  EXPECT_TRUE(look_in({}, looker_at({0, 0, 0}, 0, 9, 360), body_at({-3, 0, 0})).sees);
  EXPECT_TRUE(look_in({}, looker_at({0, 0, 0}, 0, 9, 1), body_at({0, 0, 0})).sees);
  EXPECT_FALSE(look_in({}, looker_at({0, 0, 0}, 0, 9, 359.9), body_at({-3, 0, 0})).sees);
}

TEST(FieldOfView, IsAConeInSpaceAndFlatOnTheGround) {
  // Eye at 1.5 m; the other's middle 3 m ahead and 3 m above that: 45 degrees up.
  const Looker looker = looker_at({0, 0, 0}, 0, 50, 88);
  const LookedAt above = body_at({3, 0, 3.5});
  Level level;
  EXPECT_TRUE(look_in(level, looker, above).field.pass);
  level.plane = Plane::space;
  const Verdict verdict = look_in(level, looker, above);
  EXPECT_FALSE(verdict.field.pass);
  EXPECT_NEAR(verdict.field.value_deg, 45.0, 1e-12);
  level.plane = Plane::upright;
  EXPECT_NEAR(look_in(level, looker, above).field.value_deg, 45.0, 1e-12);
}

TEST(LineOfSight, CountsTheBodyPointsThatARayReaches) {
  // Eye 1.5 m up at x = 0, body 2 m high at x = 4, a wall of 1.2 m at x = 2: the ray to the feet is
  // at 0.75 there, the one to the middle at 1.25, the one to the top at 1.75.
  const Level level = level_of({box({1.9, -1}, {2.1, 1}, 1.2)});
  const Verdict verdict = look_in(level, looker_at({0, 0, 0}, 0, 9, 90), body_at({4, 0, 0}));
  EXPECT_DOUBLE_EQ(verdict.line.visible, 2.0 / 3.0);
  EXPECT_TRUE(verdict.sees);
  EXPECT_EQ(verdict.line.blocked_by, "box");
  EXPECT_NEAR(verdict.line.blocked_at.x(), 1.9, 1e-12);
  EXPECT_NEAR(verdict.line.blocked_at.z(), 1.5 - 1.5 * 1.9 / 4, 1e-12);
}

TEST(LineOfSight, NamesWhatStopsTheMiddleRay) {
  Level level = level_of({box({1, -1}, {1.1, 1}, 1.0), box({2, -1}, {2.1, 1}, 3.0)});
  level.solids[0].id = "low";
  level.solids[1].id = "high";
  const Verdict verdict = look_in(level, looker_at({0, 0, 0}, 0, 9, 90), body_at({4, 0, 0}));
  EXPECT_EQ(verdict.line.blocked_by, "high");  // the ray to the feet stops at low
  EXPECT_EQ(verdict.line.visible, 0.0);
  EXPECT_FALSE(verdict.line.pass);
}

TEST(LineOfSight, PassesWhatDoesNotStopSight) {
  Level level = level_of({box({2, -1}, {2.1, 1})});
  level.materials.push_back({"glass", StopSet(0b1110)});
  level.solids[0].material = 1;
  EXPECT_TRUE(look_in(level, looker_at({0, 0, 0}, 0, 9, 90), body_at({4, 0, 0})).sees);
}

TEST(LineOfSight, ReachesABodyThatLeansOnAWall) {
  const Level level = level_of({box({4, -1}, {5, 1})});
  EXPECT_TRUE(look_in(level, looker_at({0, 0, 0}, 0, 9, 90), body_at({4, 0, 0})).sees);
}

TEST(Look, AndCanSeeAgreeOnRandomWorlds) {
  int seen = 0;
  for (std::uint64_t seed = 1; seed <= 10; ++seed) {
    const Level level = scenes::make_scene(60, 30.0, seed);
    const World world(level);
    scenes::Random random(seed);
    const auto place = [&] { return Vector3d{random.between(0, 30), random.between(0, 30), 0}; };
    for (int i = 0; i < 300; ++i) {
      const Looker looker = looker_at(place(), random.between(-180, 180), 20.0, 120.0);
      const LookedAt other = body_at(place());
      const bool sees = can_see(world, looker, other);
      ASSERT_EQ(look(world, level, looker, other).sees, sees);
      seen += sees;
    }
  }
  EXPECT_GT(seen, 100);
  EXPECT_LT(seen, 2500);
}

Verdict verdict_of(double value, double limit, double angle, double half, double visible) {
  Verdict verdict;
  verdict.looker = "a";
  verdict.other = "b";
  verdict.range = {value, limit, value <= limit};
  verdict.field = {angle, half, angle <= half};
  verdict.line.visible = visible;
  verdict.line.pass = visible > 0.0;
  verdict.line.points = 3;
  if (visible < 1.0) verdict.line.blocked_by = "planter-1";
  verdict.sees = verdict.range.pass && verdict.field.pass && verdict.line.pass;
  return verdict;
}

TEST(Explain, SaysEachThingThatFailsAndByHowMuch) {
  EXPECT_EQ(explain(verdict_of(9.4, 12, 47.3, 30, 0)),
            "outside the field of view by 17.3 degrees; planter-1 is in the way as well");
  EXPECT_EQ(explain(verdict_of(12.5, 12, 3, 30, 1)), "out of range by 0.50 m");
  EXPECT_EQ(explain(verdict_of(12.0004, 12, 3, 30, 1)), "out of range by 0.0004 m");
  EXPECT_EQ(explain(verdict_of(9, 12, 3, 30, 0)), "planter-1 is in the way");
  EXPECT_EQ(explain(verdict_of(9.4, 12, 4.25, 30, 2.0 / 3)),
            "seen: 9.40 of 12.00 m away, 4.2 of 30.0 degrees off, 2 of 3 body points in sight, the "
            "rest behind planter-1");
}

}  // namespace
}  // namespace gaze
