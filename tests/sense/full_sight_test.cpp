// Sight beyond range, field and one ray: up and down, eye, near ring, share, measure, evidence.

#include <gtest/gtest.h>

#include <cmath>

#include "gaze/change.hpp"
#include "gaze/sight.hpp"
#include "support/levels.hpp"
#include "support/sights.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;
using testing::someone;
using testing::watcher;

Verdict look_at_body(const Level& level, const Looker& from, const LookedAt& at) {
  const World world(level);
  const Verdict verdict = look(world, level, from, at);
  EXPECT_EQ(verdict.sees, can_see(world, from, at));
  return verdict;
}

TEST(VerticalField, IsComparedApartFromTheOneAcross) {
  Looker from = watcher();
  from.sight.vertical_field_of_view = Angle::from_degrees(60.0);
  // 3 m ahead, the middle sqrt(3) m above the eye: 30 degrees up, exactly half the opening.
  const double rise = std::sqrt(3.0);
  EXPECT_TRUE(look_at_body({}, from, someone({3, 0, rise - 1e-9})).vertical->pass);
  const Verdict above = look_at_body({}, from, someone({3, 0, rise + 0.01}));
  EXPECT_FALSE(above.vertical->pass);
  EXPECT_FALSE(above.sees);
  EXPECT_TRUE(above.field.pass);
  EXPECT_NEAR(look_at_body({}, from, someone({3, 0, rise})).vertical->value_deg, 30.0, 1e-9);
  EXPECT_FALSE(
      look_at_body({}, from, someone({3, 0, -rise - 0.01})).vertical->pass);  // below as well
}

TEST(VerticalField, MakesABlindSpotOfWhoStandsOnTop) {
  Looker from = watcher(360.0);
  from.sight.vertical_field_of_view = Angle::from_degrees(100.0);
  const Verdict on_top = look_at_body({}, from, someone({0, 0, 1}));
  EXPECT_NEAR(on_top.vertical->value_deg, 90.0, 1e-12);
  EXPECT_FALSE(on_top.sees);
}

TEST(VerticalField, InSpaceReplacesTheCone) {
  Level level;
  level.plane = Plane::space;
  Looker from = watcher(90.0);
  const LookedAt corner = someone({3, 2.5, 2.5});  // 39.8 degrees across, 32.6 up, 49.7 in the cone
  EXPECT_FALSE(look_at_body(level, from, corner).field.pass);
  from.sight.vertical_field_of_view = Angle::from_degrees(90.0);
  EXPECT_TRUE(look_at_body(level, from, corner).sees);
}

TEST(VerticalField, MeansNothingSeenFromTheSide) {
  Level level;
  level.plane = Plane::upright;
  Looker from = watcher(170.0);
  from.sight.vertical_field_of_view = Angle::from_degrees(1.0);
  EXPECT_FALSE(look_at_body(level, from, someone({3, 0, 3})).vertical.has_value());
}

TEST(Eye, TurnsWithTheFacing) {
  Looker from = watcher();
  from.sight.eye = {0.5, 0.25, 1.0};
  EXPECT_EQ(eye_of(Plane::ground, from), Vector3d(0.5, 0.25, 1.0));
  from.facing = {0, 1};
  EXPECT_EQ(eye_of(Plane::ground, from), Vector3d(-0.25, 0.5, 1.0));
}

TEST(NearRing, SeesBehindWithinItAlone) {
  Looker from = watcher();
  from.sight.near_ring = 1.5;
  EXPECT_TRUE(look_at_body({}, from, someone({-1.5, 0, 0})).sees);
  EXPECT_TRUE(look_at_body({}, from, someone({-1.5, 0, 0})).field.is_near);
  EXPECT_FALSE(look_at_body({}, from, someone({-1.5001, 0, 0})).sees);
}

TEST(VisibleAtLeast, IsAShareOfTheBodyPoints) {
  // A wall at half way, 1.2 m high, the eye at 1: the rays end at 0, 1 and 2 m, at half way at 0.5,
  // 1 and 1.5: one of three arrives.
  const Level level = level_of({box({1.9, -1}, {2.1, 1}, 1.2)});
  Looker from = watcher();
  from.sight.visible_at_least = 1.0 / 3.0;
  EXPECT_TRUE(look_at_body(level, from, someone({4, 0, 0})).sees);
  from.sight.visible_at_least = 0.34;
  const Verdict verdict = look_at_body(level, from, someone({4, 0, 0}));
  EXPECT_FALSE(verdict.line.pass);
  EXPECT_EQ(explain(verdict), "only 33 % of it is in sight of 34 % needed, the rest behind box");
}

TEST(Measure, ToTheSurfaceTakesTheRadiusOff) {
  Looker from = watcher();
  from.sight.measure = Measure::surface;
  EXPECT_TRUE(look_at_body({}, from, someone({10.5, 0, 0})).sees);
  EXPECT_FALSE(look_at_body({}, from, someone({10.501, 0, 0})).sees);
  EXPECT_EQ(look_at_body({}, from, someone({10.5, 0, 0})).range.value, 10.0);
  EXPECT_EQ(look_at_body({}, from, someone({0.25, 0, 0})).range.value, 0.0);  // never below
}

TEST(Evidence, IsTheProductOfItsParts) {
  const Level level = level_of({box({1.9, -1}, {2.1, 1}, 1.2)});
  Looker from = watcher();
  from.sight.fade_from = 0.5;  // from 5 m to 10 m
  LookedAt other = someone({4, 0, 0});
  other.visibility = 0.5;
  other.dimness = 0.25;
  const World world(level);
  EXPECT_NEAR(evidence_rate(world, from, other), 0.5 * (1.0 / 3.0) * 1.0 * 0.75, 1e-15);
  other.feet = {8, 0, 0};  // 2 of 5 m before the end
  const World open{Level{}};
  EXPECT_NEAR(evidence_rate(open, from, other), 0.5 * 1.0 * 0.4 * 0.75, 1e-15);
  EXPECT_NEAR(look(open, {}, from, other).evidence.fade, 0.4, 1e-15);
}

}  // namespace
}  // namespace gaze
