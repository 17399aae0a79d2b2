#include "gaze/tools/cover.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "gaze/tools/watch.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
using testing::wall;
// A room of 9.8 by 9.8 m inside, and a lamp in its middle that sees a quarter of a disc of 3 m.
const std::string kRoom =
    wall("wall", "[[0, 0], [10, 0], [10, 10], [0, 10], [0, 0]]", "thickness = 0.2") + R"(
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 3.0
field_of_view = 90.0
)" + placed("lamp", "lamp", "[5, 5]");

FloorOptions floor_of(double radius) {
  FloorOptions options;
  options.radius = radius;
  return options;
}

TEST(FreeFloor, IsTheRoomLessTheBodysRadius) {
  const Level level = testing::garden(kRoom);
  const FreeFloor floor = free_floor(level, World(level), floor_of(0.5));
  EXPECT_NEAR(floor.area, 8.8 * 8.8, 1e-3);
  // Spots of 0.25 m: what the grid counts is near that.
  double spots = 0.0;
  for (const std::uint8_t is_free : floor.is_free) spots += is_free * 0.25 * 0.25;
  EXPECT_NEAR(spots, 8.8 * 8.8, 3.0);
}

TEST(FreeFloor, LosesABlockWithRoundCorners) {
  const Level level = testing::garden(kRoom +
                                      "[[block]]\nid = \"tub\"\nmaterial = \"brick\"\noutline = "
                                      "[[2, 2], [4, 2], [4, 3], [2, 3]]\n");
  const FreeFloor floor = free_floor(level, World(level), floor_of(0.5));
  const double taken = 2.0 * 1.0 + 2.0 * (2.0 + 1.0) * 0.5 + M_PI * 0.25;
  EXPECT_NEAR(floor.area, 8.8 * 8.8 - taken, 5e-3);
}

// A square on its corner, 10 m from its middle to each corner: h = 10 / sqrt(2) - 0.1 - 0.5 from
// the middle to the floor's edge, so that 4 h^2 counts, and nothing in the four corners around it.
TEST(FreeFloor, CountsWhereSomebodyGetsToWhoIsLookedFor) {
  const std::string yard =
      wall("wall", "[[10, 0], [0, 10], [-10, 0], [0, -10], [10, 0]]", "thickness = 0.2") +
      "[kind.lamp]\nteam = \"caretakers\"\nsight = { range = 3.0, field_of_view = 90.0 }\n" +
      placed("lamp", "lamp", "[9, 9]");
  const double h = 10.0 / std::sqrt(2.0) - 0.1 - 0.5;
  const auto area = [](const std::string& text) {
    const Level level = testing::garden(text);
    FloorOptions options = floor_of(0.5);
    options.team = level.kinds.back().team;
    return free_floor(level, World(level), options).area;
  };
  const std::string guest = "[kind.guest]\nteam = \"visitors\"\n";
  const std::string inside = placed("guest", "guest", "[1, 2]");
  EXPECT_NEAR(area(yard + guest + inside), 4.0 * h * h, 1e-3);
  EXPECT_GT(area(yard + guest + inside + placed("other", "guest", "[-9, 9]")), 4.0 * h * h + 20.0);
  // Who hovers may get over the wall.
  const std::string moth = "[kind.guest]\nteam = \"visitors\"\nmove.gait = \"hover\"\n";
  EXPECT_GT(area(yard + moth + inside), 4.0 * h * h + 50.0);
  // A door does not part the floor.
  const std::string open_yard =
      wall("wall", "[[0, -10], [10, 0], [0, 10], [-10, 0]]", "thickness = 0.2") +
      "[kind.lamp]\nteam = \"caretakers\"\nsight = { range = 3.0, field_of_view = 90.0 }\n" +
      placed("lamp", "lamp", "[9, 9]") +
      "[[door]]\nid = \"door\"\nmaterial = \"brick\"\npath = [[-10, 0], [0, -10]]\n"
      "thickness = 0.2\n";
  EXPECT_GT(area(open_yard + guest + inside), 4.0 * h * h + 30.0);
  // Bounds end it: half of the square.
  EXPECT_NEAR(area(yard + guest + inside +
                   "[bounds]\noutline = [[-20, 0], [20, 0], [20, 20], [-20, 20]]\n"),
              2.0 * h * h, 1e-3);
}

