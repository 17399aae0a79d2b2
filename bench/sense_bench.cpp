// What perceiving costs: exact seen areas, and a step of the senses of many agents.

#include <benchmark/benchmark.h>

#include "scenes.hpp"

namespace gaze {
namespace {

struct Eyes {
  World world;
  std::vector<Looker> lookers;

  explicit Eyes(const Level& level) : world(level) {
    scenes::Random random(5);
    const double side = scenes::side_of(level);
    Sight sight{30.0, 30.0, Angle::from_degrees(360.0), gaze::Vector3d{0.0, 0.0, 1.6}, {}, {}};
    while (lookers.size() < 1'000) {
      const Vector3d feet{random.between(1.0, side - 1.0), random.between(1.0, side - 1.0), 0.0};
      if (world.overlaps({feet, 0.3, 1.7}, Stops::sight)) continue;
      lookers.push_back({feet, {1.0, 0.0}, sight, false});
    }
  }
};

const Eyes& eyes(int which) {
  static const Eyes hall(scenes::hall());
  static const Eyes campus(scenes::campus());
  static const Eyes city(scenes::city());
  return which == 0 ? hall : which == 1 ? campus : city;
}

void area_of_sight(benchmark::State& state) {
  const Eyes& all = eyes(static_cast<int>(state.range(0)));
  std::size_t next = 0;
  std::size_t edges = 0;
  for (auto _ : state) {
    const SeenArea area = seen_area(all.world, all.lookers[next++ % all.lookers.size()]);
    edges += area.edges.size();
    benchmark::DoNotOptimize(area.edges.data());
  }
  state.counters["edges"] = double(edges) / double(state.iterations());
}
BENCHMARK(area_of_sight)->DenseRange(0, 2)->Repetitions(5)->Unit(benchmark::kMicrosecond);

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
