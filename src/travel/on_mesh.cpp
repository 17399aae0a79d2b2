#include "geometry/plan_grid.hpp"
#include "navigation/body_size.hpp"
#include "travel/find_way.hpp"
#include "travel/game_mesh.hpp"
#include "travel/make_ways.hpp"

/// Where a body can be and go, according to the mesh for bodies of its size.
namespace gaze {
namespace {

// True if what is left of a way comes near a box, by the boxes of its legs.
bool leads_past(const Travelling& state, std::uint32_t who, const PlanBox& box, double reach) {
  const Route& route = state.ways.route[who];
  Vector2d at = plan_part(state.plane(), state.bodies.position[who]);
  for (std::size_t i = route.next; i < route.points.size(); ++i) {
    const Vector2d to = plan_part(state.plane(), route.points[i]);
    const Vector2d low = at.cwiseMin(to).array() - reach;
    const Vector2d high = at.cwiseMax(to).array() + reach;
    if ((low.array() <= box.high.array()).all() && (high.array() >= box.low.array()).all()) {
      return true;
    }
    at = to;
  }
  return false;
}

}  // namespace

bool has_ways(const Level& level) {
  return !level.solids.empty() || !level.zones.empty();
}

bool uses_paths(const Everyone& state, std::uint32_t who) {
  const Move& move = *state.kind(who).move;
  return travels(move.gait) && move.route == RouteStyle::path && has_ways(state.level());
}

const NavigationMesh& mesh_for(Travelling& state, std::uint32_t who) {
  std::optional<NavigationMesh>& mesh = state.meshes.meshes[state.ways.mesh_of[who]];
  if (!mesh) {
    mesh = game_mesh(state.fixed, state.world, state.meshes.bodies[state.ways.mesh_of[who]]);
  }
  return *mesh;
}

double landing_height(Travelling& state, std::uint32_t who, const Vector3d& place) {
  if (!uses_paths(state, who)) return place.z();
  const NavigationMesh& mesh = mesh_for(state, who);
  const auto from = mesh.find(state.bodies.position[who], state.ways.route[who].own_face);
  auto to = from ? mesh.straight_on(*from, place) : std::nullopt;
  if (!to) to = mesh.find(place);
  return to ? to->place.z() : place.z();
}

std::optional<Vector3d> standing_place(Travelling& state, std::uint32_t who,
                                       const Vector3d& place) {
  if (!has_ways(state.level())) return place;
  const auto on = mesh_for(state, who).find(place, state.ways.route[who].own_face);
  return on ? std::optional(on->place) : std::nullopt;
}

bool can_go(Travelling& state, std::uint32_t who, const Vector3d& place) {
  if (!has_ways(state.level())) return true;
  const NavigationMesh& mesh = mesh_for(state, who);
  const auto own = mesh.find(state.bodies.position[who], state.ways.route[who].own_face);
  if (!own) return false;
  state.ways.route[who].own_face = own->polygon;
  const auto there = mesh.find(place, own->polygon);
  return there && mesh.is_free(*own, *there);
}

// After a solid has come, ways that lead past it are searched anew. After one has gone, ways that
// do not lead to their goals are.
void mend_routes(Travelling& state, std::uint32_t solid) {
  const bool is_gone = state.world.is_gone({solid});
  const PlanBox box = box_around(state.level().solids[solid].points);
  for (std::uint32_t who = 0; who < state.agent_count(); ++who) {
    Route& route = state.ways.route[who];
    if (!route.is_made) continue;
    const double reach = state.kind(who).radius + state.level().solids[solid].thickness;
    const bool is_concerned =
        is_gone ? route.outcome != Path::Outcome::whole : leads_past(state, who, box, reach);
    if (is_concerned) route.is_made = false;
  }
}

void change_body(Travelling& state, std::uint32_t who) {
  if (state.fixed.openings.goes_by_tags()) find_mesh(state, who);
}

void find_mesh(Travelling& state, std::uint32_t who) {
  const std::uint32_t mesh =
      state.meshes.number_of(body_size(state.level(), state.fixed.openings, state.somebody(who)));
  if (mesh == state.ways.mesh_of[who]) return;
  const bool had_mesh = state.meshes.meshes[state.ways.mesh_of[who]].has_value();
  state.ways.mesh_of[who] = mesh;
  forget_way(state.ways, who);
  // A host asks for the mesh of an agent that it drives.
  if (had_mesh) static_cast<void>(mesh_for(state, who));
}

}  // namespace gaze
