#include "travel/scan.hpp"

#include <gtest/gtest.h>

namespace gaze {
namespace {

Scan scan(Scan::Style style, double rate, double pause) {
  Scan result;
  result.style = style;
  result.rate = Angle::from_degrees(rate);
  result.arc = Angle::from_degrees(90.0);
  result.pause = Duration::from_seconds(pause);
  return result;
}

TEST(ScanDegrees, SweepsToAndFroWithPauses) {
  // 45 degrees in 1 s, a pause of 0.5 s, 90 in 2 s, a pause, 90 back, a pause: then from the left.
  const Scan sweep = scan(Scan::Style::sweep, 45.0, 0.5);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 0.0), 0.0);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 0.5), 22.5);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 1.25), 45.0);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 2.5), 0.0);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 3.75), -45.0);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 5.0), 0.0);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 6.25), 45.0);
  EXPECT_DOUBLE_EQ(scan_degrees(sweep, 7.5), 0.0);
}

TEST(ScanDegrees, GoesRoundAndRound) {
  const Scan round = scan(Scan::Style::round, 90.0, 1.0);  // 4 s and 1 s of pause
  EXPECT_DOUBLE_EQ(scan_degrees(round, 1.0), 90.0);
  EXPECT_DOUBLE_EQ(scan_degrees(round, 4.5), 360.0);
  EXPECT_DOUBLE_EQ(scan_degrees(round, 6.0), 90.0);
}

TEST(ScanDegrees, FollowsAList) {
  Scan list = scan(Scan::Style::list, 60.0, 1.0);
  for (const double heading : {0.0, 60.0, -30.0}) {
    list.headings.push_back(Angle::from_degrees(heading));
  }
  // At 0 for 1 s, 1 s to 60, 1 s there, 1.5 s to -30, 1 s there, 0.5 s back.
  EXPECT_DOUBLE_EQ(scan_degrees(list, 0.9), 0.0);
  EXPECT_DOUBLE_EQ(scan_degrees(list, 1.5), 30.0);
  EXPECT_DOUBLE_EQ(scan_degrees(list, 2.5), 60.0);
  EXPECT_DOUBLE_EQ(scan_degrees(list, 4.0), 0.0);
  EXPECT_DOUBLE_EQ(scan_degrees(list, 5.0), -30.0);
  EXPECT_DOUBLE_EQ(scan_degrees(list, 5.75), -15.0);
  EXPECT_DOUBLE_EQ(scan_degrees(list, 6.0 + 1.5), 30.0);
}

TEST(ScanDegrees, OfAListWithOneHeadingStaysThere) {
  Scan list = scan(Scan::Style::list, 60.0, 0.0);
  list.headings.push_back(Angle::from_degrees(25.0));
  EXPECT_DOUBLE_EQ(scan_degrees(list, 3.0), 25.0);
}

}  // namespace
}  // namespace gaze
