#include <gtest/gtest.h>

#include <cmath>

#include "gaze/geometry.hpp"

namespace gaze {
namespace {

TEST(SineCosine, AgreesWithTheMathLibraryEverywhere) {
  for (int i = -72000; i <= 72000; ++i) {
    const double degrees = i * 0.01 + 0.003;
    const SineCosine own = sine_cosine(Angle::from_degrees(degrees));
    const double radians = std::fmod(degrees, 360.0) * (M_PI / 180.0);
    ASSERT_NEAR(own.sine, std::sin(radians), 3e-16 * 4) << degrees;
    ASSERT_NEAR(own.cosine, std::cos(radians), 3e-16 * 4) << degrees;
  }
}

TEST(SineCosine, IsExactAtQuartersAndEqualAtEighths) {
  const double sines[] = {0, 1, 0, -1};
  for (int quarter = -8; quarter <= 8; ++quarter) {
    const SineCosine own = sine_cosine(Angle::from_degrees(90.0 * quarter));
    EXPECT_EQ(own.sine, sines[((quarter % 4) + 4) % 4]);
    EXPECT_EQ(own.cosine, sines[((quarter + 1) % 4 + 4) % 4]);
  }
  const SineCosine eighth = sine_cosine(Angle::from_degrees(45.0));
  EXPECT_EQ(eighth.sine, eighth.cosine);
  EXPECT_EQ(sine_cosine(Angle::from_degrees(315.0)).sine, -eighth.sine);
}

TEST(SineCosine, OfWhatIsNotFiniteIsNotANumber) {
  EXPECT_TRUE(std::isnan(sine_cosine(Angle::from_degrees(INFINITY)).sine));
  EXPECT_TRUE(std::isnan(sine_cosine(Angle::from_degrees(NAN)).cosine));
}

TEST(AngleOf, TurnsBackWhatSineAndCosineMade) {
  for (int i = 0; i < 36000; ++i) {
    const double degrees = i * 0.01;
    const SineCosine way = sine_cosine(Angle::from_degrees(degrees));
    const double back = angle_of({3.0 * way.cosine, 3.0 * way.sine}).degrees();
    ASSERT_NEAR(std::remainder(back - degrees, 360.0), 0.0, 1e-13) << degrees;
    ASSERT_GE(back, 0.0);
    ASSERT_LT(back, 360.0);
  }
}

TEST(AngleOf, AxesAreExactAndZeroIsZero) {
  EXPECT_EQ(angle_of({2, 0}).degrees(), 0.0);
  EXPECT_EQ(angle_of({0, 2}).degrees(), 90.0);
  EXPECT_EQ(angle_of({-2, 0}).degrees(), 180.0);
  EXPECT_EQ(angle_of({0, -2}).degrees(), 270.0);
  EXPECT_EQ(angle_of({0, 0}).degrees(), 0.0);
  EXPECT_EQ(angle_of({1, -1e-300}).degrees(), 0.0);  // 360 would not be below 360
}

TEST(AngleBetween, KnowsRightAnglesAndTheDiagonalOfACube) {
  EXPECT_NEAR(angle_between({1, 0, 0}, {0, 0, 5}).degrees(), 90.0, 1e-13);
  EXPECT_NEAR(angle_between({1, 1, 1}, {1, 0, 0}).degrees(),
              std::acos(1 / std::sqrt(3.0)) * 180 / M_PI, 1e-13);
  EXPECT_EQ(angle_between({1, 0, 0}, {-2, 0, 0}).degrees(), 180.0);
  EXPECT_EQ(angle_between({0, 0, 0}, {1, 0, 0}).degrees(), 0.0);
}

TEST(Ray, IsASegmentOfItsLength) {
  const Segment segment = Ray{{1, 2, 3}, {0, 4, 3}, 10.0}.segment();
  EXPECT_EQ(segment.to, Vector3d(1, 10, 9));
  EXPECT_EQ((Ray{{1, 2, 3}, {0, 0, 0}, 10.0}.segment().to), Vector3d(1, 2, 3));
}

}  // namespace
}  // namespace gaze
