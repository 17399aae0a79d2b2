// The same level at 20, 30, 60, 144 and 240 steps a second, and twice.

#include <gtest/gtest.h>

#include <cmath>

#include "scenes.hpp"
#include "support/allocations.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

using testing::only;
using testing::placed;
using testing::play;
using What = Event::What;

struct Played {
  std::vector<Event> events;
  std::vector<std::vector<Vector3d>> positions;  ///< By half second and agent.
  std::vector<double> health;
};

Played run_at(const std::string& file, int rate, double seconds) {
  const Level level = read_level(file, {{"ticks_per_second", std::to_string(rate)}});
  Simulation simulation(level);
  Played run;
  const auto positions = [&] {
    std::vector<Vector3d> all;
    for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
      all.push_back(simulation.state({i}).position);
    }
    return all;
  };
  for (int half = 0; half < static_cast<int>(2 * seconds); ++half) {
    const auto events = play(simulation, rate / 2);
    run.events.insert(run.events.end(), events.begin(), events.end());
    run.positions.push_back(positions());
  }
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    run.health.push_back(simulation.state({i}).health);
  }
  return run;
}

class Rates : public ::testing::TestWithParam<int> {};

// The first twelve seconds of the demo: sight round corners, a chase, sliding along benches,
// strikes, shots and what they hit.
TEST_P(Rates, TheDemoPlaysAlike) {
  const int slow = GetParam();
  const Played one = run_at(GAZE_DEMO, slow, 11.0);
  const Played fast = run_at(GAZE_DEMO, 240, 11.0);
  const auto first_notices = [](const Played& run, int rate) {
    std::map<std::pair<std::uint32_t, std::uint32_t>, double> first;
    for (const Event& event : only(run.events, What::noticed)) {
      first.try_emplace({event.agent.index, event.other->index}, double(event.tick) / rate);
    }
    return first;
  };
  const auto slow_notices = first_notices(one, slow);
  const auto fast_notices = first_notices(fast, 240);
  ASSERT_EQ(slow_notices.size(), fast_notices.size());
  for (const auto& [pair, time] : slow_notices) {
    ASSERT_TRUE(fast_notices.contains(pair));
    // Who notices after it has gone to look began that a step late itself.
    EXPECT_NEAR(time, fast_notices.at(pair), 2.0 / slow + 1e-9) << pair.first;
  }
  for (std::size_t half = 0; half < one.positions.size(); ++half) {
    for (std::size_t agent = 0; agent < one.positions[half].size(); ++agent) {
      const double apart = (one.positions[half][agent] - fast.positions[half][agent]).norm();
      EXPECT_LE(apart, 3.0 / slow + 0.02) << "agent " << agent << " at " << half / 2;
    }
  }
}

const std::string kStandoff = R"(
[kind.pruner]
team = "caretakers"
[kind.pruner.sight]
range = 30.0
field_of_view = 360.0
[kind.pruner.move]
speed = 2.0
stop_distance = 1.0
[kind.pruner.attack.shears]
how = "strike"
range = 1.5
damage = 1
cooldown = 0.7
[kind.pruner.attack.jet]
how = "shot"
range = 1.5
speed = 9.0
damage = 1
cooldown = 0.31
[kind.pruner.when]
sees = "chase"
[kind.collector]
team = "visitors"
health = 1000
)" + placed("pruner", "pruner", "[0.0, 0.0]") +
                              placed("collector", "collector", "[0.0, 4.0]");

TEST_P(Rates, AttacksAreAsManyAndBodiesRestInTheSamePlace) {
  const int rate = GetParam();
  Simulation simulation(testing::garden(kStandoff, {{"ticks_per_second", std::to_string(rate)}}));
  const auto events = play(simulation, 10 * rate);
  std::map<std::string_view, std::vector<Event>> attacks;
  for (const Event& event : only(events, What::attacked)) attacks[event.attack].push_back(event);
  for (const auto& [name, cooldown] : {std::pair{"shears", 0.7}, {"jet", 0.31}}) {
    const std::vector<Event>& made = attacks[name];
    ASSERT_FALSE(made.empty());
    // In reach once 2.5 m at 2 m/s are behind it, to a step.
    EXPECT_NEAR(double(made[0].tick) / rate, 1.25, 2.0 / rate);
    const double span = double(10 * rate - made[0].tick) / rate;
    EXPECT_EQ(made.size(), static_cast<std::size_t>(std::floor(span / cooldown + 1e-9)) + 1)
        << name;
  }
  EXPECT_NEAR((simulation.state({0}).position - Vector3d(0, 3, 0)).norm(), 0.0, 0.01);
}

INSTANTIATE_TEST_SUITE_P(StepsASecond, Rates, ::testing::Values(20, 30, 60, 144));

std::string whole_output(const std::string& file) {
  Simulation simulation(read_level(file));
  std::string trace = trace_head(TraceFormat::csv);
  std::vector<Event> events;
  for (int step = 0; step < 1200; ++step) {
    trace += trace_lines(simulation, TraceFormat::csv);
    simulation.step();
    events.insert(events.end(), simulation.events().begin(), simulation.events().end());
  }
  return trace + run_json(simulation, events);
}

