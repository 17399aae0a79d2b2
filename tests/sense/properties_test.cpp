// What holds for sight in every world, tried on thousands of them; and the same answers by other
// means.

#include <gtest/gtest.h>

#include <cmath>

#include "gaze/seen_area.hpp"
#include "gaze/sight.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using scenes::Random;

const std::vector<double> kBodyPoints{0.0, 0.5, 1.0};

// Coordinates are multiples of 1/64 m, so that moving, quarter turns and doubling are exact.
double coordinate(Random& random, double low, double high) {
  return std::round(random.between(low, high) * 64.0) / 64.0;
}

Level random_world(Random& random, int solids) {
  Level level;
  for (int i = 0; i < solids; ++i) {
    const double x = coordinate(random, 0.0, 20.0);
    const double y = coordinate(random, 0.0, 20.0);
    const double a = coordinate(random, 0.25, 4.0);
    const double b = coordinate(random, 0.25, 4.0);
    Solid solid;
    solid.id = "solid-" + std::to_string(i);
    solid.height = coordinate(random, 0.5, 3.0);
    solid.points = {{x, y}, {x + a, y - b / 2}, {x + a, y + b}, {x - a / 2, y + b}};
    level.solids.push_back(solid);
  }
  return level;
}

Looker random_looker(Random& random) {
  Looker looker;
  looker.feet = {coordinate(random, 0.0, 20.0), coordinate(random, 0.0, 20.0), 0.0};
  const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0.0, 360.0)));
  looker.facing = {way.cosine, way.sine};
  looker.sight.range = random.between(4.0, 20.0);
  looker.sight.field_of_view = Angle::from_degrees(random.between(40.0, 360.0));
  looker.sight.eye = Vector3d{0.0, 0.0, 1.5};
  return looker;
}

LookedAt random_body(Random& random) {
  return {{coordinate(random, 0.0, 20.0), coordinate(random, 0.0, 20.0), 0.0}, 1.75, kBodyPoints};
}

/// Calls test(level, looker, body) for so many worlds; counts those in which the looker sees.
template <typename Test>
void in_many_worlds(std::uint64_t seed, Test&& test) {
  Random random(seed);
  int seen = 0;
  constexpr int kWorlds = 3'000;
  for (int i = 0; i < kWorlds; ++i) {
    const Level level = random_world(random, 8);
    const Looker looker = random_looker(random);
    const LookedAt body = random_body(random);
    seen += can_see(World(level), looker, body);
    test(level, looker, body);
  }
  EXPECT_GT(seen, kWorlds / 20);
  EXPECT_LT(seen, kWorlds * 19 / 20);
}

TEST(Properties, LinesOfSightGoBothWays) {
  in_many_worlds(1, [](const Level& level, const Looker& looker, const LookedAt& body) {
    const World world(level);
    for (const double share : kBodyPoints) {
      const Vector3d eye = eye_of(Plane::ground, looker);
      const Vector3d point = body.feet + Vector3d{0, 0, share * body.height};
      const auto is_free = [&](const Vector3d& p) {  // a touching end counts at the start alone
        return world.is_clear(Segment{p, p}, Stops::sight);
      };
      if (!is_free(eye) || !is_free(point)) continue;
      EXPECT_EQ(world.is_clear(Segment{eye, point}, Stops::sight),
                world.is_clear(Segment{point, eye}, Stops::sight));
    }
  });
}

TEST(Properties, TakingAnObstacleAwayNeverBlinds) {
  in_many_worlds(2, [](const Level& level, const Looker& looker, const LookedAt& body) {
    if (!can_see(World(level), looker, body)) return;
    Level fewer = level;
    fewer.solids.pop_back();
    EXPECT_TRUE(can_see(World(fewer), looker, body));
    Level moved = level;
    for (Vector2d& p : moved.solids.back().points) p += Vector2d{1000.0, 0.0};
    EXPECT_TRUE(can_see(World(moved), looker, body));
  });
}

