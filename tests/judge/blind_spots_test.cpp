// Where something fixed can never see anybody, of all places that somebody can get to.

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::findings_of;

/// A turret that turns all round, with this eye, in a hall of 10 m with its player.
std::string hall(const std::string& plane, double turret_z, double field, const std::string& more) {
  return fmt::format(R"(
plane = "{}"
[[wall]]
id = "hall"
material = "brick"
path = [[-5, -5], [5, -5], [5, 5], [-5, 5], [-5, -5]]
height = 6.0
[kind.turret]
team = "caretakers"
radius = 0.3
height = 1.0
[kind.turret.sight]
range = 20.0
field_of_view = {}
[kind.turret.move]
gait = "fixed"
turn_rate = 90.0
[kind.collector]
team = "visitors"
[[agent]]
id = "turret"
kind = "turret"
at = [0.0, 0.0{}]
[[agent]]
id = "collector"
kind = "collector"
at = [4.0, 3.0{}]
driver = "host"
)",
                     plane, field, plane == "space" ? fmt::format(", {}", turret_z) : std::string(),
                     plane == "space" ? ", 0.0" : "") +
         more;
}

TEST(BlindSpots, OutsideOfAClosedHallDoNotCount) {
  EXPECT_TRUE(findings_of(hall("ground", 0.0, 90.0, ""), "blind-spots").empty());
  // With a pillar in it there are some, but none behind its walls.
  const std::string pillar =
      "[[block]]\nid = \"pillar\"\nmaterial = \"brick\"\nheight = 6.0\n"
      "outline = [[2, -0.5], [3, -0.5], [3, 0.5], [2, 0.5]]\n";
  const auto found = findings_of(hall("ground", 0.0, 90.0, pillar), "blind-spots");
  ASSERT_EQ(found.size(), 1U);
  EXPECT_NE(found[0].find("pillar is in the way"), std::string::npos) << found[0];
  double blind = 0.0;
  double all = 0.0;
  ASSERT_EQ(std::sscanf(found[0].c_str(), "turret can never see a collector in %lf of the %lf m2",
                        &blind, &all),
            2);
  // 48 spots across 40 m; a body of 0.3 m has its middle within 4.6 m, and as far from the pillar.
  constexpr double kStep = 40.0 / 48.0;
  int expected = 0;
  for (int a = -24; a < 24; ++a) {
    for (int b = -24; b < 24; ++b) {
      const Vector2d p{(a + 0.5) * kStep, (b + 0.5) * kStep};
      const double off_x = std::max({2.0 - p.x(), p.x() - 3.0, 0.0});
      const double off_y = std::max(std::abs(p.y()) - 0.5, 0.0);
      const bool is_in_hall = std::abs(p.x()) < 4.6 && std::abs(p.y()) < 4.6;
      if (is_in_hall && std::hypot(off_x, off_y) > 0.3) ++expected;
    }
  }
  EXPECT_NEAR(all, expected * kStep * kStep, 0.5);
  EXPECT_LT(blind, 12.0);
}

// A cone of 60 degrees that turns round sees nothing more than 30 degrees up or down.
TEST(BlindSpots, RightBelowWhatHangsInSpace) {
  const auto below = findings_of(hall("space", 4.0, 60.0, ""), "blind-spots");
  ASSERT_EQ(below.size(), 1U);
  EXPECT_NE(below[0].find("outside the field of view by"), std::string::npos) << below[0];
  // On the floor, with all round in view, there is none.
  EXPECT_TRUE(findings_of(hall("space", 0.0, 180.0, ""), "blind-spots").empty());
}

}  // namespace
}  // namespace gaze
