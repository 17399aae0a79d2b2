// A finder of seen areas says what `seen_area` says, which is held against rays elsewhere: among
// solids that overlap, touch, are thin or slanted, at any height, and with some of them gone.

#include <fmt/format.h>

#include <array>
#include <cmath>

#include "gaze/seen_area.hpp"
#include "support/allocations.hpp"
#include "support/halls.hpp"

namespace gaze {
namespace {

using testing::hall_of;
using testing::Sort;

constexpr std::array<double, 2> kHeights{0.7, 1.6};

// Some are low, some hang, some can go; and a ramp.
Level furnished(Sort sort, std::uint64_t seed) {
  Level level = hall_of(sort, seed);
  scenes::Random random(seed * 31 + 7);
  for (std::size_t i = 4; i < level.solids.size(); ++i) {
    Solid& solid = level.solids[i];
    solid.id = fmt::format("solid-{}", i);
    if (i % 3 == 0) solid.height = random.between(0.5, 1.5);
    if (i % 4 == 0) solid.base = random.between(0.0, 1.4);
    solid.can_go = i % 5 == 0;
  }
  if (seed % 2 == 0) {
    Solid ramp;
    ramp.form = Solid::Form::ramp;
    ramp.id = "ramp";
    ramp.from = {random.between(1.0, 7.0), random.between(1.0, 7.0), 0.0};
    ramp.to = ramp.from + Vector3d{random.between(0.5, 2.0), random.between(0.5, 2.0), 2.0};
    ramp.width = 1.0;
    level.plane = Plane::space;
    level.solids.push_back(ramp);
  }
  complete(level);
  return level;
}

World with_some_gone(const Level& level, World world, scenes::Random& random) {
  for (std::uint32_t i = 0; i < level.solids.size(); ++i) {
    if (level.solids[i].can_go && random.next() % 2 == 0) world.set_gone({i}, true);
  }
  return world;
}

// Eyes anywhere, and on corners and sides of what is there.
Looker looker_in(const Level& level, scenes::Random& random, double height) {
  Sight sight;
  sight.range = sight.keep_range.emplace(random.next() % 2 == 0 ? 1e4 : random.between(0.5, 9.0));
  sight.eye = Vector3d{0.0, 0.0, height};
  const bool is_whole = random.next() % 3 == 0;
  sight.field_of_view = Angle::from_degrees(is_whole ? 360.0 : random.between(1.0, 359.0));
  Vector2d feet{random.between(-1.0, 9.0), random.between(-1.0, 9.0)};
  const std::vector<Vector2d>& points =
      level.solids[static_cast<std::size_t>(random.next() % level.solids.size())].points;
  if (random.next() % 5 == 0 && !points.empty()) {
    const std::size_t k = random.next() % points.size();
    const Vector2d& to = points[(k + 1) % points.size()];
    feet = points[k] + (to - points[k]) * (random.next() % 2 == 0 ? 0.0 : random.between(0.0, 1.0));
  }
  if (random.next() % 5 == 0) feet = {std::round(feet.x()), std::round(feet.y())};
  const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0.0, 360.0)));
  return {{feet.x(), feet.y(), 0.0}, {way.cosine, way.sine}, sight, false};
}

/// So many eyes that saw something.
int compare(Sort sort, std::uint64_t seed) {
  const Level level = furnished(sort, seed);
  const World world(level);
  SeenAreaFinder finder(world, kHeights);
  scenes::Random random(seed);
  int seen = 0;
  for (int i = 0; i < 40 && !::testing::Test::HasFailure(); ++i) {
    const World now = with_some_gone(level, world, random);
    // At those heights, near them, and elsewhere.
    const double height = i % 4 == 3 ? random.between(0.1, 2.4) : kHeights[i % 2 == 0 ? 0 : 1];
    const Looker looker = looker_in(level, random, height);
    const SeenArea expected = seen_area(now, looker);
    const SeenArea& found = finder.find(now, looker);
    const auto what = fmt::format("sort {}, seed {}, {}: at [{}, {}], height {}, range {}",
                                  static_cast<int>(sort), seed, i, found.eye.x(), found.eye.y(),
                                  height, found.range);
    EXPECT_TRUE(std::isfinite(found.area())) << what;
    EXPECT_NEAR(found.area(), expected.area(), 1e-8 * (1.0 + expected.area())) << what;
    seen += found.edges.empty() ? 0 : 1;
    for (int k = 0; k < 20; ++k) {
      const Vector2d p{random.between(0.0, 8.0), random.between(0.0, 8.0)};
      EXPECT_EQ(found.contains(p), expected.contains(p)) << what << ", " << p.transpose();
    }
  }
  return seen;
}

class SeenAreaSorts : public ::testing::TestWithParam<Sort> {};

