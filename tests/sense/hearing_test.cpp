#include "gaze/hearing.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"
#include "sense/open_way.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::box;
using testing::level_of;

Listener listener_at(const Vector3d& feet, double range = 20.0) {
  Listener listener;
  listener.feet = feet;
  listener.hearing.range = range;
  return listener;
}

HearingVerdict hear_in(const Level& level, const Listener& listener, const Noise& noise) {
  const World world(level);
  const HearingVerdict verdict = listen(world, level, listener, noise);
  std::uint8_t hears = 2;
  listen(world, level, std::span(&listener, 1), noise, std::span(&hears, 1));
  EXPECT_EQ(hears, verdict.hears);
  return verdict;
}

TEST(Listen, HearsWithinTheLesserOfRangeAndReach) {
  EXPECT_TRUE(hear_in({}, listener_at({3, 4, 0}), {{0, 0, 1}, 5.0}).hears);
  EXPECT_FALSE(hear_in({}, listener_at({3, 4, 0}), {{0, 0, 1}, 4.99}).hears);
  EXPECT_FALSE(hear_in({}, listener_at({3, 4, 0}, 4.9), {{0, 0, 1}, 50.0}).hears);
  Listener keen = listener_at({3, 4, 0});
  keen.hearing.acuity = 2.0;
  EXPECT_TRUE(hear_in({}, keen, {{0, 0, 1}, 2.5}).hears);
}

Level muffling(std::vector<Solid> solids, double muffles) {
  Level level = level_of(std::move(solids));
  level.materials[0].muffles = muffles;
  return level;
}

TEST(Listen, EachWallTakesItsShareOfTheReach) {
  const Level level = muffling({box({1, -5}, {1.1, 5}), box({2, -5}, {2.1, 5})}, 0.5);
  const HearingVerdict verdict = hear_in(level, listener_at({3, 0, 0}), {{0, 0, 1}, 12.0});
  EXPECT_TRUE(verdict.hears);  // 12 / 4 = 3
  EXPECT_DOUBLE_EQ(verdict.reach, 3.0);
  EXPECT_EQ(verdict.muffled_by.size(), 2U);
  EXPECT_FALSE(hear_in(level, listener_at({3, 0, 0}), {{0, 0, 1}, 11.9}).hears);
  EXPECT_EQ(explain(verdict, level),
            "heard: 3.00 m away, the reach of the noise is 12.00 m in the open and 3.00 m here; "
            "box, box let 25 % through");
}

TEST(Listen, WithoutMufflesAWallStopsItWhole) {
  const Level level = level_of({box({1, -5}, {1.1, 5})});
  const HearingVerdict stopped = hear_in(level, listener_at({3, 0, 0}), {{0, 0, 1}, 1000.0});
  EXPECT_FALSE(stopped.hears);
  EXPECT_EQ(explain(stopped, level),
            "not heard: 3.00 m away, the reach of the noise is 1000.00 m in the open and 0.00 m "
            "here; box lets 0 % through");
  Level glass = level;
  glass.materials[0].stops.reset(static_cast<std::size_t>(Stops::sound));
  EXPECT_TRUE(hear_in(glass, listener_at({3, 0, 0}), {{0, 0, 1}, 3.0}).hears);
}

TEST(Listen, ABentWallCountsOnce) {
  Solid wall;  // crossed at x = 1 and at x = 2
  wall.form = Solid::Form::wall;
  wall.points = {{1, 5}, {1, -5}, {2, -5}, {2, 5}};
  wall.thickness = 0.1;
  const HearingVerdict verdict =
      hear_in(muffling({wall}, 0.5), listener_at({3, 0, 0}), {{0, 0, 1}, 6.0});
  EXPECT_EQ(verdict.muffled_by.size(), 1U);
  EXPECT_TRUE(verdict.hears);
}

