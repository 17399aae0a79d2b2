#include "gaze/tools/duel.hpp"

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::placed;
// Noticed at tick 0; strikes of 30 at ticks 1, 61, 121 and 181 take 100: the last one only 10.
TEST(Duels, AddUpWhatOneDidToAnother) {
  Simulation simulation(testing::garden(R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 9.0
field_of_view = 360.0
[kind.pruner.attack.shears]
how = "strike"
range = 3.0
damage = 30
cooldown = 1.0
[kind.collector]
team = "visitors"
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                                        placed("bystander", "collector", "[8.0, 0.0]") +
                                        placed("collector", "collector", "[2.0, 0.0]")));
  const auto all = duels(simulation, testing::play(simulation, 600));
  ASSERT_EQ(all.size(), 1U);  // the bystander is seen, and nothing is done to it
  const Duel& duel = all[0];
  EXPECT_EQ(simulation.id_of(duel.by), "pruner");
  EXPECT_EQ(simulation.id_of(duel.victim), "collector");
  EXPECT_EQ(duel.pulls, 4);
  EXPECT_EQ(duel.blows, 4);
  EXPECT_EQ(duel.hits, 4);
  EXPECT_EQ(duel.dealt, 100.0);
  EXPECT_EQ(duel.hit_share(), 1.0);
  EXPECT_EQ(duel.noticed, 0.0);
  EXPECT_NEAR(*duel.first_hurt, 1.0 / 60.0, 1e-12);
  EXPECT_NEAR(*duel.warning(), 1.0 / 60.0, 1e-12);
  EXPECT_NEAR(*duel.defeated, 181.0 / 60.0, 1e-12);
  EXPECT_NEAR(*duel.time_to_defeat(), 181.0 / 60.0, 1e-12);
  EXPECT_NEAR(*duel.damage_rate(), 100.0 / 3.0, 1e-9);
}

// In 3 s of two attacks: a blow a second and four shots a second that burst where they hit.
TEST(Duels, CountBlowsOfAllAttacksOnce) {
  Simulation simulation(testing::garden(R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 9.0
field_of_view = 360.0
[kind.pruner.attack.shears]
how = "strike"
range = 3.0
damage = 1
cooldown = 1.0
[kind.pruner.attack.pod]
how = "shot"
range = 3.0
speed = 1000.0
damage = 1
blast_radius = 1.0
cooldown = 0.25
[kind.collector]
team = "visitors"
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                                        placed("collector", "collector", "[2.0, 0.0]")));
  const auto all = duels(simulation, testing::play(simulation, 180));
  ASSERT_EQ(all.size(), 1U);
  EXPECT_EQ(all[0].pulls, 3 + 12);
  EXPECT_EQ(all[0].blows, 3 + 12);
  EXPECT_EQ(all[0].hits, 3 + 12);
}

TEST(Duels, OfNobodyAreNone) {
  Simulation simulation(testing::garden(""));
  EXPECT_TRUE(duels(simulation, testing::play(simulation, 10)).empty());
}

// Struck from the front until it has walked into the shade, then on: what is lost adds up, by zone
// and by side.
TEST(HarmPlaces, AddUpToWhatIsLost) {
  Simulation simulation(testing::garden(R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 30.0
field_of_view = 360.0
[kind.pruner.attack.shears]
how = "strike"
range = 30.0
damage = 3
cooldown = 0.5
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
[[zone]]
id = "shade"
outline = [[2.0, -1.0], [5.0, -1.0], [5.0, 1.0], [2.0, 1.0]]
)" + placed("pruner", "pruner", "[9.0, 0.0]") +
                                        R"(
[[agent]]
id = "collector"
kind = "collector"
at = [0.0, 0.0]
facing = 0.0
script = [{ go = [4.0, 0.0] }, { face = 180.0 }]
)"));
  const auto events = testing::play(simulation, 240);
  const auto places = harm_places(simulation, events);
  ASSERT_EQ(places.size(), 2U);
  ASSERT_TRUE(places[0].zone);
  EXPECT_EQ(simulation.level().zones[*places[0].zone].id, "shade");
  EXPECT_FALSE(places[1].zone);
  // Blows at 1/60 s and every half second; it is in the shade from 1 s on.
  EXPECT_EQ(places[1].blows, 2);
  EXPECT_EQ(places[0].blows, 6);
  const double lost = 100.0 - simulation.state(simulation.agent("collector")).health;
  EXPECT_EQ(places[0].dealt + places[1].dealt, lost);
  const Duel duel = duels(simulation, events).at(0);
  // It arrives after 2 s, and half a second later it has turned its back: to the last three.
  EXPECT_EQ(duel.by_side[static_cast<std::size_t>(Side::front)], 5 * 3.0);
  EXPECT_EQ(duel.by_side[static_cast<std::size_t>(Side::back)], 3 * 3.0);
}

}  // namespace
}  // namespace gaze
