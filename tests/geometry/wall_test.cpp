#include "geometry/wall.hpp"

#include <gtest/gtest.h>

#include <cmath>

namespace gaze {
namespace {

using Path = std::vector<Vector2d>;

TEST(WidenPath, StraightWallIsARectangleWithFlatEnds) {
  const auto pieces = widen_path(Path{{0, 0}, {4, 0}}, 0.5);
  ASSERT_TRUE(pieces && pieces->size() == 1);
  EXPECT_EQ((*pieces)[0], (Polygon{{0, -0.25}, {4, -0.25}, {4, 0.25}, {0, 0.25}}));
}

TEST(WidenPath, RightCornerIsMitredIntoTheSquare) {
  const auto pieces = widen_path(Path{{0, 0}, {4, 0}, {4, 3}}, 0.5);
  ASSERT_TRUE(pieces && pieces->size() == 2);
  EXPECT_EQ((*pieces)[0][1], Vector2d(4.25, -0.25));
  EXPECT_EQ((*pieces)[0][2], Vector2d(3.75, 0.25));
  EXPECT_EQ((*pieces)[1][0], (*pieces)[0][1]);  // neighbours share the edge to the bit
  EXPECT_EQ((*pieces)[1][3], (*pieces)[0][2]);
}

TEST(WidenPath, AreaOfAMitredPathIsLengthTimesThickness) {
  // What the mitre adds outside it takes away inside.
  const Path path{{0, 0}, {5, 1}, {7, 6}, {3, 9}, {-2, 8}};
  double length = 0.0;
  for (std::size_t i = 0; i + 1 < path.size(); ++i) length += (path[i + 1] - path[i]).norm();
  double area = 0.0;
  const auto pieces = widen_path(path, 0.4);
  for (const Polygon& piece : *pieces) area += signed_area(piece);
  EXPECT_NEAR(area, length * 0.4, 1e-12);
}

TEST(WidenPath, ClosedPathIsMitredWhereItCloses) {
  const auto pieces = widen_path(Path{{0, 0}, {4, 0}, {4, 4}, {0, 4}, {0, 0}}, 1.0);
  ASSERT_TRUE(pieces && pieces->size() == 4);
  EXPECT_EQ((*pieces)[0][0], Vector2d(-0.5, -0.5));
  EXPECT_EQ((*pieces)[3][1], Vector2d(-0.5, -0.5));
}

TEST(WidenPath, RefusesCornersThatTheMitreWouldTurnInsideOut) {
  EXPECT_FALSE(widen_path(Path{{0, 0}, {4, 0}, {0, 0}}, 0.2));     // straight back
  EXPECT_FALSE(widen_path(Path{{0, 0}, {1, 0}, {0, 0.02}}, 0.5));  // too sharp
  EXPECT_TRUE(widen_path(Path{{0, 0}, {1, 0}, {0, 0.5}}, 0.1));
}

}  // namespace
}  // namespace gaze
