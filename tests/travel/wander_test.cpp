// Free wandering among solids that can go.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

// A room of 6 m by 6 m between walls 3 m thick, which a program may take away.
std::string room(int seed) {
  const std::string goes = "can_go = true";
  return fmt::format("seed = {}\n", seed) + block("n", "[[-3, 3], [3, 3], [3, 6], [-3, 6]]", goes) +
         block("s", "[[-3, -6], [3, -6], [3, -3], [-3, -3]]", goes) +
         block("w", "[[-6, -6], [-3, -6], [-3, 6], [-6, 6]]", goes) +
         block("e", "[[3, -6], [6, -6], [6, 6], [3, 6]]", goes) +
         "[kind.bat]\nteam = \"caretakers\"\nmove.speed = 2\nwander.style = \"free\"\n" +
         placed("bat", "bat", "[0, 0]");
}

TEST(Wander, FreelyAvoidsSolidsThatCanGoWhileTheyStand) {
  for (int seed = 1; seed <= 10; ++seed) {
    Simulation simulation(garden(room(seed)));
    EXPECT_EQ(only(play(simulation, 60 * 60), Event::What::blocked).size(), 0U) << seed;
  }
}

TEST(Wander, FreelyGoesWhereTheyStoodOnceTheyAreGone) {
  Simulation simulation(garden(room(1)));
  for (std::uint32_t solid = 0; solid < 4; ++solid) simulation.set_gone({solid}, true);
  double farthest = 0.0;
  for (int tick = 0; tick < 60 * 60; ++tick) {
    simulation.step();
    farthest = std::max(farthest, simulation.state({0}).position.cwiseAbs().maxCoeff());
  }
  EXPECT_GT(farthest, 3.5);
}

}  // namespace
}  // namespace gaze
