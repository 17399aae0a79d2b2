// A tilted view, held to angles between vectors; and feelers that turn with the head.

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "gaze/acquaintance.hpp"
#include "gaze/seen_area.hpp"
#include "support/levels.hpp"
#include "support/sights.hpp"

namespace gaze {
namespace {

using testing::someone;
using testing::watcher;

Level empty_level(Plane plane) {
  const char* names[] = {"ground", "upright", "space"};
  return read_level_text(std::string("plane = \"") + names[static_cast<int>(plane)] + "\"\n",
                         "empty.toml");
}

double radians(double degrees) {
  return degrees * std::numbers::pi / 180.0;
}

double degrees_between(const Vector3d& a, const Vector3d& b) {
  return std::acos(std::clamp(a.dot(b) / (a.norm() * b.norm()), -1.0, 1.0)) * 180.0 /
         std::numbers::pi;
}

/// Looks from 1 m up at somebody whose middle is at a place.
Verdict verdict_of(Plane plane, const Looker& looker, const Vector3d& middle) {
  const Level level = empty_level(plane);
  const World world(level);
  return look(world, level, looker, someone(middle - Vector3d{0.0, 0.0, 1.0}));
}

TEST(Tilt, RaisesAVerticalFieldOfView) {
  Looker looker = watcher(360.0);
  looker.sight.vertical_field_of_view = Angle::from_degrees(40.0);
  looker.sight.tilt = Angle::from_degrees(-30.0);
  // 5 m away and level with the eye: 30 degrees above the middle of the view.
  const auto level = verdict_of(Plane::ground, looker, {5.0, 0.0, 1.0}).vertical;
  EXPECT_NEAR(level->value_deg, 30.0, 1e-9);
  EXPECT_FALSE(level->pass);
  // 3 m away and 1 m down: 18.43 degrees below level, so 11.57 above the middle.
  const auto below = verdict_of(Plane::ground, looker, {3.0, 0.0, 0.0}).vertical;
  EXPECT_NEAR(below->value_deg, 30.0 - std::atan2(1.0, 3.0) * 180.0 / std::numbers::pi, 1e-9);
  EXPECT_TRUE(below->pass);
}

TEST(Tilt, SeenFromTheSideTurnsTheViewAndIsMirrored) {
  Looker looker = watcher(40.0);
  looker.sight.tilt = Angle::from_degrees(30.0);
  for (const double facing : {1.0, -1.0}) {
    looker.facing = {facing, 0.0};
    const Vector3d up{facing * 4.0 * std::cos(radians(45.0)), 0.0,
                      1.0 + 4.0 * std::sin(radians(45.0))};
    EXPECT_NEAR(verdict_of(Plane::upright, looker, up).field.value_deg, 15.0, 1e-9);
    const auto level = verdict_of(Plane::upright, looker, {facing * 4.0, 0.0, 1.0});
    EXPECT_NEAR(level.field.value_deg, 30.0, 1e-9);
    EXPECT_FALSE(level.field.pass);
  }
}

TEST(Tilt, OfARoundViewInSpaceIsTheAngleToItsAxis) {
  std::mt19937_64 random(5);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  };
  for (int round = 0; round < 300; ++round) {
    const double field = between(5.0, 350.0);
    const double tilt = between(-90.0, 90.0);
    const double turn = between(-180.0, 180.0);
    Looker looker = watcher(field);
    looker.facing = {std::cos(radians(turn)), std::sin(radians(turn))};
    looker.sight.tilt = Angle::from_degrees(tilt);
    const Vector3d axis{std::cos(radians(tilt)) * looker.facing.x(),
                        std::cos(radians(tilt)) * looker.facing.y(), std::sin(radians(tilt))};
    const Vector3d way{between(-5.0, 5.0), between(-5.0, 5.0), between(-5.0, 5.0)};
    const auto test = verdict_of(Plane::space, looker, way + Vector3d{0.0, 0.0, 1.0}).field;
    const double expected = degrees_between(axis, way);
    EXPECT_NEAR(test.value_deg, expected, 1e-6);
    if (std::abs(expected - field / 2.0) < 1e-6) continue;
    EXPECT_EQ(test.pass, expected < field / 2.0);
  }
}

// What lies level with the eye is seen exactly where the seen area has it.
TEST(Tilt, SeenAreasAreThePartOfTheViewInTheirPlane) {
  std::mt19937_64 random(6);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  };
  for (const Plane plane : {Plane::ground, Plane::upright, Plane::space}) {
    const Level level = empty_level(plane);
    const World world(level);
    for (int round = 0; round < 100; ++round) {
      Looker looker = watcher(between(5.0, 340.0));
      looker.sight.tilt = Angle::from_degrees(between(-90.0, 90.0));
      const SeenArea area = seen_area(world, looker);
      for (int spot = 0; spot < 20; ++spot) {
        const Vector2d place{between(-12.0, 12.0), between(-12.0, 12.0)};
        const Vector3d middle = plane == Plane::upright ? Vector3d{place.x(), 0.0, place.y() + 1.0}
                                                        : Vector3d{place.x(), place.y(), 1.0};
        const Verdict verdict = verdict_of(plane, looker, middle);
        const bool is_near_a_limit =
            std::abs(verdict.field.value_deg - verdict.field.limit_deg) < 1e-6;
        if (is_near_a_limit) continue;
        const Vector2d at = plane == Plane::upright ? Vector2d{place.x(), place.y() + 1.0} : place;
        const bool is_in_range = place.norm() < 10.0;
        EXPECT_EQ(area.contains(at), is_in_range && verdict.field.pass);
      }
    }
  }
}

