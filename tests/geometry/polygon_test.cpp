#include "geometry/polygon.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"

namespace gaze {
namespace {

using What = OutlineFault::What;

What fault_of(const std::vector<Vector2d>& outline) {
  const auto fault = find_outline_fault(outline);
  EXPECT_TRUE(fault.has_value());
  return fault ? fault->what : What::no_area;
}

TEST(OutlineFault, NamesWhatIsWrong) {
  EXPECT_EQ(fault_of({{0, 0}, {1, 0}}), What::too_few_points);
  EXPECT_EQ(fault_of({{0, 0}, {1, 0}, {1, 0}, {0, 1}}), What::repeated_point);
  EXPECT_EQ(fault_of({{0, 0}, {1, 1}, {1, 0}, {0, 1}}), What::crosses_itself);
  EXPECT_EQ(fault_of({{0, 0}, {2, 0}, {2, 2}, {1, 0}, {0, 2}}), What::crosses_itself);  // touches
  EXPECT_EQ(fault_of({{0, 0}, {2, 0}, {1, 0}}), What::crosses_itself);  // folds back
  EXPECT_FALSE(find_outline_fault(std::vector<Vector2d>{{0, 0}, {1, 0}, {2, 0}, {1, 1}}));
}

// A star-shaped outline of random reaches never crosses itself.
std::vector<Vector2d> star(scenes::Random& random, int corners) {
  std::vector<Vector2d> outline;
  for (int i = 0; i < corners; ++i) {
    const double angle = 2 * M_PI * (i + random.between(0.0, 0.8)) / corners;
    const double reach = random.between(0.3, 3.0);
    outline.emplace_back(reach * std::cos(angle), reach * std::sin(angle));
  }
  return outline;
}

TEST(ConvexPieces, AreConvexAndMakeUpTheWhole) {
  scenes::Random random(5);
  for (int round = 0; round < 300; ++round) {
    std::vector<Vector2d> outline = star(random, 3 + round % 20);
    ASSERT_FALSE(find_outline_fault(outline));
    if (round % 2 == 1) std::reverse(outline.begin(), outline.end());
    double sum = 0.0;
    for (const Polygon& piece : convex_pieces(outline)) {
      sum += signed_area(piece);
      for (std::size_t i = 0; i < piece.size(); ++i) {
        const Vector2d a = piece[(i + 1) % piece.size()] - piece[i];
        const Vector2d b = piece[(i + 2) % piece.size()] - piece[(i + 1) % piece.size()];
        ASSERT_GE(a.x() * b.y() - a.y() * b.x(), 0.0);
      }
    }
    ASSERT_NEAR(sum, std::abs(signed_area(outline)), 1e-11);
  }
}

TEST(ConvexPieces, MergeWhatNeedNotBeApart) {
  const std::vector<Vector2d> l{{0, 0}, {2, 0}, {2, 1}, {1, 1}, {1, 2}, {0, 2}};
  EXPECT_EQ(convex_pieces(l).size(), 2U);
  const std::vector<Vector2d> square{{0, 0}, {0, 1}, {1, 1}, {1, 0}};
  EXPECT_EQ(convex_pieces(square).size(), 1U);
  EXPECT_GT(signed_area(convex_pieces(square)[0]), 0.0);
}

TEST(ConvexPieces, OfTheLargestOutlineAllowedComeSoon) {
  std::vector<Vector2d> comb;  // the worst for cutting ears: every second corner turns inward
  for (int i = 0; i < 249; ++i) {
    comb.emplace_back(i, 0.0);
    comb.emplace_back(i + 0.5, i % 2 == 0 ? 0.2 : 3.0);
  }
  comb.emplace_back(250.0, 10.0);
  comb.emplace_back(0.0, 10.0);
  ASSERT_EQ(comb.size(), ReadLimits::outline_points);
  double sum = 0.0;
  for (const Polygon& piece : convex_pieces(comb)) sum += signed_area(piece);
  EXPECT_NEAR(sum, std::abs(signed_area(comb)), 1e-9);
}

}  // namespace
}  // namespace gaze
