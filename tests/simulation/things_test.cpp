// Pebbles and jars: taken, carried, thrown, dropped.

#include <cmath>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

std::string shed(const std::string& more = "") {
  return R"(
[kind.collector]
team = "visitors"
radius = 0.3
height = 1.5
carries = { pebble = 2 }
[kind.collector.move]
speed = 2.0
[kind.pebble]
radius = 0.05
height = 0.1
[kind.pebble.thing]
speed = 9.0
noise_reach = 8.0
bounces = 2
bounce_loss = 0.5
[kind.jar]
radius = 0.2
height = 0.4
health = 5
[kind.jar.thing]
speed = 9.0
take_reach = 0.5
)" + placed("jar", "jar", "[1.0, 0.0]") +
         placed("collector", "collector", "[0.0, 0.0]") + more;
}

Simulation played(const std::string& script, const std::string& more = "",
                  const std::vector<Setting>& settings = {}) {
  std::vector<Setting> all{{"agent.collector.script", script}};
  all.insert(all.end(), settings.begin(), settings.end());
  return Simulation(garden(shed(more), all));
}

// From body to body: 1 m less both radii is 0.5 m.
TEST(Things, AreTakenFromNearEnough) {
  Simulation near = played("[{ take = \"jar\" }, { wait = 9.0 }]");
  EXPECT_EQ(only(play(near, 2), What::took).size(), 1U);
  const AgentState jar = near.state(near.agent("jar"));
  ASSERT_TRUE(jar.carrier);
  EXPECT_EQ(near.id_of(*jar.carrier), "collector");
  EXPECT_TRUE(jar.is_alive);
  Simulation far =
      played("[{ take = \"jar\" }, { wait = 9.0 }]", "", {{"kind.jar.thing.take_reach", "0.499"}});
  const auto events = play(far, 2);
  EXPECT_TRUE(only(events, What::took).empty());
  EXPECT_EQ(only(events, What::blocked).size(), 1U);
  EXPECT_FALSE(far.state(far.agent("jar")).carrier);
}

TEST(Things, GoWhereTheirCarrierGoes) {
  Simulation simulation = played("[{ take = \"jar\" }, { go = [0.0, 4.0] }, { drop = true }]");
  play(simulation, 60);
  const Vector3d hand = simulation.state(simulation.agent("jar")).position;
  EXPECT_NEAR(hand.y(), 2.0, 0.05);
  EXPECT_EQ(hand.y(), simulation.state(simulation.agent("collector")).position.y());
  EXPECT_NEAR(hand.z(), 0.8 * 1.5, 1e-12);
  play(simulation, 90);
  const AgentState jar = simulation.state(simulation.agent("jar"));
  EXPECT_FALSE(jar.carrier);
  EXPECT_EQ(jar.position, (Vector3d{0.0, 4.0, 0.0}));
}

// It lands with its middle as high as its radius where it was thrown to, and lies there.
TEST(Things, LandWhereTheyAreThrown) {
  for (const double x : {3.0, 5.5, 8.0}) {
    Simulation simulation =
        played("[{ take = \"jar\" }, { throw = \"jar\", to = [" + std::to_string(x) + ", 2.0] }]");
    const auto events = play(simulation, 180);
    const auto hits = only(events, What::hit);
    ASSERT_EQ(hits.size(), 1U);
    EXPECT_NEAR(hits[0].place.x(), x, 1e-3);
    EXPECT_NEAR(hits[0].place.y(), 2.0, 1e-3);
    EXPECT_NEAR(hits[0].place.z(), 0.2, 1e-3);
    const AgentState jar = simulation.state(simulation.agent("jar"));
    EXPECT_NEAR(jar.position.x(), x, 1e-3);
    EXPECT_NEAR(jar.position.z(), 0.0, 1e-9);
    EXPECT_FALSE(jar.carrier);
  }
}

// At half a right angle from the hand, h above where it comes down: x = v cos (v sin + sqrt(v^2
// sin^2 + 2 g h)) / g.
TEST(Things, TooFarOffAreThrownAsFarAsTheyGo) {
  Simulation simulation = played("[{ take = \"jar\" }, { throw = \"jar\", to = [500.0, 0.0] }]");
  const auto hits = only(play(simulation, 180), What::hit);
  ASSERT_EQ(hits.size(), 1U);
  const double up = 9.0 * std::sqrt(0.5);
  const double h = 0.8 * 1.5 - 0.2;
  const double x = up * (up + std::sqrt(up * up + 2.0 * 9.81 * h)) / 9.81;
  EXPECT_NEAR(hits[0].place.x(), x, 0.01);  // the curve within a step is a chord
}

TEST(Things, InAPocketRunOut) {
  Simulation simulation = played(
      "[{ throw = \"pebble\", to = [3.0, 0.0] }, { throw = \"pebble\", to = [3.0, 1.0] }, "
      "{ throw = \"pebble\", to = [3.0, 2.0] }]");
  const auto events = play(simulation, 20);
  EXPECT_EQ(only(events, What::fired).size(), 2U);
  EXPECT_EQ(only(events, What::blocked).size(), 1U);
  EXPECT_EQ(simulation.state(simulation.agent("collector")).pockets, std::vector<int>{0});
}

