// Ways are truly the shortest, there and back alike, among solids that overlap, touch, leave
// notches and thin gaps; also to places in those, and to the nearest that can be reached.

#include <fmt/format.h>

#include <set>

#include "gaze/path.hpp"
#include "scenes.hpp"
#include "support/cover_graph.hpp"
#include "support/halls.hpp"
#include "support/levels.hpp"
#include "support/visibility.hpp"

namespace gaze {
namespace {

using testing::CoverGraph;

using testing::hall_of;
using testing::Sort;

BodySize body_with(double radius) {
  BodySize body;
  body.radius = radius;
  return body;
}

/// Places anywhere; at the rim, on corners of it, and in what is left between grown solids.
Vector3d some_place(scenes::Random& random, const NavigationMesh& mesh) {
  const MeshPolygon polygon =
      mesh.polygon(static_cast<std::size_t>(random.next() % mesh.polygon_count()));
  const std::size_t count = polygon.corners.size();
  const std::size_t k = random.next() % count;
  const Vector3d& a = polygon.corners[k];
  const Vector3d& b = polygon.corners[(k + 1) % count];
  const double share = random.between(0.0, 1.0);
  switch (random.next() % 4) {
    case 0:
      return a;
    case 1:
      return a + (b - a) * share;
    case 2: {
      const Vector3d& c = polygon.corners[(k + 2) % count];
      const double other = random.between(0.0, 1.0 - share);
      return a + (b - a) * share + (c - a) * other;
    }
    default: {
      const auto found = mesh.find({random.between(0.0, 8.0), random.between(0.0, 8.0), 0.0});
      return found ? found->place : a;
    }
  }
}

class Shortest : public ::testing::TestWithParam<Sort> {};

TEST_P(Shortest, EqualsAVisibilityGraphThereAndBack) {
  int whole = 0;
  int bent = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(14); ++seed) {
    const Level level = hall_of(GetParam(), seed);
    const World world(level);
    scenes::Random random(seed);
    const double radius = std::array{0.2, 0.3, 0.4, 0.45, 0.5}[seed % 5];
    const NavigationMesh mesh(level, world, body_with(radius));
    if (mesh.polygon_count() == 0) continue;
    const bool has_pinch = testing::VisibilityGraph(mesh).has_pinch();
    CoverGraph graph(mesh);
    for (int i = 0; i < 12; ++i) {
      const Vector3d from = some_place(random, mesh);
      const Vector3d to = some_place(random, mesh);
      const auto what = fmt::format("sort {}, seed {}, {}: [{}, {}] to [{}, {}], radius {}",
                                    static_cast<int>(GetParam()), seed, i, from.x(), from.y(),
                                    to.x(), to.y(), radius);
      const Path there = find_path(mesh, from, to);
      const Path back = find_path(mesh, to, from);
      ASSERT_EQ(there.outcome == Path::Outcome::whole, back.outcome == Path::Outcome::whole)
          << what;
      if (there.outcome != Path::Outcome::whole) continue;
      EXPECT_NEAR(there.length, back.length, 1e-6 + 1e-7 * there.length) << what;
      if (has_pinch) continue;  // the other method leads through a point, where nothing fits
      const double expected = graph.shortest(CoverGraph::plan(from), CoverGraph::plan(to));
      EXPECT_NEAR(there.length, expected, 1e-5 + 1e-6 * expected) << what;
      ++whole;
      bent += there.points.size() > 2 ? 1 : 0;
    }
  }
  EXPECT_GT(whole, testing::enough(60));
  EXPECT_GT(bent, testing::enough(20));
}

// What was left out for the sake of time is looked up by each search: nothing is longer for it.
TEST_P(Shortest, AreAsShortWhereNotAllSightsAreKept) {
  int bent = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(14); ++seed) {
    const Level level = hall_of(GetParam(), seed);
    const World world(level);
    scenes::Random random(seed + 900);
    const NavigationMesh whole(level, world, body_with(0.3));
    const NavigationMesh some(level, world, body_with(0.3), 100);
    const NavigationMesh none(level, world, body_with(0.3), 0);
    EXPECT_EQ(whole.corners_without_sights(), 0U);
    EXPECT_EQ(none.corners_without_sights(), none.corner_count());
    for (int i = 0; i < 12; ++i) {
      const Vector3d from = some_place(random, whole);
      const Vector3d to = some_place(random, whole);
      const Path path = find_path(whole, from, to);
      EXPECT_EQ(find_path(some, from, to).length, path.length) << seed << ", " << i;
      EXPECT_EQ(find_path(none, from, to).length, path.length) << seed << ", " << i;
      bent += path.points.size() > 2 ? 1 : 0;
    }
  }
  EXPECT_GT(bent, testing::enough(20));
}

