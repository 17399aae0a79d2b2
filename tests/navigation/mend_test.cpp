// Meshes that are mended where solids are put in, against meshes that are made anew with them.

#include <fmt/format.h>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// What is put into a random level, and what else lies there.
enum class Added { anyhow, touching, thin, that_can_go, among_areas, low, upright, between_floors };

std::ostream& operator<<(std::ostream& out, Added sort) {
  constexpr const char* kNames[] = {"anyhow",      "touching", "thin",    "that_can_go",
                                    "among_areas", "low",      "upright", "between_floors"};
  return out << kNames[static_cast<int>(sort)];
}

constexpr double kSide = 12.0;

Solid random_block(scenes::Random& random, Added sort) {
  const bool is_even = sort == Added::touching;
  const auto within = [&](double low, double high) {
    const double value = random.between(low, high);
    return is_even ? std::floor(value) : value;
  };
  const Vector2d at{within(0.0, kSide), within(0.0, kSide)};
  const double width = sort == Added::thin ? 0.01 : within(0.3, 3.0) + (is_even ? 1.0 : 0.0);
  const double length = within(0.5, 4.0) + (is_even ? 1.0 : 0.0);
  const double angle = is_even || sort == Added::upright ? 0.0 : random.between(0.0, 6.283);
  const Vector2d along{std::cos(angle), std::sin(angle)};
  const Vector2d across{-along.y(), along.x()};
  Solid solid;
  solid.form = Solid::Form::block;
  solid.height = sort == Added::low ? random.between(0.1, 0.6) : 2.5;
  if (sort == Added::between_floors && random.next() % 2 == 0) solid.base = 2.0;
  solid.can_go = sort == Added::that_can_go && random.between(0.0, 1.0) < 0.6;
  solid.points = {at, at + along * length, at + along * length + across * width,
                  at + across * width};
  return solid;
}

void put_in(Level& level, scenes::Random& random, Added sort) {
  Solid solid = random_block(random, sort);
  solid.id = fmt::format("solid-{}", level.solids.size());
  level.solids.push_back(solid);
}

void add_area(Level& level, scenes::Random& random) {
  const Vector2d low{random.between(0.0, 8.0), random.between(0.0, 8.0)};
  const Vector2d high = low + Vector2d{random.between(1.0, 4.0), random.between(1.0, 4.0)};
  Zone zone;
  zone.id = fmt::format("area-{}", level.zones.size());
  zone.outline = {low, {high.x(), low.y()}, high, {low.x(), high.y()}};
  zone.cost = std::array{0.5, 3.0, 1.0}[level.zones.size() % 3];
  level.zones.push_back(zone);
}

// A floor of 2 m above the ground over one half, and a ramp that leads up.
void add_floor(Level& level) {
  Solid floor = testing::box({0.0, 0.0}, {kSide, 5.0});
  floor.id = "upper-floor";
  floor.form = Solid::Form::floor;
  floor.base = 1.8;
  Solid ramp;
  ramp.id = "ramp";
  ramp.form = Solid::Form::ramp;
  ramp.from = {5.0, 9.0, 0.0};
  ramp.to = {5.0, 5.0, 2.0};
  ramp.width = 2.0;
  level.solids.push_back(floor);
  level.solids.push_back(ramp);
}

Level begun_with(Added sort, scenes::Random& random) {
  Level level;
  level.plane = sort == Added::upright ? Plane::upright : Plane::ground;
  if (sort == Added::between_floors) {
    level.plane = Plane::space;
    add_floor(level);
  }
  for (const Vector2d& corner : {Vector2d{-1, -1}, Vector2d{kSide, kSide}}) {
    Solid post = testing::box(corner, corner + Vector2d{1.0, 1.0});
    post.id = fmt::format("post-{}", level.solids.size());
    level.solids.push_back(post);
  }
  for (int i = 0; i < 6 && sort != Added::between_floors; ++i) put_in(level, random, sort);
  for (int i = 0; i < 3 && sort == Added::among_areas; ++i) add_area(level, random);
  complete(level);
  return level;
}

BodySize body_for(Added sort, double radius) {
  BodySize body;
  body.radius = radius;
  if (sort == Added::upright) body.altitude = 0.0;
  if (sort == Added::among_areas) body.closed = {2};
  return body;
}

