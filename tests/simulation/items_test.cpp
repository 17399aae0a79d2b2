// Things that agents pick up by coming near.

#include <cmath>
#include <limits>
#include <random>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::faults_of;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

const std::string kBed = R"(
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.5
health = 100
move.speed = 2.0
[kind.collector.attack.pebbles]
how = "shot"
range = 8
damage = 1
cooldown = 0.1
speed = 10
ammunition = 3
[kind.pruner]
team = "caretakers"
radius = 0.3
move.speed = 2.0
[kind.can]
radius = 0.2
height = 0.3
[kind.can.thing]
picked_up_by = ["visitors"]
take_reach = 0.51
heals = 25
)";

std::string bed(const std::string& script, const std::string& more = "") {
  return kBed + placed("can", "can", "[2.0, 0.0]") +
         placed("collector", "collector", "[0.0, 0.0]", "script = " + script) + more;
}

const std::string kPast = "[{ go = [6.0, 0.0] }]";

// The can is within reach from x = 2 - 0.3 - 0.2 - 0.51 = 0.99 on, after 0.495 s.
TEST(Items, HealAnAgentWithinReach) {
  for (const int rate : {20, 60, 144, 240}) {
    Simulation simulation(garden(bed(kPast), {{"ticks_per_second", std::to_string(rate)}}));
    simulation.hurt(simulation.agent("collector"), 60.0);
    const auto took = only(play(simulation, 3 * rate), What::took);
    ASSERT_EQ(took.size(), 1U);
    EXPECT_EQ(took[0].tick, std::ceil(0.495 * rate)) << rate;
    EXPECT_EQ(took[0].gained, 25.0);
    EXPECT_EQ(simulation.describe(took[0]), "collector took can, gained 25 health, 65 now");
    EXPECT_EQ(took[0].health, 65.0);
    EXPECT_EQ(simulation.id_of(*took[0].other), "can");
    EXPECT_EQ(simulation.state(simulation.agent("collector")).health, 65.0);
    EXPECT_FALSE(simulation.state(simulation.agent("can")).is_alive);
  }
}

TEST(Items, AreNotDrawnOnceTheyAreUsedUp) {
  Simulation simulation(garden(bed(kPast)));
  simulation.hurt(simulation.agent("collector"), 60.0);
  const auto is_drawn = [&] {
    const std::vector<Mark> marks = drawing(simulation);
    return std::any_of(marks.begin(), marks.end(), [&](const Mark& mark) {
      return mark.meaning == Meaning::body_out || mark.who == simulation.agent("can");
    });
  };
  EXPECT_TRUE(is_drawn());
  play(simulation, 60);
  EXPECT_FALSE(is_drawn());
}

TEST(Items, GiveNoMoreThanWasLost) {
  Simulation simulation(garden(bed(kPast)));
  simulation.hurt(simulation.agent("collector"), 10.0);
  const auto took = only(play(simulation, 180), What::took);
  ASSERT_EQ(took.size(), 1U);
  EXPECT_EQ(took[0].gained, 10.0);
  EXPECT_EQ(took[0].health, 100.0);
}

TEST(Items, StayUntilAnAgentNeedsThem) {
  Simulation simulation(garden(bed("[{ go = [1.5, 0.0] }, { wait = 60.0 }]")));
  EXPECT_TRUE(only(play(simulation, 180), What::took).empty());
  simulation.hurt(simulation.agent("collector"), 30.0);
  EXPECT_EQ(only(play(simulation, 1), What::took).size(), 1U);
}

TEST(Items, ArePickedUpByNoOtherAgent) {
  const std::string thief = placed("pruner", "pruner", "[2.0, 2.0]",
                                   "script = [{ go = [2.0, 0.5] }, { take = \"can\" }]");
  Simulation simulation(garden(bed("[{ wait = 60.0 }]", thief)));
  simulation.hurt(simulation.agent("pruner"), 30.0);
  const auto events = play(simulation, 180);
  EXPECT_TRUE(only(events, What::took).empty());
  EXPECT_EQ(only(events, What::blocked).size(), 1U);
}

TEST(Items, GoToTheHandIfTheyGiveNothing) {
  Simulation simulation(garden(bed(kPast), {{"kind.can.thing.heals", "0"}}));
  const auto took = only(play(simulation, 180), What::took);
  ASSERT_EQ(took.size(), 1U);
  EXPECT_EQ(took[0].gained, 0.0);
  const AgentState can = simulation.state(simulation.agent("can"));
  ASSERT_TRUE(can.carrier);
  EXPECT_EQ(simulation.id_of(*can.carrier), "collector");
}

