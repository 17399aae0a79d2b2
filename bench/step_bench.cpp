// A step of 1,000 chasing agents in the campus, microseconds an agent, and of agents that mostly
// patrol a place where nobody comes; each against the same step with their sight taken away.

#include <benchmark/benchmark.h>

#include "scenes.hpp"

namespace gaze {
namespace {

Level campus_with(int agents, bool all_chase, bool have_sight) {
  Level level = scenes::campus();
  scenes::add_chasers(level, agents, 11);
  if (all_chase) scenes::gather_round_player(level, 24.0, 12);
  if (!have_sight) level.kinds[0].sight.reset();
  return level;
}

void step(benchmark::State& state) {
  const auto agents = static_cast<int>(state.range(0));
  Simulation simulation(campus_with(agents, state.range(1) != 0, state.range(2) != 0));
  for (int warm_up = 0; warm_up < 120; ++warm_up) simulation.step();
  for (auto _ : state) simulation.step();
  int chasing = 0;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    chasing += simulation.state({i}).mode == Mode::chase;
  }
  state.counters["us/agent"] =
      benchmark::Counter(static_cast<double>(state.iterations()) * agents / 1e6,
                         benchmark::Counter::kIsRate | benchmark::Counter::kInvert);
  state.counters["chasing"] = chasing;
}

BENCHMARK(step)
    ->ArgNames({"agents", "all_chase", "sight"})
    ->Args({1'000, 1, 1})
    ->Args({1'000, 1, 0})
    ->Args({10'000, 0, 1})
    ->Args({10'000, 0, 0})
    ->Iterations(600)
    ->Repetitions(5)
    ->ReportAggregatesOnly(true)
    ->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
