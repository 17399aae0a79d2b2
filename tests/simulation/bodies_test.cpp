// Bodies stop each other, whoever drives them and at any rate of steps, unless their kinds say
// otherwise; and where somebody stands in a gap, ways lead round by another one.

#include <fmt/format.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::placed;
using testing::play;
using testing::wall;

constexpr double kTouching = 1e-6;  // metres, by the meaning of "touches"

const char* const kPassers = R"(
[kind.walker]
team = "visitors"
radius = 0.3
[kind.walker.move]
speed = 2.0
[kind.post]
team = "visitors"
radius = 0.4
[kind.foe]
team = "caretakers"
radius = 0.4
)";

double apart(const Simulation& simulation, std::string_view a, std::string_view b) {
  const Vector3d way = simulation.state(simulation.agent(b)).position -
                       simulation.state(simulation.agent(a)).position;
  return std::hypot(way.x(), simulation.level().plane == Plane::upright ? 0.0 : way.y());
}

/// The least distance of a walker from another while it patrols from x = 0 to 10, and how far it
/// comes in 8 s.
struct Pass {
  double nearest = 1e9;
  double farthest_x = 0.0;
};

Pass pass_of(const std::string& kind, double y, const std::vector<Setting>& settings = {},
             const std::string& drives = "patrol = [[10, 0], [0, 0]]") {
  Simulation simulation(garden(std::string(kPassers) +
                                   placed("walker", "walker", "[0, 0]", drives) +
                                   placed("other", kind, fmt::format("[5, {}]", y)),
                               settings));
  Pass pass;
  for (int i = 0; i < 8 * simulation.level().ticks_per_second; ++i) {
    simulation.step();
    pass.nearest = std::min(pass.nearest, apart(simulation, "walker", "other"));
    pass.farthest_x =
        std::max(pass.farthest_x, simulation.state(simulation.agent("walker")).position.x());
  }
  return pass;
}

TEST(Bodies, FixedFriendsAreWalkedRound) {
  for (const double y : {0.0, 0.1, -0.5}) {
    const Pass pass = pass_of("post", y);
    EXPECT_GE(pass.nearest, 0.7 - kTouching) << y;
    EXPECT_NEAR(pass.farthest_x, 10.0, 2.0 / 60) << y;  // it turns round within a step
  }
}

TEST(Bodies, FoesStopAWalkerAndAScript) {
  // A walker gets round after a while, a script goes on as it is written.
  const Pass patrol = pass_of("foe", 0.0);
  EXPECT_NEAR(patrol.nearest, 0.7, kTouching);
  EXPECT_NEAR(patrol.farthest_x, 10.0, 2.0 / 60);
  const Pass script = pass_of("foe", 0.0, {}, "script = [{ go = [10, 0] }]");
  EXPECT_NEAR(script.nearest, 0.7, kTouching);
  EXPECT_NEAR(script.farthest_x, 4.3, kTouching);
  // Not head on it slides past.
  const Pass beside = pass_of("foe", 0.2, {}, "script = [{ go = [10, 0] }]");
  EXPECT_NEAR(beside.nearest, 0.7, 2 * kTouching);
  EXPECT_NEAR(beside.farthest_x, 10.0, 1e-9);
}

TEST(Bodies, StopEachOtherOnlyIfEachIsSolidToTheOther) {
  const auto goes_through = [&](const std::string& kind, const std::string& key,
                                const std::string& value) {
    return pass_of(kind, 0.0, {{key, value}}).nearest < 0.1;
  };
  EXPECT_TRUE(goes_through("foe", "kind.walker.solid_to", R"(["friends"])"));
  EXPECT_TRUE(goes_through("foe", "kind.foe.solid_to", R"(["friends"])"));
  EXPECT_TRUE(goes_through("post", "kind.walker.solid_to", R"(["foes"])"));
  EXPECT_TRUE(goes_through("post", "kind.post.solid_to", "[]"));
  EXPECT_FALSE(goes_through("foe", "kind.foe.solid_to", R"(["foes"])"));
  EXPECT_FALSE(goes_through("post", "kind.walker.solid_to", R"(["friends"])"));
}

