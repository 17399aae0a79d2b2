#include "gaze/navigation.hpp"

#include <fmt/format.h>

#include <queue>

#include "gaze/path.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::wall;

constexpr double kPi = 3.14159265358979323846;

BodySize body_of(double radius, double height = 1.7) {
  BodySize body;
  body.radius = radius;
  body.height = height;
  return body;
}

NavigationMesh mesh_of(const Level& level, const BodySize& body) {
  return NavigationMesh(level, World(level), body);
}

double area_of_island_at(const NavigationMesh& mesh, const Vector3d& place) {
  return mesh.islands()[mesh.island_of(mesh.find(place).value())].area;
}

const std::string kRoom =
    wall("room", "[[0.0, 0.0], [10.0, 0.0], [10.0, 8.0], [0.0, 8.0], [0.0, 0.0]]") +
    block("table", "[[4.0, 3.0], [6.0, 3.0], [6.0, 4.0], [4.0, 4.0]]", "height = 0.9");

TEST(NavigationMesh, CoversTheExactFreeSpace) {
  // Inside the walls of 0.2 m and 0.4 m off them, less the table and what lies within 0.4 m of it.
  const NavigationMesh mesh = mesh_of(garden(kRoom), body_of(0.4));
  const double room = (9.8 - 0.8) * (7.8 - 0.8);
  const double table = 2.0 + 0.4 * 6.0 + kPi * 0.4 * 0.4;
  const double area = area_of_island_at(mesh, {1.0, 1.0, 0.0});
  const double rim = 2.0 * (9.0 + 7.0) + 6.0 + 2.0 * kPi * 0.4;
  EXPECT_LT(area, room - table);
  EXPECT_GT(area, room - table - rim * 0.01);
}

TEST(NavigationMesh, IsMadeOfConvexPolygonsThatShareTheirEdges) {
  const Level level = scenes::make_scene(60, 30.0, 5);
  const NavigationMesh mesh = mesh_of(level, body_of(0.4));
  ASSERT_GT(mesh.polygon_count(), 100U);
  double sum = 0.0;
  for (std::uint32_t i = 0; i < mesh.polygon_count(); ++i) {
    const MeshPolygon polygon = mesh.polygon(i);
    const std::size_t count = polygon.corners.size();
    for (std::size_t k = 0; k < count; ++k) {
      const Vector3d& a = polygon.corners[k];
      const Vector3d& b = polygon.corners[(k + 1) % count];
      const Vector3d& c = polygon.corners[(k + 2) % count];
      EXPECT_GE((b.x() - a.x()) * (c.y() - b.y()) - (b.y() - a.y()) * (c.x() - b.x()), 0.0);
      sum += (a.x() * b.y() - a.y() * b.x()) / 2.0;
      if (!polygon.beyond[k]) continue;
      const MeshPolygon other = mesh.polygon(*polygon.beyond[k]);
      bool is_shared = false;
      for (std::size_t m = 0; m < other.corners.size(); ++m) {
        is_shared |= other.corners[m] == b && other.corners[(m + 1) % other.corners.size()] == a &&
                     other.beyond[m] == i;
      }
      EXPECT_TRUE(is_shared) << i << ", edge " << k;
    }
  }
  EXPECT_NEAR(sum, mesh.area(), 1e-6 * sum);
}