TEST(Properties, MoreRangeOrFieldNeverLoses) {
  in_many_worlds(3, [](const Level& level, const Looker& looker, const LookedAt& body) {
    const World world(level);
    if (!can_see(world, looker, body)) return;
    Looker more = looker;
    more.sight.range *= 1.25;
    EXPECT_TRUE(can_see(world, more, body));
    more.sight.field_of_view =
        Angle::from_degrees(std::min(360.0, 1.1 * looker.sight.field_of_view.degrees()));
    EXPECT_TRUE(can_see(world, more, body));
    more.sight.near_ring = 3.0;
    EXPECT_TRUE(can_see(world, more, body));
  });
}

Vector2d quarter_turn(const Vector2d& p) {
  return {-p.y(), p.x()};
}

TEST(Properties, MovingTurningAndScalingTheWorldChangesNothing) {
  const auto moved = [](const Vector2d& p) { return Vector2d(p + Vector2d{128.0, -64.0}); };
  const auto doubled = [](const Vector2d& p) { return Vector2d(p * 2.0); };
  in_many_worlds(4, [&](const Level& level, const Looker& looker, const LookedAt& body) {
    const bool sees = can_see(World(level), looker, body);
    const auto check = [&](auto&& change, double scale, bool turns) {
      Level other = level;
      for (Solid& solid : other.solids) {
        for (Vector2d& p : solid.points) p = change(p);
        solid.height *= scale;
      }
      const auto place = [&](const Vector3d& p) {
        const Vector2d plan = change(Vector2d{p.x(), p.y()});
        return Vector3d{plan.x(), plan.y(), p.z() * scale};
      };
      Looker from = looker;
      from.feet = place(looker.feet);
      from.sight.range = looker.sight.range * scale;
      *from.sight.eye *= scale;
      if (turns) from.facing = quarter_turn(looker.facing);
      LookedAt at = body;
      at.feet = place(body.feet);
      at.height *= scale;
      EXPECT_EQ(can_see(World(other), from, at), sees);
    };
    check(moved, 1.0, false);
    check(quarter_turn, 1.0, true);
    check(doubled, 2.0, false);
  });
}

// ---- exact arithmetic over whole numbers: 1/128 m, for halves occur

using Whole = std::int64_t;
struct Point {
  Whole x = 0;
  Whole y = 0;
  bool operator==(const Point&) const = default;
};

Point whole(const Vector2d& p) {
  return {std::llround(p.x() * 128.0), std::llround(p.y() * 128.0)};
}

Whole side_of(const Point& a, const Point& b, const Point& p) {
  const Whole turn = (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);
  return turn > 0 ? 1 : turn < 0 ? -1 : 0;
}

bool is_between(const Point& a, const Point& b, const Point& p) {
  return side_of(a, b, p) == 0 && std::min(a.x, b.x) <= p.x && p.x <= std::max(a.x, b.x) &&
         std::min(a.y, b.y) <= p.y && p.y <= std::max(a.y, b.y);
}

// All of the way but its far end, against an outline and its inside.
bool meets(const std::vector<Point>& outline, const Point& a, const Point& b) {
  bool inside = false;
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Point& p = outline[i];
    const Point& q = outline[(i + 1) % outline.size()];
    if (is_between(p, q, a)) return true;
    if (is_between(a, b, p) && !(p == b)) return true;
    const bool crosses =
        side_of(a, b, p) * side_of(a, b, q) < 0 && side_of(p, q, a) * side_of(p, q, b) < 0;
    if (crosses) return true;
    if ((p.y <= a.y) != (q.y <= a.y) && (side_of(p, q, a) > 0) == (q.y > p.y)) inside = !inside;
  }
  return inside;
}