TEST(Bodies, ThingsAndTheDefeatedStopNobody) {
  EXPECT_LT(pass_of("foe", 0.0, {{"kind.foe.thing.speed", "5"}}).nearest, 0.1);
  const Pass pass = pass_of("foe", 0.0,
                            {{"kind.walker.attack.bump.how", "\"touch\""},
                             {"kind.walker.attack.bump.damage", "100"},
                             {"kind.walker.attack.bump.cooldown", "1"}});
  EXPECT_NEAR(pass.farthest_x, 10.0, 1e-9);
}

TEST(Bodies, WhereSomebodyStandsOneHasComeToByTouchingThem) {
  Simulation simulation(garden(std::string(kPassers) +
                               placed("walker", "walker", "[0, 0]", "patrol = [[5, 0], [0, 0]]") +
                               placed("other", "post", "[5, 0]")));
  // 4.2 m there, slower at the end, and back: a walker that was stuck there for a second would not
  // be that far.
  play(simulation, 60 * 4);
  EXPECT_LT(simulation.state(simulation.agent("walker")).position.x(), 1.5);
}

TEST(BodiesFile, WordsOfSolidTo) {
  const std::string faults = testing::faults_of(
      "[kind.walker]\nsolid_to = [\"friend\", \"foes\"]\n[kind.other]\n"
      "solid_to = \"foes\"\n");
  EXPECT_NE(faults.find("bad.toml:2:13"), std::string::npos) << faults;
  EXPECT_NE(faults.find("no group 'friend'; did you mean 'friends'?"), std::string::npos) << faults;
  EXPECT_NE(faults.find("bad.toml:4"), std::string::npos) << faults;
}

// ---- a friend in a gap

std::string gap_level(const std::string& more) {
  return std::string(R"(
[kind.pruner]
team = "caretakers"
radius = 0.3
[kind.pruner.sight]
range = 100.0
field_of_view = 360.0
[kind.pruner.move]
speed = 2.0
stuck_time = 1.0
[kind.pruner.when]
sees = "chase"
[kind.post]
team = "caretakers"
radius = 0.3
[kind.collector]
team = "visitors"
)") + wall("south", "[[0, -20], [0, -0.5]]") +
         wall("middle", "[[0, 0.5], [0, 5.5]]") +
         wall("round", "[[-9, -20], [9, -20], [9, 20], [-9, 20], [-9, -20]]") +
         placed("collector", "collector", "[-6, 0]", "driver = \"host\"") +
         placed("post", "post", "[0, 0]", "driver = \"host\"") +
         placed("pruner", "pruner", "[4, 0]") + more;
}

// The trellis is seen through: the walls of this level stop bodies alone.
Level gap(const std::string& more, int rate) {
  return garden(gap_level(more) + "[material.brick]\nstops = [\"bodies\"]\n",
                {{"ticks_per_second", std::to_string(rate)}});
}

class Gaps : public ::testing::TestWithParam<int> {};

TEST_P(Gaps, ThatAFriendStandsInAreWalkedRound) {
  const int rate = GetParam();
  Simulation simulation(gap(wall("north", "[[0, 6.5], [0, 20]]"), rate));
  double nearest = 1e9;
  for (int i = 0; i < 14 * rate; ++i) {
    simulation.step();
    nearest = std::min(nearest, apart(simulation, "pruner", "post"));
  }
  // By the gap 6 m north: some 15 m at 2 m/s, after 1.7 s to the first and 1 s before that one.
  EXPECT_NEAR(apart(simulation, "pruner", "collector"), 0.6, 1e-3);
  EXPECT_GE(nearest, 0.6 - kTouching);
}