// By the shape of a body alone: on the mesh it fits, off the mesh it is a centimetre short of it.
TEST(NavigationMesh, HoldsAPlaceJustWhereTheBodyFits) {
  int on = 0;
  int off = 0;
  for (std::uint64_t seed = 1; seed <= 6; ++seed) {
    const double radius = seed % 2 == 0 ? 0.3 : 0.7;
    const Level level = scenes::make_scene(40, 20.0, seed);
    const World world(level);
    const NavigationMesh mesh(level, world, body_of(radius));
    scenes::Random random(seed);
    for (int i = 0; i < 3'000; ++i) {
      const Vector3d feet{random.between(0.0, 20.0), random.between(0.0, 20.0), 0.0};
      const auto place = mesh.find(feet);
      const bool is_on = place && place->place == feet;
      const Vector3d lifted = feet + Vector3d{0.0, 0.0, 0.3};
      if (is_on) {
        ++on;
        EXPECT_FALSE(world.overlaps({lifted, radius, 1.4}, Stops::bodies)) << feet.transpose();
      } else {
        ++off;
        EXPECT_TRUE(world.overlaps({lifted, radius + 0.01, 1.4}, Stops::bodies))
            << feet.transpose();
      }
    }
  }
  EXPECT_GT(on, 3'000);
  EXPECT_GT(off, 3'000);
}

// Whether there is a way, by flooding squares of 2 cm: of those that a slightly smaller body fits
// in, and of those that a slightly larger one does.
class Flood {
 public:
  Flood(const World& world, double side, double radius) : count_(static_cast<int>(side / kSquare)) {
    for (int row = 0; row < count_; ++row) {
      for (int column = 0; column < count_; ++column) {
        const Vector3d feet{(column + 0.5) * kSquare, (row + 0.5) * kSquare, 0.3};
        free_.push_back(!world.overlaps({feet, radius, 1.4}, Stops::bodies));
      }
    }
  }

  bool leads(const Vector3d& from, const Vector3d& to) const {
    std::vector<char> seen(free_.size());
    std::queue<int> queue;
    const auto visit = [&](int at) {
      if (seen[static_cast<std::size_t>(at)] || !free_[static_cast<std::size_t>(at)]) return;
      seen[static_cast<std::size_t>(at)] = 1;
      queue.push(at);
    };
    visit(square(from));
    while (!queue.empty()) {
      const int at = queue.front();
      queue.pop();
      if (at % count_ > 0) visit(at - 1);
      if (at % count_ < count_ - 1) visit(at + 1);
      if (at >= count_) visit(at - count_);
      if (at < count_ * (count_ - 1)) visit(at + count_);
    }
    return seen[static_cast<std::size_t>(square(to))] != 0;
  }

 private:
  static constexpr double kSquare = 0.02;
  int square(const Vector3d& p) const {
    return static_cast<int>(p.y() / kSquare) * count_ + static_cast<int>(p.x() / kSquare);
  }
  int count_;
  std::vector<char> free_;
};

TEST(FindPath, FindsNoneOnlyWhereThereIsNone) {
  int with = 0;
  int without = 0;
  for (std::uint64_t seed = 1; seed <= 4; ++seed) {
    const double side = 9.0;
    const double radius = 0.42;
    const Level level = scenes::make_scene(10, side, 40 + seed);
    const World world(level);
    const NavigationMesh mesh(level, world, body_of(radius));
    const Flood surely(world, side, radius + 0.03);
    const Flood perhaps(world, side, radius - 0.02);
    scenes::Random random(seed);
    for (int i = 0; i < 40; ++i) {
      const Vector3d from{random.between(0.5, 8.5), random.between(0.5, 8.5), 0.0};
      const Vector3d to{random.between(0.5, 8.5), random.between(0.5, 8.5), 0.0};
      const bool is_whole = find_path(mesh, from, to).outcome == Path::Outcome::whole;
      if (surely.leads(from, to)) {
        EXPECT_TRUE(is_whole) << seed << ", " << i;
        ++with;
      } else if (!perhaps.leads(from, to)) {
        EXPECT_FALSE(is_whole) << seed << ", " << i;
        ++without;
      }
    }
  }
  EXPECT_GT(with, 20);
  EXPECT_GT(without, 20);
}

const char* const kGallery = R"(
plane = "space"
[[floor]]
id = "gallery"
material = "brick"
outline = [[0.0, 8.0], [14.0, 8.0], [14.0, 12.0], [0.0, 12.0]]
top = 3.0
[[ramp]]
id = "ramp"
material = "brick"
from = [10.0, 2.0, 0.0]
to = [10.0, 8.0, 3.0]
width = 1.6
)";

TEST(NavigationMesh, HasFloorsAboveEachOther) {
  const NavigationMesh mesh = mesh_of(garden(kGallery), body_of(0.4));
  EXPECT_EQ(mesh.find({5.0, 10.0, 3.0})->place.z(), 3.0);
  EXPECT_EQ(mesh.find({5.0, 10.0, 0.0})->place.z(), 0.0);
  EXPECT_NEAR(mesh.find({10.0, 5.0, 1.5})->place.z(), 1.5, 1e-12);
  EXPECT_EQ(mesh.islands().size(), 1U);
}

TEST(FindPath, LeadsUpARampAsShortAsGeometrySays) {
  // Round the corner of the ramp's foot, where it is still low enough to step on, and that of its
  // upper end: the ramp is a step high after 0.6 m, and the body's clearance of it begins 0.4 m
  // before that.
  const NavigationMesh mesh = mesh_of(garden(kGallery), body_of(0.4));
  const Path path = find_path(mesh, {9.2, 0.0, 0.0}, {9.2, 10.0, 3.0});
  ASSERT_EQ(path.outcome, Path::Outcome::whole);
  EXPECT_NEAR(path.length, 10.0, 1e-9);  // straight along the ramp's own edge
  const Path round = find_path(mesh, {13.0, 4.0, 0.0}, {10.0, 9.0, 3.0});
  ASSERT_EQ(round.outcome, Path::Outcome::whole);
  EXPECT_GT(round.length, std::hypot(13.0 - 10.8, 4.0 - 2.6) + std::hypot(0.8, 9.0 - 2.6));
  EXPECT_EQ(round.points.back(), Vector3d(10.0, 9.0, 3.0));
}

TEST(NavigationMesh, LeavesRoomForTheHead) {
  const std::string beam = R"(
[[block]]
id = "beam"
material = "brick"
outline = [[-5.0, -0.5], [5.0, -0.5], [5.0, 0.5], [-5.0, 0.5]]
base = 1.6
height = 0.4
)";
  EXPECT_TRUE(mesh_of(garden(beam), body_of(0.3, 1.6)).find({0.0, 0.0, 0.0}));
  EXPECT_FALSE(mesh_of(garden(beam), body_of(0.3, 1.61)).find({0.0, 0.0, 0.0}));
}

