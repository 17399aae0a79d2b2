#include <benchmark/benchmark.h>

#include <map>

#include "gaze/gaze.hpp"
#include "scenes.hpp"

/// What a host pays for: beginning a game, a step of it, a copy into an old one, a save, agents
/// that come and go, and values that are set. Agents chase a player among 200 solids; the number is
/// that of the agents.
namespace {

using gaze::Simulation;

gaze::Level level_for(std::int64_t agents) {
  gaze::Level level = gaze::scenes::hall();
  gaze::scenes::add_chasers(level, static_cast<int>(agents), 6);
  return level;
}

const Simulation& game_for(std::int64_t agents) {
  static std::map<std::int64_t, Simulation> games;
  const auto known = games.find(agents);
  if (known != games.end()) return known->second;
  Simulation& game = games.emplace(agents, Simulation(level_for(agents))).first->second;
  for (int step = 0; step < 300; ++step) game.step();
  return game;
}

void creation(benchmark::State& state) {
  const gaze::Prepared prepared(level_for(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(Simulation(prepared));
}

void step(benchmark::State& state) {
  Simulation game = game_for(state.range(0));
  for (auto _ : state) game.step();
}

void copy_into_an_old_one(benchmark::State& state) {
  const Simulation& game = game_for(state.range(0));
  Simulation old = game;
  for (auto _ : state) {
    old = game;
    benchmark::ClobberMemory();
  }
}

void save(benchmark::State& state) {
  const Simulation& game = game_for(state.range(0));
  std::size_t bytes = 0;
  for (auto _ : state) benchmark::DoNotOptimize(bytes = game.save().size());
  state.counters["bytes"] = static_cast<double>(bytes);
}

// One more, who takes the number that is free after it has been taken out again.
void spawn_and_despawn(benchmark::State& state) {
  Simulation game = game_for(state.range(0));
  for (auto _ : state) game.despawn(game.spawn(game.level().kinds[0].name, {5.0, 5.0, 0.0}, {}));
}

void spawn_alone(benchmark::State& state) {
  Simulation game = game_for(state.range(0));
  const std::string kind = game.level().kinds[0].name;
  for (auto _ : state) {
    benchmark::DoNotOptimize(game.spawn(kind, {5.0, 5.0, 0.0}, {}));
    if (game.agent_count() > 2 * static_cast<std::size_t>(state.range(0))) {
      state.PauseTiming();
      game = game_for(state.range(0));
      game.despawn(game.spawn(kind, {5.0, 5.0, 0.0}, {}));  // from here on it is its own
      state.ResumeTiming();
    }
  }
}

void set_value(benchmark::State& state) {
  Simulation game = game_for(state.range(0));
  const std::string path = "kind." + game.level().kinds[0].name + ".health";
  double health = 50.0;
  for (auto _ : state) game.set_value(path, health += 0.001);
}

BENCHMARK(creation)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(step)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(copy_into_an_old_one)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(save)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(spawn_alone)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(spawn_and_despawn)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(set_value)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);

}  // namespace

BENCHMARK_MAIN();
