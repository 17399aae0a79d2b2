// Areas that cost more or less than the rest, and closed ones.

#include "gaze/path.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

struct Rectangle {
  Vector2d low{0.0, 0.0};
  Vector2d high{0.0, 0.0};
  double cost = 1.0;
};

Level level_with(const std::vector<Rectangle>& areas) {
  Level level;
  for (const Rectangle& area : areas) {
    Zone zone;
    zone.id = "mud";
    zone.outline = {
        area.low, {area.high.x(), area.low.y()}, area.high, {area.low.x(), area.high.y()}};
    zone.cost = area.cost;
    level.zones.push_back(zone);
  }
  return level;
}

/// What a straight way costs over rectangles that do not overlap; along a side the cheaper.
double cost_of(const std::vector<Rectangle>& areas, const Vector2d& a, const Vector2d& b) {
  const double length = (b - a).norm();
  double cost = length;
  for (const Rectangle& area : areas) {
    double enter = 0.0;
    double leave = 1.0;
    for (int axis = 0; axis < 2; ++axis) {
      const double step = b[axis] - a[axis];
      if (step == 0.0) {
        if (a[axis] <= area.low[axis] || a[axis] >= area.high[axis]) leave = -1.0;
        continue;
      }
      const auto [first, last] =
          std::minmax({(area.low[axis] - a[axis]) / step, (area.high[axis] - a[axis]) / step});
      enter = std::max(enter, first);
      leave = std::min(leave, last);
    }
    if (leave > enter) cost += (area.cost - 1.0) * (leave - enter) * length;
  }
  return cost;
}

double cost_of(const std::vector<Rectangle>& areas, const std::vector<Vector3d>& points) {
  double cost = 0.0;
  for (std::size_t i = 1; i < points.size(); ++i) {
    cost += cost_of(areas, points[i - 1].head<2>(), points[i].head<2>());
  }
  return cost;
}

/// The least cost of all ways that bend only at places 5 cm apart on the rims of the areas.
double reference(const std::vector<Rectangle>& areas, const Vector2d& from, const Vector2d& to) {
  std::vector<Vector2d> places{from, to};
  for (const Rectangle& area : areas) {
    const Vector2d size = area.high - area.low;
    const auto add_side = [&](const Vector2d& start, const Vector2d& along) {
      const int count = static_cast<int>(along.norm() / 0.05);
      for (int i = 0; i < count; ++i) places.emplace_back(start + along * (double(i) / count));
    };
    add_side(area.low, {size.x(), 0.0});
    add_side({area.high.x(), area.low.y()}, {0.0, size.y()});
    add_side(area.high, {-size.x(), 0.0});
    add_side({area.low.x(), area.high.y()}, {0.0, -size.y()});
  }
  std::vector<double> best(places.size(), std::numeric_limits<double>::infinity());
  std::vector<bool> done(places.size());
  best[0] = 0.0;
  while (true) {
    std::size_t at = places.size();
    for (std::size_t i = 0; i < places.size(); ++i) {
      if (!done[i] && (at == places.size() || best[i] < best[at])) at = i;
    }
    if (at == 1) return best[1];
    done[at] = true;
    for (std::size_t i = 0; i < places.size(); ++i) {
      if (done[i] || best[at] + (places[i] - places[at]).norm() * 0.5 >= best[i]) continue;
      best[i] = std::min(best[i], best[at] + cost_of(areas, places[at], places[i]));
    }
  }
}

/// On the lattice that meshes are rounded to.
double on_step(double metres) {
  return std::floor(metres * 4096.0) / 4096.0;
}

TEST(Areas, AreCrossedByTheLawOfRefraction) {
  // A wide strip: the angle bends so that 3 sin(a) = sin(b) on both of its sides.
  const std::vector<Rectangle> strip{{{2.0, -50.0}, {4.0, 50.0}, 3.0}};
  const Level level = level_with(strip);
  const NavigationMesh mesh(level, World(level), BodySize());
  const Path path = find_path(mesh, {0.0, 0.0, 0.0}, {6.0, 5.0, 0.0});
  ASSERT_EQ(path.outcome, Path::Outcome::whole);
  ASSERT_EQ(path.points.size(), 4U);
  const auto sine = [&](std::size_t i) {
    const Vector3d way = path.points[i + 1] - path.points[i];
    return way.y() / way.norm();
  };
  EXPECT_NEAR(sine(0), 3.0 * sine(1), 1e-3);
  EXPECT_NEAR(sine(2), 3.0 * sine(1), 1e-3);
  EXPECT_NEAR(path.cost, cost_of(strip, path.points), 1e-9);
  EXPECT_NEAR(
      path.length,
      (path.points[1] - path.points[0]).norm() * 2.0 + (path.points[2] - path.points[1]).norm(),
      1e-3);
}