TEST(Listen, GoesRoundACornerByTheShortestWay) {
  // From (0, 0) to (4, 0) past a wall from x = 1 to x = 3 whose nearer end is at y = 2:
  // sqrt(1 + 4) + 2 + sqrt(1 + 4).
  const Level level = level_of({box({1, -9}, {3, 2})});
  const double way = 2.0 * std::sqrt(5.0) + 2.0;
  Listener listener = listener_at({4, 0, 0});
  EXPECT_FALSE(hear_in(level, listener, {{0, 0, 1}, 20.0}).hears);
  listener.hearing.around_corners = true;
  const HearingVerdict verdict = hear_in(level, listener, {{0, 0, 1}, 20.0});
  EXPECT_TRUE(verdict.hears);
  EXPECT_NEAR(verdict.around.value(), way, 1e-5);
  EXPECT_TRUE(hear_in(level, listener, {{0, 0, 1}, way + 1e-4}).hears);
  EXPECT_FALSE(hear_in(level, listener, {{0, 0, 1}, way - 1e-4}).hears);
}

TEST(OpenWay, IsNeverShorterThanAGridWalkSays) {
  // Against Dijkstra's walk over a fine grid with sixteen directions, which is at most 2.8 % too
  // long (1 / cos of half of 26.6 degrees) and one cell off at each end.
  constexpr double kCell = 0.1;
  constexpr int kSide = 160;
  int compared = 0;
  for (std::uint64_t seed = 1; seed <= 6; ++seed) {
    Level level = scenes::make_scene(20, 16.0, seed);
    for (Solid& solid : level.solids) solid.height = 5.0;
    const World world(level);
    std::vector<char> free(kSide * kSide);
    const auto place = [&](int i) {
      return Vector3d{(i % kSide + 0.5) * kCell, (i / kSide + 0.5) * kCell, 1.5};
    };
    for (int i = 0; i < kSide * kSide; ++i) {
      free[static_cast<std::size_t>(i)] =
          world.is_clear(Segment{place(i), place(i) + Vector3d{0, 0, 1e-3}}, Stops::sound);
    }
    int from = 0;
    while (!free[static_cast<std::size_t>(from)]) from += 977;
    std::vector<double> way(kSide * kSide, 1e9);
    way[static_cast<std::size_t>(from)] = 0.0;
    std::multimap<double, int> open{{0.0, from}};
    while (!open.empty()) {
      const auto [length, at] = *open.begin();
      open.erase(open.begin());
      if (length > way[static_cast<std::size_t>(at)]) continue;
      for (int dx = -2; dx <= 2; ++dx) {
        for (int dy = -2; dy <= 2; ++dy) {
          const int x = at % kSide + dx;
          const int y = at / kSide + dy;
          if (x < 0 || y < 0 || x >= kSide || y >= kSide) continue;
          const auto next = static_cast<std::size_t>(y * kSide + x);
          const double through = length + std::hypot(dx, dy) * kCell;
          if (!free[next] || through >= way[next]) continue;
          if (!world.is_clear(Segment{place(at), place(int(next))}, Stops::sound)) continue;
          way[next] = through;
          open.emplace(through, int(next));
        }
      }
    }
    scenes::Random random(seed);
    for (int i = 0; i < 20; ++i) {
      const auto to = static_cast<std::size_t>(random.between(0.0, kSide * kSide - 1.0));
      if (!free[to] || way[to] > 1e8) continue;
      const Vector3d a = place(from);
      const Vector3d b = place(int(to));
      const auto exact =
          open_way(world, {{a.x(), a.y()}, 1.5}, {{b.x(), b.y()}, 1.5}, Stops::sound, 100.0);
      ASSERT_TRUE(exact.has_value());
      EXPECT_LE(*exact, way[to] + 1e-4);
      EXPECT_GE(*exact * 1.03 + 3 * kCell, way[to]);
      ++compared;
    }
  }
  EXPECT_GT(compared, 50);
}

}  // namespace
}  // namespace gaze