TEST(Properties, TheCoreAgreesWithExactArithmeticInFlatWorlds) {
  Random random(5);
  int blocked = 0;
  int compared = 0;
  for (std::uint64_t i = 0; i < testing::rounds(3'000); ++i) {
    Level level = random_world(random, 6);
    std::vector<std::vector<Point>> outlines;
    for (Solid& solid : level.solids) {
      solid.height = 9.0;
      std::vector<Point> outline;
      for (const Vector2d& p : solid.points) outline.push_back(whole(p));
      outlines.push_back(outline);
    }
    const World world(level);
    for (int j = 0; j < 20; ++j) {
      const Vector2d a{coordinate(random, 0, 20), coordinate(random, 0, 20)};
      // Now and then straight at a corner, or along a side.
      const Vector2d b = j % 4 == 0
                             ? level.solids[0].points[static_cast<std::size_t>(j / 4) % 4]
                             : Vector2d{coordinate(random, 0, 20), coordinate(random, 0, 20)};
      const bool exact = std::none_of(outlines.begin(), outlines.end(), [&](const auto& outline) {
        return meets(outline, whole(a), whole(b));
      });
      const Segment segment{{a.x(), a.y(), 1.0}, {b.x(), b.y(), 1.0}};
      const auto touch = world.first_touch(segment, Stops::sight);
      ASSERT_EQ(world.is_clear(segment, Stops::sight), exact)
          << a.transpose() << " to " << b.transpose() << " at " << (touch ? touch->share : 9.0);
      blocked += !exact;
      ++compared;
    }
  }
  EXPECT_GT(blocked, compared / 10);
  EXPECT_LT(blocked, compared * 9 / 10);
}

// ---- seen areas against rays

double ray_length(const World& world, const Vector3d& eye, double degrees, double range) {
  const SineCosine way = sine_cosine(Angle::from_degrees(degrees));
  const Segment ray{eye, eye + Vector3d{way.cosine, way.sine, 0.0} * range};
  const auto touch = world.first_touch(ray, Stops::sight);
  return touch ? touch->share * range : range;
}

void compare_with_rays(const Level& level, std::uint64_t seed) {
  const World world(level);
  Random random(seed);
  const double side = scenes::side_of(level);
  for (int eyes = 0; eyes < 3; ++eyes) {
    Looker looker = random_looker(random);
    do {
      looker.feet = {random.between(1.0, side - 1.0), random.between(1.0, side - 1.0), 0.0};
    } while (world.overlaps({looker.feet, 0.1, 1.7}, Stops::sight));
    looker.sight.range = 30.0;
    looker.sight.field_of_view = Angle::from_degrees(360.0);
    const SeenArea area = seen_area(world, looker);
    const Vector3d eye = eye_of(Plane::ground, looker);
    constexpr double kBand = 1e-4;
    int at_corners = 0;
    double mean2 = 0.0;
    const int kRays = testing::is_sanitized() ? 10'000 : 100'000;
    for (int i = 0; i < kRays; ++i) {
      const double degrees = random.between(0.0, 360.0);
      const double length = ray_length(world, eye, degrees, 30.0);
      mean2 += length * length / kRays;
      const SineCosine way = sine_cosine(Angle::from_degrees(degrees));
      const auto holds = [&](double at) {
        return area.contains(area.eye + Vector2d{way.cosine, way.sine} * at);
      };
      if (holds(length - kBand) && (length == 30.0 || !holds(length + kBand))) continue;
      // Beside a corner the length jumps.
      const double near = ray_length(world, eye, degrees + 1e-5, 30.0);
      const double other = ray_length(world, eye, degrees - 1e-5, 30.0);
      ASSERT_GT(std::abs(near - length) + std::abs(other - length), kBand / 2) << degrees;
      ++at_corners;
    }
    EXPECT_LT(at_corners, kRays / 1000);
    EXPECT_NEAR(area.area() / (mean2 * M_PI), 1.0,
                testing::is_sanitized() ? 0.06 : 0.02);  // rays in random directions
  }
}

TEST(SeenAreaByRays, InTheHall) {
  compare_with_rays(scenes::hall(), 1);
}
TEST(SeenAreaByRays, InTheCampus) {
  compare_with_rays(scenes::campus(), 2);
}
TEST(SeenAreaByRays, InTheCity) {
  compare_with_rays(scenes::city(), 3);
}

}  // namespace
}  // namespace gaze