TEST(Areas, CostWithinAHundredthOfAFineReference) {
  scenes::Random random(7);
  int round = 0;
  int through = 0;
  for (int world = 0; world < 12; ++world) {
    // In columns, so that they never overlap; some cost less than the rest.
    std::vector<Rectangle> areas;
    for (int column = 0; column < 3; ++column) {
      const double x = 2.0 + 4.0 * column + random.between(0.0, 1.0);
      const double y = random.between(-4.0, 1.0);
      const double cost = world % 4 == 3 ? random.between(0.5, 0.9) : random.between(1.2, 4.0);
      const double width = random.between(1.0, 2.8);
      const double depth = random.between(2.0, 5.0);
      areas.push_back({{on_step(x), on_step(y)}, {on_step(x + width), on_step(y + depth)}, cost});
    }
    const Level level = level_with(areas);
    const NavigationMesh mesh(level, World(level), BodySize());
    for (int i = 0; i < 4; ++i) {
      const Vector3d from{random.between(-1.0, 5.0), random.between(-3.0, 3.0), 0.0};
      const Vector3d to{random.between(9.0, 15.0), random.between(-3.0, 3.0), 0.0};
      const double expected = reference(areas, from.head<2>(), to.head<2>());
      const Path path = find_path(mesh, from, to);
      ASSERT_EQ(path.outcome, Path::Outcome::whole);
      EXPECT_NEAR(path.cost, cost_of(areas, path.points), 2e-3 * expected) << world << ", " << i;
      EXPECT_LE(path.cost, expected * 1.001) << world << ", " << i;
      EXPECT_GE(path.cost, expected * 0.99) << world << ", " << i;
      (path.cost > path.length * 1.001 ? through : round) += 1;
    }
  }
  EXPECT_GT(round, 5);
  EXPECT_GT(through, 5);
}

TEST(Areas, AreClosedToThoseNamed) {
  const Level level = testing::garden(R"(
[[zone]]
id = "pond-edge"
outline = [[2.0, -3.0], [4.0, -3.0], [4.0, 3.0], [2.0, 3.0]]
closed_to = ["machine"]
[kind.pruner]
tags = ["machine"]
[kind.pruner.move]
[kind.visitor.move]
)");
  const World world(level);
  const NavigationMesh machine(level, world, body_size(level, level.kinds[0]));
  const NavigationMesh visitor(level, world, body_size(level, level.kinds[1]));
  const Vector3d from{0.0, 0.0, 0.0};
  const Vector3d to{6.0, 0.0, 0.0};
  EXPECT_EQ(find_path(visitor, from, to).length, 6.0);
  EXPECT_NEAR(find_path(machine, from, to).length, 2.0 * std::hypot(2.0, 3.0) + 2.0, 1e-6);
  EXPECT_FALSE(machine.find({3.0, 0.0, 0.0}).has_value());
  EXPECT_NEAR(visitor.area() - machine.area(), 12.0, 1e-6);
}

TEST(Areas, CountAtTheirOwnHeightOnly) {
  const Level level = testing::garden(R"(
plane = "space"
[[zone]]
id = "upstairs"
outline = [[2.0, -9.0], [4.0, -9.0], [4.0, 9.0], [2.0, 9.0]]
base = 2.0
cost = 5.0
[kind.pruner.move]
)");
  const NavigationMesh mesh(level, World(level), body_size(level, level.kinds[0]));
  EXPECT_EQ(find_path(mesh, {0.0, 0.0, 0.0}, {6.0, 0.0, 0.0}).cost, 6.0);
}

}  // namespace
}  // namespace gaze
