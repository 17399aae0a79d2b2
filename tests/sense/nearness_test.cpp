// The nearness sense as it is played.

#include <gtest/gtest.h>

#include <fmt/format.h>

#include "fuzz/choices.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using fuzz::Choices;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;

const std::string kDuck = R"(
[kind.duck]
team = "caretakers"
solid_to = []
move.speed = 2.0
[kind.duck.nearness]
range = 5.0
[kind.walker]
team = "visitors"
solid_to = []
move.speed = 1.5
)";

std::string coordinates(Plane plane, double a, double b) {
  return plane == Plane::space ? fmt::format("[{}, {}, 0.0]", a, b) : fmt::format("[{}, {}]", a, b);
}

/// A duck at the origin and targets that walk past it. Some stand exactly 5 m away.
Level random_level(Choices& choices, Plane plane, int rate) {
  std::string text =
      fmt::format("plane = \"{}\"\nticks_per_second = {}\n",
                  std::array{"ground", "upright", "space"}[std::size_t(plane)], rate);
  if (plane == Plane::upright) text += "gravity = 0.0\n";
  text += kDuck + placed("duck", "duck", coordinates(plane, 0, 0));
  const std::uint32_t count = 2 + choices.below(39);
  for (std::uint32_t i = 0; i < count; ++i) {
    const std::string id = fmt::format("walker-{}", i);
    if (choices.one_in(4)) {
      text += placed(id, "walker", coordinates(plane, choices.one_in(2) ? 3.0 : -3.0, 4.0));
      continue;
    }
    const auto somewhere = [&] {
      return coordinates(plane, choices.between(-8, 8), choices.between(0, 8));
    };
    const std::string from = somewhere();
    text += placed(id, "walker", from, "script = [{ go = " + somewhere() + " }]");
  }
  return garden(text);
}

TEST(NearnessSense, PerceivesAllTargetsInRangeAndNoOthers) {
  std::int64_t inside = 0;
  std::int64_t outside = 0;
  std::int64_t at_the_limit = 0;
  for (std::uint64_t seed = 1; seed <= testing::rounds(60); ++seed) {
    Choices choices(seed);
    const auto plane = static_cast<Plane>(seed % 3);
    Simulation simulation(random_level(choices, plane, choices.of<int>({20, 30, 60, 144, 240})));
    const AgentId duck = simulation.agent("duck");
    for (int tick = 0; tick < 60; ++tick) {
      simulation.step();
      const Vector3d own = simulation.state(duck).position;
      for (const AgentId other : simulation.agents()) {
        if (other == duck) continue;
        const double distance2 = (simulation.state(other).position - own).squaredNorm();
        const bool is_in_range = distance2 <= 25.0;
        ++(is_in_range ? inside : outside);
        at_the_limit += distance2 == 25.0;
        ASSERT_EQ(simulation.awareness(duck, other) == Awareness::noticed, is_in_range)
            << "seed " << seed << ", tick " << tick << ", " << simulation.id_of(other);
      }
    }
  }
  EXPECT_GT(inside, testing::enough(8'000));
  EXPECT_GT(outside, testing::enough(8'000));
  EXPECT_GT(at_the_limit, testing::enough(4'000));
}

TEST(NearnessSense, WithOncePerceivesEachTargetOnce) {
  // Ann comes, goes and comes again. Ben comes while Ann is near.
  const std::string level = kDuck + placed("duck", "duck", "[0, 0]") +
                            placed("ann", "walker", "[6, 0]",
                                   "script = [{ go = [3, 0] }, { go = [6, 0] }, { go = [3, 0] }]") +
                            placed("ben", "walker", "[0, 6.5]", "script = [{ go = [0, 3] }]");
  Simulation simulation(garden(level, {{"kind.duck.nearness.once", "true"}}));
  const auto noticed = only(play(simulation, 6 * 60), Event::What::noticed);
  ASSERT_EQ(noticed.size(), 2U);
  EXPECT_EQ(simulation.id_of(noticed[0].other.value()), "ann");
  EXPECT_EQ(simulation.id_of(noticed[1].other.value()), "ben");
  // 1 m at 1.5 m/s, and 1.5 m.
  EXPECT_NEAR(testing::seconds_of(noticed[0], simulation), 1.0 / 1.5, 1.0 / 60);
  EXPECT_NEAR(testing::seconds_of(noticed[1], simulation), 1.0, 1.0 / 60);
}

TEST(NearnessSense, GivesChoiceAllTargetsInRange) {
  // The weaker target is farther away.
  const std::string level = kDuck + "[kind.duck.choose]\nby = \"weakest\"\n" +
                            placed("duck", "duck", "[0, 0]") + placed("ann", "walker", "[2, 0]") +
                            placed("ben", "walker", "[-4, 0]", "health = 40");
  Simulation simulation(garden(level));
  play(simulation, 2);
  const auto target = simulation.state(simulation.agent("duck")).target;
  ASSERT_TRUE(target);
  EXPECT_EQ(simulation.id_of(*target), "ben");
}

TEST(NearnessSense, ReactsToTheKindOfEachTarget) {
  // The walker is near already when the cart comes within range.
  const std::string level =
      kDuck + "[kind.duck.when]\nnear = { cart = \"flee\" }\n[kind.cart]\nlike = \"walker\"\n" +
      placed("duck", "duck", "[0, 0]") + placed("ann", "walker", "[2, 0]") +
      placed("cart", "cart", "[6, 0]", "script = [{ go = [3, 0] }]");
  Simulation simulation(garden(level));
  const auto modes = only(play(simulation, 120), Event::What::mode);
  ASSERT_EQ(modes.size(), 1U);
  EXPECT_EQ(modes[0].to, Mode::flee);
}

}  // namespace
}  // namespace gaze
