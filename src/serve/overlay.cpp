#include "serve/overlay.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "gaze/tools/attack_reach.hpp"
#include "geometry/plan.hpp"
#include "level/numbers.hpp"

namespace gaze::serve {
namespace {

Mark area(std::vector<Vector2d> points, std::uint32_t number) {
  Mark mark;
  mark.form = Mark::Form::area;
  mark.meaning = Meaning::walkway;
  mark.points = std::move(points);
  mark.number = number;
  return mark;
}

// Runs of spots in a row, each a rectangle.
void add_runs(std::vector<Mark>& marks, const SpotGrid& grid,
              const std::vector<std::uint8_t>& spots, std::uint32_t number) {
  const Vector2d half{grid.size / 2.0, grid.size / 2.0};
  for (int row = 0; row < grid.rows; ++row) {
    for (int first = 0; first < grid.columns; ++first) {
      if (spots[grid.index(first, row)] == 0) continue;
      int last = first;
      while (last + 1 < grid.columns && spots[grid.index(last + 1, row)] != 0) ++last;
      const Vector2d low = grid.middle(first, row) - half;
      const Vector2d high = grid.middle(last, row) + half;
      marks.push_back(area({low, {high.x(), low.y()}, high, {low.x(), high.y()}}, number));
      first = last;
    }
  }
}

// Returns the largest distance between the centres at which an attack of a kind is made, metres.
// Every attack is made within its range, touches when the bodies touch. The range of a beam with
// `locks_on` begins at the muzzle.
double farthest_reach(const Kind& kind, const Kind& victim) {
  double farthest = 0.0;
  for (const Attack& attack : kind.attacks) {
    farthest = std::max(farthest, attack.range + (attack.muzzle ? attack.muzzle->norm() : 0.0));
  }
  return farthest + kind.radius + victim.radius;
}

// Returns the floor within reach, in cells of 0.2 m. The page waits for the answer, so that a floor
// of more than 60,000 cells has larger ones.
FloorOptions floor_within_reach(const Simulation& game, AgentId agent, const Kind& victim) {
  const Level& level = game.level();
  const double reach = farthest_reach(level.kind_of(level.agents[agent.index]), victim);
  const Vector2d middle = plan_part(level.plane, game.state(agent).position);
  FloorOptions options = floor_for(victim, 0.2);
  options.part = {middle - Vector2d{reach, reach}, middle + Vector2d{reach, reach}};
  options.larger_above = 60'000;
  return options;
}

}  // namespace

Overlay mesh_overlay(const Simulation& game, AgentId agent) {
  Overlay overlay;
  const auto mesh = game.mesh(agent);
  if (!mesh) return overlay;
  for (const Island& island : mesh->islands()) {
    overlay.names.push_back(worded("{}: {} m²", island.name, island.area));
  }
  for (std::uint32_t i = 0; i < mesh->polygon_count(); ++i) {
    const MeshPolygon polygon = mesh->polygon(i);
    std::vector<Vector2d> points;
    for (const Vector3d& corner : polygon.corners) {
      points.push_back(plan_part(game.level().plane, corner));
    }
    overlay.marks.push_back(area(std::move(points), polygon.island));
  }
  return overlay;
}

Overlay reach_overlay(const Simulation& game, AgentId agent) {
  Overlay overlay;
  const Level& level = game.level();
  const Kind* victim = usual_victim(level, level.kind_of(level.agents[agent.index]));
  if (victim == nullptr) return overlay;
  const FreeFloor floor = free_floor(level, game.world(), floor_within_reach(game, agent, *victim));
  for (const AttackReach& reach : attack_reach(game, agent, *victim, floor)) {
    const auto number = static_cast<std::uint32_t>(overlay.names.size());
    overlay.names.push_back(worded("{}: {} m² upon a {}", reach.attack, reach.area, victim->name));
    add_runs(overlay.marks, floor.grid, reach.can_hurt, number);
  }
  return overlay;
}

}  // namespace gaze::serve