TEST(SameEveryTime, TwoRunsGiveTheSameBytes) {
  const std::string one = whole_output(GAZE_DEMO);
  EXPECT_EQ(one, whole_output(GAZE_DEMO));
  EXPECT_GT(one.size(), 100'000U);
}

TEST(SteadyStep, AsksForNoMemory) {
  Level level = scenes::make_scene(200, 60.0, 5);
  scenes::add_chasers(level, 200, 6);
  level.kinds[0].attacks.push_back({});
  Attack& jet = level.kinds[0].attacks[0];
  jet.name = "jet";
  jet.how = Attack::How::shot;
  jet.range = 10.0;
  jet.speed = 8.0;
  jet.radius = 0.05;
  jet.muzzle = Vector3d{0, 0, 1};
  jet.cooldown = Duration::from_seconds(0.5);
  jet.lifetime = Duration::from_seconds(2);
  Simulation simulation(level);
  for (int step = 0; step < 4000; ++step) simulation.step();
  const std::size_t before = testing::allocations();
  std::size_t events = 0;
  for (int step = 0; step < 1500; ++step) {
    simulation.step();
    events += simulation.events().size();
  }
  EXPECT_EQ(testing::allocations() - before, 0U);
  EXPECT_GT(events, 20U);  // it was no idle stretch
}

TEST(SteadySteps, OfAllSensesAllocateNothing) {
  // A walker to and fro past a scanning eye, an ear behind a curtain, a feeler and a basket.
  const Level level = testing::garden(
      R"(
[material.mat]
stops = ["sound"]
muffles = 0.5
[[wall]]
id = "curtain"
material = "mat"
path = [[-5, 2], [5, 2]]
[kind.lamp]
team = "caretakers"
[kind.lamp.sight]
range = 6.0
field_of_view = 40.0
notice_time = 0.1
ebb_time = 1.0
[kind.lamp.scan]
style = "sweep"
rate = 60.0
arc = 120.0
[kind.lamp.tell]
range = 9.0
[kind.ear]
team = "caretakers"
[kind.ear.hearing]
range = 20.0
[kind.ear.nearness]
range = 3.0
[kind.ear.feeler.ahead]
length = 4.0
[kind.collector]
team = "visitors"
[kind.collector.move]
speed = 2.0
step_reach = 12.0
)" + placed("lamp", "lamp", "[0, -3]", "facing = 90.0") +
      placed("ear", "ear", "[0, 3]", "facing = 270.0") +
      placed(
          "collector", "collector", "[-4, 0]",
          R"(script = [{ go = [4, 0] }, { noise = "cough", reach = 9.0 }, { go = [-4, 0] }, { repeat = true }])"));
  Simulation simulation(level);
  for (int i = 0; i < 60 * 60; ++i) simulation.step();
  const std::size_t before = testing::allocations();
  std::size_t events = 0;
  for (int i = 0; i < 20 * 60; ++i) {
    simulation.step();
    events += simulation.events().size();
  }
  EXPECT_EQ(testing::allocations() - before, 0U);
  EXPECT_GT(events, 10U);  // noises are heard all the while
}

TEST(SteadySteps, InWhichSomebodyComesBackAllocateNothing) {
  // A collector walks through a thorny zone to a reed that touches and shoots, and begins anew.
  Simulation simulation(testing::garden(
      R"(
[kind.reed]
team = "caretakers"
radius = 0.4
[kind.reed.sight]
range = 6.0
field_of_view = 360.0
[kind.reed.touch]
[kind.reed.attack.thorn]
how = "shot"
speed = 8.0
damage = 30
cooldown = 0.5
ammunition = 4
range = 4.0
[kind.reed.attack.sting]
how = "touch"
damage = 20
cooldown = 0.5
[kind.collector]
team = "visitors"
health = 40
defeat = { respawn = 0.7 }
[kind.collector.move]
speed = 2.0
[kind.collector.attack.pebble]
how = "shot"
speed = 8.0
range = 3.0
damage = 1
cooldown = 0.5
ammunition = 9
[[zone]]
id = "thorns"
outline = [[-3, -1], [-1, -1], [-1, 1], [-3, 1]]
)" + placed("reed", "reed", "[0, 0]") +
      placed("collector", "collector", "[-5, 0]", "script = [{ go = [3, 0] }]")));
  for (int i = 0; i < 60 * 60; ++i) simulation.step();
  const std::size_t before = testing::allocations();
  std::size_t defeats = 0;
  for (int i = 0; i < 40 * 60; ++i) {
    simulation.step();
    for (const Event& event : simulation.events())
      defeats += event.what == Event::What::defeated ? 1U : 0U;
  }
  EXPECT_EQ(testing::allocations() - before, 0U);
  EXPECT_GT(defeats, 3U);
}

}  // namespace
}  // namespace gaze
