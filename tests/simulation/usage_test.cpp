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
      [&] { simulation.set_trigger(none, std::nullopt, true); },
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
