#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "gaze/path.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

/// Surfaces that pass through the ground: ramps whose foot is sunk into it, hills that dip below
/// it.
namespace gaze {
namespace {

Vector3d at_height(const Vector2d& p, double z) {
  return {p.x(), p.y(), z};
}

/// A deck, and a ramp that leads up to it along some direction. Its foot may lie below the ground,
/// and its upper end in the deck, or a little above or below that.
struct Slip {
  Vector2d foot;
  Vector2d along;
  double run = 0.0;
  double sunk = 0.0;
  double top = 0.0;
  double slope = 0.0;
  double last_step = 0.0;  ///< Up from the ramp to the deck, at its rim.
  Level level;

  explicit Slip(scenes::Random& random) {
    const double angle = random.between(0.0, 6.283);
    along = {std::cos(angle), std::sin(angle)};
    foot = {random.between(-5.0, 5.0), random.between(-5.0, 5.0)};
    sunk = random.next() % 4 == 0 ? 0.0 : random.between(0.0, random.next() % 2 == 0 ? 0.05 : 1.0);
    top = random.between(1.0, 3.0);
    run = (top + sunk) / random.between(0.2, 0.5);
    const Vector2d across{-along.y(), along.x()};
    const Vector2d end = foot + along * run;
    Solid deck;
    deck.id = "deck";
    deck.form = Solid::Form::floor;
    deck.points = {end - across * 3.0, end - across * 3.0 + along * 5.0,
                   end + across * 3.0 + along * 5.0, end + across * 3.0};
    if (across.x() * along.y() - across.y() * along.x() > 0.0)
      std::reverse(deck.points.begin(), deck.points.end());
    deck.base = top - deck.thickness;
    Solid ramp;
    ramp.id = "ramp";
    ramp.form = Solid::Form::ramp;
    ramp.from = at_height(foot, -sunk);
    const double lap = random.next() % 2 == 0 ? 0.0 : random.between(0.0, 0.3);
    const double lift = random.next() % 2 == 0 ? 0.0 : random.between(-0.08, 0.2);
    ramp.to = at_height(end + along * lap, top + lift);
    slope = (top + lift + sunk) / (run + lap);
    last_step = top - (slope * run - sunk);
    ramp.width = random.between(1.4, 3.0);
    level.plane = Plane::space;
    level.solids = {deck, ramp};
    complete(level);
  }
};

TEST(SunkRamp, IsWalkedUpStraight) {
  scenes::Random random(11);
  int sunk = 0;
  for (std::uint64_t i = 0; i < testing::rounds(300); ++i) {
    const Slip slip(random);
    BodySize body;
    body.radius = random.between(0.2, 0.45);
    const NavigationMesh mesh(slip.level, World(slip.level), body);
    const Vector3d from = at_height(slip.foot - slip.along * 3.0, 0.0);
    const Vector3d to = at_height(slip.foot + slip.along * (slip.run + 2.0), slip.top);
    const Path up = find_path(mesh, from, to);
    const Path down = find_path(mesh, to, from);
    const std::string what = fmt::format("{}: sunk by {}", i, slip.sunk);
    // Where the rim of the deck comes within its radius, it is so high above the feet of the body.
    const double climbs = slip.slope * body.radius + slip.last_step;
    if (climbs > body.step_height + 0.01) {
      EXPECT_EQ(name_of(up.outcome), "partial") << what;
    }
    if (climbs > body.step_height - 0.01) continue;
    ASSERT_EQ(name_of(up.outcome), "whole") << what;
    EXPECT_NEAR(up.length, slip.run + 5.0, 1e-6) << what;
    EXPECT_NEAR(down.length, slip.run + 5.0, 1e-6) << what;
    sunk += slip.sunk > 0.1 ? 1 : 0;
  }
  EXPECT_GT(sunk, testing::enough(50));
}

/// Gentle hills over 20 m x 20 m, partly below the ground.
Solid hills(scenes::Random& random) {
  const double phase = random.between(0.0, 6.0);
  const double size = random.between(0.05, 0.9);
  return testing::terrain(
      10, 2.0, [&](int i, int j) { return size * std::sin(0.6 * i + phase) * std::cos(0.5 * j); });
}

// Where hills rise out of the ground one walks on them, else on the ground: all of it is free, so
// that every way is straight.
TEST(SunkHills, AreWalkedOverStraight) {
  scenes::Random random(13);
  int over = 0;
  for (std::uint64_t round = 0; round < testing::rounds(20); ++round) {
    Level level;
    level.plane = Plane::space;
    level.solids = {hills(random)};
    complete(level);
    const World world(level);
    BodySize body;
    body.height = 1.0;
    const NavigationMesh mesh(level, world, body);
    const auto somewhere = [&] {
      const Vector2d p{random.between(1.0, 19.0), random.between(1.0, 19.0)};
      const auto hit =
          world.first_touch(Segment{at_height(p, 5.0), at_height(p, 0.0)}, Stops::bodies);
      return at_height(p, hit ? 5.0 * (1.0 - hit->share) : 0.0);
    };
    for (int i = 0; i < 40; ++i) {
      const Vector3d from = somewhere();
      const Vector3d to = somewhere();
      const Path path = find_path(mesh, from, to);
      const std::string what = fmt::format("{}.{}: [{}, {}, {}] to [{}, {}, {}]", round, i,
                                           from.x(), from.y(), from.z(), to.x(), to.y(), to.z());
      ASSERT_EQ(name_of(path.outcome), "whole") << what;
      EXPECT_NEAR(path.length, std::hypot(to.x() - from.x(), to.y() - from.y()), 1e-5) << what;
      over += path.points.size() > 4 ? 1 : 0;
    }
  }
  EXPECT_GT(over, testing::enough(200));
}

// What lies deeper than a step is left, and says where it is.
TEST(SunkHills, AreNamedWhereTheyLieBelowTheGround) {
  Level level;
  level.plane = Plane::space;
  level.solids = {
      testing::terrain(2, 4.0, [](int i, int j) { return i == 1 && j == 1 ? -1.0 : 0.2; })};
  complete(level);
  const NavigationMesh mesh(level, World(level), BodySize{});
  ASSERT_EQ(mesh.islands().size(), 2U);
  EXPECT_EQ(mesh.islands()[0].name, "ground");
  EXPECT_EQ(mesh.islands()[1].name, "hills below the ground");
}

// Seen from the side: a wedge that comes out of the ground.
TEST(SunkRamp, IsWalkedUpSeenFromTheSide) {
  scenes::Random random(14);
  for (std::uint64_t i = 0; i < testing::rounds(200); ++i) {
    const double sunk = random.between(0.0, 0.8);
    const double top = random.between(0.5, 2.0);
    const double run = (sunk + top) / random.between(0.2, 0.6);
    Solid wedge;
    wedge.id = "wedge";
    wedge.base = -10.0;
    wedge.height = 20.0;
    wedge.points = {{0.0, -sunk}, {0.0, -5.0}, {run, -5.0}, {run, top}};
    Level level = testing::level_of({wedge}, Plane::upright);
    complete(level);
    const NavigationMesh mesh(level, World(level), BodySize{});
    const double end = run - 0.1;
    const Path path =
        find_path(mesh, {-2.0, 0.0, 0.0}, {end, 0.0, end * (sunk + top) / run - sunk});
    ASSERT_EQ(name_of(path.outcome), "whole") << i << ": sunk by " << sunk;
    EXPECT_NEAR(path.length, 2.0 + end, 1e-6) << i;
  }
}

}  // namespace
}  // namespace gaze