// How many islands are more than a sliver between lines that rounding has moved.
std::ptrdiff_t islands_of_size(const NavigationMesh& mesh) {
  constexpr double kSliver = 0.01;  // square metres
  const auto& islands = mesh.islands();
  return std::count_if(islands.begin(), islands.end(),
                       [](const Island& one) { return one.area > kSliver; });
}

class Mended : public ::testing::TestWithParam<Added> {
 protected:
  Vector3d some_place(scenes::Random& random) const {
    const double x = random.between(-1.0, kSide + 1.0);
    const double y = random.between(-1.0, kSide + 1.0);
    if (GetParam() == Added::upright) return {x, 0.0, y};
    const bool is_above = GetParam() == Added::between_floors && random.next() % 2 == 0;
    return {x, y, is_above ? 2.0 : 0.0};
  }

  // Solids are found to be gone at random, if they can go.
  World some_gone(const Level& level, World world, scenes::Random& random) const {
    for (std::uint32_t i = 0; i < level.solids.size(); ++i) {
      if (level.solids[i].can_go && random.next() % 2 == 0) world.set_gone({i}, true);
    }
    return world;
  }

  // Both say the same of places, and find ways that cost the same.
  void compare(const NavigationMesh& mended, const NavigationMesh& fresh, const Level& level,
               const World& world, scenes::Random& random, const std::string& what) {
    EXPECT_NEAR(mended.area(), fresh.area(), 0.01) << what;
    EXPECT_EQ(islands_of_size(mended), islands_of_size(fresh)) << what;
    const World now = some_gone(level, world, random);
    PathFinder finder;
    for (int i = 0; i < 12; ++i) {
      const Vector3d from = some_place(random);
      const Vector3d to = some_place(random);
      const auto start = fresh.find(from);
      const auto goal = fresh.find(to);
      if (!start || !goal) continue;
      ASSERT_TRUE(mended.find(start->place))
          << what << ": [" << start->place.transpose() << "], "
          << (mended.nearest(start->place)->place - start->place).norm() << " m off";
      const Path expected = finder.find(fresh, start->place, goal->place, &now);
      const Path found = finder.find(mended, start->place, goal->place, &now);
      EXPECT_EQ(name_of(found.outcome), name_of(expected.outcome)) << what;
      // Rims of areas, and of what can go, are crossed at places that need not be the same.
      const bool has_rims = GetParam() == Added::among_areas || GetParam() == Added::that_can_go;
      EXPECT_NEAR(found.cost, expected.cost, 0.003 + (has_rims ? 0.03 * expected.cost : 0.0))
          << what;
      ways_ += expected.points.size() > 2 ? 1 : 0;
    }
  }

  int ways_ = 0;  ///< With a bend.
};

TEST_P(Mended, SaysWhatAMeshMadeAnewSays) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(25); ++seed) {
    scenes::Random random(seed * 31 + static_cast<std::uint64_t>(GetParam()));
    Level level = begun_with(GetParam(), random);
    World world(level);
    const BodySize body = body_for(GetParam(), std::array{0.2, 0.3, 0.45, 0.5}[seed % 4]);
    const std::size_t most_looks = seed % 5 == 0 ? 60 : NavigationMesh::kMostLooks;
    NavigationMesh mended(level, world, body, most_looks);
    for (int i = 0; i < 5; ++i) {
      put_in(level, random, GetParam());
      if (i == 3) put_in(level, random, GetParam());  // two at once
      complete(level);
      world = world.with_solids(level);
      mended = mended.with_solids(level, world);
      const NavigationMesh fresh(level, world, body);
      compare(mended, fresh, level, world, random,
              fmt::format("seed {}, after {} solids", seed, i + 1));
      if (HasFailure()) return;
    }
  }
  EXPECT_GT(ways_, testing::enough(100));
}

INSTANTIATE_TEST_SUITE_P(AllSorts, Mended,
                         ::testing::Values(Added::anyhow, Added::touching, Added::thin,
                                           Added::that_can_go, Added::among_areas, Added::low,
                                           Added::upright, Added::between_floors),
                         ::testing::PrintToStringParamName());

