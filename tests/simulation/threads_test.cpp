// What may be used by several threads at once: these run under the thread sanitizer too.

#include <fmt/format.h>

#include <thread>

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

}  // namespace
}  // namespace gaze
