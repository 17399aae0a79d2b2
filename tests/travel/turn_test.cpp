#include "travel/turn.hpp"

#include <gtest/gtest.h>

#include <cmath>

namespace gaze {
namespace {

TEST(TurnToward, TurnsByAtMostTheStepTheShortWay) {
  const SineCosine ten = sine_cosine(Angle::from_degrees(10));
  EXPECT_NEAR(angle_of(turn_toward({1, 0}, {0, 1}, ten)).degrees(), 10.0, 1e-12);
  EXPECT_NEAR(angle_of(turn_toward({1, 0}, {0, -1}, ten)).degrees(), 350.0, 1e-12);
  EXPECT_NEAR(angle_of(turn_toward({1, 0}, {-1, 0}, ten)).degrees(), 10.0, 1e-12);  // tie: left
}

TEST(TurnToward, ArrivesExactlyAndStays) {
  const SineCosine fifty = sine_cosine(Angle::from_degrees(50));
  EXPECT_EQ(turn_toward({1, 0}, {3, 3}, fifty), Vector2d(3, 3) / std::sqrt(18.0));
  EXPECT_EQ(turn_toward({0, 1}, {0, 0}, fifty), Vector2d(0, 1));
  EXPECT_EQ(turn_toward({1, 0}, {-4, 0}, sine_cosine(Angle::from_degrees(180))), Vector2d(-1, 0));
}

TEST(TurnToward, WithoutARateDoesNotTurn) {
  EXPECT_EQ(turn_toward({1, 0}, {-1, 0}, {0.0, 1.0}), Vector2d(1, 0));
  EXPECT_EQ(turn_toward({1, 0}, {0, 1}, {0.0, 1.0}), Vector2d(1, 0));
}

TEST(FlipToward, LooksRightOrLeft) {
  EXPECT_EQ(flip_toward({1, 0}, {-0.1, 9}), Vector2d(-1, 0));
  EXPECT_EQ(flip_toward({-1, 0}, {0, 9}), Vector2d(-1, 0));
}

}  // namespace
}  // namespace gaze
