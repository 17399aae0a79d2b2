// A step of many chasing agents in the campus: microseconds an agent, against the same step with
// their sight taken away.

#include <benchmark/benchmark.h>

#include "scenes.hpp"

namespace gaze {
namespace {

Level campus_with(int chasers, bool have_sight) {
  Level level = scenes::campus();
  scenes::add_chasers(level, chasers, 11);
  if (!have_sight) level.kinds[0].sight.reset();
  return level;
}

void step(benchmark::State& state) {
  const auto chasers = static_cast<int>(state.range(0));
  Simulation simulation(campus_with(chasers, state.range(1) != 0));
  for (int warm_up = 0; warm_up < 600; ++warm_up) simulation.step();
  for (auto _ : state) simulation.step();
  int chasing = 0;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    chasing += simulation.state({i}).mode == Mode::chase;
  }
  state.counters["us/agent"] =
      benchmark::Counter(static_cast<double>(state.iterations()) * chasers / 1e6,
                         benchmark::Counter::kIsRate | benchmark::Counter::kInvert);
  state.counters["chasing"] = chasing;
}

BENCHMARK(step)
    ->ArgNames({"agents", "sight"})
    ->Args({1'000, 1})
    ->Args({1'000, 0})
    ->Args({10'000, 1})
    ->Iterations(600)
    ->Repetitions(3)
    ->ReportAggregatesOnly(true)
    ->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
