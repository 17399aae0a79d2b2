#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "gaze/path.hpp"
#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

bool walks(const Agent& agent, const Kind& kind) {
  return agent.driver == Driver::mind && travels(kind.move->gait);
}

// True if nothing in the level stops bodies: then there is nothing to go round, and nowhere to
// fall.
bool is_open(const Level& level) {
  return std::none_of(level.solids.begin(), level.solids.end(), [&](const Solid& solid) {
    return level.materials[solid.material].stops.test(static_cast<std::size_t>(Stops::bodies));
  });
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
    bench.say(
        Severity::warning, "patrol-point-cut-off",
        bench.level().origin(agent, "patrol").value_or(agent.place),
        worded("patrol point {} of {} is on {}, and it stands on {}: {}; it will go to "
               "the nearest place that it can reach",
               i + 1, agent.id, island_at(mesh, agent.patrol[i]), island_at(mesh, agent.position),
               bench.why_apart(mesh, agent.position, agent.patrol[i])));
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
  if (travels(kind.move->gait) &&
      !are_apart(bench.mesh_of(player), player.position, agent.position)) {
    return;
  }
  bench.say(Severity::warning, "target-cut-off", level.origin(agent, "at").value_or(agent.place),
            worded("{} stands on {} and can never reach {} on {}: {}", agent.id,
                   island_at(mesh, agent.position), player.id, island_at(mesh, player.position),
                   bench.why_apart(mesh, agent.position, player.position)));
}

// Returns the positions of a leader: the start, and the points of its patrol and its script.
std::vector<Vector3d> places_of(const Agent& leader) {
  std::vector<Vector3d> places{leader.position};
  places.insert(places.end(), leader.patrol.begin(), leader.patrol.end());
  for (const ScriptStep& step : leader.script) {
    if (step.what == ScriptStep::What::go) places.push_back(step.place);
  }
  return places;
}

void judge_leader(Bench& bench, const Agent& agent, const Agent& leader) {
  const NavigationMesh mesh = bench.mesh_of(agent);
  for (const Vector3d& place : places_of(leader)) {
    if (!are_apart(mesh, agent.position, place)) continue;
    bench.say(
        Severity::warning, "target-cut-off",
        bench.level().origin(agent, "at").value_or(agent.place),
        worded("{} stands on {} and cannot follow {} to {} on {}: {}", agent.id,
               island_at(mesh, agent.position), leader.id, place_text(bench.level().plane, place),
               island_at(mesh, place), bench.why_apart(mesh, agent.position, place)));
    return;
  }
}

void judge_leaders(Bench& bench, const Agent& agent, const Kind& kind) {
  const Level& level = bench.level();
  const std::vector<std::string> tags = tag_names(level);
  const Whom followed(level, kind.move->follows, tags);
  for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
    const Agent& leader = level.agents[i];
    const Somebody somebody{i, leader.kind, tag_bits(tags, level.kind_of(leader).tags)};
    if (&leader != &agent && followed.means(somebody)) judge_leader(bench, agent, leader);
  }
}

Vector3d middle_of(const NavigationMesh& mesh, std::uint32_t polygon) {
  const MeshPolygon its = mesh.polygon(polygon);
  Vector3d sum{0.0, 0.0, 0.0};
  for (const Vector3d& corner : its.corners) sum += corner;
  return sum / static_cast<double>(its.corners.size());
}

// The largest place to which a player can go and where its chaser could stand, but to which the
// chaser cannot get.
void judge_refuge(Bench& bench, const Agent& agent, const Agent& player) {
  constexpr double kLeastArea = 0.25;  // square metres
  const Level& level = bench.level();
  const NavigationMesh mesh = bench.mesh_of(agent);
  const NavigationMesh its = bench.mesh_of(player);
  const auto start = mesh.find(agent.position);
  const auto player_start = its.find(player.position);
  if (!start || !player_start || !travels(level.kind_of(player).move->gait)) return;
  for (std::uint32_t i = 0; i < mesh.islands().size(); ++i) {
    const Island& island = mesh.islands()[i];
    if (island.area < kLeastArea || mesh.is_reachable(mesh.island_of(*start), i)) continue;
    const Vector3d place = middle_of(mesh, island.some_polygon);
    const auto there = its.find(place);
    if (!there || !its.is_reachable(its.island_of(*player_start), its.island_of(*there))) continue;
    bench.say(Severity::note, "safe-from-chaser", agent.place,
              worded("{} is safe from {} on {} ({} m², at {}): it can get "
                     "there, but for {} {}",
                     player.id, agent.id, island.name, island.area, place_text(level.plane, place),
                     agent.id, bench.why_apart(mesh, agent.position, place)));
    return;
  }
}

}  // namespace

void judge_ways(Bench& bench) {
  constexpr std::size_t kMostPairs = 200'000;
  const Level& level = bench.level();
  if (is_open(level)) return;
  std::vector<const Agent*> players;
  for (const Agent& agent : level.agents) {
    if (agent.driver != Driver::mind) players.push_back(&agent);
  }
  std::set<std::pair<std::uint32_t, std::uint32_t>> told;  // one of a kind stands for all
  std::size_t pairs = 0;
  std::size_t looked_at = 0;
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    if (!walks(agent, kind) || kind.move->route != RouteStyle::path) continue;
    const bool chases = can_chase(kind);
    if (!kind.move->follows.empty()) judge_leaders(bench, agent, kind);
    if (agent.patrol.empty() && !chases) continue;
    judge_patrol(bench, bench.mesh_of(agent), agent);
    if (!chases) continue;
    pairs += players.size();
    if (pairs > kMostPairs) continue;
    looked_at = pairs;
    for (const Agent* player : players) {
      if (!is_hostile(level, kind.team, level.kind_of(*player).team)) continue;
      judge_target(bench, agent, *player);
      if (told.insert({agent.kind, player->kind}).second) judge_refuge(bench, agent, *player);
    }
  }
  bench.say_left_out("who can get to whom was looked at for", looked_at,
                     "pairs of chaser and player", pairs - looked_at);
}

}  // namespace gaze
