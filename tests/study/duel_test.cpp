#include "gaze/duel.hpp"

#include "support/levels.hpp"

namespace gaze {
namespace {

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
[[agent]]
id = "pruner"
kind = "pruner"
at = [0.0, 0.0]
[[agent]]
id = "bystander"
kind = "collector"
at = [8.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [2.0, 0.0]
)"));
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
[[agent]]
id = "pruner"
kind = "pruner"
at = [0.0, 0.0]
[[agent]]
id = "collector"
kind = "collector"
at = [2.0, 0.0]
)"));
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

}  // namespace
}  // namespace gaze
