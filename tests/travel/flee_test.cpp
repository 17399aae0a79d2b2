// Fleeing never leads through the pursuer.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::garden;
using testing::placed;
using testing::play;

std::string frog(double speed, const std::string& more = "") {
  return fmt::format(
      "[kind.frog]\nteam = \"caretakers\"\nradius = 0.2\nnearness = {{ range = 4.0, remember = 1.0 "
      "}}\nmove = {{ speed = {}, flee_distance = 4.0{} }}\nwhen.near = \"flee\"\n"
      "[kind.child]\nteam = \"visitors\"\nradius = 0.3\nsolid_to = []\nmove.speed = 2.5\n",
      speed, more);
}

double distance_between(const Simulation& simulation, std::size_t one, std::size_t other) {
  const auto agents = simulation.agents();
  return (simulation.state(agents[one]).position - simulation.state(agents[other]).position).norm();
}

TEST(Flee, NeverLeadsThroughThePursuer) {
  int times_near = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(100); ++seed) {
    Choices choices(seed);
    // The child crosses the circle about the post twice, through its centre or beside it.
    const double y = choices.between(-3.0, 3.0);
    const double end = choices.between(-3.0, 3.0);
    const std::string from = choices.one_in(2) ? "here" : "post";
    Simulation simulation(
        garden(frog(4.0, ", flee_from = \"" + from + "\"") + placed("frog", "frog", "[0, 0]") +
               placed("child", "child", fmt::format("[-8, {}]", y),
                      fmt::format("script = [{{ go = [8, {}] }}, {{ go = [-8, {}] }}]", end, y))));
    double least = 1e9;
    for (int tick = 0; tick < 14 * 60; ++tick) {
      simulation.step();
      least = std::min(least, distance_between(simulation, 0, 1));
    }
    EXPECT_GT(least, 1.0) << "seed " << seed;  // both radii are 0.5
    times_near += least < 4.0;
  }
  EXPECT_GT(times_near, testing::enough(80));
}

TEST(Flee, FromHereGoesOnAndOn) {
  // The child follows at 2.5 m/s for 10 s and the frog is faster: it ends 4 m or more ahead of it.
  const std::string scene = placed("frog", "frog", "[0, 0]") +
                            placed("child", "child", "[-3, 0]", "script = [{ go = [22, 0] }]");
  Simulation simulation(garden(frog(4.0, ", flee_from = \"here\"") + scene));
  play(simulation, 600);
  EXPECT_GT(simulation.state({0}).position.x(), 22.0 + 3.9);
  EXPECT_NEAR(simulation.state({0}).position.y(), 0.0, 1e-6);
}

TEST(Flee, StandsWhenCornered) {
  // A dead end 1 m wide, closed on the right: the child comes in from the left.
  const std::string walls =
      "[[wall]]\nid = \"alley\"\nmaterial = \"brick\"\n"
      "path = [[-6, 0.6], [2, 0.6], [2, -0.6], [-6, -0.6]]\n";
  Simulation simulation(
      garden(walls + frog(4.0) + placed("frog", "frog", "[0, 0]") +
             placed("child", "child", "[-6, 0]", "script = [{ go = [0.5, 0] }]")));
  double most_left = 0.0;
  for (int tick = 0; tick < 300; ++tick) {
    simulation.step();
    most_left = std::min(most_left, simulation.state({0}).position.x());
  }
  EXPECT_GE(most_left, 0.0);
}

}  // namespace
}  // namespace gaze
