// What flies through a whole level: the same whether it looks ahead or not, with energy that never
// grows, and without asking for memory.

#include <fmt/format.h>

#include <cmath>

#include "scenes.hpp"
#include "support/allocations.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::only;
using testing::placed;
using testing::play;
using testing::wall;
using What = Event::What;

/// A hall in which a driven agent sprays what bounces, all round.
Level sprayed_hall() {
  Level level = scenes::hall();
  level.teams = {{"visitors", {}, {}}, {"caretakers", {0}, {}}};
  level.teams[0].hostile = {1};
  level.gravity = 9.81;
  Kind kind;
  kind.name = "collector";
  kind.team = 0;
  kind.move.emplace().gait = Gait::fixed;
  kind.move->turn_rate = Angle::from_degrees(36'000.0);
  Attack& peas = kind.attacks.emplace_back();
  peas.name = "peas";
  peas.how = Attack::How::shot;
  peas.aim = Attack::Aim::ahead;
  peas.speed = 16.0;
  peas.radius = 0.05;
  peas.range = 100.0;
  peas.damage = 1.0;
  peas.gravity_share = 0.3;
  peas.bounces = 9;
  peas.bounce_loss = 0.1;
  peas.spread = Angle::from_degrees(120.0);
  peas.muzzle = Vector3d{0.0, 0.0, 1.4};
  peas.lifetime = Duration::from_seconds(4.0);
  peas.cooldown = Duration::from_seconds(0.02);
  level.kinds = {kind};
  level.named_kinds = 1;
  const World world(level);
  scenes::Random random(3);
  const double side = scenes::side_of(level);
  for (int i = 0; level.agents.size() < 8 && i < 1000; ++i) {
    Agent agent;
    agent.id = fmt::format("collector-{}", level.agents.size());
    agent.position = {random.between(1.0, side - 1.0), random.between(1.0, side - 1.0), 0.0};
    agent.facing = Angle::from_degrees(random.between(0.0, 360.0));
    agent.driver = Driver::host;
    if (!world.overlaps(Cylinder{agent.position, 0.4, 1.7}, Stops::bodies)) {
      level.agents.push_back(agent);
    }
  }
  return level;
}

void fire(Simulation& simulation) {
  for (std::uint32_t i = 0; i < simulation.level().agents.size(); ++i) {
    simulation.set_aim({i}, std::nullopt, true);
  }
}

// What turns after a target does not look ahead; without a target it flies like any other.
TEST(Shells, FlyAlikeWhetherTheyLookAheadOrNot) {
  Level level = sprayed_hall();
  Simulation looks(level);
  level.kinds[0].attacks[0].homing_rate = Angle::from_degrees(1.0);
  Simulation does_not(level);
  fire(looks);
  fire(does_not);
  std::size_t hits = 0;
  for (int step = 0; step < 400; ++step) {
    looks.step();
    does_not.step();
    ASSERT_EQ(looks.events().size(), does_not.events().size()) << step;
    for (std::size_t i = 0; i < looks.events().size(); ++i) {
      const Event& a = looks.events()[i];
      const Event& b = does_not.events()[i];
      ASSERT_EQ(a.what, b.what);
      ASSERT_EQ(a.place, b.place);
      ASSERT_EQ(a.solid, b.solid);
      hits += a.what == What::hit;
    }
    ASSERT_EQ(looks.projectiles().size(), does_not.projectiles().size());
    for (std::size_t i = 0; i < looks.projectiles().size(); ++i) {
      ASSERT_EQ(looks.projectiles()[i].position, does_not.projectiles()[i].position);
    }
  }
  EXPECT_GT(hits, 3000U);
}

// Kinetic and potential, for a mass of 1: v^2 / 2 + g h.
TEST(Shells, NeverGainEnergy) {
  Simulation simulation(sprayed_hall());
  fire(simulation);
  const double gravity = 9.81 * 0.3;
  std::map<std::int64_t, double> before;
  std::size_t lost = 0;
  for (int step = 0; step < 400; ++step) {
    simulation.step();
    for (const Projectile& shot : simulation.projectiles()) {
      const double energy = shot.velocity.squaredNorm() / 2.0 + gravity * shot.position.z();
      const auto known = before.find(shot.number);
      if (known != before.end()) {
        ASSERT_LE(energy, known->second * (1.0 + 1e-9) + 1e-6);
        lost += energy < known->second * 0.95;
      }
      before[shot.number] = energy;
    }
  }
  EXPECT_GT(lost, 1000U);
}

// 50 m in a step, past a body that crosses its way in the same step: it is hit just where the
// least distance of the two, both moving evenly, is no more than their radii together.
TEST(Shells, MeetBodiesThatCrossTheirWayWithinAStep) {
  const Level level = testing::garden(
      "[kind.reed]\nteam = \"caretakers\"\nheight = 1.0\n[kind.reed.attack.thorn]\nhow = \"shot\"\n"
      "speed = 1000.0\nradius = 0.05\nrange = 60.0\ndamage = 1\ncooldown = 60.0\n"
      "[kind.collector]\nteam = \"visitors\"\nradius = 0.3\nheight = 1.0\n"
      "[[agent]]\nid = \"reed\"\nkind = \"reed\"\nat = [0.0, 0.0]\ndriver = \"host\"\n"
      "[[agent]]\nid = \"collector\"\nkind = \"collector\"\nat = [9.0, 9.0]\ndriver = \"host\"\n",
      {{"ticks_per_second", "20"}});
  scenes::Random random(17);
  int hits = 0;
  for (int i = 0; i < 1000; ++i) {
    const double x = random.between(1.0, 49.0);
    const double from = random.between(-6.0, 6.0);
    const double to = random.between(-6.0, 6.0);
    const double s = std::clamp(
        (50.0 * x - from * (to - from)) / (2500.0 + (to - from) * (to - from)), 0.0, 1.0);
    const double least = std::hypot(50.0 * s - x, from + (to - from) * s);
    if (std::abs(least - 0.35) < 1e-9) continue;
    Simulation simulation(level);
    const AgentId collector = simulation.agent("collector");
    simulation.set_pose(collector, {x, from, 0.0}, Angle{});
    simulation.set_aim(simulation.agent("reed"), std::nullopt, true);
    simulation.step();
    simulation.set_pose(collector, {x, to, 0.0}, Angle{});
    simulation.step();
    const bool is_hit = simulation.state(collector).health < 100.0;
    ASSERT_EQ(is_hit, least < 0.35) << x << " " << from << " " << to;
    hits += is_hit ? 1 : 0;
  }
  EXPECT_GT(hits, 40);
}

// A leaf that shuts in the way of what flies already stops it.
TEST(Shells, AreStoppedByADoorThatShutsBeforeThem) {
  const std::string text =
      R"(
[[door]]
id = "door"
material = "brick"
path = [[4.0, -1.0], [4.0, 1.0]]
thickness = 0.1
opens_within = 1.0
closes_after = 0.0
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 4.0
[kind.collector.attack.seed]
how = "shot"
speed = 3.0
damage = 1
cooldown = 60.0
range = 60.0
[kind.gnome]
team = "visitors"
[kind.gnome.move]
speed = 4.0
)" + placed("collector", "collector", "[0.0, 0.0]", "script = [{ aim = [9.0, 0.0], fire = 1.0 }]") +
      placed("gnome", "gnome", "[4.0, 0.9]", "script = [{ wait = 0.9 }, { go = [4.0, 5.0] }]");
  // It leaves the door at 0.9 s plus the way of 0.1 m; the seed comes to it after 1.3 s.
  Simulation shuts(testing::garden(text));
  const auto hits = only(play(shuts, 180), What::hit);
  ASSERT_EQ(hits.size(), 1U);
  ASSERT_TRUE(hits[0].solid);
  EXPECT_NEAR(hits[0].place.x(), 3.95 - 0.05, 1e-9);
  Simulation stays(testing::garden(text, {{"agent.gnome.script", "[{ wait = 9.0 }]"}}));
  EXPECT_TRUE(only(play(stays, 180), What::hit).empty());
}