TEST_P(SeenAreaSorts, AreAlikeFromTriangleToTriangleAndFromSideToSide) {
  int seen = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(60) && !HasFailure(); ++seed) {
    seen += compare(GetParam(), seed);
  }
  EXPECT_GT(seen, testing::enough(1'000));
}

INSTANTIATE_TEST_SUITE_P(Sorts, SeenAreaSorts,
                         ::testing::Values(Sort::anyhow, Sort::in_steps, Sort::touching,
                                           Sort::slabs, Sort::thin));

// Eyes on a side, in one line with sides, on the rim of the plan, and in the open before a ramp.
TEST(SeenAreaFinder, SeesWhatOnceWasNotSeen) {
  const std::vector<std::pair<Sort, std::uint64_t>> levels{
      {Sort::anyhow, 999}, {Sort::thin, 288},      {Sort::in_steps, 2974},
      {Sort::slabs, 4928}, {Sort::in_steps, 7772}, {Sort::slabs, 205}};
  for (const auto& [sort, seed] : levels) compare(sort, seed);
}

// What the edges are of, and how they follow each other.
TEST(SeenAreaFinder, GoesRoundOnceFromSideToSide) {
  const Level level = scenes::make_scene(80, 30.0, 4);
  const World world(level);
  SeenAreaFinder finder(world, std::array{1.5});
  scenes::Random random(9);
  int straight = 0;
  for (int i = 0; i < 200; ++i) {
    Looker looker;
    looker.sight.range = 9.0;
    looker.sight.eye = Vector3d{0.0, 0.0, 1.5};
    looker.sight.field_of_view = Angle::from_degrees(360.0);
    looker.feet = {random.between(1.0, 29.0), random.between(1.0, 29.0), 0.0};
    const SeenArea& area = finder.find(world, looker);
    if (area.edges.empty()) continue;
    double turned = 0.0;
    for (std::size_t k = 0; k < area.edges.size(); ++k) {
      const SeenEdge& edge = area.edges[k];
      const SeenEdge& next = area.edges[(k + 1) % area.edges.size()];
      const auto degrees = [&](const Vector2d& p) {
        return std::atan2(p.y() - area.eye.y(), p.x() - area.eye.x()) * 180.0 / M_PI;
      };
      EXPECT_NEAR(std::remainder(degrees(edge.to) - degrees(next.from), 360.0), 0.0, 1e-6);
      double way = degrees(edge.to) - degrees(edge.from);
      if (way < -1e-9) way += 360.0;
      turned += edge.at_range ? edge.end.degrees() - edge.start.degrees() : way;
      if (edge.at_range) continue;
      // A ray to the middle of it meets the solid there.
      const Vector2d middle = (edge.from + edge.to) / 2.0;
      if ((edge.to - edge.from).norm() < 1e-6) continue;
      const Vector2d beyond = area.eye + (middle - area.eye) * 1.01;
      const auto touch = world.first_touch(
          Segment{{area.eye.x(), area.eye.y(), 1.5}, {beyond.x(), beyond.y(), 1.5}}, Stops::sight);
      ASSERT_TRUE(touch);
      EXPECT_EQ(touch->solid, edge.solid);
      EXPECT_NEAR((touch->place.head<2>() - middle).norm(), 0.0, 1e-9);
      ++straight;
    }
    EXPECT_NEAR(turned, 360.0, 1e-6);
  }
  EXPECT_GT(straight, 1'000);
}

TEST(SeenAreaFinder, AsksForNoMemoryOnceItHasGrown) {
  const World world(scenes::make_scene(80, 30.0, 4));
  SeenAreaFinder finder(world, std::array{1.5});
  Looker looker;
  looker.sight.range = 20.0;
  looker.sight.eye = Vector3d{0.0, 0.0, 1.5};
  looker.sight.field_of_view = Angle::from_degrees(360.0);
  std::vector<Vector3d> places;
  scenes::Random random(9);
  while (places.size() < 100) {
    const Vector3d place{random.between(1.0, 29.0), random.between(1.0, 29.0), 0.0};
    if (!world.overlaps({place, 0.1, 1.7}, Stops::sight)) places.push_back(place);
  }
  double area = 0.0;
  const auto find_all = [&] {
    for (const Vector3d& place : places) {
      looker.feet = place;
      area += finder.find(world, looker).area();
    }
  };
  find_all();
  const std::size_t before = testing::allocations();
  find_all();
  EXPECT_EQ(testing::allocations() - before, 0U);
  EXPECT_GT(area, 0.0);
}

TEST(SeenAreaFinder, WorksSeenFromTheSideToo) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(20); ++seed) {
    Level level = hall_of(Sort::anyhow, seed);
    level.plane = Plane::upright;
    const World world(level);
    SeenAreaFinder finder(world, std::array{0.0});
    scenes::Random random(seed);
    for (int i = 0; i < 20; ++i) {
      Looker looker = looker_in(level, random, 1.2);
      looker.feet = {looker.feet.x(), 0.0, looker.feet.y()};
      looker.facing = {i % 2 == 0 ? 1.0 : -1.0, 0.0};
      const double expected = seen_area(world, looker).area();
      EXPECT_NEAR(finder.find(world, looker).area(), expected, 1e-8 * (1.0 + expected)) << seed;
    }
  }
}

TEST(SeenAreaFinder, IsForOneWorld) {
  Level level = hall_of(Sort::anyhow, 1);
  const World world(level);
  SeenAreaFinder finder(world, kHeights);
  const World other(level);
  EXPECT_THROW(static_cast<void>(finder.find(other, Looker{})), UsageError);
  EXPECT_THROW(SeenAreaFinder(world, std::array{1.6, std::nan("")}), UsageError);
  SeenAreaFinder copy = finder;
  Looker looker;
  looker.feet = {4.0, 4.0, 0.0};
  EXPECT_EQ(copy.find(world, looker).area(), finder.find(world, looker).area());
}

TEST(SeenAreaFinder, WithoutSolidsSeesADisc) {
  const World world{Level{}};
  SeenAreaFinder finder(world, kHeights);
  Looker looker;
  looker.sight.range = 3.0;
  looker.sight.field_of_view = Angle::from_degrees(360.0);
  EXPECT_NEAR(finder.find(world, looker).area(), 9.0 * M_PI, 1e-12);
}

}  // namespace
}  // namespace gaze
