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
    Sight sight{30.0, 30.0, Angle::from_degrees(360.0), {0.0, 0.0, 1.6}, {}, {}};
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

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
