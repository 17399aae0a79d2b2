// What may be used by several threads at once: these run under the thread sanitizer too.

#include <fmt/format.h>

#include <array>
#include <thread>

#include "gaze/tools/sheet.hpp"
#include "gaze/tools/sneak.hpp"
#include "gaze/tools/vary.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

TEST(Threads, AskOneWorldAtOnce) {
  const Level level = scenes::make_scene(120, 40.0, 9);
  const World world(level);
  const std::vector<Segment> segments = scenes::sight_segments(world, 40.0, 2000, 3);
  std::vector<std::vector<std::uint8_t>> answers(4, std::vector<std::uint8_t>(segments.size()));
  std::vector<std::thread> threads;
  for (auto& answer : answers) {
    threads.emplace_back(
        [&] { World(world).are_clear(std::span<const Segment>(segments), Stops::sight, answer); });
  }
  for (std::thread& thread : threads) thread.join();
  for (const auto& answer : answers) EXPECT_EQ(answer, answers[0]);
}

std::string played_out(Simulation simulation, std::int64_t steps) {
  std::string told;
  for (const Event& event : testing::play(simulation, steps)) {
    told += fmt::format("{}\n", simulation.describe(event));
  }
  return told;
}

// Copies share the level and what of the world does not change; each thread has one of its own.
TEST(Threads, PlayCopiesOfOneSimulationAlike) {
  const Simulation simulation(read_level(GAZE_DEMO));
  const std::string alone = played_out(simulation, 300);
  std::vector<std::string> told(4);
  std::vector<std::thread> threads;
  for (std::string& one : told) {
    threads.emplace_back([&] { one = played_out(simulation, 300); });
  }
  for (std::thread& thread : threads) thread.join();
  EXPECT_GT(alone.size(), 1000U);
  for (const std::string& one : told) EXPECT_EQ(one, alone);
}

// What a game changes of what it shares with its copies, it makes its own first.
TEST(Threads, ChangeCopiesOfOneSimulationAlike) {
  Simulation simulation(read_level(GAZE_DEMO));
  simulation.spawn("pruner", {5.0, 5.0, 0.0}, {});
  const auto changed = [](Simulation game) {
    for (int i = 0; i < 20; ++i) {
      const AgentId one = game.spawn("pruner", {4.0 + 0.2 * i, 5.0, 0.0}, {});
      for (int step = 0; step < 5; ++step) game.step();
      if (i % 2 == 0) game.despawn(one);
      if (i % 5 == 0) game.set_value("kind.pruner.health", 40.0 + i);
    }
    return game.digest();
  };
  std::vector<std::uint64_t> digests(4);
  std::vector<std::thread> threads;
  for (std::uint64_t& digest : digests) threads.emplace_back([&] { digest = changed(simulation); });
  for (std::thread& thread : threads) thread.join();
  for (const std::uint64_t digest : digests) EXPECT_EQ(digest, changed(simulation));
}

// Whatever does not change a game may be asked of it by all at once.
TEST(Threads, AskOneGameAtOnce) {
  Simulation simulation(read_level(GAZE_DEMO));
  for (int step = 0; step < 200; ++step) simulation.step();
  const auto answers = [](const Simulation& game) {
    std::string text = fmt::format("{:x} ", game.digest());
    for (std::uint32_t who = 0; who < game.agent_count(); ++who) {
      for (std::uint32_t other = 0; other < game.agent_count(); ++other) {
        text += explain(game.look({who}, {other})) + "\n";
      }
      text += going(game, {who}).reason + "\n";
    }
    return text;
  };
  std::vector<std::string> told(4);
  std::vector<std::thread> threads;
  for (std::string& one : told) {
    threads.emplace_back([&] { one = answers(simulation); });
  }
  for (std::thread& thread : threads) thread.join();
  for (const std::string& one : told) EXPECT_EQ(one, answers(simulation));
}

TEST(Threads, BeginGamesFromOneLevelThatIsPrepared) {
  const Prepared prepared(read_level(GAZE_DEMO));
  std::vector<std::string> told(4);
  std::vector<std::thread> threads;
  for (std::string& one : told) {
    threads.emplace_back([&] { one = played_out(Simulation(prepared), 200); });
  }
  for (std::thread& thread : threads) thread.join();
  for (const std::string& one : told) EXPECT_EQ(one, told[0]);
}

// A study shares its level, world and grid among threads of its own.
TEST(Threads, PlayStudies) {
  const LevelSource house = [](const std::vector<Setting>& settings) {
    std::vector<Setting> all = settings;
    all.push_back({"seconds", "3"});
    return read_level(GAZE_DEMO, all);
  };
  const std::array axes{axis_of("kind.collector.move.speed=2,3")};
  const std::array<std::string, 1> figures{"struck"};
  SneakTask task;
  task.agent = "collector";
  task.to = {0.0, -1.4, 0.0};
  StudyOptions options;
  options.threads = 4;
  const Variation variation = vary(house, axes, figures, 3, options);
  ASSERT_EQ(variation.points.size(), 2U);
  for (const VaryPoint& point : variation.points) EXPECT_EQ(point.values[0].size(), 3U);
  EXPECT_EQ(sneak(house({}), task, options).outcome, Sneak::Outcome::found);
  EXPECT_FALSE(balance_sheet(house({}), options).empty());
}

}  // namespace
}  // namespace gaze
