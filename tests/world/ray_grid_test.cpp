// Whether a segment is clear is told by a grid of pieces, where it first touches something by a
// tree: both have to say the same, among solids of every sort and for segments of every sort.

#include <fmt/format.h>

#include <array>
#include <cmath>

#include "support/halls.hpp"

namespace gaze {
namespace {

using testing::Sort;

Vector3d lifted(Plane plane, const Vector2d& p, double across) {
  return plane == Plane::upright ? Vector3d{p.x(), across, p.y()} : Vector3d{p.x(), p.y(), across};
}

Solid pillar(scenes::Random& random, const Vector2d& at, int corners) {
  Solid solid;
  solid.form = Solid::Form::block;
  solid.height = random.between(0.3, 3.0);
  const double radius = random.between(0.05, 0.6);
  for (int i = 0; i < corners; ++i) {
    const double angle = 2.0 * M_PI * i / corners;
    solid.points.push_back(at + Vector2d{std::cos(angle), std::sin(angle)} * radius);
  }
  return solid;
}

// Far apart and close together, low and hanging, round ones and a ramp.
Level some_level(Sort sort, std::uint64_t seed) {
  Level level = testing::hall_of(sort, seed);
  scenes::Random random(seed + 77);
  for (std::size_t i = 4; i < level.solids.size(); ++i) {
    level.solids[i].base = random.between(0.0, 1.5);
    level.solids[i].height = random.between(0.2, 2.0);
    level.solids[i].can_go = i % 3 == 0;
  }
  const double spread = seed % 3 == 0 ? 0.5 : seed % 3 == 1 ? 30.0 : 2'000.0;
  for (int i = 0; i < 30; ++i) {
    const Vector2d at{random.between(0.0, spread), random.between(0.0, spread)};
    level.solids.push_back(pillar(random, at, 3 + static_cast<int>(random.next() % 9)));
  }
  if (seed % 4 == 0) {
    Solid ramp;
    ramp.form = Solid::Form::ramp;
    ramp.from = {2.0, 2.0, 0.0};
    ramp.to = {random.between(3.0, 7.0), random.between(3.0, 7.0), 2.0};
    ramp.width = 1.0;
    level.plane = Plane::space;
    level.solids.push_back(ramp);
  } else if (seed % 4 == 1) {
    level.plane = Plane::upright;
    for (Solid& solid : level.solids) solid.base = 0.0;
  }
  for (std::size_t i = 0; i < level.solids.size(); ++i) {
    level.solids[i].id = fmt::format("solid-{}", i);
  }
  complete(level);
  return level;
}

// From anywhere to anywhere; along an axis, without length, from corner to corner, from far off.
Segment some_segment(const Level& level, scenes::Random& random) {
  const auto corner = [&] {
    const auto& points = level.solids[random.next() % level.solids.size()].points;
    return points.empty() ? Vector2d{2.0, 2.0} : points[random.next() % points.size()];
  };
  const double reach = std::array{9.0, 40.0, 3'000.0, 1e7}[random.next() % 4];
  const auto place = [&] {
    const Vector2d anywhere{random.between(-1.0, reach), random.between(-1.0, reach)};
    return random.next() % 4 == 0 ? corner() : anywhere;
  };
  Vector2d from = place();
  Vector2d to = place();
  switch (random.next() % 8) {
    case 0:
      to.x() = from.x();
      break;
    case 1:
      to.y() = from.y();
      break;
    case 2:
      to = from;
      break;
    case 3:
      to = from + Vector2d{random.between(-1e-9, 1e-9), random.between(-1.0, 1.0)};
      break;
    default:
      break;
  }
  return {lifted(level.plane, from, random.between(0.0, 2.5)),
          lifted(level.plane, to, random.between(0.0, 2.5))};
}

class RayGrids : public ::testing::TestWithParam<Sort> {};

TEST_P(RayGrids, SayWhatTheTreeSays) {
  int stopped = 0;
  int clear = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    Level level = some_level(GetParam(), seed);
    World world(level);
    scenes::Random random(seed);
    for (int i = 0; i < 1'500 && !HasFailure(); ++i) {
      if (i % 500 == 499) {  // another solid, perhaps far off
        const Vector2d at{random.between(-5.0, 12.0), random.between(-5.0, 12.0)};
        level.solids.insert(level.solids.end(), pillar(random, at, 5));
        level.solids.back().id = fmt::format("more-{}", i);
        complete(level);
        world = world.with_solids(level);
        for (std::uint32_t k = 0; k < level.solids.size(); ++k) {
          if (level.solids[k].can_go) world.set_gone({k}, random.next() % 2 == 0);
        }
      }
      const Segment segment = some_segment(level, random);
      const bool is_clear = world.is_clear(segment, Stops::sight);
      EXPECT_EQ(is_clear, !world.first_touch(segment, Stops::sight))
          << "seed " << seed << ", " << i << ": " << segment.from.transpose() << " to "
          << segment.to.transpose();
      (is_clear ? clear : stopped) += 1;
    }
  }
  EXPECT_GT(stopped, testing::enough(5'000));
  EXPECT_GT(clear, testing::enough(5'000));
}

// Points of one body lie above each other and share a walk through the grid; a verdict asks the
// tree for each of them.
TEST_P(RayGrids, ShowAsMuchOfABodyAsItsPointsOneByOne) {
  int seen = 0;
  int partly = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(30); ++seed) {
    const Level level = some_level(GetParam(), seed);
    World world(level);
    scenes::Random random(seed + 5);
    for (int i = 0; i < 200 && !HasFailure(); ++i) {
      for (std::uint32_t k = 0; k < level.solids.size(); ++k) {
        if (level.solids[k].can_go) world.set_gone({k}, random.next() % 2 == 0);
      }
      const Segment way = some_segment(level, random);
      std::vector<double> points(1 + random.next() % 12);
      for (double& point : points) point = random.between(0.0, 1.0);
      Looker looker;
      looker.feet = way.from;
      looker.sight.range = 1e8;
      looker.sight.field_of_view = Angle::from_degrees(360.0);
      looker.sight.visible_at_least = random.next() % 2 == 0 ? 0.0 : random.between(0.1, 1.0);
      LookedAt other;
      other.feet = way.to;
      other.height = random.between(0.5, 2.5);
      other.body_points = points;
      const Verdict verdict = look(world, level, looker, other);
      EXPECT_EQ(can_see(world, looker, other), verdict.sees) << "seed " << seed << ", " << i;
      EXPECT_DOUBLE_EQ(evidence_rate(world, looker, other), verdict.evidence.rate())
          << "seed " << seed << ", " << i;
      seen += verdict.sees ? 1 : 0;
      partly += verdict.line.visible > 0.0 && verdict.line.visible < 1.0 ? 1 : 0;
    }
  }
  EXPECT_GT(seen, testing::enough(500));
  EXPECT_GT(partly, testing::enough(50));
}

INSTANTIATE_TEST_SUITE_P(Sorts, RayGrids,
                         ::testing::Values(Sort::anyhow, Sort::in_steps, Sort::touching,
                                           Sort::slabs, Sort::thin));

// Of a hundred solids on one place the tree decides, elsewhere the grid.
TEST(RayGrid, LeavesWhatIsCrowdedToTheTree) {
  scenes::Random random(3);
  std::vector<Solid> solids;
  for (int i = 0; i < 100; ++i) solids.push_back(pillar(random, {5.0, 5.0}, 6));
  for (int i = 0; i < 100; ++i) {
    solids.push_back(pillar(random, {random.between(0.0, 200.0), random.between(0.0, 200.0)}, 4));
  }
  const World world(testing::level_of(solids));
  int stopped = 0;
  for (int i = 0; i < 5'000; ++i) {
    const Segment segment{{random.between(0.0, 12.0), random.between(0.0, 12.0), 1.0},
                          {random.between(0.0, 12.0), random.between(0.0, 12.0), 1.0}};
    const bool is_clear = world.is_clear(segment, Stops::sight);
    ASSERT_EQ(is_clear, !world.first_touch(segment, Stops::sight)) << i;
    stopped += is_clear ? 0 : 1;
  }
  EXPECT_GT(stopped, 200);
}

}  // namespace
}  // namespace gaze