// A block across a corridor closes it, and taken away opens it again; what lies far off keeps its
// polygons.
TEST(MendedMesh, IsAnotherOnlyNearWhatWasPutIn) {
  Level level = scenes::hall();
  complete(level);
  World world(level);
  const BodySize body;
  const NavigationMesh before(level, world, body);
  Solid block = testing::box({29.0, 29.0}, {31.0, 31.0});
  block.id = "more";
  block.can_go = true;
  level.solids.push_back(block);
  complete(level);
  world = world.with_solids(level);
  const NavigationMesh after = before.with_solids(level, world);
  const auto far_off = [](const NavigationMesh& mesh) {
    std::vector<std::vector<double>> polygons;
    for (std::size_t i = 0; i < mesh.polygon_count(); ++i) {
      std::vector<double> polygon;
      bool is_near = false;
      for (const Vector3d& p : mesh.polygon(i).corners) {
        is_near |= std::hypot(p.x() - 30.0, p.y() - 30.0) < 15.0;
        polygon.insert(polygon.end(), {p.x(), p.y()});
      }
      if (!is_near) polygons.push_back(polygon);
    }
    return polygons;
  };
  EXPECT_EQ(far_off(after), far_off(before));
  EXPECT_GT(far_off(after).size(), 1'500U);
  const Vector3d from = after.nearest({28.0, 30.1, 0.0})->place;
  const Vector3d to = after.nearest({32.0, 30.1, 0.0})->place;
  const double straight = find_path(before, from, to).length;
  PathFinder finder;
  EXPECT_GT(finder.find(after, from, to, &world).length, straight + 0.1);
  world.set_gone({static_cast<std::uint32_t>(level.solids.size() - 1)}, true);
  EXPECT_NEAR(finder.find(after, from, to, &world).length, straight, 0.05);  // rims are crossed
}

// On a host's own squares the level holds what was put in alone.
TEST(MendedMesh, OfPolygonsGoesRoundWhatWasPutIn) {
  const auto square = [](double x) {
    return std::vector<Vector3d>{{x, 0, 0}, {x + 6, 0, 0}, {x + 6, 8, 0}, {x, 8, 0}};
  };
  const BodySize body;
  const NavigationMesh mesh(std::vector<std::vector<Vector3d>>{square(0.0), square(6.0)}, body);
  Level level;
  level.plane = Plane::space;
  Solid block = testing::box({5.0, 2.0}, {7.0, 6.0});
  level.solids.push_back(block);
  complete(level);
  const NavigationMesh mended = mesh.with_solids(level, World(level));
  EXPECT_NEAR(find_path(mesh, {2, 4, 0}, {10, 4, 0}).length, 8.0, 1e-9);
  // Past two corners that are rounded by the radius, the arcs by tangents.
  const double grown = body.radius;
  const double leg = std::hypot(3.0, 2.0);
  const double tangent = std::sqrt(leg * leg - grown * grown);
  const double bend = std::atan2(2.0, 3.0) + std::atan2(grown, tangent);
  EXPECT_NEAR(find_path(mended, {2, 4, 0}, {10, 4, 0}).length,
              2.0 * tangent + 2.0 * bend * grown + 2.0, 0.02);
  EXPECT_NEAR(mended.area(), 96.0 - (8.0 + 12.0 * grown + 3.14159 * grown * grown), 0.05);
}

TEST(MendedMesh, RefusesALevelThatIsAnother) {
  Level level = testing::level_of({testing::box({0, 0}, {1, 1}), testing::box({3, 0}, {4, 1})});
  const World world(level);
  const NavigationMesh mesh(level, world, BodySize{});
  Level fewer = level;
  fewer.solids.pop_back();
  EXPECT_THROW(static_cast<void>(mesh.with_solids(fewer, World(fewer))), UsageError);
  EXPECT_THROW(static_cast<void>(world.with_solids(fewer)), UsageError);
  Level other = level;
  other.plane = Plane::space;
  complete(other);
  EXPECT_THROW(static_cast<void>(mesh.with_solids(other, World(other))), UsageError);
  EXPECT_THROW(static_cast<void>(world.with_solids(other)), UsageError);
}

}  // namespace
}  // namespace gaze
