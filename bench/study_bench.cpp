#include <benchmark/benchmark.h>

#include <array>
#include <string>

#include "gaze/gaze.hpp"
#include "gaze/tools/sneak.hpp"
#include "gaze/tools/vary.hpp"
#include "scenes.hpp"

/// Studies: the demo house played over many seeds by one thread and by two, and searches for a way
/// that nobody notices.
namespace {

// The number is that of the threads.
void hundred_runs_of_the_house(benchmark::State& state) {
  const gaze::LevelSource house = [](const std::vector<gaze::Setting>& settings) {
    return gaze::read_level(GAZE_DEMO, settings);
  };
  const std::array axes{gaze::axis_of("kind.collector.move.speed=3")};
  const std::array<std::string, 1> figures{"collector.health"};
  gaze::StudyOptions options;
  options.threads = static_cast<unsigned>(state.range(0));
  for (auto _ : state) {
    benchmark::DoNotOptimize(gaze::vary(house, axes, figures, 100, options));
  }
}

void sneak_round_the_house(benchmark::State& state) {
  const gaze::Level level = gaze::read_level(GAZE_DEMO);
  gaze::SneakTask task;
  task.agent = "collector";
  task.to = {19.4, 5.0, 0.0};
  for (auto _ : state) benchmark::DoNotOptimize(gaze::sneak(level, task));
}

// Every second of the watchers walks to and fro.
gaze::Level watched_campus(int watchers) {
  gaze::Level level = gaze::scenes::campus();
  level.seconds = 120.0;
  gaze::scenes::add_chasers(level, watchers, 6);
  const gaze::World world(level);
  for (std::size_t i = 1; i < level.agents.size(); i += 2) {
    gaze::Agent& agent = level.agents[i];
    const gaze::Vector3d end = agent.position + gaze::Vector3d{8.0, 0.0, 0.0};
    if (!world.overlaps({end, 0.4, 1.7}, gaze::Stops::bodies)) agent.patrol = {agent.position, end};
  }
  return level;
}

// The number is that of the watchers. The counter says whether a way was found (0), there is none
// (1), or it is undecided (2).
void sneak_through_campus(benchmark::State& state) {
  const gaze::Level level = watched_campus(static_cast<int>(state.range(0)));
  const double third = gaze::scenes::side_of(level) / 3.0;
  gaze::SneakTask task;
  task.agent = "collector";
  task.to = {2.0 * third, 2.0 * third, 0.0};
  gaze::Sneak answer;
  for (auto _ : state) answer = gaze::sneak(level, task);
  state.counters["outcome"] = static_cast<double>(answer.outcome);
  state.counters["tries"] = static_cast<double>(answer.tries);
}

BENCHMARK(hundred_runs_of_the_house)->Arg(1)->Arg(2)->UseRealTime()->Unit(benchmark::kMillisecond);
BENCHMARK(sneak_round_the_house)->UseRealTime()->Unit(benchmark::kMillisecond);
BENCHMARK(sneak_through_campus)
    ->Arg(20)
    ->Iterations(1)
    ->UseRealTime()
    ->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
