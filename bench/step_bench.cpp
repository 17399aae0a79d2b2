// A step of 1,000 chasing agents in the campus, microseconds an agent: in a crowd round the player,
// or from everywhere, by path; and of agents that mostly patrol a place where nobody comes. Each
// against the same step with their senses taken away.

#include <benchmark/benchmark.h>

#include "scenes.hpp"

namespace gaze {
namespace {

enum Chase { none, crowded, from_everywhere };

Level campus_with(int agents, Chase chase, bool have_senses) {
  Level level = scenes::campus();
  scenes::add_chasers(level, agents, 11);
  if (chase == crowded) scenes::gather_round_player(level, 24.0, 12);
  if (chase == from_everywhere) {
    level.kinds[0].nearness.emplace().range = 1000.0;
    level.kinds[0].when.rules.front().cause = Cause::near;
  }
  if (!have_senses) {
    level.kinds[0].sight.reset();
    level.kinds[0].nearness.reset();
  }
  return level;
}

void step(benchmark::State& state) {
  const auto agents = static_cast<int>(state.range(0));
  Simulation simulation(
      campus_with(agents, static_cast<Chase>(state.range(1)), state.range(2) != 0));
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
    ->ArgNames({"agents", "chase", "senses"})
    ->Args({1'000, crowded, 1})
    ->Args({1'000, crowded, 0})
    ->Args({1'000, from_everywhere, 1})
    ->Args({10'000, none, 1})
    ->Args({10'000, none, 0})
    ->Iterations(600)
    ->Repetitions(5)
    ->ReportAggregatesOnly(true)
    ->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
