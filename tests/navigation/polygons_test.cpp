// Meshes from a host's own polygons, and the follower for its own mover.

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <iterator>
#include <set>
#include <utility>
#include <vector>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using Corners = std::vector<Vector3d>;

BodySize body() {
  BodySize body;
  body.radius = 0.3;
  body.height = 1.8;
  body.step_height = 0.3;
  return body;
}

Corners square(double x, double y, double side, double z) {
  return {{x, y, z}, {x + side, y, z}, {x + side, y + side, z}, {x, y + side, z}};
}

// An L of three squares of 4 m: round its corner at (4, 4) from one end to the other.
TEST(PolygonMesh, LeadsRoundACornerByTheShortestWay) {
  const std::vector<Corners> squares{square(0, 0, 4, 0), square(4, 0, 4, 0), square(0, 4, 4, 0)};
  const NavigationMesh mesh(squares, body());
  EXPECT_NEAR(mesh.area(), 48.0, 1e-6);
  EXPECT_EQ(mesh.islands().size(), 1U);
  const Path path = find_path(mesh, {7, 1, 0}, {1, 7, 0});
  EXPECT_EQ(path.outcome, Path::Outcome::whole);
  EXPECT_NEAR(path.length, 6.0 * std::sqrt(2.0), 1e-3);  // straight, just past the corner
  EXPECT_NEAR(find_path(mesh, {7, 3, 0}, {3, 7, 0}).length, 2.0 * std::hypot(3.0, 1.0), 1e-3);
}

// Two floors with a ramp between: the way is level length; the floor above is another place.
TEST(PolygonMesh, JoinsSlopesAndTellsFloorsApart) {
  const Corners ramp{{4, 0, 0}, {8, 0, 2}, {8, 4, 2}, {4, 4, 0}};
  const std::vector<Corners> floors{square(0, 0, 4, 0), ramp, square(8, 0, 4, 2),
                                    square(0, 0, 4, 5)};
  BodySize climber = body();
  climber.slope = Angle::from_degrees(40.0);
  const NavigationMesh mesh(floors, climber);
  EXPECT_EQ(mesh.islands().size(), 2U);
  const Path path = find_path(mesh, {1, 2, 0}, {11, 2, 2});
  EXPECT_EQ(path.outcome, Path::Outcome::whole);
  EXPECT_NEAR(path.length, 10.0, 1e-3);
  EXPECT_EQ(find_path(mesh, {1, 2, 0}, {1, 2, 5}).outcome, Path::Outcome::none);
  EXPECT_EQ(find_path(mesh, {11, 2, 2}, {1, 2, 5}).outcome, Path::Outcome::partial);
  // Without the one in between there is a step of 2 m.
  const NavigationMesh apart(std::vector<Corners>{floors[0], floors[2]}, climber);
  EXPECT_EQ(apart.islands().size(), 2U);
}

// The polygons of a mesh of ours, given back one by one, give ways as long.
TEST(PolygonMesh, OfTheTilesOfAnotherGivesTheSameWays) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(15); ++seed) {
    Level level = scenes::make_scene(14, 16.0, seed);
    complete(level);
    const NavigationMesh own(level, World(level), body());
    std::vector<Corners> tiles;
    for (std::size_t i = 0; i < own.polygon_count(); ++i) tiles.push_back(own.polygon(i).corners);
    if (seed % 2 == 0) {
      for (Corners& tile : tiles) std::reverse(tile.begin(), tile.end());
    }
    const NavigationMesh theirs(tiles, body());
    EXPECT_NEAR(theirs.area(), own.area(), 0.01) << seed;
    scenes::Random random(seed);
    for (int i = 0; i < 30; ++i) {
      const Vector3d from{random.between(0.0, 16.0), random.between(0.0, 16.0), 0.0};
      const Vector3d to{random.between(0.0, 16.0), random.between(0.0, 16.0), 0.0};
      const Path a = find_path(own, from, to);
      const Path b = find_path(theirs, from, to);
      if (a.outcome != Path::Outcome::whole) continue;
      EXPECT_EQ(b.outcome, Path::Outcome::whole) << seed;
      EXPECT_NEAR(a.length, b.length, 0.01) << seed;
    }
  }
}

TEST(PolygonMesh, RefusesWhatIsNoPolygon) {
  const auto reason = [](const Corners& corners) -> std::string {
    try {
      static_cast<void>(NavigationMesh(std::vector<Corners>{corners}, body()));
    } catch (const UsageError& error) {
      return error.what();
    }
    return "";
  };
  EXPECT_EQ(reason({{0, 0, 0}, {1, 0, 0}}), "polygon 0 has 2 corners");
  EXPECT_EQ(reason({{0, 0, 0}, {1, 0, 0}, {2, 0, 0}}), "polygon 0 has no area in the plan");
  EXPECT_EQ(reason({{0, 0, 0}, {4, 0, 0}, {1, 1, 0}, {0, 4, 0}}),
            "polygon 0 is not convex at corner 2");
  EXPECT_EQ(reason({{0, 0, 0}, {4, 0, 0}, {4, 4, 0}, {0, 4, 1}}),
            "polygon 0 is not flat: corner 3 lies 1.000 m off its plane; up to 0.01 m is allowed");
  EXPECT_NE(reason({{0, 0, 0}, {1, 0, 0}, {1, std::nan(""), 0}}), "");
  const NavigationMesh empty(std::vector<Corners>{}, body());
  EXPECT_EQ(empty.polygon_count(), 0U);
  EXPECT_EQ(find_path(empty, {0, 0, 0}, {1, 1, 0}).outcome, Path::Outcome::bad_start);
}

