// What a defeat brings: what is left behind, who is told, bursts in a chain, and a return.

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

/// A collector with a sling that fires east from the origin, and a pruner 5 m away.
std::string bench_of(const std::string& pruner, const std::string& more = "") {
  return R"(
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.6
[kind.collector.attack.sling]
how = "shot"
speed = 10.0
damage = 10
cooldown = 1.0
range = 20.0
[kind.satchel]
radius = 0.2
height = 0.3
[kind.pruner]
team = "caretakers"
radius = 0.3
height = 1.6
health = 20
)" + pruner +
         placed("collector", "collector", "[0.0, 0.0]",
                "script = [{ aim = [5.0, 0.0], fire = 60.0 }]") +
         placed("pruner", "pruner", "[5.0, 0.0]", "facing = 90.0") + more;
}

bool is_there(const Simulation& simulation, const char* id) {
  const AgentState state = simulation.state(simulation.agent(id));
  return state.is_there && state.is_alive;
}

// The second shot is fired a second after the first and flies 4.7 m at 10 m/s.
TEST(Defeats, LeaveTheirOwnKindInTheirPlace) {
  Simulation simulation(
      garden(bench_of("[kind.pruner.defeat]\nleaves = \"satchel\"\nscore = 3\n")));
  EXPECT_FALSE(simulation.state(simulation.agent("pruner-satchel")).is_there);
  const auto events = play(simulation, 120);
  const auto defeated = only(events, What::defeated);
  ASSERT_EQ(defeated.size(), 1U);
  EXPECT_NEAR(testing::seconds_of(defeated[0], simulation), 1.0 + 0.47, 2.0 / 60.0);
  EXPECT_EQ(defeated[0].score, 3.0);
  EXPECT_EQ(simulation.state(simulation.agent("collector")).score, 3.0);
  ASSERT_TRUE(is_there(simulation, "pruner-satchel"));
  const AgentState satchel = simulation.state(simulation.agent("pruner-satchel"));
  EXPECT_EQ(satchel.position, (Vector3d{5.0, 0.0, 0.0}));
  EXPECT_NEAR(satchel.facing.y(), 1.0, 1e-12);
  EXPECT_FALSE(is_there(simulation, "pruner"));
}

TEST(Defeats, OfACopyLeaveTheirs) {
  Simulation simulation(garden(bench_of("[kind.pruner.defeat]\nleaves = \"satchel\"\n"),
                               {{"agent.pruner.defeat.leaves", "false"}}));
  play(simulation, 120);
  EXPECT_EQ(simulation.agent_count(), 2U);
}

class Returns : public ::testing::TestWithParam<int> {};

// Defeated again and again, it is back 2.5 s later each time, whole, where it was placed.
TEST_P(Returns, ComeAfterTheirTime) {
  const int rate = GetParam();
  Simulation simulation(
      garden(bench_of("[kind.pruner.defeat]\nrespawn = 2.5\nleaves = \"satchel\"\n"
                      "[kind.pruner.move]\nspeed = 1\n"),
             {{"ticks_per_second", std::to_string(rate)},
              {"agent.pruner.patrol", "[[5.0, 0.0], [5.0, 0.1]]"}}));
  const AgentId pruner = simulation.agent("pruner");
  std::int64_t out_at = -1;
  int returns = 0;
  for (int i = 0; i < 12 * rate; ++i) {
    simulation.step();
    for (const Event& event : simulation.events()) {
      if (event.what != What::mode || event.agent != pruner) continue;
      if (event.to == Mode::out) out_at = event.tick;
      if (event.from != Mode::out) continue;
      EXPECT_EQ(event.tick - out_at, (5 * rate + 1) / 2);
      EXPECT_EQ(simulation.state(pruner).health, 20.0);
      EXPECT_EQ(simulation.state(pruner).position, (Vector3d{5.0, 0.0, 0.0}));
      ++returns;
    }
  }
  EXPECT_GE(returns, 2);
  EXPECT_EQ(simulation.agent_count(), 3U);  // the one satchel is moved
}

INSTANTIATE_TEST_SUITE_P(Rates, Returns, ::testing::Values(20, 60, 240));