TEST_P(Gaps, WithoutAnotherOneAreWaitedAt) {
  const int rate = GetParam();
  Simulation simulation(gap(wall("north", "[[0, 5.5], [0, 20]]"), rate));
  play(simulation, 5 * rate);
  int says_so = 0;
  for (int i = 0; i < rate; ++i) {
    simulation.step();
    EXPECT_LE(apart(simulation, "pruner", "post"), 0.8);
    const std::string why = going(simulation, simulation.agent("pruner")).reason;
    says_so += why.find("post stands in its way, 0.60 m off") != std::string::npos ? 1 : 0;
  }
  EXPECT_GT(says_so, rate / 4);  // it tries to get round now and then
  // Once it has gone the way is free at once.
  simulation.set_pose(simulation.agent("post"), {9.0, 9.0, 0.0}, {});
  play(simulation, 4 * rate);
  EXPECT_NEAR(apart(simulation, "pruner", "collector"), 0.6, 1e-3);
}

INSTANTIATE_TEST_SUITE_P(Rates, Gaps, ::testing::Values(20, 60, 240));

TEST(Standing, LeavesLegsFreeThatHaveRoomOnOneSide) {
  const Level level = gap(wall("north", "[[0, 6.5], [0, 20]]"), 60);
  const World world(level);
  BodySize body;
  body.radius = 0.3;
  const NavigationMesh mesh(level, world, body);
  const Vector3d from{4, 0, 0};
  const Vector3d to{-4, 0, 0};
  PathFinder finder;
  const double straight = finder.find(mesh, from, to).length;
  EXPECT_NEAR(straight, 8.0, 1e-9);
  const auto length_past = [&](const std::vector<Cylinder>& standing) {
    return finder.find(mesh, from, to, nullptr, standing).length;
  };
  // In the open there is room beside one, and beside three side by side; in the gap of 1 m there is
  // none beside a body of 0.6, and a child of 0.1 leaves none either: 0.5 - 0.05 < 0.6.
  EXPECT_EQ(length_past({{{2, 0, 0}, 0.3, 1.7}}), straight);
  EXPECT_EQ(length_past({{{2, 0, 0}, 0.3, 1.7}, {{2, 0.7, 0}, 0.3, 1.7}, {{2, -0.7, 0}, 0.3, 1.7}}),
            straight);
  for (const double radius : {0.3, 0.05}) {
    EXPECT_GT(length_past({{{0, 0, 0}, radius, 1.7}}), straight + 4.0) << radius;
  }
  // At the side of the gap by 0.4 m there is room: 0.9 - 0.05 > 0.6.
  EXPECT_EQ(length_past({{{0, 0.4, 0}, 0.05, 1.7}}), straight);
  // Both gaps taken: no way.
  const Path& none = finder.find(
      mesh, from, to, nullptr, std::vector<Cylinder>{{{0, 0, 0}, 0.3, 1.7}, {{0, 6, 0}, 0.3, 1.7}});
  EXPECT_EQ(none.outcome, Path::Outcome::none);
}

// ---- many

class Crowds : public ::testing::TestWithParam<int> {};

double least_gap(const Simulation& simulation, const std::vector<std::vector<char>>& began_apart) {
  double least = 1e9;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    for (std::uint32_t k = 0; k < i; ++k) {
      const AgentState a = simulation.state({i});
      const AgentState b = simulation.state({k});
      if (!began_apart[i][k] || !a.is_there || !b.is_there) continue;
      const Kind& kind_a = simulation.level().kind_of(simulation.level().agents[i]);
      const Kind& kind_b = simulation.level().kind_of(simulation.level().agents[k]);
      const Vector3d way = a.position - b.position;
      const bool is_level = way.z() < kind_b.height && -way.z() < kind_a.height;
      const double y = simulation.level().plane == Plane::upright ? 0.0 : way.y();
      if (is_level) least = std::min(least, std::hypot(way.x(), y) - kind_a.radius - kind_b.radius);
    }
  }
  return least;
}

std::vector<std::vector<char>> apart_at_first(const Simulation& simulation) {
  std::vector<std::vector<char>> apart(simulation.agent_count());
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    for (std::uint32_t k = 0; k < i; ++k) {
      std::vector<std::vector<char>> pair(simulation.agent_count());
      for (auto& row : pair) row.assign(simulation.agent_count(), 0);
      pair[i][k] = 1;
      apart[i].push_back(least_gap(simulation, pair) >= 0.0);
    }
  }
  return apart;
}