TEST(NavigationMesh, ClimbsNoSlopeThatItsStepDoesNotFollow) {
  // 3 up on 6: tan is 0.5. Within a radius of 0.7 that rises 0.35, more than a step of 0.3.
  const Level level = garden(kGallery);
  EXPECT_EQ(mesh_of(level, body_of(0.59)).islands().size(), 1U);
  EXPECT_EQ(mesh_of(level, body_of(0.61)).islands().size(), 2U);
  BodySize timid = body_of(0.4);
  timid.slope = Angle::from_degrees(26.0);  // atan 0.5 is 26.57
  EXPECT_EQ(mesh_of(level, timid).islands().size(), 2U);
}

std::string two_rooms(double gap) {
  return fmt::format(R"(
[[wall]]
id = "house"
material = "brick"
path = [[0.0, 0.0], [10.0, 0.0], [10.0, 10.0], [0.0, 10.0], [0.0, 0.0]]
[[wall]]
id = "fence-1"
material = "brick"
path = [[5.0, 0.0], [5.0, {}]]
[[wall]]
id = "fence-2"
material = "brick"
path = [[5.0, {}], [5.0, 10.0]]
)",
                     5.0 - gap / 2.0, 5.0 + gap / 2.0);
}

TEST(Parting, NamesTheGapAndWhatItTakes) {
  const Level level = garden(two_rooms(0.62));
  const World world(level);
  const NavigationMesh mesh(level, world, body_of(0.4));
  const Parting gap = parting(level, world, mesh, {1.0, 1.0, 0.0}, {9.0, 9.0, 0.0});
  EXPECT_EQ(gap.what, Parting::What::narrow);
  EXPECT_NEAR(gap.found, 0.62, 0.01);
  EXPECT_EQ(gap.needed, 0.8);
  EXPECT_NEAR(gap.place.x(), 5.0, 0.3);
  EXPECT_NEAR(gap.place.y(), 5.0, 0.3);
  ASSERT_EQ(gap.solids.size(), 2U);
  EXPECT_EQ(level.solids[gap.solids[0].index].id, "fence-1");
  EXPECT_EQ(level.solids[gap.solids[1].index].id, "fence-2");
  EXPECT_EQ(mesh_of(garden(two_rooms(0.82)), body_of(0.4)).islands().size(), 2U);  // and outside
}

// From inside a ring of fence to a gallery: that lies higher, but a ramp leads up to it. What is
// told is the fence, where the ground outside comes nearest.
TEST(Parting, NamesWhatClosesItOff) {
  const std::string ramp = R"(
[[ramp]]
id = "ramp"
material = "brick"
from = [12.0, 3.0, 2.0]
to = [19.0, 3.0, 0.0]
width = 1.6
)";
  const std::string rest = R"(
plane = "space"
[[floor]]
id = "gallery"
material = "brick"
outline = [[0.0, 0.0], [12.0, 0.0], [12.0, 6.0], [0.0, 6.0]]
top = 2.0
[[wall]]
id = "fence"
material = "brick"
thickness = 0.2
path = [[22.0, -4.0], [26.0, -4.0], [26.0, 4.0], [22.0, 4.0], [22.0, -4.0]]
)";
  const auto text = [&](const std::string& solids, const Vector3d& from, const Vector3d& to) {
    const Level level = garden(solids);
    const World world(level);
    const NavigationMesh mesh(level, world, body_of(0.3));
    return describe(level, parting(level, world, mesh, from, to));
  };
  const Vector3d gallery{2.0, 3.0, 2.0};
  const Vector3d ring{24.0, 0.0, 0.0};
  // All four sides come as near: the one that faces the gallery is told, from its inner side or
  // from its outer one.
  EXPECT_EQ(text(rest + ramp, ring, gallery),
            "fence closes it off at [22.10, 3.00, 0.00], with no gap however small");
  EXPECT_EQ(text(rest + ramp, gallery, ring),
            "fence closes it off at [21.90, 3.00, 0.00], with no gap however small");
  // Without the ramp it is the height, from wherever on the ground.
  EXPECT_EQ(text(rest, {20.0, 30.0, 0.0}, gallery),
            "it lies 2.00 m higher, this body steps 0.30 m, and nothing joins them");
}

