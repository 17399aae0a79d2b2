// Solids that are put into a running game, or taken out of it.

#include <gtest/gtest.h>

#include "fuzz/level_writer.hpp"
#include "scenes.hpp"
#include "simulation/guests.hpp"

namespace gaze {
namespace {

using testing::all_told;
using testing::house;

Level hall(const std::string& more) {
  return house(testing::placed("guest", "guest", "[10, 0]", "driver = \"host\"") +
               testing::placed("pruner-1", "pruner", "[0, 0]") +
               testing::wall("north", "[[-5, 6], [15, 6]]") +
               testing::wall("south", "[[-5, -6], [15, -6]]") + more);
}

double way_length(const Simulation& game) {
  const Going way = going(game, game.agent("pruner-1"));
  double length = 0.0;
  Vector3d from = game.state(game.agent("pruner-1")).position;
  for (const Vector3d& to : way.ahead) {
    length += (to - from).norm();
    from = to;
  }
  return length;
}

// A block across the straight way.
TEST(AddSolid, StopsSightAndIsWalkedRound) {
  Simulation game(hall(""));
  const AgentId pruner = game.agent("pruner-1");
  const AgentId guest = game.agent("guest");
  for (int i = 0; i < 10; ++i) game.step();
  ASSERT_TRUE(game.look(pruner, guest).sees);
  const double straight = way_length(game);
  Solid block;
  block.id = "bench";
  block.points = {{4, -3}, {6, -3}, {6, 3}, {4, 3}};
  block.can_go = true;
  const SolidId bench = game.add_solid(block);
  EXPECT_EQ(game.look(pruner, guest).line.blocked_by, "bench");
  game.step();
  const double x = game.state(pruner).position.x();
  // Round a corner that is rounded by the radius of the body, 0.3 m, on its mesh as a polygon.
  const double round = 2.0 + 2.0 * std::hypot(4.0 - x, 3.3) - 2.0 * (4.0 - x) + (10.0 - x) - 2.0;
  EXPECT_GT(way_length(game), straight + 0.3);
  EXPECT_NEAR(way_length(game), round, 0.5);
  Simulation restored(hall(""));
  restored.restore(game.save());
  EXPECT_EQ(restored.digest(), game.digest());
  EXPECT_EQ(all_told(restored, 200), all_told(game, 200));
  EXPECT_EQ(restored.digest(), game.digest());
  game.set_gone(bench, true);
  EXPECT_TRUE(game.look(pruner, guest).line.pass);
  EXPECT_THROW(game.set_gone({0}, true), UsageError);
  Solid wrong = block;  // its id is taken
  EXPECT_THROW(game.add_solid(wrong), UsageError);
  wrong.id = "line";
  wrong.points = {{0, 0}, {1, 0}};
  EXPECT_THROW(game.add_solid(wrong), UsageError);
  restored.restore(Simulation(hall("")).save());  // without it
  EXPECT_EQ(restored.digest(), Simulation(hall("")).digest());
}

// Meshes are mended one solid after the other, those of bodies that come later as well: a restored
// game has the same ones, whatever it has been before.
TEST(AddSolid, ManyGoOnFromASaveToTheSameBits) {
  Simulation game(hall(""));
  scenes::Random random(17);
  for (int i = 0; i < 12; ++i) {
    Solid block;
    block.id = "block-" + std::to_string(i);
    const Vector2d at{random.between(2.0, 8.0), random.between(-5.0, 5.0)};
    block.points = {at, at + Vector2d{1.0, 0.2}, at + Vector2d{0.8, 1.0}};
    block.can_go = i % 3 == 0;
    game.add_solid(block);
    if (i == 5) game.spawn("pruner", {1.0, 4.0, 0.0}, {});
    if (i == 7) game.set_value("kind.pruner.radius", 0.35);
    for (int step = 0; step < 5; ++step) game.step();
  }
  Simulation restored(hall(""));
  Solid other;
  other.id = "other";
  other.points = {{3, 3}, {4, 3}, {4, 4}};
  restored.add_solid(other);
  restored.restore(game.save());
  EXPECT_EQ(all_told(restored, 400), all_told(game, 400));
  EXPECT_EQ(restored.digest(), game.digest());
}

TEST(SetGone, OfWhatCanGoOpensWays) {
  Simulation game(hall(testing::wall("gate", "[[5, -6], [5, 6]]", "can_go = true") +
                       testing::wall("west", "[[-5, -6], [-5, 6]]") +
                       testing::wall("east", "[[15, -6], [15, 6]]")));
  const AgentId pruner = game.agent("pruner-1");
  const AgentId guest = game.agent("guest");
  for (int i = 0; i < 60; ++i) game.step();
  EXPECT_FALSE(game.look(pruner, guest).sees);
  const Vector3d from{0.0, 0.0, 0.0};
  const Vector3d to{10.0, 0.0, 0.0};
  const NavigationMesh mesh = *game.mesh(pruner);
  const Path path = find_path(mesh, from, to);
  EXPECT_EQ(path.outcome, Path::Outcome::partial);
  const auto apart = parting(game.level(), game.world(), mesh, path, from, to);
  ASSERT_TRUE(apart);
  EXPECT_EQ(describe(game.level(), *apart), "gate is in the way until it is taken away");
  game.set_gone({2}, true);
  for (int i = 0; i < 240; ++i) game.step();
  EXPECT_GT(game.state(pruner).position.x(), 6.0);  // through it, at 2 m/s
  game.teleport(pruner, {0.0, 0.0, 0.0}, {});
  game.set_gone({2}, false);
  for (int i = 0; i < 240; ++i) game.step();
  EXPECT_LT(game.state(pruner).position.x(), 5.0);
}

}  // namespace
}  // namespace gaze
