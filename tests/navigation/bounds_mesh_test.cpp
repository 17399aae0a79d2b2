// Paths and meshes end at the bounds of a level.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "gaze/navigation.hpp"
#include "gaze/path.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

// A star of five to nine corners about the origin, convex or not, in either order.
// With deep notches every other corner lies near the origin.
std::vector<Vector2d> random_outline(Choices& choices, bool has_notches = false) {
  const std::uint32_t count = has_notches ? 10 : 5 + choices.below(5);
  std::vector<Vector2d> outline;
  for (std::uint32_t i = 0; i < count; ++i) {
    const double angle = 2.0 * M_PI * i / count;
    const bool is_near = has_notches && i % 2 == 1;
    const double radius = is_near ? choices.between(3.0, 5.0) : choices.between(6.0, 20.0);
    outline.emplace_back(std::round(radius * std::cos(angle) * 100.0) / 100.0,
                         std::round(radius * std::sin(angle) * 100.0) / 100.0);
  }
  if (choices.one_in(2)) std::reverse(outline.begin(), outline.end());
  return outline;
}

// Winding number of the outline about the point: a different method from the library's.
bool is_inside(const std::vector<Vector2d>& outline, const Vector2d& p) {
  double turns = 0.0;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d a = outline[i] - p;
    const Vector2d b = outline[(i + 1) % outline.size()] - p;
    turns += std::atan2(a.x() * b.y() - a.y() * b.x(), a.dot(b));
  }
  return std::abs(turns) > M_PI;
}

std::string text_of(const std::vector<Vector2d>& outline) {
  std::string text;
  for (const Vector2d& p : outline) text += fmt::format("[{}, {}], ", p.x(), p.y());
  return "[" + text + "]";
}

TEST(BoundsMesh, NoPathLeavesTheBounds) {
  std::int64_t whole = 0;
  std::int64_t bent = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(120); ++seed) {
    Choices choices(seed);
    Level level;
    level.plane = choices.one_in(2) ? Plane::ground : Plane::space;
    level.bounds.emplace();
    level.bounds->outline = random_outline(choices);
    for (int i = 0; i < 4; ++i) {
      const Vector2d low{choices.between(-12, 8), choices.between(-12, 8)};
      level.solids.push_back(testing::box(low, low + Vector2d{choices.between(0.5, 6), 0.5}));
    }
    const NavigationMesh mesh(level, World(level), BodySize());
    for (int i = 0; i < 20; ++i) {
      const Vector3d from{choices.between(-10, 10), choices.between(-10, 10), 0.0};
      const Vector3d to{choices.between(-10, 10), choices.between(-10, 10), 0.0};
      const Path path = find_path(mesh, from, to);
      if (path.outcome != Path::Outcome::whole) continue;
      ++whole;
      bent += path.points.size() > 2;
      for (std::size_t k = 1; k + 1 < path.points.size(); ++k) {
        for (int part = 0; part <= 8; ++part) {
          const Vector3d at =
              path.points[k - 1] + (path.points[k] - path.points[k - 1]) * (part / 8.0);
          const bool is_given = (at - from).norm() < 0.03 || (at - to).norm() < 0.03;
          ASSERT_TRUE(is_given || is_inside(level.bounds->outline, {at.x(), at.y()}))
              << "seed " << seed << " at " << at.transpose();
        }
      }
    }
  }
  EXPECT_GT(whole, testing::enough(500));
  EXPECT_GT(bent, testing::enough(100));
}

double area_of(const std::vector<Vector2d>& outline) {
  double twice = 0.0;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d& a = outline[i];
    const Vector2d& b = outline[(i + 1) % outline.size()];
    twice += a.x() * b.y() - a.y() * b.x();
  }
  return std::abs(twice) / 2.0;
}

double length_round(const std::vector<Vector2d>& outline) {
  double length = 0.0;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    length += (outline[(i + 1) % outline.size()] - outline[i]).norm();
  }
  return length;
}

// How far a point lies from the outline.
double distance_to(const std::vector<Vector2d>& outline, const Vector2d& p) {
  double least = 1e9;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d along = outline[(i + 1) % outline.size()] - outline[i];
    const double share = std::clamp((p - outline[i]).dot(along) / along.squaredNorm(), 0.0, 1.0);
    least = std::min(least, (p - outline[i] - along * share).norm());
  }
  return least;
}

// Bounds without solids are one island, however they are notched: all of their area but a strip of
// half a millimetre along the rim, and a whole path between any two places of it.
TEST(BoundsMesh, WithoutSolidsIsOneIsland) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(400); ++seed) {
    Choices choices(seed);
    Level level;
    level.plane = choices.of<Plane>({Plane::ground, Plane::space, Plane::upright});
    level.bounds.emplace();
    const std::vector<Vector2d> outline = level.bounds->outline = random_outline(choices);
    BodySize body;
    const bool is_upright = level.plane == Plane::upright;
    if (is_upright || choices.one_in(2)) body.altitude = 1.0;
    if (is_upright) level.ground_height.reset();
    const NavigationMesh mesh(level, World(level), body);
    EXPECT_EQ(mesh.islands().size(), 1U) << "seed " << seed;
    const double rim = 0.0005 * length_round(outline);
    EXPECT_NEAR(mesh.area(), area_of(outline) - rim, rim) << "seed " << seed;
    const auto place = [&] {
      Vector2d p;
      do {
        p = {choices.between(-20, 20), choices.between(-20, 20)};
      } while (!is_inside(outline, p) || distance_to(outline, p) < 0.01);
      return is_upright ? Vector3d{p.x(), 0.0, p.y()}
                        : Vector3d{p.x(), p.y(), body.altitude.value_or(0.0)};
    };
    for (int i = 0; i < 10; ++i) {
      const Vector3d from = place();
      const Vector3d to = place();
      EXPECT_EQ(find_path(mesh, from, to).outcome, Path::Outcome::whole)
          << "seed " << seed << " from " << from.transpose() << " to " << to.transpose();
    }
  }
}