// A mover of a host's own that walks 5 cm a frame gets there, as far as the path is long.
TEST(Follower, LeadsToTheEndOfThePath) {
  const std::vector<Corners> squares{square(0, 0, 4, 0), square(4, 0, 4, 0), square(0, 4, 4, 0)};
  const NavigationMesh mesh(squares, body());
  Vector3d at{7, 3, 0};
  const Path path = find_path(mesh, at, {3, 7, 0});
  PathFollower follower(path);
  EXPECT_NEAR(follower.left(at), path.length, 1e-9);
  double walked = 0.0;
  while (const auto next = follower.next(mesh, at)) {
    ASSERT_LT(walked, 20.0);
    EXPECT_FALSE(follower.has_strayed(mesh, at));
    EXPECT_FALSE(follower.link());
    const Vector3d way = *next - at;
    const double step = std::min(0.05, way.norm());
    at += way * (step / way.norm());
    walked += step;
  }
  EXPECT_NEAR(walked, path.length, 0.06);
  EXPECT_LT((at - Vector3d(3, 7, 0)).norm(), 0.051);
  EXPECT_EQ(follower.left(at), 0.0);
  PathFollower again(path);
  EXPECT_FALSE(again.has_strayed(mesh, {7.0, 1.0, 0.0}));  // it can go straight to the corner
  ASSERT_EQ(again.next(mesh, {4.0, 4.0, 0.0}), path.points.back());
  EXPECT_TRUE(again.has_strayed(mesh, {7.0, 1.0, 0.0}));  // and not to what is behind that
  EXPECT_EQ(PathFollower().next(mesh, at), std::nullopt);
}

// An L of three rooms: the path turns round the corner at (5, 5). Passed early, it would be cut.
TEST(Follower, PassesACornerOnlyWhereTheNextPointIsStraightAhead) {
  const std::vector<Corners> squares{square(0, 0, 5, 0), square(0, 5, 5, 0), square(5, 5, 5, 0)};
  const NavigationMesh mesh(squares, body());
  PathFollower follower(find_path(mesh, {4.9, 0.2, 0}, {9.8, 5.02, 0}));
  ASSERT_EQ(follower.ahead().size(), 2U);
  EXPECT_EQ(follower.next(mesh, {4.99, 4.96, 0}), Vector3d(5, 5, 0));
  EXPECT_EQ(follower.next(mesh, {4.99, 5.001, 0}), Vector3d(9.8, 5.02, 0));
}

// Mazes of squares of 1 m with gaps, walked at all speeds, reaches and rates. Whether a place is on
// a square is decided by its coordinates alone.
TEST(Follower, NeverLeavesTheMesh) {
  scenes::Random dice(77);
  std::uint64_t turns = 0;
  const std::uint64_t count = testing::rounds(400);
  for (std::uint64_t round = 0; round < count; ++round) {
    std::set<std::pair<int, int>> cells;
    std::vector<Corners> squares;
    for (int x = 0; x < 8; ++x) {
      for (int y = 0; y < 8; ++y) {
        if (dice.between(0, 1) < 0.3) continue;
        cells.insert({x, y});
        squares.push_back(square(x, y, 1, 0));
      }
    }
    const NavigationMesh mesh(squares, body());
    const auto somewhere = [&] {
      const auto cell =
          std::next(cells.begin(),
                    static_cast<int>(dice.between(0, 0.999) * static_cast<double>(cells.size())));
      return Vector3d{cell->first + dice.between(0, 1), cell->second + dice.between(0, 1), 0};
    };
    const auto is_inside = [&](const Vector3d& at) {
      constexpr double kRounding = 1e-6;  // metres
      for (const double dx : {-kRounding, kRounding}) {
        for (const double dy : {-kRounding, kRounding}) {
          if (cells.contains({static_cast<int>(std::floor(at.x() + dx)),
                              static_cast<int>(std::floor(at.y() + dy))}))
            return true;
        }
      }
      return false;
    };
    Vector3d at = somewhere();
    const Path path = find_path(mesh, at, somewhere());
    if (path.outcome != Path::Outcome::whole) continue;
    PathFollower follower(path);
    const double reach = dice.between(0, 0.5);
    const double step = dice.between(0.2, 8) / dice.between(20, 240);
    int steps = 0;
    while (const auto next = follower.next(mesh, at, reach)) {
      ASSERT_LT(++steps, 40000) << "round " << round;
      const Vector3d way = *next - at;
      const double far = way.norm();
      at = far <= step ? *next : Vector3d(at + way * (step / far));
      ASSERT_TRUE(is_inside(at)) << "round " << round << ": " << at.transpose();
      EXPECT_FALSE(follower.has_strayed(mesh, at, reach)) << "round " << round;
    }
    EXPECT_LE((at - path.points.back()).norm(), reach + 1e-9);
    turns += path.points.size() > 2 ? 1 : 0;
  }
  EXPECT_GE(turns, testing::enough(std::uint64_t{100}));
}

}  // namespace
}  // namespace gaze
