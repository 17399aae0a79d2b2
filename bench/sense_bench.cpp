// What perceiving costs: exact seen areas, and a step of the senses of many agents.

#include <benchmark/benchmark.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <vector>

#include "scenes.hpp"
#include "timing.hpp"

namespace gaze {
namespace {

struct Eyes {
  World world;
  std::vector<Looker> lookers;

  Eyes(const Level& level, double range) : world(level) {
    scenes::Random random(5);
    const double side = scenes::side_of(level);
    Sight sight{range, range, Angle::from_degrees(360.0), gaze::Vector3d{0.0, 0.0, 1.6}, {}, {}};
    while (lookers.size() < 1'000) {
      const Vector3d feet{random.between(1.0, side - 1.0), random.between(1.0, side - 1.0), 0.0};
      if (world.overlaps({feet, 0.3, 1.7}, Stops::sight)) continue;
      lookers.push_back({feet, {1.0, 0.0}, sight, false});
    }
  }
};

Level scene(std::int64_t which) {
  if (which == 0) return scenes::hall();
  if (which == 1) return scenes::campus();
  return which == 2 ? scenes::make_scene(10'000, 447.0, 3) : scenes::city();
}

// Areas of 1,000 eyes side by side, which needs nothing beforehand, and by a finder, by turns. Both
// have to be equal.
void seen_areas(benchmark::State& state) {
  const Eyes eyes(scene(state.range(0)), static_cast<double>(state.range(1)));
  SeenAreaFinder finder(eyes.world, std::array{1.6});
  std::size_t edges = 0;
  for (const Looker& looker : eyes.lookers) {
    const double expected = seen_area(eyes.world, looker).area();
    const SeenArea& found = finder.find(eyes.world, looker);
    edges += found.edges.size();
    if (std::abs(found.area() - expected) > 1e-11 * expected) state.SkipWithError("not the same");
  }
  const auto count = static_cast<double>(eyes.lookers.size());
  std::vector<double> plain;
  std::vector<double> found;
  for (auto _ : state) {
    auto begin = std::chrono::steady_clock::now();
    for (const Looker& looker : eyes.lookers) {
      benchmark::DoNotOptimize(seen_area(eyes.world, looker).edges.data());
    }
    plain.push_back(microseconds_since(begin) / count);
    begin = std::chrono::steady_clock::now();
    for (const Looker& looker : eyes.lookers) {
      benchmark::DoNotOptimize(finder.find(eyes.world, looker).edges.data());
    }
    found.push_back(microseconds_since(begin) / count);
  }
  state.counters["edges"] = static_cast<double>(edges) / count;
  state.counters["side_by_side_us"] = median(plain);
  state.counters["finder_us"] = median(found);
  state.counters["ratio"] = median(plain) / median(found);
}
BENCHMARK(seen_areas)
    ->ArgNames({"scene", "range"})
    ->ArgsProduct({{0, 1, 2, 3}, {30, 100'000}})
    ->Iterations(15)
    ->Unit(benchmark::kMillisecond);

void making_a_finder(benchmark::State& state) {
  const World world(scene(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(SeenAreaFinder(world, std::array{1.6}));
}
BENCHMARK(making_a_finder)->DenseRange(0, 3)->Unit(benchmark::kMillisecond);

// Agents spread over the campus, each with sight of 25 m (30 kept) and 200 degrees, four players
// walking among them; all but the senses is stilled by giving nobody a wish to move.
Level watched_campus(int agents, bool have_sight) {
  Level level = scenes::campus();
  scenes::add_chasers(level, agents, 11);
  scenes::add_players(level, 3, 13);
  level.kinds[0].when.rules.clear();
  level.kinds[0].move->gait = Gait::fixed;
  if (!have_sight) level.kinds[0].sight.reset();
  return level;
}

void sensing_step(benchmark::State& state) {
  const auto agents = static_cast<int>(state.range(0));
  Simulation simulation(watched_campus(agents, state.range(1) != 0));
  for (int warm_up = 0; warm_up < 60; ++warm_up) simulation.step();
  for (auto _ : state) simulation.step();
  int noticing = 0;
  for (std::uint32_t i = 0; i < simulation.agent_count(); ++i) {
    noticing += simulation.state({i}).target.has_value();
  }
  state.counters["noticing"] = noticing;
  state.counters["us/agent"] =
      benchmark::Counter(static_cast<double>(state.iterations()) * agents / 1e6,
                         benchmark::Counter::kIsRate | benchmark::Counter::kInvert);
}
BENCHMARK(sensing_step)
    ->ArgNames({"agents", "sight"})
    ->Args({1'000, 1})
    ->Args({10'000, 1})
    ->Args({10'000, 0})
    ->Args({99'996, 1})
    ->Iterations(100)
    ->Repetitions(5)
    ->Unit(benchmark::kMillisecond);

void cover_campus(benchmark::State& state) {
  Level level = scenes::campus();
  scenes::add_chasers(level, 100, 11);
  const Simulation simulation(level);
  double share = 0.0;
  for (auto _ : state) {
    Cover cover(free_floor(level, simulation.world(), {}));
    cover.add(simulation);
    share = cover.seen_share();
  }
  state.counters["share"] = share;
}
BENCHMARK(cover_campus)->Repetitions(3)->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
