#include "gaze/path.hpp"

#include <filesystem>

#include "scenes.hpp"
#include "support/levels.hpp"
#include "support/visibility.hpp"

namespace gaze {
namespace {

using testing::Step;
using testing::to_step;

BodySize walker_of(double radius) {
  BodySize body;
  body.radius = radius;
  return body;
}

/// A place on the mesh, in whole steps.
Vector3d random_place(scenes::Random& random, const NavigationMesh& mesh, double side) {
  while (true) {
    const double x = std::floor(random.between(0.0, side) * 4096.0) / 4096.0;
    const double y = std::floor(random.between(0.0, side) * 4096.0) / 4096.0;
    const auto place = mesh.find({x, y, 0.0});
    if (place && place->place.x() == x && place->place.y() == y) return {x, y, 0.0};
  }
}

// The method shares nothing with ours but the rim of the mesh.
TEST(FindPath, IsAsShortAsTheVisibilityGraphSays) {
  int whole = 0;
  int bent = 0;
  int none = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(16); ++seed) {
    const double side = seed % 3 == 0 ? 9.0 : 14.0;
    const Level level = scenes::make_scene(seed % 3 == 0 ? 12 : 16, side, seed);
    const World world(level);
    const NavigationMesh mesh(level, world, walker_of(seed % 2 == 0 ? 0.4 : 0.25));
    testing::VisibilityGraph graph(mesh);
    if (graph.has_pinch()) continue;
    scenes::Random random(100 + seed);
    for (int i = 0; i < 12; ++i) {
      const Vector3d from = random_place(random, mesh, side);
      const Vector3d to = random_place(random, mesh, side);
      const double expected = graph.shortest(to_step(from), to_step(to));
      const Path path = find_path(mesh, from, to);
      if (!std::isfinite(expected)) {
        ++none;
        EXPECT_NE(path.outcome, Path::Outcome::whole) << seed << ", " << i;
        continue;
      }
      ASSERT_EQ(path.outcome, Path::Outcome::whole) << seed << ", " << i;
      EXPECT_NEAR(path.length, expected, expected * 1e-6) << seed << ", " << i;
      ++whole;
      bent += path.points.size() > 2 ? 1 : 0;
      EXPECT_EQ(path.points.front(), from);
      EXPECT_EQ(path.points.back(), to);
      for (std::size_t k = 0; k + 1 < path.points.size(); ++k) {
        const Vector3d lift{0.0, 0.0, mesh.body().step_height};
        const Cylinder body{path.points[k] + lift, mesh.body().radius, 1.4};
        EXPECT_FALSE(world.sweep(body, path.points[k + 1] - path.points[k], Stops::bodies));
      }
    }
  }
  EXPECT_GE(whole, testing::enough(81));
  EXPECT_GE(bent, testing::enough(41));
  EXPECT_GE(none, testing::enough(4));
}

// Floors above each other, stairs and ramps: each leg lies on a surface all along.
TEST(FindPath, KeepsToTheSurfacesThatItLeadsOver) {
  const auto folder = std::filesystem::path(GAZE_DEMO).parent_path();
  const Level level = read_level(folder / "terraces.toml");
  const World world(level);
  BodySize body = walker_of(0.4);
  body.height = 1.6;
  const NavigationMesh mesh(level, world, body);
  std::vector<Vector3d> places;
  for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
    const MeshPolygon polygon = mesh.polygon(i);
    if (polygon.island != 0) continue;
    Vector3d sum{0.0, 0.0, 0.0};
    for (const Vector3d& corner : polygon.corners) sum += corner;
    places.push_back(sum / static_cast<double>(polygon.corners.size()));
  }
  scenes::Random random(8);
  const auto somewhere = [&] { return places[random.next() % places.size()]; };
  int climbing = 0;
  for (int i = 0; i < 400; ++i) {
    const Vector3d from = somewhere();
    const Vector3d to = somewhere();
    const Path path = find_path(mesh, from, to);
    ASSERT_EQ(path.outcome, Path::Outcome::whole) << i;
    climbing += std::abs(from.z() - to.z()) > 1.0 ? 1 : 0;
    for (std::size_t k = 0; k + 1 < path.points.size(); ++k) {
      const Vector3d way = path.points[k + 1] - path.points[k];
      if (way.head<2>().norm() < 1e-6) {
        EXPECT_LE(std::abs(way.z()), body.step_height + 1e-6) << i;
        continue;
      }
      for (const double share : {0.02, 0.3, 0.5, 0.7, 0.98}) {
        const Vector3d at = path.points[k] + way * share;
        const auto on = mesh.find(at);
        ASSERT_TRUE(on) << i << ": " << at.transpose();
        EXPECT_NEAR(on->place.z(), at.z(), 1e-6) << i << ": " << at.transpose();
      }
    }
  }
  EXPECT_GT(climbing, 100);
}

// With and without an area that costs more: ways over its rim are turned round as well.
TEST(FindAll, FindsTheWaysOfFindByOneSearchForAll) {
  for (const double cost : {1.0, 2.5}) {
    Level level = scenes::make_scene(60, 30.0, 5);
    Zone& mud = level.zones.emplace_back();
    mud.id = "mud";
    mud.outline = {{8, 8}, {22, 9}, {20, 21}, {9, 20}};
    mud.cost = cost;
    const World world(level);
    const NavigationMesh mesh(level, world, walker_of(0.3));
    scenes::Random random(9);
    Vector3d goal{0.0, 0.0, 0.0};
    while (goal.x() + goal.y() < 50.0) goal = random_place(random, mesh, 30.0);
    // One cut off by the wall around all, some together far from the goal, some anywhere.
    std::vector<Vector3d> starts{{-50.0, -50.0, 0.0}};
    while (starts.size() < 40) starts.push_back(random_place(random, mesh, 3.0));
    while (starts.size() < 50) starts.push_back(random_place(random, mesh, 30.0));
    PathFinder finder;
    std::vector<Path> together(starts.size());
    std::size_t told = 0;
    finder.find_all(mesh, starts, goal, nullptr, [&](std::size_t i, const Path& path) {
      together[i] = path;
      ++told;
    });
    EXPECT_EQ(told, starts.size());
    const std::size_t shared = finder.looked_at();
    std::size_t one_by_one = 0;
    for (std::size_t i = 0; i < starts.size(); ++i) {
      const Path path = finder.find(mesh, starts[i], goal);
      one_by_one += finder.looked_at();
      EXPECT_EQ(together[i].outcome, path.outcome) << i;
      EXPECT_NEAR(together[i].cost, path.cost, 1e-6 * path.cost) << cost << ", " << i;
      EXPECT_EQ(together[i].points.front(), path.points.front()) << i;
      EXPECT_EQ(together[i].points.back(), path.points.back()) << i;
    }
    EXPECT_EQ(together[0].outcome, Path::Outcome::partial);
    EXPECT_LT(shared, one_by_one / 2);
  }
}

}  // namespace
}  // namespace gaze