// Of all that can be reached the mesh is nowhere nearer than where a partial way ends, and the way
// there is the shortest.
TEST_P(Shortest, PartialWaysEndAtTheNearestPlace) {
  int partial = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(14); ++seed) {
    const Level level = hall_of(GetParam(), seed);
    const World world(level);
    scenes::Random random(seed + 500);
    const NavigationMesh mesh(level, world, body_with(0.45));
    if (mesh.islands().size() < 2) continue;
    const bool has_pinch = testing::VisibilityGraph(mesh).has_pinch();
    CoverGraph graph(mesh);
    for (int i = 0; i < 12; ++i) {
      const Vector3d from = some_place(random, mesh);
      const Vector3d to = some_place(random, mesh);
      const Path path = find_path(mesh, from, to);
      const auto what =
          fmt::format("sort {}, seed {}, {}: [{}, {}] to [{}, {}]", static_cast<int>(GetParam()),
                      seed, i, from.x(), from.y(), to.x(), to.y());
      const auto start = mesh.find(from);
      ASSERT_TRUE(start);
      const auto nearest = mesh.nearest(to, mesh.island_of(*start));
      ASSERT_TRUE(nearest);
      if (path.outcome == Path::Outcome::none) {
        EXPECT_GE((nearest->place - to).norm(), (from - to).norm() - 1e-9) << what;
        continue;
      }
      if (path.outcome != Path::Outcome::partial) continue;
      // Of places as near the way may choose.
      const Vector3d end = path.points.back();
      EXPECT_NEAR((end - to).norm(), (nearest->place - to).norm(), 1e-6) << what;
      if (has_pinch) continue;
      const double expected = graph.shortest(CoverGraph::plan(from), CoverGraph::plan(end));
      EXPECT_NEAR(path.length, expected, 1e-5 + 1e-6 * expected) << what;
      ++partial;
    }
  }
  EXPECT_GE(partial, testing::enough(4));
}

INSTANTIATE_TEST_SUITE_P(Sorts, Shortest,
                         ::testing::Values(Sort::anyhow, Sort::in_steps, Sort::touching,
                                           Sort::slabs, Sort::thin));

/// Rooms of floors that overlap, side by side or one a little higher than the other, over nothing.
Level rooms_of_slabs(std::uint64_t seed, bool has_steps) {
  scenes::Random random(seed * 31 + (has_steps ? 7 : 0));
  const auto stepped = [&](double low, double high, double step) {
    return std::floor(random.between(low, high) / step) * step;
  };
  Level level = testing::level_of({});
  level.plane = Plane::space;
  level.ground_height.reset();
  for (int i = 0; i < 8; ++i) {
    Solid floor = testing::box({0, 0}, {1, 1});
    floor.form = Solid::Form::floor;
    const Vector2d low{stepped(0.0, 6.0, 0.5), stepped(0.0, 6.0, 0.5)};
    const Vector2d size{stepped(1.0, 5.0, 0.5), stepped(1.0, 5.0, 0.5)};
    floor.points = {low, low + Vector2d{size.x(), 0.0}, low + size, low + Vector2d{0.0, size.y()}};
    floor.height = 0.2;
    floor.base = has_steps ? stepped(1.0, 1.5, 0.1) : 1.0;
    level.solids.push_back(floor);
  }
  return level;
}

TEST(Slabs, AreWalkedOverAlikeThereAndBack) {
  int whole = 0;
  int bent = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(400); ++seed) {
    for (const bool has_steps : {false, true}) {
      const Level level = rooms_of_slabs(seed, has_steps);
      const World world(level);
      const NavigationMesh mesh(level, world, body_with(0.3));
      const bool has_pinch = testing::VisibilityGraph(mesh).has_pinch();
      scenes::Random random(seed);
      CoverGraph graph(mesh);
      for (int i = 0; i < 8; ++i) {
        const Vector3d from = some_place(random, mesh);
        const Vector3d to = some_place(random, mesh);
        const Path there = find_path(mesh, from, to);
        const Path back = find_path(mesh, to, from);
        const auto what =
            fmt::format("seed {}, steps {}, {}: [{}, {}, {}] to [{}, {}, {}]", seed, has_steps, i,
                        from.x(), from.y(), from.z(), to.x(), to.y(), to.z());
        ASSERT_EQ(there.outcome == Path::Outcome::whole, back.outcome == Path::Outcome::whole)
            << what;
        if (there.outcome != Path::Outcome::whole) continue;
        EXPECT_NEAR(there.length, back.length, 1e-6 + 1e-7 * there.length) << what;
        ++whole;
        bent += there.points.size() > 2 ? 1 : 0;
        if (has_steps || has_pinch) continue;  // of neither the other method knows
        const double expected = graph.shortest(CoverGraph::plan(from), CoverGraph::plan(to));
        EXPECT_NEAR(there.length, expected, 1e-5 + 1e-6 * expected) << what;
      }
    }
  }
  EXPECT_GT(whole, testing::enough(1000));
  EXPECT_GT(bent, testing::enough(300));
}

// The notch where two grown blocks meet: 1.54 m, not 12.93 m round both.
TEST(Notch, IntoANotchAndOutOfIt) {
  const Level level =
      testing::level_of({testing::box({2, 1.4}, {4.6, 1.8}), testing::box({5.2, 1.4}, {7, 1.8})});
  const World world(level);
  const NavigationMesh mesh(level, world, body_with(0.45));
  const Path there = find_path(mesh, {6, 0, 0}, {4.9, 1.07, 0});
  const Path back = find_path(mesh, {4.9, 1.07, 0}, {6, 0, 0});
  EXPECT_NEAR(there.length, 1.54, 0.005);
  EXPECT_NEAR(there.length, back.length, 1e-9);
}

}  // namespace
}  // namespace gaze
