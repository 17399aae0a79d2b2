// Meshes of many solids, or pieces of one solid, that overlap after they are grown by a body.

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "fuzz/choices.hpp"
#include "gaze/navigation.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::block;
using testing::garden;

// Returns a star: corners at equal angles, each at a random distance from the centre.
std::string star(Choices& choices, const Vector2d& middle, int corners, double near, double far) {
  std::string text;
  for (int i = 0; i < corners; ++i) {
    const double angle = 2.0 * M_PI * i / corners;
    const double distance = choices.between(near, far);
    text += fmt::format("[{:.4f}, {:.4f}], ", middle.x() + distance * std::cos(angle),
                        middle.y() + distance * std::sin(angle));
  }
  return "[" + text + "]";
}

BodySize grown_by(double radius) {
  BodySize body;
  body.radius = radius;
  body.height = 1.7;
  return body;
}

// Returns whether a body fits, by its shape alone, as in mesh_test.cpp. Breakable solids do not
// count.
void expect_free_space(const Level& level, const World& lasting, double radius, Choices& choices,
                       std::size_t& on, std::size_t& off) {
  const NavigationMesh mesh(level, World(level), grown_by(radius));
  for (int i = 0; i < 300; ++i) {
    const double side = choices.one_in(2) ? 14.0 : 14.0 + 2.0 * radius;
    const Vector3d feet{choices.between(-side, side), choices.between(-side, side), 0.0};
    const auto place = mesh.find(feet);
    const bool is_on = place && place->place == feet;
    ++(is_on ? on : off);
    const Cylinder body{feet + Vector3d{0.0, 0.0, 0.3}, is_on ? radius : radius + 0.01, 1.4};
    EXPECT_EQ(lasting.overlaps(body, Stops::bodies), !is_on) << radius << ": " << feet.transpose();
  }
}

TEST(CrowdedMesh, HoldsAPlaceJustWhereTheBodyFits) {
  std::size_t on = 0;
  std::size_t off = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    Choices choices(seed);
    // A mesh ends 64 m outside the bounds of the solids and agents.
    std::string lasting = block("far", "[[200, 200], [201, 200], [201, 201], [200, 201]]") +
                          block("off", "[[-201, -201], [-200, -201], [-200, -200], [-201, -200]]");
    std::string breaking;
    const std::uint32_t count = 1 + choices.below(5);
    for (std::uint32_t i = 0; i < count; ++i) {
      const Vector2d middle{choices.between(-4.0, 4.0), choices.between(-4.0, 4.0)};
      const std::string outline =
          star(choices, middle, 20 + static_cast<int>(choices.below(100)), 1.0, 9.0);
      const bool breaks = choices.one_in(4);
      (breaks ? breaking : lasting) +=
          block(fmt::format("s{}", i), outline, breaks ? "health = 10" : "");
    }
    const double radius = choices.of<double>({0.3, 1.5, 6.0, 40.0});
    const Level level = garden(lasting + breaking);
    expect_free_space(level, World(garden(lasting)), radius, choices, on, off);
  }
  EXPECT_GT(on, testing::enough(1'000U));
  EXPECT_GT(off, testing::enough(1'000U));
}

// The mesh keeps only the outline of the area that the body cannot enter: the corners of the solid,
// and an arc of about 1,000 corners around each convex one. The pieces would cross a million times.
TEST(CrowdedMesh, OfOneSolidAndAHugeBodyIsSmall) {
  Choices choices(1);
  const Level level = garden(block("rock", star(choices, {0.0, 0.0}, 500, 3.0, 12.0)) +
                             "[[floor]]\nid = \"mat\"\nmaterial = \"brick\"\ntop = 0.1\n"
                             "outline = [[9000, 0], [9001, 0], [9001, 1], [9000, 1]]\n");
  const NavigationMesh mesh(level, World(level), grown_by(495.0));
  EXPECT_GT(mesh.polygon_count(), 10U);
  EXPECT_LT(mesh.polygon_count(), 20'000U);
  EXPECT_FALSE(mesh.find({500.0, 0.0, 0.0}));  // the rock is 3 m wide at least
  EXPECT_TRUE(mesh.find({508.0, 0.0, 0.0}));
}

}  // namespace
}  // namespace gaze
