// A player on a crate: out of reach, and out of sight for who comes too near.

#include <fmt/format.h>

#include <cmath>

#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::block;
using testing::garden;
using testing::placed;

std::string crate(const std::string& pruner, double height) {
  return R"(
plane = "space"
[kind.pruner]
team = "caretakers"
radius = 0.3
[kind.pruner.sight]
range = 12.0
field_of_view = 360.0
)" + pruner +
         R"([kind.pruner.move]
speed = 2.0
[kind.pruner.when]
sees = "chase"
forgets = "return"
[kind.collector]
team = "visitors"
)" + block("crate", "[[-1, -1], [1, -1], [1, 1], [-1, 1]]") +
         R"(
height = )" +
         fmt::format("{}\n", height) +
         placed("collector", "collector", fmt::format("[0, 0, {}]", height), "driver = \"host\"");
}

// The four sides are as near to its middle: 1 m and the body's radius.
TEST(Crate, IsComeToFromTheNearSide) {
  scenes::Random random(4);
  for (int i = 0; i < 40; ++i) {
    const SineCosine way = sine_cosine(Angle::from_degrees(random.between(0, 360)));
    const double away = random.between(2, 7);
    const Vector3d from{away * way.cosine, away * way.sine, 0.0};
    Simulation simulation(
        garden(crate("remember = 3.0\n", 1.2) +
               placed("pruner", "pruner", fmt::format("[{:.4f}, {:.4f}, 0]", from.x(), from.y()))));
    testing::play(simulation, 60 * 6);
    const Vector3d end = simulation.state(simulation.agent("pruner")).position;
    const bool is_beside_x = std::abs(from.x()) > std::abs(from.y());
    const Vector3d expected = is_beside_x ? Vector3d{std::copysign(1.3, from.x()), 0.0, 0.0}
                                          : Vector3d{0.0, std::copysign(1.3, from.y()), 0.0};
    EXPECT_NEAR((end - expected).norm(), 0.0, 0.01) << from.transpose();
  }
}

class Rims : public ::testing::TestWithParam<int> {};

// The player is 3 m up: nearer than 3.2 m it is more than 25 degrees above the eye. Without a
// memory it turns back at once, and sees it again: to and fro, and not on the spot.
TEST_P(Rims, OfSightDoNotHoldAForgetfulChaser) {
  const int rate = GetParam();
  Simulation simulation(garden(crate("remember = 0.0\nvertical_field_of_view = 50.0\n", 3.0) +
                                   placed("pruner", "pruner", "[6, 0.3, 0]"),
                               {{"ticks_per_second", std::to_string(rate)}}));
  int changes = 0;
  double nearest = 1e9;
  double farthest = 0.0;
  for (int i = 0; i < 12 * rate; ++i) {
    simulation.step();
    for (const Event& event : simulation.events()) changes += event.what == Event::What::mode;
    if (i < 3 * rate) continue;
    const double x = simulation.state(simulation.agent("pruner")).position.x();
    nearest = std::min(nearest, x);
    farthest = std::max(farthest, x);
  }
  EXPECT_GE(changes, 6);
  EXPECT_LE(changes, 12 / 0.25);       // no two of them within half a second
  EXPECT_GT(farthest - nearest, 0.8);  // half a second at 2 m/s
}

INSTANTIATE_TEST_SUITE_P(Rates, Rims, ::testing::Values(20, 60, 240));

}  // namespace
}  // namespace gaze
