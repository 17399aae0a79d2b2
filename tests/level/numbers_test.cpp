// How text shows numbers.

#include "level/numbers.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

TEST(NumberText, IsToAHundredthWithoutZerosBehind) {
  EXPECT_EQ(number_text(30.0), "30");
  EXPECT_EQ(number_text(3.51561), "3.52");
  EXPECT_EQ(number_text(76.5), "76.5");
  EXPECT_EQ(number_text(100.0), "100");
  EXPECT_EQ(number_text(0.0), "0");
  EXPECT_EQ(number_text(0.0042), "0.0042");  // who lives has not 0 left
  EXPECT_EQ(number_text(0.016), "0.016");
  EXPECT_EQ(number_text(-1.4999), "-1.5");
}

TEST(BesideLimit, ShowsByHowMuchALimitIsMissed) {
  EXPECT_EQ(beside_limit(4.25, 9.0, " m", 3), "4.250 m, at most 9.000");
  EXPECT_EQ(beside_limit(9.0, 9.0, " m", 3), "9.000 m, at most 9.000");
  EXPECT_EQ(beside_limit(9.00002, 9.0, " m", 3), "9.00002 m, at most 9.00000");
}

}  // namespace
}  // namespace gaze
