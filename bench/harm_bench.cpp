// 10,000 projectiles in flight among the 2,000 solids of the campus and 1,000 bodies that walk
// about, against the same step in which as many are fired and gone at once: what flying costs.

#include <benchmark/benchmark.h>

#include "scenes.hpp"

namespace gaze {
namespace {

/// Fixed lobbers without end of ammunition shoot ahead as fast as `projectiles` in flight ask for.
Level campus_under_fire(int bodies, int projectiles) {
  Level level = scenes::campus();
  scenes::add_chasers(level, bodies, 11);
  level.kinds[0].sight.reset();
  level.kinds[0].wander = Wander{Wander::Style::to_and_fro, "", {}};
  level.kinds[0].health = 1e9;
  constexpr int kShooters = 20;
  constexpr double kLifetime = 2.0;
  const bool flies = projectiles > 0;
  const double a_second = (flies ? projectiles : 10'000) / kLifetime;
  Kind shooter;
  shooter.name = "lobber";
  shooter.team = 1;
  shooter.nearness.emplace().range = 30.0;
  Attack& attack = shooter.attacks.emplace_back();
  attack.name = "pod";
  attack.how = Attack::How::shot;
  attack.aim = Attack::Aim::ahead;
  attack.aim_tolerance = Angle::from_degrees(180.0);
  attack.range = 1000.0;
  attack.damage = 1.0;
  attack.speed = 14.0;
  attack.radius = 0.05;
  attack.gravity_share = 0.05;
  attack.spread = Angle::from_degrees(40.0);
  attack.muzzle = Vector3d{0.0, 0.0, 3.2};
  attack.bounces = 1000;
  attack.lifetime = Duration::from_seconds(flies ? kLifetime : 1e-3);
  attack.cooldown = Duration::from_seconds(kShooters / a_second);
  level.kinds.push_back(shooter);
  level.named_kinds = level.kinds.size();
  scenes::Random random(5);
  const double side = scenes::side_of(level);
  for (int i = 0; i < kShooters; ++i) {
    Agent agent;
    agent.id = "lobber-" + std::to_string(i);
    agent.kind = static_cast<std::uint32_t>(level.kinds.size() - 1);
    agent.position = {random.between(1.0, side - 1.0), random.between(1.0, side - 1.0), 0.0};
    agent.facing = Angle::from_degrees(random.between(0.0, 360.0));
    level.agents.push_back(agent);
  }
  return level;
}

void flying(benchmark::State& state) {
  Simulation simulation(campus_under_fire(1000, static_cast<int>(state.range(0))));
  for (int warm_up = 0; warm_up < 180; ++warm_up) simulation.step();
  double in_flight = 0.0;
  for (auto _ : state) {
    simulation.step();
    in_flight += static_cast<double>(simulation.projectiles().size());
  }
  state.counters["in_flight"] = in_flight / static_cast<double>(state.iterations());
}
BENCHMARK(flying)
    ->Arg(0)
    ->Arg(10'000)
    ->Iterations(300)
    ->Repetitions(5)
    ->ReportAggregatesOnly(true)
    ->Unit(benchmark::kMicrosecond);

}  // namespace
}  // namespace gaze

BENCHMARK_MAIN();