TEST(Tilt, InALevelWhereItHasNoEffectIsTold) {
  const std::string lamp =
      "[kind.lamp]\nteam = \"caretakers\"\n[kind.lamp.sight]\nrange = 5\nfield_of_view = 90\n"
      "tilt = -20\n" +
      testing::placed("lamp", "lamp", "[0, 0]");
  EXPECT_EQ(testing::findings_of(lamp, "key-without-effect").size(), 1U);
  for (const Finding& finding :
       judge(testing::garden(lamp, {{"kind.lamp.sight.vertical_field_of_view", "40"}}))) {
    EXPECT_NE(finding.code, "key-without-effect");
  }
}

// The head sweeps over somebody 3 m to the left, and its feeler with it; one of the body does not.
TEST(FeelerOfTheHead, ScansWithIt) {
  const auto noticed_at = [](const std::string& turns) -> std::optional<double> {
    Simulation simulation(testing::garden(
        "[kind.reed]\nteam = \"caretakers\"\n[kind.reed.scan]\nstyle = \"round\"\nrate = 45\n"
        "[kind.reed.feeler.stalk]\nlength = 4\n" +
        turns + "[kind.collector]\nteam = \"visitors\"\nradius = 0.3\n" +
        testing::placed("reed", "reed", "[0, 0]") +
        testing::placed("collector", "collector", "[0, 3]", "driver = \"host\"")));
    for (const Event& event : testing::play(simulation, 480)) {
      if (event.what == Event::What::noticed) return double(event.tick) / 60.0;
    }
    return std::nullopt;
  };
  EXPECT_FALSE(noticed_at("").has_value());
  EXPECT_FALSE(noticed_at("turns = \"body\"\n").has_value());
  // From where its ray touches a body of 0.3 m: 90 - asin(0.3 / 3) degrees at 45 a second.
  const double due = (90.0 - std::asin(0.1) * 180.0 / std::numbers::pi) / 45.0;
  ASSERT_TRUE(noticed_at("turns = \"head\"\n").has_value());
  EXPECT_NEAR(*noticed_at("turns = \"head\"\n"), due, 1.01 / 60.0);
}

}  // namespace
}  // namespace gaze
