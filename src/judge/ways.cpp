#include <fmt/format.h>

#include <algorithm>

#include "gaze/path.hpp"
#include "judge/judges.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

bool walks(const Agent& agent, const Kind& kind) {
  return agent.driver == Driver::mind && travels(kind.move.gait);
}

// Nothing that stops bodies: nothing to go round, and nowhere to fall.
bool is_open(const Level& level) {
  return std::none_of(level.solids.begin(), level.solids.end(), [&](const Solid& solid) {
    return level.materials[solid.material].stops.test(static_cast<std::size_t>(Stops::bodies));
  });
}

std::string why_apart(Bench& bench, const NavigationMesh& mesh, const Vector3d& from,
                      const Vector3d& to) {
  return describe(bench.level(), parting(bench.level(), bench.world(), mesh, from, to));
}

bool are_apart(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to) {
  const auto start = mesh.find(from);
  const auto goal = mesh.find(to);
  return start && goal && !mesh.is_reachable(mesh.island_of(*start), mesh.island_of(*goal));
}

const std::string& island_at(const NavigationMesh& mesh, const Vector3d& place) {
  return mesh.islands()[mesh.island_of(*mesh.find(place))].name;
}

void judge_patrol(Bench& bench, const NavigationMesh& mesh, const Agent& agent) {
  for (std::size_t i = 0; i < agent.patrol.size(); ++i) {
    if (!are_apart(mesh, agent.position, agent.patrol[i])) continue;
    bench.say(Severity::warning, "patrol-point-cut-off",
              bench.level().origin(agent, "patrol").value_or(agent.place),
              fmt::format("patrol point {} of {} is on {}, and it stands on {}: {}; it will go to "
                          "the nearest place that it can reach",
                          i + 1, agent.id, island_at(mesh, agent.patrol[i]),
                          island_at(mesh, agent.position),
                          why_apart(bench, mesh, agent.position, agent.patrol[i])));
    return;
  }
}

// Where players start: there and wherever they can walk is what a chaser may have to reach.
void judge_target(Bench& bench, const Agent& agent, const Agent& player) {
  const Level& level = bench.level();
  const NavigationMesh mesh = bench.mesh_of(agent);
  if (!are_apart(mesh, agent.position, player.position)) return;
  // A player that can come over by itself can be caught.
  const Kind& kind = level.kind_of(player);
  if (travels(kind.move.gait) &&
      !are_apart(bench.mesh_of(player), player.position, agent.position)) {
    return;
  }
  bench.say(
      Severity::warning, "target-cut-off", level.origin(agent, "at").value_or(agent.place),
      fmt::format("{} stands on {} and can never reach {} on {}: {}", agent.id,
                  island_at(mesh, agent.position), player.id, island_at(mesh, player.position),
                  why_apart(bench, mesh, agent.position, player.position)));
}

}  // namespace

void judge_ways(Bench& bench) {
  const Level& level = bench.level();
  if (is_open(level)) return;
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    if (!walks(agent, kind) || kind.move.route != RouteStyle::path) continue;
    const bool chases = can_chase(kind);
    if (agent.patrol.empty() && !chases) continue;
    judge_patrol(bench, bench.mesh_of(agent), agent);
    for (const Agent& player : level.agents) {
      const bool is_prey =
          player.driver != Driver::mind && is_hostile(level, kind.team, level.kind_of(player).team);
      if (chases && is_prey) judge_target(bench, agent, player);
    }
  }
}

}  // namespace gaze
