// Debris of a defeated agent.

#include <array>
#include <cmath>
#include <random>
#include <set>

#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::faults_of;
using testing::garden;
using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

const std::string kPot = R"(
[kind.pot]
team = "caretakers"
radius = 0.2
height = 0.4
health = 5
[kind.pot.attack.shards]
how = "shot"
aim = "ahead"
range = 3
damage = 7
cooldown = 1
speed = 4
burst = 6
spread = 360
leaves = "shard"
keeps = 6
[kind.pot.defeat]
attack = "shards"
[kind.shard]
radius = 0.05
height = 0.05
[kind.collector]
team = "visitors"
health = 100
)";

Simulation broken(const std::string& more = "", const std::vector<Setting>& settings = {}) {
  Simulation simulation(garden(kPot + placed("pot", "pot", "[0.0, 0.0]") + more, settings));
  simulation.hurt(simulation.agent("pot"), 5.0);
  return simulation;
}

// All projectiles are fired in one tick, in different directions, and end 3 m away after 0.75 s.
TEST(Debris, FliesApartAndLiesWhereItEnds) {
  Simulation simulation = broken();
  std::vector<Event> events(simulation.events().begin(), simulation.events().end());
  const auto later = play(simulation, 60);
  events.insert(events.end(), later.begin(), later.end());
  const auto fired = only(events, What::fired);
  ASSERT_EQ(fired.size(), 6U);
  std::set<double> directions;
  for (const Event& event : fired) {
    EXPECT_EQ(event.tick, fired[0].tick);
    directions.insert(event.angle_deg);
  }
  EXPECT_EQ(directions.size(), 6U);
  int shards = 0;
  for (const AgentId agent : simulation.agents()) {
    const AgentState state = simulation.state(agent);
    if (simulation.id_of(agent) == "pot" || !state.is_there) continue;
    ++shards;
    EXPECT_NEAR(std::hypot(state.position.x(), state.position.y()), 3.0, 1e-9);
    double off = 360.0;
    const double at = std::atan2(state.position.y(), state.position.x()) * 180.0 / M_PI;
    for (const double direction : directions) {
      off = std::min(off, std::abs(std::remainder(at - direction, 360.0)));
    }
    EXPECT_LT(off, 1e-6) << "it flew as `fired` says";
  }
  EXPECT_EQ(shards, 6);
}

// Each quarter of the plane gets a quarter of 1,200 projectiles, within five standard deviations.
TEST(Debris, IsScatteredEvenly) {
  std::array<int, 4> quarters{};
  for (int seed = 0; seed < 200; ++seed) {
    Simulation simulation = broken("", {{"seed", std::to_string(seed)}});
    std::vector<Event> events(simulation.events().begin(), simulation.events().end());
    const auto later = play(simulation, 1);
    events.insert(events.end(), later.begin(), later.end());
    for (const Event& event : only(events, What::fired)) {
      ++quarters[static_cast<std::size_t>(std::floor((event.angle_deg + 360.0) / 90.0)) % 4];
    }
  }
  const double deviation = std::sqrt(1200.0 * 0.25 * 0.75);
  for (const int count : quarters) EXPECT_NEAR(count, 300.0, 5.0 * deviation);
}

// A spread of 0 sends all six projectiles along the facing.
TEST(Debris, HurtsWhomItMeets) {
  Simulation simulation = broken(placed("collector", "collector", "[2.0, 0.0]"),
                                 {{"kind.pot.attack.shards.spread", "0"}});
  play(simulation, 60);
  EXPECT_EQ(simulation.state(simulation.agent("collector")).health, 100.0 - 6 * 7.0);
}

// A jar out of a pocket scatters where it lands, while other projectiles fly.
TEST(Debris, FliesFromWhatIsThrown) {
  const std::string thrower = R"(
[kind.jar]
radius = 0.1
height = 0.2
[kind.jar.thing]
breaks = true
[kind.jar.attack.shards]
how = "shot"
aim = "ahead"
range = 2
damage = 1
cooldown = 1
speed = 4
burst = 20
spread = 360
[kind.jar.defeat]
attack = "shards"
)";
  const std::string throws = placed(
      "collector", "collector", "[-6.0, 0.0]",
      "script = [{ throw = \"jar\", to = [-3.0, 0.0] }, { throw = \"jar\", to = [-3.0, 0.5] }]");
  Simulation simulation(
      garden(kPot + thrower + throws, {{"kind.collector.carries", "{ jar = 2 }"}}));
  const auto fired = only(play(simulation, 120), What::fired);
  ASSERT_EQ(fired.size(), 2U + 40U);
  for (std::size_t i = 2; i < fired.size(); ++i) EXPECT_EQ(fired[i].attack, "shards");
}

// The attack of a defeat needs no target in front of it.
TEST(Debris, IsNoFinding) {
  for (const char* code : {"held-by-tolerance", "attack-without-sight", "never-turns"}) {
    const std::string foe = placed("collector", "collector", "[2.0, 0.0]");
    EXPECT_TRUE(testing::findings_of(kPot + placed("pot", "pot", "[0.0, 0.0]") + foe, code).empty())
        << code;
  }
}

TEST(Debris, IsMadeByBurstsAndShotsAheadAlone) {
  const std::string wrong = faults_of(kPot + placed("pot", "pot", "[0.0, 0.0]") + testing::kTeams,
                                      {{"kind.pot.attack.shards.aim", "direct"}});
  EXPECT_NE(wrong.find("burst or shot ahead"), std::string::npos) << wrong;
}

// The direction of each launch is that of its flight.
TEST(Fired, HasTheDirectionOfTheLaunch) {
  const std::string shooter = R"(
[kind.sprinkler]
team = "caretakers"
move.gait = "fixed"
sight = { range = 20, field_of_view = 360 }
[kind.sprinkler.attack.jet]
how = "shot"
range = 15
damage = 1
cooldown = 0.5
speed = 10
spread = 40
aim_tolerance = 180
[kind.collector]
team = "visitors"
)";
  Simulation simulation(garden(shooter + placed("sprinkler", "sprinkler", "[0.0, 0.0]") +
                               placed("collector", "collector", "[-3.0, 8.0]")));
  int seen = 0;
  for (int tick = 0; tick < 600; ++tick) {
    simulation.step();
    for (const Event& event :
         only({simulation.events().begin(), simulation.events().end()}, What::fired)) {
      for (const Projectile& shot : simulation.projectiles()) {
        if (shot.number != event.projectile) continue;
        const double flies = std::atan2(shot.velocity.y(), shot.velocity.x()) * 180.0 / M_PI;
        EXPECT_NEAR(std::remainder(flies - event.angle_deg, 360.0), 0.0, 1e-9);
        ++seen;
      }
    }
  }
  EXPECT_GE(seen, 15);
}

}  // namespace
}  // namespace gaze