TEST(Defeats, AreToldToWhomTheyConcern) {
  const std::string guards = R"(
[kind.guard]
team = "caretakers"
[kind.guard.sight]
range = 1.0
field_of_view = 10.0
)" + placed("guard-1", "guard", "[20.0, 20.0]") +
                             placed("guard-2", "guard", "[22.0, 20.0]") +
                             placed("guard-3", "guard", "[24.0, 20.0]");
  Simulation simulation(garden(
      bench_of("[kind.pruner.defeat]\ntells = [\"guard-1\"]\nwakes = [\"guard-2\"]\n", guards)));
  EXPECT_FALSE(simulation.state(simulation.agent("guard-2")).is_awake);
  const auto events = play(simulation, 120);
  const auto noticed = only(events, What::noticed);
  ASSERT_EQ(noticed.size(), 1U);
  EXPECT_EQ(simulation.id_of(noticed[0].agent), "guard-1");
  EXPECT_EQ(simulation.id_of(*noticed[0].other), "collector");
  EXPECT_EQ(noticed[0].by, Sense::told);
  EXPECT_TRUE(simulation.state(simulation.agent("guard-2")).is_awake);
}

/// Jars in a row, 1.5 m apart, each bursting 2 m around itself once it is hit.
std::string jars(int count) {
  std::string text = R"(
[kind.jar]
radius = 0.2
height = 1.6
health = 1
[kind.jar.thing]
[kind.jar.attack.burst]
how = "burst"
range = 2.0
damage = 30
blast_fall_off = 0.0
cooldown = 1.0
[kind.jar.defeat]
attack = "burst"
)";
  for (int i = 0; i < count; ++i) {
    text += "[[agent]]\nid = \"jar-" + std::to_string(i) + "\"\nkind = \"jar\"\nat = [" +
            std::to_string(3.0 + 1.5 * i) + ", 0.0]\n";
  }
  return text;
}

// From jar to jar in one step, each once; the pruner stands by the last and falls to it. Who shot
// the first has done it all, and nobody else is hurt.
TEST(Defeats, BurstInAChain) {
  Simulation simulation(garden(bench_of("", jars(6)), {{"agent.pruner.at", "[12.0, 0.0]"}}));
  const auto events = play(simulation, 60);
  const auto blasts = only(events, What::blast);
  ASSERT_EQ(blasts.size(), 6U);
  for (const Event& blast : blasts) EXPECT_EQ(blast.tick, blasts[0].tick);
  const auto defeated = only(events, What::defeated);
  ASSERT_EQ(defeated.size(), 7U);
  for (const Event& fall : defeated) EXPECT_EQ(simulation.id_of(*fall.other), "collector");
  EXPECT_FALSE(is_there(simulation, "pruner"));
  EXPECT_EQ(simulation.state(simulation.agent("collector")).health, 100.0);
}

TEST(Defeats, BurstNotThroughAWall) {
  const std::string wall =
      "[[wall]]\nid = \"wall\"\nmaterial = \"brick\"\npath = [[5.3, -9.0], [5.3, 9.0]]\n";
  Simulation simulation(garden(bench_of("", jars(6) + wall), {{"agent.pruner.at", "[12.0, 0.0]"}}));
  EXPECT_EQ(only(play(simulation, 60), What::blast).size(), 2U);
  EXPECT_TRUE(is_there(simulation, "pruner"));
}

// The last two thistles stay; the first is moved to where the third shot ends.
TEST(Defeats, ShotsLeaveSoManyAndNoMore) {
  const std::string wall =
      "[[wall]]\nid = \"wall\"\nmaterial = \"brick\"\npath = [[3.0, -9.0], [3.0, 9.0]]\n";
  Simulation simulation(
      garden(bench_of("", wall), {{"kind.collector.attack.sling.leaves", "\"satchel\""},
                                  {"kind.collector.attack.sling.keeps", "2"}}));
  play(simulation, 50);
  EXPECT_TRUE(is_there(simulation, "collector-satchel-1"));
  EXPECT_FALSE(is_there(simulation, "collector-satchel-2"));
  const double x = simulation.state(simulation.agent("collector-satchel-1")).position.x();
  EXPECT_NEAR(x, 2.9 - 0.05, 1e-5);
  play(simulation, 150);
  EXPECT_TRUE(is_there(simulation, "collector-satchel-2"));
  EXPECT_EQ(simulation.agent_count(), 4U);
}

}  // namespace
}  // namespace gaze