// Of a level line, what lies within the bounds in side view: the strips between its crossings.
TEST(BoundsMesh, LedgesOfSideViewAreCutWhereTheyCrossAnyOutline) {
  std::int64_t cut = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(400); ++seed) {
    Choices choices(seed);
    Level level;
    level.plane = Plane::upright;
    level.ground_height = std::round(choices.between(-8, 8));
    level.bounds.emplace();
    const std::vector<Vector2d> outline = level.bounds->outline = random_outline(choices, true);
    const NavigationMesh mesh(level, World(level), BodySize());
    std::int64_t inside = 0;
    int strips = 0;
    constexpr int kSteps = 20000;
    for (int i = 0, was_inside = 0; i < kSteps; ++i) {
      const double x = -20.0 + (i + 0.5) * 40.0 / kSteps;
      const bool now = is_inside(outline, {x, *level.ground_height});
      strips += now && was_inside == 0;
      inside += now;
      was_inside = now;
    }
    EXPECT_NEAR(mesh.area(), static_cast<double>(inside) * 40.0 / kSteps, 0.02) << "seed " << seed;
    cut += strips > 1;
  }
  EXPECT_GT(cut, testing::enough(10));
}

// A court with two arms: the way from one to the other leads round.
TEST(BoundsMesh, ACourtWithTwoArmsIsOneIsland) {
  Level level;
  level.bounds.emplace();
  level.bounds->outline = {{-12, -8}, {12, -8}, {12, 8}, {4, 8},
                           {4, 3},    {-4, 3},  {-4, 8}, {-12, 8}};
  const NavigationMesh mesh(level, World(level), BodySize());
  EXPECT_EQ(mesh.islands().size(), 1U);
  const Path path = find_path(mesh, {-8, 6, 0}, {8, 6, 0});
  EXPECT_EQ(path.outcome, Path::Outcome::whole);
  EXPECT_NEAR(path.length, 8.0 + 2.0 * 5.0, 0.01);  // two legs of 4 across and 3 down: 3, 4, 5
}

TEST(BoundsMesh, ChasersDoNotLeaveTheBounds) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(60); ++seed) {
    Choices choices(seed);
    const std::vector<Vector2d> outline = random_outline(choices);
    const bool hovers = choices.one_in(3);
    std::string text = "[bounds]\noutline = " + text_of(outline) + "\n" +
                       testing::wall("hedge", "[[0.0, -25.0], [0.0, 3.0]]") +
                       "[kind.pruner]\nteam = \"caretakers\"\nradius = 0.3\nsolid_to = []\n"
                       "nearness.range = 60\nmove = { speed = 4.0 }\nwhen.near = \"chase\"\n"
                       "[kind.guest]\nteam = \"visitors\"\nsolid_to = []\n";
    if (hovers) text.insert(text.find("speed = 4.0"), "gait = \"hover\", ");
    int count = 0;
    for (int i = 0; i < 12; ++i) {
      const Vector2d at{choices.between(-10, 10), choices.between(-10, 10)};
      if (!is_inside(outline, at) || std::abs(at.x()) < 0.5) continue;
      text += placed(fmt::format("pruner-{}", count++), "pruner",
                     fmt::format("[{}, {}]", at.x(), at.y()));
    }
    text += placed("guest", "guest", "[4.0, 0.0]", "driver = \"host\"");
    const int rate = choices.of<int>({20, 60, 120});
    Simulation simulation(garden(text, {{"ticks_per_second", std::to_string(rate)}}));
    EXPECT_EQ(only(play(simulation, 12 * rate), Event::What::left).size(), 0U) << "seed " << seed;
  }
}

TEST(BoundsMesh, LedgesEndAtTheBoundsInSideView) {
  Level level;
  level.plane = Plane::upright;
  level.ground_height = 0.0;
  level.bounds.emplace();
  level.bounds->outline = {{-5, -1}, {7, -1}, {7, 9}, {-5, 9}};
  const NavigationMesh mesh(level, World(level), BodySize());
  EXPECT_NEAR(mesh.area(), 12.0 - 0.001,
              1e-3);  // a strip 1 m deep, half a millimetre less each end
  EXPECT_TRUE(mesh.find({6.9, 0, 0}));
  EXPECT_FALSE(mesh.find({7.1, 0, 0}));
  level.bounds->low = 0.5;  // the ground lies below the lowest height
  EXPECT_EQ(NavigationMesh(level, World(level), BodySize()).area(), 0.0);
}

}  // namespace
}  // namespace gaze
