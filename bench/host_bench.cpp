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

// A block put into the campus, for one body, against a mesh made anew with it.
gaze::Solid block_at(double x, double y) {
  gaze::Solid block;
  block.id = "more";
  block.points = {{x, y}, {x + 2.0, y}, {x + 2.0, y + 1.0}, {x, y + 1.0}};
  return block;
}

gaze::Level campus_with_chasers() {
  gaze::Level level = gaze::scenes::campus();
  gaze::scenes::add_chasers(level, 50, 6);
  return level;
}

void solid_put_in(benchmark::State& state) {
  static const gaze::Prepared prepared(campus_with_chasers());
  gaze::scenes::Random random(5);
  for (auto _ : state) {
    state.PauseTiming();
    Simulation game(prepared);
    const gaze::Solid block = block_at(random.between(5.0, 195.0), random.between(5.0, 195.0));
    state.ResumeTiming();
    game.add_solid(block);
  }
}

struct Campus {
  gaze::Level level = with_one_more();
  gaze::World before;
  gaze::World world;
  gaze::BodySize body;
  gaze::NavigationMesh mesh;

  Campus()
      : before(gaze::scenes::campus()), world(level), mesh(gaze::scenes::campus(), before, body) {}

  static gaze::Level with_one_more() {
    gaze::Level level = gaze::scenes::campus();
    level.solids.push_back(block_at(20.0, 30.0));
    gaze::complete(level);
    return level;
  }
};

const Campus& campus() {
  static const Campus campus;
  return campus;
}

void mesh_mended(benchmark::State& state) {
  for (auto _ : state) {
    benchmark::DoNotOptimize(campus().mesh.with_solids(campus().level, campus().world));
  }
}

void mesh_made_anew(benchmark::State& state) {
  for (auto _ : state) {
    benchmark::DoNotOptimize(gaze::NavigationMesh(campus().level, campus().world, campus().body));
  }
}

BENCHMARK(solid_put_in)->Unit(benchmark::kMillisecond)->Iterations(30);
BENCHMARK(mesh_mended)->Unit(benchmark::kMillisecond);
BENCHMARK(mesh_made_anew)->Unit(benchmark::kMillisecond);
BENCHMARK(creation)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(step)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(copy_into_an_old_one)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(save)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(spawn_alone)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(spawn_and_despawn)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);
BENCHMARK(set_value)->Arg(50)->Arg(1000)->Unit(benchmark::kMicrosecond);

}  // namespace

BENCHMARK_MAIN();
