#include "gaze/feeling.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;

Feeler feeler(double length = 5.0, double thickness = 0.0) {
  Feeler result;
  result.from = {0.5, 0.0, 1.0};
  result.length = length;
  result.thickness = thickness;
  return result;
}

TEST(Feel, MeetsTheFirstOfSolidsBodiesAndGround) {
  const World world(level_of({box({4, -1}, {5, 1})}));
  const Vector3d feet{0, 0, 0};
  const std::vector<Cylinder> far{{{6, 0, 0}, 0.3, 2.0}};
  const std::vector<Cylinder> near{{{9, 0, 0}, 0.3, 2.0}, {{2, 0, 0}, 0.5, 2.0}};
  EXPECT_NEAR(feel(world, 0.0, feeler(), feet, {1, 0}, far).distance.value(), 3.5, 1e-12);
  const Felt body = feel(world, 0.0, feeler(), feet, {1, 0}, near);
  EXPECT_NEAR(body.distance.value(), 1.0, 1e-12);  // 2 - 0.5 - 0.5
  EXPECT_EQ(body.body, 1U);
  EXPECT_FALSE(feel(world, 0.0, feeler(), feet, {-1, 0}, near).distance);
  Feeler down = feeler();
  down.tilt = Angle::from_degrees(-30.0);  // 1 m down along 2 m
  EXPECT_NEAR(feel(world, 0.0, down, feet, {0, 1}, {}).distance.value(), 2.0, 1e-12);
  EXPECT_FALSE(feel(world, std::nullopt, down, feet, {0, 1}, {}).distance);
}

TEST(Feel, AThickOneMeetsWhatAThinOnePasses) {
  const World world{Level{}};
  const std::vector<Cylinder> beside{{{3, 0.6, 0}, 0.5, 2.0}};
  EXPECT_FALSE(feel(world, 0.0, feeler(), {0, 0, 0}, {1, 0}, beside).distance);
  const auto felt = feel(world, 0.0, feeler(5.0, 0.6), {0, 0, 0}, {1, 0}, beside);
  // Balls of 0.3 and 0.5 meet at 0.8: sqrt(0.64 - 0.36) before x = 3, less the start at 0.5.
  EXPECT_NEAR(felt.distance.value(), 2.5 - std::sqrt(0.28), 1e-9);
}

TEST(Feel, TurnsWithTheBodyAndIsMirroredSeenFromTheSide) {
  Feeler up = feeler();
  up.from = {0, 0, 1};
  up.tilt = Angle::from_degrees(90.0);
  EXPECT_NEAR(feeler_path(Plane::ground, up, {0, 0, 0}, {0, 1}).path.to.z(), 6.0, 1e-12);
  Feeler slanted = feeler(2.0);
  slanted.from = {0, 0, 0};
  slanted.tilt = Angle::from_degrees(30.0);
  const Vector3d right = feeler_path(Plane::upright, slanted, {0, 0, 0}, {1, 0}).path.to;
  const Vector3d left = feeler_path(Plane::upright, slanted, {0, 0, 0}, {-1, 0}).path.to;
  EXPECT_NEAR(right.z(), 1.0, 1e-12);
  EXPECT_NEAR(left.z(), 1.0, 1e-12);
  EXPECT_NEAR(left.x(), -right.x(), 1e-12);
  Feeler turned = feeler(2.0);
  turned.from = {0, 0, 0};
  turned.toward = Angle::from_degrees(90.0);
  EXPECT_NEAR(feeler_path(Plane::ground, turned, {0, 0, 0}, {0, 1}).path.to.x(), -2.0, 1e-12);
}

TEST(Feel, ManyAnswersAreThoseOneByOne) {
  const World world(level_of({box({4, -1}, {5, 1})}));
  const std::vector<Cylinder> bodies{{{2, 2, 0}, 0.5, 2.0}};
  std::vector<FeelerQuestion> questions;
  for (int i = 0; i < 36; ++i) {
    const SineCosine way = sine_cosine(Angle::from_degrees(10.0 * i));
    questions.push_back({feeler(), {0, 0, 0}, {way.cosine, way.sine}});
  }
  std::vector<Felt> felt(questions.size());
  feel(world, 0.0, questions, bodies, felt);
  int met = 0;
  for (std::size_t i = 0; i < questions.size(); ++i) {
    const FeelerQuestion& q = questions[i];
    EXPECT_EQ(feel(world, 0.0, q.feeler, q.feet, q.facing, bodies).distance, felt[i].distance);
    met += felt[i].distance.has_value();
  }
  EXPECT_GT(met, 3);
}

TEST(DistanceAlong, CountsTheAxesThatAreAskedFor) {
  EXPECT_EQ(distance_along({true, true, true}, {0, 0, 0}, {2, 3, 6}), 7.0);
  EXPECT_EQ(distance_along({true, false, false}, {0, 0, 0}, {2, 3, 6}), 2.0);
  EXPECT_EQ(distance_along({false, true, false}, {0, 4, 0}, {2, 3, 6}), 1.0);
}

TEST(TouchedSide, IsAboutTheFacing) {
  const Cylinder body{{0, 0, 0}, 0.5, 1.0};
  const auto side = [&](const Vector3d& feet) {
    return touched_side(Plane::ground, body, {0, 1}, {feet, 0.5, 1.0});
  };
  EXPECT_EQ(side({0, 0.9, 0}), Side::front);
  EXPECT_EQ(side({0, -0.9, 0}), Side::back);
  EXPECT_EQ(side({-0.9, 0, 0}), Side::left);
  EXPECT_EQ(side({0.9, 0.2, 0}), Side::right);
  EXPECT_EQ(side({0.6, 0.6, 0}), Side::front);  // on the border
  EXPECT_EQ(side({0, 0, 0}), Side::front);
  EXPECT_EQ(side({0, 1.0, 0}), Side::front);  // just touching
  EXPECT_FALSE(side({0, 1.001, 0}));
  EXPECT_EQ(side({0.2, 0, 0.9}), Side::top);
  EXPECT_EQ(side({0.2, 0, -0.9}), Side::bottom);
  EXPECT_FALSE(side({0.2, 0, 1.1}));
}

}  // namespace
}  // namespace gaze
