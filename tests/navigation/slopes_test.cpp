#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>

#include "gaze/navigation.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

/// On slopes too a mesh is where a body fits, and nowhere else.
namespace gaze {
namespace {

enum class Slopes { hills, ramps, blocks_on_hills };

Solid steep_hills(scenes::Random& random) {
  const double phase = random.between(0.0, 6.0);
  const double size = random.between(0.2, 2.5);
  return testing::terrain(8, 2.0, [&](int i, int j) {
    return size * (1.2 + std::sin(1.1 * i + phase) * std::cos(0.9 * j));
  });
}

// Across each other, above and through each other, some of them sunk.
Solid any_ramp(scenes::Random& random) {
  const double angle = random.between(0.0, 6.283);
  const double run = random.between(3.0, 7.0);
  Solid solid;
  solid.form = Solid::Form::ramp;
  solid.from = {random.between(2.0, 14.0), random.between(2.0, 14.0), random.between(-0.3, 0.3)};
  solid.to = solid.from +
             Vector3d{run * std::cos(angle), run * std::sin(angle), run * random.between(0.1, 0.6)};
  solid.width = random.between(1.0, 4.0);
  return solid;
}

Solid any_block(scenes::Random& random) {
  const double angle = random.between(0.0, 6.283);
  const Vector2d along{std::cos(angle), std::sin(angle)};
  const Vector2d across{-along.y(), along.x()};
  const Vector2d at{random.between(1.0, 14.0), random.between(1.0, 14.0)};
  const double width = random.between(0.3, 2.0);
  const double length = random.between(0.3, 2.0);
  Solid solid;
  solid.points = {at, at + along * width, at + along * width + across * length,
                  at + across * length};
  solid.base = random.between(0.0, 2.0);
  solid.height = random.between(0.2, 2.0);
  return solid;
}

Level level_with(Slopes sort, scenes::Random& random) {
  Level level;
  level.plane = Plane::space;
  if (sort != Slopes::ramps) {
    level.ground_height.reset();
    level.solids.push_back(steep_hills(random));
  }
  for (int i = 0; i < 6 && sort != Slopes::hills; ++i) {
    level.solids.push_back(sort == Slopes::ramps ? any_ramp(random) : any_block(random));
    level.solids.back().id = fmt::format("solid-{}", i);
  }
  complete(level);
  return level;
}

/// Asks a world where one stands, by looking down.
class LookingDown {
 public:
  LookingDown(const Level& level, const World& world) : level_(level), world_(world) {}

  /// How high something is at a place in the plan, at or below a height.
  std::optional<double> below(double x, double y, double height) const {
    const auto hit = world_.first_touch(Segment{{x, y, height}, {x, y, -3.0}}, Stops::bodies);
    std::optional<double> found;
    if (hit) found = height + (-3.0 - height) * hit->share;
    if (level_.ground_height && !(found > level_.ground_height)) found = level_.ground_height;
    return found;
  }

  /// How steeply it rises there; nothing where it has an edge.
  std::optional<double> slope(double x, double y, double z) const {
    constexpr double kApart = 0.01;  // metres
    const auto at = [&](double dx, double dy) { return below(x + dx, y + dy, z + 0.3); };
    const auto left = at(-kApart, 0.0);
    const auto right = at(kApart, 0.0);
    const auto front = at(0.0, -kApart);
    const auto back = at(0.0, kApart);
    if (!left || !right || !front || !back) return std::nullopt;
    if (std::abs(*left + *right - 2.0 * z) > 1e-4) return std::nullopt;
    if (std::abs(*front + *back - 2.0 * z) > 1e-4) return std::nullopt;
    return std::hypot(*right - *left, *back - *front) / (2.0 * kApart);
  }

 private:
  const Level& level_;
  const World& world_;
};

class OnSlopes : public ::testing::TestWithParam<Slopes> {};

// By the shape of a body alone, as on level ground: on the mesh it fits; off the mesh a body that
// is a centimetre wider touches something, or it is too steep.
TEST_P(OnSlopes, AMeshHoldsAPlaceJustWhereTheBodyFits) {
  int on = 0;
  int off = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(40); ++seed) {
    scenes::Random random(seed * 7 + static_cast<std::uint64_t>(GetParam()));
    const Level level = level_with(GetParam(), random);
    const World world(level);
    const LookingDown looking(level, world);
    BodySize body;
    body.radius = random.between(0.2, 0.5);
    const NavigationMesh mesh(level, world, body);
    for (int i = 0; i < 1'000; ++i) {
      const double x = random.between(0.5, 15.5);
      const double y = random.between(0.5, 15.5);
      auto z = looking.below(x, y, random.between(0.3, 6.0));
      if (z) z = looking.below(x, y, *z + body.step_height);  // up to what it steps onto
      if (!z) continue;
      const Vector3d feet{x, y, *z};
      const auto place = mesh.find(feet);
      // The surfaces of a mesh are flat to within rounding.
      const bool is_on = place && place->place.x() == x && place->place.y() == y &&
                         std::abs(place->place.z() - *z) < 1e-4;
      const bool is_on_seam = !is_on && place && (place->place - feet).norm() < 0.001;
      const std::string what = fmt::format("seed {}, radius {}: [{}, {}, {}]", seed, body.radius,
                                           feet.x(), feet.y(), feet.z());
      const Vector3d lift{0.0, 0.0, body.step_height};
      const double height = body.height - body.step_height;
      if (is_on) {
        ++on;
        const Vector3d inside = feet + lift + Vector3d{0.0, 0.0, 1e-4};
        EXPECT_FALSE(world.overlaps({inside, body.radius, height - 2e-4}, Stops::bodies)) << what;
        continue;
      }
      const auto slope = looking.slope(x, y, *z);
      if (is_on_seam || !slope || *slope < 0.02)
        continue;  // tops that no body gets to may have no mesh
      ++off;
      const bool is_steep =
          *slope > std::tan(body.slope.degrees() * 3.14159265358979323846 / 180.0) - 1e-6 ||
          *slope * body.radius > body.step_height - 1e-6;
      const Vector3d wider = feet + lift - Vector3d{0.0, 0.0, 0.01};
      EXPECT_TRUE(is_steep ||
                  world.overlaps({wider, body.radius + 0.012, height + 0.02}, Stops::bodies))
          << what;
    }
  }
  EXPECT_GT(on, testing::enough(20'000));
  EXPECT_GT(off, testing::enough(100));
}

INSTANTIATE_TEST_SUITE_P(AllSorts, OnSlopes,
                         ::testing::Values(Slopes::hills, Slopes::ramps, Slopes::blocks_on_hills));

}  // namespace
}  // namespace gaze