// One noise by its name, however often it bounces; its thrower does not go by it.
TEST(Things, AreHeardOnceWhereTheyLand) {
  const std::string listener = R"(
[kind.listener]
team = "caretakers"
[kind.listener.hearing]
range = 20.0
[kind.listener.when]
hears = { pebble = "investigate" }
)" + placed("listener", "listener", "[9.0, 0.0]");
  Simulation simulation = played("[{ throw = \"pebble\", to = [4.0, 0.0] }]", listener,
                                 {{"kind.collector.hearing.range", "20.0"}});
  const auto events = play(simulation, 240);
  const auto heard = only(events, What::heard);
  ASSERT_EQ(heard.size(), 1U);
  EXPECT_EQ(simulation.id_of(heard[0].agent), "listener");
  EXPECT_EQ(heard[0].noise, "pebble");
  EXPECT_NEAR(heard[0].place.x(), 4.0, 1e-3);
  EXPECT_EQ(only(events, What::hit).size(), 3U);
}

TEST(Things, FallFromTheHandOfWhoIsDefeated) {
  const std::string sprinkler = R"(
[kind.sprinkler]
team = "caretakers"
[kind.sprinkler.sight]
range = 20.0
field_of_view = 360.0
[kind.sprinkler.attack.jet]
how = "strike"
range = 20.0
damage = 100
cooldown = 1.0
wind_up = 0.5
)" + placed("sprinkler", "sprinkler", "[-5.0, 0.0]");
  Simulation simulation = played("[{ take = \"jar\" }, { wait = 9.0 }]", sprinkler);
  play(simulation, 120);
  EXPECT_FALSE(simulation.state(simulation.agent("collector")).is_alive);
  const AgentState jar = simulation.state(simulation.agent("jar"));
  EXPECT_FALSE(jar.carrier);
  EXPECT_EQ(jar.position, (Vector3d{0.0, 0.0, 0.0}));
}

TEST(Things, BreakWhereTheyLandIfTheyDo) {
  Simulation simulation = played("[{ take = \"jar\" }, { throw = \"jar\", to = [6.0, 0.0] }]", "",
                                 {{"kind.jar.thing.breaks", "true"}});
  const auto defeated = only(play(simulation, 180), What::defeated);
  ASSERT_EQ(defeated.size(), 1U);
  EXPECT_EQ(simulation.id_of(defeated[0].agent), "jar");
  EXPECT_EQ(simulation.id_of(*defeated[0].other), "collector");
}

TEST(Things, OpenNoDoorsAndTriggerNothing) {
  const std::string more =
      "[[door]]\nid = \"door\"\nmaterial = \"brick\"\npath = [[1.0, 1.0], [2.0, 1.0]]\n"
      "[[zone]]\nid = \"mat\"\noutline = [[0.5, -0.5], [1.5, -0.5], [1.5, 0.5], [0.5, 0.5]]\n"
      "grants = [\"muddy\"]\n";
  Simulation lies = played("[{ wait = 9.0 }]", more);
  EXPECT_TRUE(only(play(lies, 60), What::triggered).empty());
  EXPECT_FALSE(lies.world().is_gone({0}));
  Simulation stands = played("[{ go = [1.0, 0.3] }]", more);
  EXPECT_EQ(only(play(stands, 60), What::triggered).size(), 1U);
  EXPECT_TRUE(stands.world().is_gone({0}));
}

// Out of the hand it is the jar's own, out of the pocket one of its thrower's.
TEST(Things, LeaveSomethingWhereTheyEnd) {
  const char* const splinters = "[kind.splinters]\nradius = 0.2\nheight = 0.1\n";
  Simulation jar = played("[{ take = \"jar\" }, { throw = \"jar\", to = [5.0, 1.0] }]", splinters,
                          {{"kind.jar.thing.leaves", "\"splinters\""},
                           {"kind.jar.thing.keeps", "1"},
                           {"kind.jar.thing.breaks", "true"}});
  play(jar, 180);
  const AgentState left = jar.state(jar.agent("jar-splinters"));
  EXPECT_TRUE(left.is_there);
  EXPECT_NEAR(left.position.x(), 5.0, 1e-3);
  EXPECT_NEAR(left.position.z(), 0.0, 1e-3);

  Simulation pebble =
      played("[{ throw = \"pebble\", to = [5.0, 1.0] }]", splinters,
             {{"kind.pebble.thing.leaves", "\"splinters\""}, {"kind.pebble.thing.bounces", "0"}});
  play(pebble, 180);
  EXPECT_TRUE(pebble.state(pebble.agent("collector-splinters-1")).is_there);
  EXPECT_FALSE(pebble.state(pebble.agent("collector-splinters-2")).is_there);
}

// In the hand of whom the host drives, by calls.
TEST(Things, ObeyTheHost) {
  Simulation simulation(garden(shed(), {{"agent.collector.driver", "\"host\""}}));
  const AgentId collector = simulation.agent("collector");
  const AgentId jar = simulation.agent("jar");
  EXPECT_FALSE(simulation.throw_thing(collector, "jar", {5.0, 0.0, 0.0}));
  EXPECT_TRUE(simulation.take(collector, jar));
  EXPECT_FALSE(simulation.take(collector, jar));  // it has it already
  simulation.drop(collector);
  EXPECT_TRUE(simulation.take(collector, jar) || !simulation.state(jar).carrier);
  play(simulation, 2);
  EXPECT_TRUE(simulation.throw_thing(collector, "pebble", {5.0, 0.0, 0.0}));
  EXPECT_EQ(simulation.state(collector).pockets, std::vector<int>{1});
  EXPECT_THROW(simulation.throw_thing(collector, "collector", {5.0, 0.0, 0.0}), UsageError);
  EXPECT_THROW(simulation.throw_thing(collector, "pebbel", {5.0, 0.0, 0.0}), UsageError);
  EXPECT_THROW(simulation.throw_thing(collector, "pebble", {NAN, 0.0, 0.0}), UsageError);
}

}  // namespace
}  // namespace gaze
