// Wrong use is told, and a level that a simulation hands out can be played again.

#include <fmt/format.h>

#include <functional>

#include "gaze/going.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

TEST(Usage, AnAgentThatDoesNotExistIsToldByEveryCall) {
  Simulation simulation(read_level(GAZE_DEMO));
  const AgentId some = simulation.agent("collector");
  const AgentId watcher = simulation.agent("sprinkler-1");
  const AgentId none{9999};
  const std::vector<std::function<void()>> calls{
      [&] { static_cast<void>(simulation.id_of(none)); },
      [&] { static_cast<void>(simulation.state(none)); },
      [&] { static_cast<void>(simulation.look(watcher, none)); },
      [&] { static_cast<void>(simulation.look(none, some)); },
      [&] { static_cast<void>(simulation.looker(none)); },
      [&] { static_cast<void>(simulation.looked(none)); },
      [&] { static_cast<void>(simulation.awareness(watcher, none)); },
      [&] { static_cast<void>(simulation.awareness(none, some)); },
      [&] { static_cast<void>(simulation.last_place(none, some)); },
      [&] { static_cast<void>(simulation.last_place(watcher, none)); },
      [&] { static_cast<void>(simulation.noticed_by(none, some)); },
      [&] { static_cast<void>(simulation.last_noise(none)); },
      [&] { static_cast<void>(simulation.last_blast(none)); },
      [&] { simulation.wake(none); },
      [&] {
        simulation.set_pose(none, {0, 0, 0}, {});
      },
      [&] { simulation.set_aim(none, std::nullopt, true); },
      [&] { simulation.take(none, some); },
      [&] { simulation.take(some, none); },
      [&] {
        simulation.throw_thing(none, "pebble", {0, 0, 0});
      },
      [&] { simulation.drop(none); },
      [&] {
        simulation.make_noise({0, 0, 0}, 1.0, "bang", none);
      },
      [&] { static_cast<void>(acquaintance(simulation, watcher, none)); },
      [&] { static_cast<void>(acquaintance(simulation, none, some)); },
      [&] { static_cast<void>(attacks_at(simulation, none, some)); },
      [&] { static_cast<void>(attacks_at(simulation, watcher, none)); },
      [&] { static_cast<void>(going(simulation, none)); },
      [&] { static_cast<void>(account(simulation, watcher, none)); },
      [&] { static_cast<void>(why_json(simulation, none, some)); },
      [&] {
        Event event;
        event.agent = none;
        static_cast<void>(simulation.describe(event));
      },
  };
  for (std::size_t i = 0; i < calls.size(); ++i) EXPECT_THROW(calls[i](), UsageError) << i;
}

TEST(Usage, AnIdThatNobodyHasSetIsNobody) {
  const Simulation simulation(read_level(GAZE_DEMO));
  try {
    static_cast<void>(simulation.state({}));
    FAIL() << "nobody has a state";
  } catch (const UsageError& error) {
    EXPECT_STREQ(error.what(), "the agent is nobody: its number was never set");
  }
  EXPECT_EQ(simulation.find_agent("collector"), simulation.agent("collector"));
  EXPECT_EQ(simulation.find_agent("colector"), std::nullopt);
  EXPECT_THROW(static_cast<void>(simulation.agent("colector")), UsageError);
}

TEST(Usage, WhatHasBeenMovedFromCanBeAssignedTo) {
  Simulation simulation(read_level(GAZE_DEMO));
  simulation.step();
  Simulation other = std::move(simulation);
  const Simulation copy = simulation;  // NOLINT(bugprone-use-after-move): as the header has it
  simulation = other;
  EXPECT_EQ(simulation.digest(), other.digest());
}

// Solids that are none make no world, and bodies that are none no mesh; a place that is none is on
// no mesh.
TEST(Usage, WorldsAndMeshesOfWhatCannotBeAreRefused) {
  Level level = testing::level_of({testing::box({2, 2}, {3, 3})});
  const World world(level);
  const double none = std::numeric_limits<double>::quiet_NaN();
  for (const double radius : {0.0, -0.3, none}) {
    BodySize body;
    body.radius = radius;
    EXPECT_THROW(NavigationMesh(level, world, body), UsageError) << radius;
  }
  const NavigationMesh mesh(level, world, {});
  EXPECT_FALSE(mesh.find({none, 0.0, 0.0}).has_value());
  EXPECT_FALSE(mesh.find({0.0, none, 0.0}, 0).has_value());
  EXPECT_FALSE(mesh.nearest({0.0, 0.0, none}).has_value());
  level.solids[0].points.pop_back();
  EXPECT_NO_THROW(World{level});
  level.solids[0].points[1].x() = none;
  EXPECT_THROW(World{level}, LevelError);
  level.solids[0] = testing::box({2, 2}, {3, 3});
  level.solids[0].material = 7;
  EXPECT_THROW(World{level}, LevelError);
}

TEST(Usage, BatchesWithoutAPlaceForEachAnswerAreRefusedAlike) {
  const World world{Level{}};
  const std::vector<Segment> segments(3);
  const std::vector<Cylinder> cylinders(3);
  const std::vector<Vector3d> motions(2, Vector3d{0, 0, 0});
  std::vector<std::uint8_t> answers(2);
  std::vector<std::optional<Touch>> touches(2);
  std::vector<QuickVerdict> verdicts(1);
  std::vector<Felt> felt(1);
  LookScratch scratch;
  const std::vector<std::function<void()>> calls{
      [&] { world.are_clear(segments, Stops::sight, answers); },
      [&] { world.first_touches(segments, Stops::sight, touches); },
      [&] { world.overlap(cylinders, Stops::bodies, answers); },
      [&] { world.sweeps(cylinders, motions, Stops::bodies, touches); },
      [&] { look(world, std::vector<Looker>(1), std::vector<LookedAt>(2), scratch, verdicts); },
      [&] { feel(world, std::nullopt, std::vector<FeelerQuestion>(2), {}, felt); },
      [&] {
        listen(world, Level{}, std::vector<Listener>(3), {{0, 0, 0}, 1.0}, answers);
      },
  };
  for (std::size_t i = 0; i < calls.size(); ++i) EXPECT_THROW(calls[i](), UsageError) << i;
}

TEST(Usage, TheLevelOfASimulationPlaysTheSameGame) {
  const auto story = [](Simulation simulation) {
    std::string told;
    for (const Event& event : testing::play(simulation, 700)) {
      told += fmt::format("{} {}\n", event.tick, simulation.describe(event));
    }
    return told;
  };
  const Simulation first(read_level(GAZE_DEMO));
  const Simulation second(first.level());
  const Simulation third(second.level());
  EXPECT_EQ(second.agent_count(), first.agent_count());
  EXPECT_GT(story(first).size(), 1000U);
  EXPECT_EQ(story(second), story(first));
  EXPECT_EQ(story(third), story(first));
}

}  // namespace
}  // namespace gaze