// The cells of a part of the floor are free if the same cells of the whole floor are free.
TEST(FreeFloor, PartHasTheSpotsOfTheWhole) {
  const Level level = testing::garden(kRoom);
  const World world(level);
  FloorOptions options = floor_of(0.5);
  const FreeFloor whole = free_floor(level, world, options);
  const SpotGrid& grid = whole.grid;
  const Vector2d low = grid.low + Vector2d{5, 7} * grid.size;  // a corner of a cell
  options.part = {low, low + Vector2d{8, 40} * grid.size};     // beyond the room in one direction
  const FreeFloor part = free_floor(level, world, options);
  EXPECT_EQ(part.grid.columns, 8);
  EXPECT_EQ(part.grid.rows, grid.rows - 7);
  for (int row = 0; row < part.grid.rows; ++row) {
    for (int column = 0; column < part.grid.columns; ++column) {
      EXPECT_EQ(part.is_free[part.grid.index(column, row)],
                whole.is_free[grid.index(column + 5, row + 7)]);
    }
  }
  EXPECT_EQ(part.area, whole.area);
}

TEST(FreeFloor, HasLargerSpotsInsteadOfTooMany) {
  const Level level = testing::garden(kRoom);
  FloorOptions options = floor_of(0.5);
  options.spot_size = 1e-6;  // 10^14 cells
  EXPECT_THROW(static_cast<void>(free_floor(level, World(level), options)), UsageError);
  options.larger_above = 10'000;
  const SpotGrid grid = free_floor(level, World(level), options).grid;
  EXPECT_LE(grid.count(), 10'000U);
  EXPECT_GE(grid.count(), 10'000U / 2);  // their side grows in steps of a quarter
}

TEST(FreeFloor, StepsOverWhatIsLow) {
  const Level level =
      testing::garden(kRoom +
                      "[[block]]\nid = \"kerb\"\nmaterial = \"brick\"\nheight = 0.2\n"
                      "outline = [[2, 2], [4, 2], [4, 3], [2, 3]]\n");
  EXPECT_NEAR(free_floor(level, World(level), floor_of(0.5)).area, 8.8 * 8.8, 1e-3);
}

TEST(Cover, MeasuresWhatIsSeenOfTheFloor) {
  const Simulation simulation(testing::garden(kRoom));
  Cover cover(free_floor(simulation.level(), simulation.world(), floor_of(0.5)));
  cover.add(simulation);
  const double seen = 9.0 * M_PI / 4.0;
  ASSERT_EQ(cover.agents().size(), 1U);
  EXPECT_NEAR(cover.agents()[0].seen_area, seen, 6e-3);  // an arc of 4.7 m, 1 mm off at most
  EXPECT_NEAR(cover.seen_share(), seen / (8.8 * 8.8), 1e-4);
  EXPECT_NEAR(cover.never_seen_share(), 1.0 - seen / (8.8 * 8.8), 1e-4);
  const std::vector<UnseenPatch> patches = cover.unseen_patches();
  ASSERT_EQ(patches.size(), 1U);
  EXPECT_NEAR(patches[0].area, 8.8 * 8.8 - seen, 6e-3);
}

// Random blocks and facings over a run. The areas of the patches add up to the unseen area.
TEST(Cover, PatchesAddUpToTheTotal) {
  scenes::Random random(44);
  std::uint64_t several = 0;
  for (std::uint64_t round = 0; round < testing::rounds(40); ++round) {
    std::string text = kRoom;
    for (int i = 0; i < 6; ++i) {
      const double x = random.between(1.0, 7.5);
      const double y = random.between(1.0, 7.5);
      const std::string low = std::to_string(x) + ", " + std::to_string(y);
      const double w = random.between(0.1, 1.5);
      text +=
          testing::block("b" + std::to_string(i),
                         "[[" + low + "], [" + std::to_string(x + w) + ", " + std::to_string(y) +
                             "], [" + std::to_string(x + w) + ", " + std::to_string(y + w) + "]]");
    }
    Simulation simulation(
        testing::garden(text, {{"agent.lamp.facing", std::to_string(random.between(0, 360))}}));
    Cover cover(free_floor(simulation.level(), simulation.world(), floor_of(0.3)));
    for (int tick = 0; tick < 30; ++tick) {
      if (tick % 10 == 0) cover.add(simulation);
      simulation.step();
    }
    const std::vector<UnseenPatch> patches = cover.unseen_patches();
    double sum = 0.0;
    for (const UnseenPatch& patch : patches) sum += patch.area;
    EXPECT_NEAR(sum, cover.never_seen_share() * cover.floor().area, 1e-4) << round;
    EXPECT_TRUE(std::is_sorted(patches.begin(), patches.end(),
                               [](const auto& a, const auto& b) { return a.area > b.area; }));
    several += patches.size() > 1 ? 1 : 0;
  }
  EXPECT_GE(several, testing::enough(std::uint64_t{2}));
}

TEST(Cover, EachSpotCountsThoseThatASeenAreaHolds) {
  const Simulation simulation(testing::garden(
      kRoom + "[[agent]]\nid = \"lamp-2\"\nkind = \"lamp\"\nat = [7, 5]\nfacing = 187.0\n",
      {{"agent.lamp.facing", "7"}}));
  const FreeFloor floor = free_floor(simulation.level(), simulation.world(), floor_of(0.5));
  Cover cover(floor);
  cover.add(simulation);
  const SeenArea one = seen_area(simulation.world(), simulation.looker({0}));
  const SeenArea two = seen_area(simulation.world(), simulation.looker({1}));
  int both = 0;
  for (int row = 0; row < floor.grid.rows; ++row) {
    for (int column = 0; column < floor.grid.columns; ++column) {
      const Vector2d middle = floor.grid.middle(column, row);
      const int expected = one.contains(middle) + two.contains(middle);
      const bool is_at_rim = std::abs((middle - one.eye).norm() - 3.0) < 2e-3 ||
                             std::abs((middle - two.eye).norm() - 3.0) < 2e-3;
      if (is_at_rim) continue;
      const std::size_t spot = floor.grid.index(column, row);
      EXPECT_EQ(cover.most_seen_by()[spot], expected) << middle.transpose();
      both += expected == 2;
    }
  }
  EXPECT_GT(both, 10);
  // Two quarter discs facing each other 2 m apart: what both see counts once.
  EXPECT_LT(cover.seen_share() * cover.floor().area,
            cover.agents()[0].seen_area + cover.agents()[1].seen_area - 0.5);
}

TEST(Cover, CountsAllWhoAreHostileToATeamAndNobodyElse) {
  const std::string more =
      "[team.moles]\nhostile = [\"visitors\"]\n[kind.mole]\nlike = \"lamp\"\nteam = \"moles\"\n"
      "[kind.friend]\nlike = \"lamp\"\nteam = \"visitors\"\n"
      "[[agent]]\nid = \"mole\"\nkind = \"mole\"\nat = [2, 2]\n"
      "[[agent]]\nid = \"friend\"\nkind = \"friend\"\nat = [2, 7]\n";
  const Simulation simulation(testing::garden(kRoom + more));
  Cover cover(free_floor(simulation.level(), simulation.world(), floor_of(0.5)));
  const Level& level = simulation.level();
  cover.add(simulation, level.kind_of(level.agents[2]).team);
  ASSERT_EQ(cover.agents().size(), 2U);  // the lamp and the mole
  EXPECT_EQ(simulation.id_of(cover.agents()[1].agent), "mole");
}

TEST(Cover, OverARunIsAMean) {
  Simulation simulation(
      testing::garden(kRoom + "[kind.lamp.scan]\nstyle = \"round\"\nrate = 90.0\n"));
  Cover cover(free_floor(simulation.level(), simulation.world(), floor_of(0.5)));
  for (int tick = 0; tick <= 240; ++tick) {
    if (tick % 6 == 0) cover.add(simulation);
    simulation.step();
  }
  const double quarter = 9.0 * M_PI / 4.0 / (8.8 * 8.8);
  EXPECT_NEAR(cover.seen_share(), quarter, 1e-4);
  EXPECT_NEAR(cover.never_seen_share(), 1.0 - 4.0 * quarter, 1e-3);  // all round in 4 s
}

TEST(Watch, SaysWhichLimitWasCrossed) {
  const std::string level =
      "[kind.lamp]\nteam = \"caretakers\"\n[kind.lamp.sight]\nrange = 5.0\nfield_of_view = 360.0\n"
      "[[agent]]\nid = \"lamp\"\nkind = \"lamp\"\nat = [0, 0]\n[kind.collector]\n"
      "team = \"visitors\"\n[kind.collector.move]\nspeed = 2.0\n[[agent]]\nid = \"collector\"\n"
      "kind = \"collector\"\nat = [7, 0]\nscript = [{ go = [3, 0] }, { go = [9, 0] }]\n";
  Simulation simulation(testing::garden(level));
  Watch watch(simulation.agent("lamp"), simulation.agent("collector"));
  std::vector<double> crossed;
  for (int tick = 0; tick <= 300; ++tick) {
    watch.add(simulation);
    const std::string& broke = watch.rows().back().broke;
    if (broke == "+range" || broke == "-range") crossed.push_back(simulation.seconds());
    simulation.step();
  }
  ASSERT_EQ(crossed.size(), 2U);
  EXPECT_NEAR(crossed[0], 1.0, 1.0 / 60);  // 5 m after 2 m at 2 m/s
  EXPECT_NEAR(crossed[1], 3.0, 2.0 / 60);
  EXPECT_EQ(watch.rows()[66].awareness, Awareness::noticed);
  EXPECT_EQ(watch.rows()[66].by, Sense::sight);
}

}  // namespace
}  // namespace gaze