TEST(Parting, NamesDoorsAndWhatBreaks) {
  const std::string door = R"(
[[door]]
id = "hatch"
material = "brick"
path = [[5.0, 4.3], [5.0, 5.7]]
opens_for = ["visitors"]
)" + block("crate", "[[6.3, 4.0], [7.0, 4.0], [7.0, 6.0], [6.3, 6.0]]", "health = 10.0");
  const Level level = garden(two_rooms(1.4) + door);
  const World world(level);
  const NavigationMesh mesh(level, world, body_of(0.3));
  const Vector3d from{1.0, 1.0, 0.0};
  const auto text = [&](const Vector3d& to) {
    return describe(level, parting(level, world, mesh, from, to));
  };
  // The crate can be walked round, once one is through the door; not for who stands in it.
  EXPECT_EQ(text({9.0, 9.0, 0.0}), "the door hatch opens for visitors alone");
  EXPECT_EQ(text({6.65, 5.0, 0.0}),
            "crate is in the way until it is broken, and the door hatch opens for visitors alone");
}

TEST(FindPath, TellsWholePartialNoneAndBadEndsApart) {
  const Level level = garden(two_rooms(0.62));
  const World world(level);
  const NavigationMesh mesh(level, world, body_of(0.4));
  const Vector3d here{1.0, 1.0, 0.0};
  const auto outcome = [&](const Vector3d& from, const Vector3d& to) {
    return find_path(mesh, from, to).outcome;
  };
  EXPECT_EQ(outcome(here, {4.0, 9.0, 0.0}), Path::Outcome::whole);
  const Path partial = find_path(mesh, here, {9.0, 1.0, 0.0});
  EXPECT_EQ(partial.outcome, Path::Outcome::partial);
  EXPECT_NEAR(partial.points.back().x(), 4.5, 0.01);  // the wall is 0.1 m to that side
  EXPECT_NEAR(partial.points.back().y(), 1.0, 0.01);
  EXPECT_EQ(outcome(partial.points.back(), {9.0, 1.0, 0.0}), Path::Outcome::none);
  EXPECT_EQ(outcome({5.0, 1.0, 0.0}, here), Path::Outcome::bad_start);
  EXPECT_EQ(outcome(here, {5.0, 1.0, 0.0}), Path::Outcome::bad_goal);
  EXPECT_EQ(outcome(here, {1e9, 0.0, 0.0}), Path::Outcome::bad_goal);
  EXPECT_EQ(outcome(here, here), Path::Outcome::whole);
}

TEST(NavigationMesh, SeenFromTheSideConsistsOfLedges) {
  const Level level =
      garden(R"(
plane = "upright"
)" + block("crate", "[[4.0, 0.0], [5.0, 0.0], [5.0, 0.25], [4.0, 0.25]]") +
             block("cupboard", "[[8.0, 0.0], [9.0, 0.0], [9.0, 2.0], [8.0, 2.0]]") +
             block("low-beam", "[[-4.0, 1.5], [-3.0, 1.5], [-3.0, 1.8], [-4.0, 1.8]]"));
  const NavigationMesh mesh = mesh_of(level, body_of(0.4));
  const Path path = find_path(mesh, {2.0, 0.0, 0.0}, {7.0, 0.0, 0.0});
  EXPECT_EQ(path.outcome, Path::Outcome::whole);
  EXPECT_NEAR(path.length, 5.0, 1e-12);
  EXPECT_EQ(path.points.size(), 6U);  // up the crate and down again
  EXPECT_EQ(find_path(mesh, {2.0, 0.0, 0.0}, {11.0, 0.0, 0.0}).outcome, Path::Outcome::partial);
  EXPECT_EQ(find_path(mesh, {2.0, 0.0, 0.0}, {-6.0, 0.0, 0.0}).outcome, Path::Outcome::partial);
  // From the beam's clearance to the cupboard's.
  EXPECT_NEAR(area_of_island_at(mesh, {2.0, 0.0, 0.0}), (8.0 - 0.4) - (-3.0 + 0.4), 0.01);
}

}  // namespace
}  // namespace gaze
