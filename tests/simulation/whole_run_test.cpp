// Long runs of everything together: nobody in a solid, nobody stuck.

#include <deque>
#include <filesystem>

#include "gaze/going.hpp"
#include "scenes.hpp"
#include "support/levels.hpp"

namespace gaze {
namespace {

/// What of a body solids may not reach into.
// The part of a body that solids stop. An overlap of a micrometre or less counts as touching.
Cylinder solid_part(const Kind& kind, const Vector3d& feet) {
  constexpr double kMicrometre = 1e-6;
  const double lift =
      (kind.move->gait == Gait::hover ? 0.0 : *kind.move->step_height) + kMicrometre;
  return {feet + Vector3d{0.0, 0.0, lift}, kind.radius - kMicrometre,
          kind.height - lift - kMicrometre};
}

/// True if it wants to be elsewhere, by its mode and by where things are.
bool wants_to_go(const Simulation& simulation, AgentId agent) {
  const Level& level = simulation.level();
  const Kind& kind = level.kind_of(level.agents[agent.index]);
  const AgentState state = simulation.state(agent);
  if (!state.is_alive || !travels(kind.move->gait)) return false;
  if (state.mode == Mode::patrol || state.mode == Mode::return_ || state.mode == Mode::wander) {
    return true;
  }
  if (state.mode != Mode::chase || !state.target || kind.move->keep_away > 0.0) return false;
  const Kind& other = level.kind_of(level.agents[state.target->index]);
  const Vector3d way = simulation.state(*state.target).position - state.position;
  return way.head<2>().norm() > stop_distance(kind, other) + 0.1;
}

class DemoRun : public ::testing::TestWithParam<const char*> {};

// 10 seconds without 5 cm of headway, in one mode, is stuck.
TEST_P(DemoRun, GoesOnForTenThousandStepsWithNobodyStuckOrInASolid) {
  const auto folder = std::filesystem::path(GAZE_DEMO).parent_path();
  Simulation simulation(read_level(folder / (std::string(GetParam()) + ".toml")));
  const Level& level = simulation.level();
  const std::size_t count = simulation.agent_count();
  std::vector<Vector3d> anchor(count, Vector3d{1e9, 0.0, 0.0});  // none is there yet
  std::vector<std::int64_t> since(count, 0);
  std::int64_t moved = 0;
  for (std::int64_t tick = 1; tick <= 10'000; ++tick) {
    simulation.step();
    for (std::uint32_t i = 0; i < count; ++i) {
      const AgentState state = simulation.state({i});
      const Kind& kind = level.kind_of(level.agents[i]);
      if (kind.move->gait != Gait::drop) {  // what drops lies where it lands, be it on a ramp
        ASSERT_FALSE(simulation.world().overlaps(solid_part(kind, state.position), Stops::bodies))
            << level.agents[i].id << " at tick " << tick;
      }
      const bool is_under_way = (state.position - anchor[i]).norm() > 0.05;
      if (is_under_way || !wants_to_go(simulation, {i})) {
        moved += is_under_way ? 1 : 0;
        anchor[i] = state.position;
        since[i] = tick;
      }
      ASSERT_LT(tick - since[i], 600)
          << level.agents[i].id << " at tick " << tick << ": " << going(simulation, {i}).reason;
    }
  }
  EXPECT_GT(moved, 2000);
}

INSTANTIATE_TEST_SUITE_P(Levels, DemoRun,
                         ::testing::Values("propagation_house", "root_cellar", "terraces"));

// Walkers and hoppers wander among 200 solids, by path and across each other.
TEST(Crowds, OfHundredsNeverEnterASolidFromStepToStep) {
  Level level = scenes::hall();
  for (const Gait gait : {Gait::walk, Gait::hop}) {
    Kind& kind = level.kinds.emplace_back();
    kind.name = gait == Gait::walk ? "sweeper" : "toad";
    kind.radius = gait == Gait::walk ? 0.35 : 0.25;
    kind.height = gait == Gait::walk ? 1.6 : 0.5;
    kind.move.emplace().gait = gait;
    kind.move->speed = 2.5;
    kind.move->step_height = 0.2;
    if (gait == Gait::hop) kind.move->hop_height = 0.6;
    if (gait == Gait::hop) kind.move->hop_length = 1.2;
    kind.wander = Wander{Wander::Style::free, "", Duration::from_seconds(0.2)};
  }
  level.named_kinds = level.kinds.size();
  const World world(level);
  scenes::Random random(21);
  const auto first = static_cast<std::uint32_t>(level.kinds.size() - 2);
  while (level.agents.size() < 400) {
    Agent agent;
    agent.id = "a" + std::to_string(level.agents.size());
    agent.kind = first + static_cast<std::uint32_t>(level.agents.size() % 2);
    agent.position = {random.between(1.0, 59.0), random.between(1.0, 59.0), 0.0};
    if (!world.overlaps({agent.position, 0.5, 1.7}, Stops::bodies)) level.agents.push_back(agent);
  }
  Simulation simulation(level);
  std::vector<Vector3d> before;
  for (const Agent& agent : level.agents) before.push_back(agent.position);
  double walked = 0.0;
  for (int tick = 1; tick <= 900; ++tick) {
    simulation.step();
    for (std::uint32_t i = 0; i < 400; ++i) {
      const Vector3d at = simulation.state({i}).position;
      const Kind& kind = level.kind_of(level.agents[i]);
      // Within a step it may turn a corner that the straight way from start to end cuts by less.
      Cylinder body = solid_part(kind, before[i]);
      body.radius -= 0.01;
      ASSERT_FALSE(world.overlaps(solid_part(kind, at), Stops::bodies)) << i << ", " << tick;
      ASSERT_FALSE(world.sweep(body, at - before[i], Stops::bodies)) << i << ", " << tick;
      walked += (at - before[i]).norm();
      before[i] = at;
    }
  }
  EXPECT_GT(walked, 400 * 15 * 0.7);  // of 15 s each at 0.9 to 2.5 m/s, with pauses
}

}  // namespace
}  // namespace gaze