// Without a radius it bursts on the very surface, and that does not shield from it.
TEST(Shells, BurstOnThisSideOfWhatTheyHit) {
  const auto lost = [](const char* at) {
    Simulation simulation(testing::garden(wall("wall", "[[5.0, -9.0], [5.0, 9.0]]") + R"(
[kind.collector]
team = "visitors"
[kind.collector.attack.pod]
how = "shot"
speed = 30.0
radius = 0.0
damage = 10
blast_radius = 3.0
blast_fall_off = 0.0
cooldown = 60.0
range = 60.0
[kind.pruner]
team = "caretakers"
)" + placed("collector", "collector", "[0.0, 0.0]", "script = [{ aim = [9.0, 0.0], fire = 1.0 }]") +
                                              placed("pruner", "pruner", "[4.0, 1.0]"),
                                          {{"agent.pruner.at", at}}));
    play(simulation, 60);
    return 100.0 - simulation.state(simulation.agent("pruner")).health;
  };
  EXPECT_EQ(lost("[4.0, 1.0]"), 10.0);
  EXPECT_EQ(lost("[6.0, 1.0]"), 0.0);
}

TEST(Shells, AskForNoMemoryInSteadyFlight) {
  Level level = sprayed_hall();
  level.kinds[0].attacks[0].blast_radius = 1.0;
  level.kinds[0].attacks[0].friends = Attack::Friends::hurt;
  level.kinds[0].heals = 1e6;
  level.bounds =
      Bounds{{{-90, -90}, {90, -90}, {90, 90}, {5, 89}, {-90, 90}}, -1.0, 60.0, false, {}};
  Simulation simulation(level);
  fire(simulation);
  // Under sanitizers, where memory is asked for in other ways, only to be played.
  const int steps = testing::is_sanitized() ? 100 : 1000;
  for (int step = 0; step < 3 * steps; ++step) simulation.step();
  const std::size_t before = testing::allocations();
  std::size_t events = 0;
  for (int step = 0; step < steps; ++step) {
    simulation.step();
    events += simulation.events().size();
  }
  EXPECT_EQ(testing::is_sanitized() ? 0U : testing::allocations() - before, 0U);
  EXPECT_GT(events, static_cast<std::size_t>(10 * steps));
}

}  // namespace
}  // namespace gaze