TEST_P(Crowds, OfThirtyChasersGoThroughADoorAndKeepTheirDistance) {
  const int rate = GetParam();
  std::string level = R"(
[kind.pruner]
team = "caretakers"
radius = 0.3
[kind.pruner.sight]
range = 100.0
field_of_view = 360.0
[kind.pruner.move]
speed = 2.0
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
)" + wall("south", "[[0, -20], [0, -0.6]]") +
                      wall("north", "[[0, 0.6], [0, 20]]") +
                      placed("collector", "collector", "[-8, 0]", "driver = \"host\"");
  for (int i = 0; i < 30; ++i) {
    level += placed(fmt::format("pruner-{}", i), "pruner",
                    fmt::format("[{}, {}]", 2.0 + 0.9 * (i / 6), -2.25 + 0.9 * (i % 6)));
  }
  Simulation simulation(garden(level + "[material.brick]\nstops = [\"bodies\"]\n",
                               {{"ticks_per_second", std::to_string(rate)}}));
  const auto all = apart_at_first(simulation);
  double least = 1e9;
  for (int i = 0; i < 25 * rate; ++i) {
    simulation.step();
    least = std::min(least, least_gap(simulation, all));
  }
  EXPECT_GE(least, -kTouching);
  for (std::uint32_t i = 1; i < simulation.agent_count(); ++i) {
    EXPECT_LT(simulation.state({i}).position.x(), -0.5) << i;
  }
}

std::string random_crowd(scenes::Random& random, const std::string& plane) {
  std::string text = "plane = \"" + plane + "\"\n" + R"(
gravity = 9.81
[kind.chaser]
team = "caretakers"
[kind.chaser.sight]
range = 20.0
field_of_view = 360.0
remember = 2.0
[kind.chaser.move]
speed = 3.0
[kind.chaser.attack.shove]
how = "strike"
range = 1.2
damage = 1.0
push = 6.0
cooldown = 0.4
[kind.chaser.when]
sees = "chase"
idle = "wander"
[kind.chaser.wander]
style = "free"
[kind.post]
team = "caretakers"
[kind.walker]
team = "visitors"
health = 1000.0
[kind.walker.move]
speed = 2.5
)";
  const char* const kinds[] = {"chaser", "post", "walker", "walker"};
  const bool is_side_on = plane == "upright";
  const auto place = [&] {
    const double x = random.between(-5, 5);
    const double y = is_side_on ? 0.0 : random.between(-5, 5);
    return plane == "space" ? fmt::format("[{:.3f}, {:.3f}, 0]", x, y)
                            : fmt::format("[{:.3f}, {:.3f}]", x, y);
  };
  for (int i = 0; i < 16; ++i) {
    const std::string kind = kinds[random.next() % 4];
    std::string more = fmt::format("radius = {:.2f}\n", random.between(0.15, 0.6));
    if (kind == "walker") {
      more += random.next() % 2 == 0
                  ? "patrol = [" + place() + ", " + place() + "]"
                  : "script = [{ go = " + place() + " }, { go = " + place() + " }]";
    }
    text += placed(fmt::format("{}-{}", kind, i), kind, place(), more);
  }
  if (!is_side_on) text += wall("wall", "[[-3, 1], [2, 1], [2, -2]]");
  return text;
}

TEST_P(Crowds, ThatBeginApartStayApartWhateverMovesThem) {
  const int rate = GetParam();
  int touches = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(12); ++seed) {
    for (const char* const plane : {"ground", "space", "upright"}) {
      scenes::Random random(seed);
      Simulation simulation(
          garden(random_crowd(random, plane), {{"ticks_per_second", std::to_string(rate)}}));
      const auto apart = apart_at_first(simulation);
      for (int i = 0; i < 5 * rate; ++i) {
        simulation.step();
        const double least = least_gap(simulation, apart);
        ASSERT_GE(least, -kTouching) << plane << ", seed " << seed << ", step " << i;
        touches += least < 1e-3 ? 1 : 0;
      }
    }
  }
  EXPECT_GT(touches, 100);  // else they have hardly met
}

INSTANTIATE_TEST_SUITE_P(Rates, Crowds, ::testing::Values(20, 60, 240));

}  // namespace
}  // namespace gaze