// Three shots empty it, the can fills it, three more empty it again.
TEST(Items, RefillAttacks) {
  const std::string shoots =
      "[{ aim = [9.0, 0.0], fire = 1.0 }, { go = [1.5, 0.0] }, { aim = [9.0, 0.0], fire = 1.0 }]";
  const std::vector<Setting> refills{{"kind.can.thing.heals", "0"},
                                     {"kind.can.thing.refills", "[\"pebbles\"]"}};
  Simulation simulation(garden(bed(shoots), refills));
  const auto events = play(simulation, 300);
  const auto took = only(events, What::took);
  ASSERT_EQ(took.size(), 1U);
  EXPECT_EQ(took[0].attack, "pebbles");
  EXPECT_EQ(simulation.describe(took[0]), "collector took can, refilled pebbles");
  EXPECT_EQ(only(events, What::fired).size(), 6U);
  Simulation without(garden(bed(shoots), {{"kind.can.thing.picked_up_by", "[\"pruner\"]"},
                                          {"kind.can.thing.refills", "[\"pebbles\"]"}}));
  EXPECT_EQ(only(play(without, 300), What::fired).size(), 3U);
}

TEST(Items, LeaveFullAttacksAlone) {
  Simulation simulation(garden(
      bed(kPast), {{"kind.can.thing.heals", "0"}, {"kind.can.thing.refills", "[\"pebbles\"]"}}));
  EXPECT_TRUE(only(play(simulation, 180), What::took).empty());
}

// Taken at tick 30, back 2 s later where it was placed, and taken again.
TEST(Items, ComeBackAfterTheirRespawn) {
  Simulation simulation(
      garden(bed("[{ go = [1.0, 0.0] }, { wait = 60.0 }]"), {{"kind.can.defeat.respawn", "2"}}));
  simulation.hurt(simulation.agent("collector"), 60.0);
  const auto took = only(play(simulation, 240), What::took);
  ASSERT_EQ(took.size(), 2U);
  EXPECT_EQ(took[0].tick, 30);
  EXPECT_EQ(took[1].tick, 30 + 120 + 1);
}

// The nearest agent gets it, by a search over all of them.
TEST(Items, GoToTheNearest) {
  std::mt19937_64 random(7);
  std::uniform_real_distribution<double> place(-1.2, 1.2);
  for (std::uint64_t round = 0; round < testing::rounds(200); ++round) {
    std::string crowd;
    std::string nearest;
    double least = 1.01;
    for (int i = 0; i < 8; ++i) {
      const double x = place(random);
      const double y = place(random);
      const std::string id = "guest-" + std::to_string(i);
      crowd +=
          placed(id, "collector", "[" + std::to_string(2.0 + x) + ", " + std::to_string(y) + "]");
      if (std::hypot(x, y) >= least) continue;
      least = std::hypot(x, y);
      nearest = id;
    }
    Simulation simulation(garden(kBed + placed("can", "can", "[2.0, 0.0]") + crowd,
                                 {{"kind.collector.solid_to", "[]"}}));
    for (int i = 0; i < 8; ++i) {
      simulation.hurt(simulation.agent("guest-" + std::to_string(i)), 40.0);
    }
    const auto took = only(play(simulation, 1), What::took);
    ASSERT_EQ(took.size(), nearest.empty() ? 0U : 1U);
    // Agents that touch it are all 0 m away.
    if (took.empty() || least < 0.5) continue;
    EXPECT_EQ(simulation.id_of(took[0].agent), nearest);
  }
}

TEST(Items, SurviveASave) {
  Simulation simulation(garden(bed(kPast), {{"kind.can.defeat.respawn", "1"}}));
  simulation.hurt(simulation.agent("collector"), 60.0);
  play(simulation, 40);
  Simulation again(garden(bed(kPast), {{"kind.can.defeat.respawn", "1"}}));
  again.restore(simulation.save());
  play(simulation, 60);
  play(again, 60);
  EXPECT_EQ(simulation.digest(), again.digest());
  EXPECT_TRUE(again.state(again.agent("can")).is_alive);
}

TEST(Items, NameWhatThereIs) {
  const std::string wrong =
      faults_of(bed(kPast) + testing::kTeams, {{"kind.can.thing.picked_up_by", "[\"visitor\"]"},
                                               {"kind.can.thing.refills", "[\"pebble\"]"}});
  EXPECT_NE(wrong.find("'visitor'"), std::string::npos) << wrong;
  EXPECT_NE(wrong.find("'visitors'"), std::string::npos) << wrong;
  EXPECT_NE(wrong.find("'pebbles'"), std::string::npos) << wrong;
}

}  // namespace
}  // namespace gaze
