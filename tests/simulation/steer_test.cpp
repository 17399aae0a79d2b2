#include <fmt/format.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

/// Agents that a host steers: they go as their kind can, and no better.
namespace gaze {
namespace {

using testing::garden;
using testing::placed;

constexpr const char* kGuest = R"(
[kind.guest]
team = "visitors"
radius = 0.3
height = 1.6
move = { speed = 2.0, turn_rate = 90.0, step_height = 0.3, hop_height = 0.5 }
attack.pip = { how = "shot", range = 9.0, speed = 10.0, damage = 1.0, cooldown = 0.5, radius = 0.05 }
)";

Simulation steered_game(const std::string& solids, const std::string& agent) {
  return Simulation(garden("gravity = 10.0\n" + std::string(kGuest) + solids + agent));
}

Steering going(const Vector2d& way) {
  Steering steering;
  steering.way = way;
  return steering;
}

Steering hopping(const Vector2d& way) {
  Steering steering = going(way);
  steering.hops = true;
  return steering;
}

Steering firing_at(const Vector3d& aim) {
  Steering steering;
  steering.aim = aim;
  steering.is_plan_aim = steering.fires = true;
  return steering;
}

Steering looking_at(const Vector3d& aim) {
  Steering steering = going({0.0, 1.0});
  steering.aim = aim;
  steering.is_quiet = true;
  return steering;
}

void steer_for(Simulation& game, double seconds, const Steering& steering) {
  const AgentId guest = game.agent("guest");
  game.steer(guest, steering);
  const std::int64_t end = game.tick() + std::llround(seconds * game.level().ticks_per_second);
  while (game.tick() < end) game.step();
}

TEST(Steer, GoesAtAShareOfItsSpeed) {
  Simulation game = steered_game("", placed("guest", "guest", "[1.0, 1.0]", "driver = 'host'"));
  steer_for(game, 1.5, going({0.6, 0.8}));
  EXPECT_NEAR(game.state(game.agent("guest")).position.x(), 1.0 + 1.5 * 2.0 * 0.6, 1e-9);
  EXPECT_NEAR(game.state(game.agent("guest")).position.y(), 1.0 + 1.5 * 2.0 * 0.8, 1e-9);
  steer_for(game, 1.0, going({0.0, -0.25}));
  EXPECT_NEAR(game.state(game.agent("guest")).position.y(), 1.0 + 2.4 - 0.5, 1e-9);
  steer_for(game, 1.0, going({-30.0, 0.0}));  // no faster than it goes
  EXPECT_NEAR(game.state(game.agent("guest")).position.x(), 1.0 + 1.8 - 2.0, 1e-9);
}

TEST(Steer, SlidesAlongAWallAndTurnsAtItsRate) {
  Simulation game =
      steered_game(testing::wall("wall", "[[0, 3], [20, 3]]"),
                   placed("guest", "guest", "[2.0, 2.0]", "driver = 'host'\nfacing = 0.0"));
  steer_for(game, 0.5, going({0.0, 1.0}));
  const AgentId guest = game.agent("guest");
  EXPECT_NEAR(angle_of(game.state(guest).facing).degrees(), 45.0, 1e-6);
  steer_for(game, 2.0, going({0.6, 0.8}));
  // The wall is 0.2 m thick; solids are kept off by a hair.
  EXPECT_NEAR(game.state(guest).position.y(), 3.0 - 0.1 - 0.3, 1e-3);
  EXPECT_NEAR(game.state(guest).position.x(), 2.0 + 2.0 * 2.0 * 0.6, 0.01);
}

// Height over time under gravity: the top is the height of a hop.
TEST(Steer, HopsAsHighAsItsKind) {
  Simulation game = steered_game("", placed("guest", "guest", "[2.0, 2.0]", "driver = 'host'"));
  game.steer(game.agent("guest"), hopping({1.0, 0.0}));
  double highest = 0.0;
  for (int i = 0; i < 60; ++i) {
    game.step();
    game.steer(game.agent("guest"), going({1.0, 0.0}));
    highest = std::max(highest, game.state(game.agent("guest")).position.z());
  }
  EXPECT_NEAR(highest, 0.5, 0.01);
  EXPECT_EQ(game.state(game.agent("guest")).position.z(), 0.0);
  EXPECT_NEAR(game.state(game.agent("guest")).position.x(), 4.0, 0.05);
}

TEST(Steer, GoesUpAStepAndFallsOffIt) {
  Simulation game = steered_game(
      "[[floor]]\nid = 'deck'\nmaterial = 'brick'\ntop = 0.25\nthickness = 0.25\n"
      "outline = [[3, 0], [5, 0], [5, 4], [3, 4]]\n",
      placed("guest", "guest", "[2.0, 2.0]", "driver = 'host'"));
  const AgentId guest = game.agent("guest");
  steer_for(game, 1.0, going({1.0, 0.0}));
  EXPECT_NEAR(game.state(guest).position.z(), 0.25, 1e-9);
  steer_for(game, 1.5, going({1.0, 0.0}));
  EXPECT_EQ(game.state(guest).position.z(), 0.0);
}

TEST(Steer, AScriptWaitsMeanwhileAndGoesOn) {
  Simulation game =
      steered_game("", placed("guest", "guest", "[1.0, 1.0]", "script = [{ go = [5.0, 1.0] }]"));
  const AgentId guest = game.agent("guest");
  for (int i = 0; i < 60; ++i) game.step();
  EXPECT_NEAR(game.state(guest).position.x(), 3.0, 1e-9);
  steer_for(game, 1.0, going({0.0, 1.0}));
  EXPECT_TRUE(game.is_steered(guest));
  EXPECT_NEAR(game.state(guest).position.y(), 3.0, 1e-9);
  game.let_go(guest);
  EXPECT_FALSE(game.is_steered(guest));
  for (int i = 0; i < 120; ++i) game.step();
  EXPECT_NEAR((game.state(guest).position - Vector3d{5.0, 1.0, 0.0}).norm(), 0.0, 1e-9);
}

TEST(Steer, FiresWhereItAims) {
  Simulation game =
      steered_game("", placed("guest", "guest", "[1.0, 1.0]", "driver = 'host'\nfacing = 90.0"));
  const AgentId guest = game.agent("guest");
  game.steer(guest, firing_at({1.0, 9.0, 0.0}));
  game.step();
  ASSERT_EQ(game.projectiles().size(), 1U);
  EXPECT_GT(game.projectiles()[0].velocity.y(), 9.9);
  game.steer(guest, {});
  for (int i = 0; i < 60; ++i) {
    game.step();
    EXPECT_TRUE(game.events({Event::What::attacked, guest}).empty());
  }
}

// Whatever it is asked for, among solids that overlap and touch.
TEST(Steer, NeverEntersASolid) {
  for (std::uint64_t seed = 1; seed <= testing::rounds(30); ++seed) {
    scenes::Random random(seed);
    std::string solids;
    for (int i = 0; i < 8; ++i) {
      const double x = random.between(0.0, 8.0);
      const double y = random.between(0.0, 8.0);
      const double wide = random.between(0.05, 2.0);
      const double deep = random.between(0.05, 2.0);
      solids += testing::block(fmt::format("block-{}", i),
                               fmt::format("[[{}, {}], [{}, {}], [{}, {}], [{}, {}]]", x, y,
                                           x + wide, y, x + wide, y + deep, x, y + deep));
    }
    Simulation game =
        steered_game(solids, placed("guest", "guest", "[-1.0, 4.0]", "driver = 'host'"));
    const AgentId guest = game.agent("guest");
    Steering steering;
    for (int i = 0; i < 900; ++i) {
      if (i % 20 == 0) {
        const double east = random.between(-1.0, 1.0);
        const double north = random.between(-1.0, 1.0);
        steering.way = {east, north};
        steering.hops = random.next() % 4 == 0;
      }
      game.steer(guest, steering);
      const Vector3d before = game.state(guest).position;
      game.step();
      const Vector3d after = game.state(guest).position;
      const Cylinder body{after + Vector3d{0.0, 0.0, 0.31}, 0.3 - 1e-6, 1.29};
      ASSERT_FALSE(game.world().overlaps(body, Stops::bodies)) << seed << " at " << game.tick();
      const Vector3d way = after - before;
      ASSERT_LE(std::hypot(way.x(), way.y()), 2.0 / 60.0 + 1e-9) << seed;
    }
  }
}

TEST(Steer, IsSavedWithTheGame) {
  Simulation game =
      steered_game("", placed("guest", "guest", "[1.0, 1.0]", "script = [{ go = [5.0, 1.0] }]"));
  steer_for(game, 0.5, looking_at({4.0, 4.0, 0.0}));
  Simulation later =
      steered_game("", placed("guest", "guest", "[1.0, 1.0]", "script = [{ go = [5.0, 1.0] }]"));
  later.restore(game.save());
  EXPECT_EQ(later.digest(), game.digest());
  for (int i = 0; i < 30; ++i) {
    game.step();
    later.step();
  }
  EXPECT_EQ(later.digest(), game.digest());
  EXPECT_NEAR(later.state(later.agent("guest")).position.y(), 3.0, 1e-9);
}

TEST(Steer, RefusesMindsAndWhatIsNoWay) {
  Simulation game = steered_game("", placed("guest", "guest", "[1.0, 1.0]") +
                                         placed("other", "guest", "[4.0, 1.0]", "driver = 'host'"));
  EXPECT_THROW(game.steer(game.agent("guest"), {}), UsageError);
  const AgentId other = game.agent("other");
  const double nan = std::nan("");
  EXPECT_THROW(game.steer(other, going({nan, 0.0})), UsageError);
  EXPECT_THROW(game.steer(other, firing_at({3e4, 0.0, 0.0})), UsageError);
  EXPECT_FALSE(game.is_steered(other));
}

}  // namespace
}  // namespace gaze
