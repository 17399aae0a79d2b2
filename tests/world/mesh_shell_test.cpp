// Triangles of a mesh are kept by their corners, and worked out as prisms when they are asked
// about. What a world says of them has to be, to the bit, what those prisms say one by one.

#include <gtest/gtest.h>

#include <array>
#include <list>

#include "gaze/path.hpp"
#include "geometry/prism.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"
#include "world/parts.hpp"

namespace gaze {
namespace {

/// All triangles as prisms, in a list, since they point at what lies beside them.
class PlainShells {
 public:
  explicit PlainShells(const std::vector<Triangle>& triangles) {
    std::vector<SolidPart> parts;
    for (const Triangle& triangle : triangles) add_shell(triangle, parts);
    for (const SolidPart& part : parts) add(part);
  }

  template <typename Ask>
  std::optional<double> first(Ask&& ask) const {
    std::optional<double> first;
    for (const One& one : all_) {
      const std::optional<double> share = ask(one.prism);
      if (share && *share < first.value_or(1.0)) first = share;
    }
    return first;
  }

 private:
  struct One {
    std::vector<PrismEdge> edges;
    PrismSlopes slopes;
    Prism prism;
  };

  void add(const SolidPart& part) {
    One& one = all_.emplace_back();
    for (std::size_t i = 0; i < part.outline.size(); ++i) {
      const Vector2d& from = part.outline[i];
      const Vector2d along = part.outline[(i + 1) % part.outline.size()] - from;
      one.edges.push_back({from.x(), from.y(), along.x(), along.y()});
    }
    one.slopes = {part.low, part.high};
    const bool is_level = part.low.is_level() && part.high.is_level();
    one.prism = {one.edges, lowest(part), highest(part), is_level ? nullptr : &one.slopes};
  }

  std::list<One> all_;
};

// Hills over a lattice, and over them triangles that lie any way: steep, upright, facing down,
// level, thin. Some share corners.
std::vector<Triangle> some_triangles(scenes::Random& random) {
  const auto height = [&](int x, int y) {
    return Vector3d{double(x), double(y), 0.25 * double((x * 7 + y * 5) % 6)};
  };
  std::vector<Triangle> triangles;
  for (int x = 0; x < 6; ++x) {
    for (int y = 0; y < 6; ++y) {
      triangles.push_back({height(x, y), height(x + 1, y), height(x + 1, y + 1)});
      triangles.push_back({height(x, y), height(x, y + 1), height(x + 1, y + 1)});  // from below
    }
  }
  const auto anywhere = [&] {
    return Vector3d{random.between(0.0, 6.0), random.between(0.0, 6.0), random.between(0.0, 4.0)};
  };
  for (int i = 0; i < 30; ++i) {
    Triangle triangle{anywhere(), anywhere(), anywhere()};
    if (i % 5 == 0) triangle[2] = triangle[1] + Vector3d{0.0, 0.0, 1.5};
    if (i % 5 == 1) triangle[1].z() = triangle[2].z() = triangle[0].z();
    if (i % 5 == 2) triangle[1] = triangle[0] + Vector3d{1e-3, 0.0, 0.4};
    if (i % 5 == 3) triangle[0] = triangles[random.next() % triangles.size()][1];
    triangles.push_back(triangle);
  }
  return triangles;
}

Level level_of(std::vector<Triangle> triangles) {
  Level level;
  level.plane = Plane::space;
  Solid solid;
  solid.id = "hills";
  solid.form = Solid::Form::mesh;
  solid.triangles = std::move(triangles);
  level.solids.push_back(std::move(solid));
  complete(level);
  return level;
}

std::optional<double> share_of(const std::optional<Touch>& touch) {
  return touch ? std::optional(touch->share) : std::nullopt;
}

TEST(MeshShells, AreTouchedWhereTheirPrismsAre) {
  std::size_t touched = 0;
  std::size_t clear = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(6); ++seed) {
    scenes::Random random(seed);
    const std::vector<Triangle> triangles = some_triangles(random);
    const World world(level_of(triangles));
    const PlainShells shells(triangles);
    const auto place = [&] {
      const Vector3d corner = triangles[random.next() % triangles.size()][random.next() % 3];
      const Vector3d anywhere{random.between(-1.0, 7.0), random.between(-1.0, 7.0),
                              random.between(-1.0, 5.0)};
      return random.next() % 3 == 0 ? corner : anywhere;
    };
    for (int i = 0; i < 400 && !::testing::Test::HasFailure(); ++i) {
      const Segment segment{place(), place()};
      const PlanSegment way = to_plan(Plane::space, segment);
      const auto expected = shells.first([&](const Prism& p) { return first_touch(p, way); });
      EXPECT_EQ(share_of(world.first_touch(segment, Stops::sight)), expected) << seed << " " << i;
      EXPECT_EQ(world.is_clear(segment, Stops::sight), !expected) << seed << " " << i;
      const auto ball = shells.first([&](const Prism& p) { return first_touch(p, way, 0.2); });
      EXPECT_EQ(share_of(world.first_touch(BallPath{segment, 0.2}, Stops::shots)), ball);
      const Cylinder body{segment.from, 0.3, 1.2};
      const PlanBody flat = to_plan(Plane::space, body);
      EXPECT_EQ(world.overlaps(body, Stops::bodies),
                shells
                    .first([&](const Prism& p) {
                      return overlaps(p, flat) ? std::optional(0.0) : std::nullopt;
                    })
                    .has_value());
      (expected ? touched : clear) += 1;
    }
  }
  EXPECT_GT(touched, testing::enough(500U));
  EXPECT_GT(clear, testing::enough(200U));
}

// A hill alone, 100 m off: the ground is made as far as 64 m round what a level speaks of.
TEST(MeshShells, BelongToTheExtentOfALevel) {
  const Vector3d top{100.0, 0.0, 1.0};
  Level level = level_of({{top, {103.0, -2.0, 0.2}, {103.0, 2.0, 0.2}}});
  const NavigationMesh mesh(level, World(level), BodySize{});
  EXPECT_TRUE(mesh.find({150.0, 0.0, 0.0}));
  EXPECT_TRUE(mesh.find({50.0, 0.0, 0.0}));
  EXPECT_FALSE(mesh.find({0.0, 0.0, 0.0}));
}

// Of a triangle of a terrain the index keeps three numbers, and half a corner on average.
TEST(MeshShells, TakeLittleMemory) {
  std::vector<Triangle> triangles;
  const auto at = [](int x, int y) {
    return Vector3d{double(x), double(y), std::sin(0.3 * x) + std::cos(0.2 * y)};
  };
  for (int x = 0; x < 200; ++x) {
    for (int y = 0; y < 200; ++y) {
      triangles.push_back({at(x, y), at(x + 1, y), at(x + 1, y + 1)});
      triangles.push_back({at(x, y), at(x + 1, y + 1), at(x, y + 1)});
    }
  }
  const World world(level_of(triangles));
  EXPECT_LT(static_cast<double>(world.index_bytes()), 100.0 * double(triangles.size()));
}

}  // namespace
}  // namespace gaze
