#include "travel/make_ways.hpp"

#include <algorithm>

#include "navigation/body_size.hpp"

namespace gaze {
namespace {

// Which agents share a mesh. What hovers has a mesh at its own height. Where a door or an area
// depends on who somebody is, each such agent has a mesh of its own. All others of a kind share
// one.
void find_meshes(Ways& ways, Meshes& meshes, const Fixed& fixed, const Knowledge& knowledge) {
  constexpr std::uint32_t kUnknown = 0xFFFFFFFF;
  const Level& level = *fixed.level;
  std::vector<std::uint32_t> of_kind(level.kinds.size(), kUnknown);
  const bool goes_by_agents = fixed.openings.goes_by_agents();
  for (std::uint32_t who = 0; who < level.agents.size(); ++who) {
    const std::uint32_t kind = fixed.kind_index[who];
    const bool is_as_kind = !goes_by_agents && level.kinds[kind].move.gait != Gait::hover;
    if (!is_as_kind || of_kind[kind] == kUnknown) {
      const Somebody somebody{who, kind, knowledge.tags[who]};
      of_kind[kind] = meshes.number_of(body_size(level, fixed.openings, somebody));
    }
    ways.mesh_of.push_back(of_kind[kind]);
  }
}

void reserve_scratch(Ways& ways, std::size_t count) {
  constexpr std::size_t kUsualTurns = 48;
  constexpr std::size_t kUsualNeighbours = 20;
  for (Route& route : ways.route) route.points.reserve(kUsualTurns);
  ways.asked.reserve(count);
  ways.in_the_way.reserve(count);
  ways.neighbours.reserve(kUsualNeighbours);
}

}  // namespace

std::uint32_t Meshes::number_of(const BodySize& body) {
  const auto it = std::find(bodies.begin(), bodies.end(), body);
  const auto number = static_cast<std::uint32_t>(it - bodies.begin());
  if (it == bodies.end()) {
    bodies.push_back(body);
    meshes.emplace_back();
  }
  return number;
}

Bodies make_bodies(const Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  Bodies bodies;
  for (const Agent& agent : level.agents) {
    bodies.position.push_back(agent.position);
    bodies.position.back().z() = altitude_of(level.kind_of(agent), agent.position);
    const SineCosine facing = sine_cosine(agent.facing);
    bodies.facing.push_back({facing.cosine, facing.sine});
  }
  bodies.previous = bodies.seen_position = bodies.post = bodies.position;
  bodies.last_move.assign(count, Vector3d{0.0, 0.0, 0.0});
  bodies.head = bodies.previous_head = bodies.facing;
  bodies.placed_facing = bodies.rest_facing = bodies.facing;
  bodies.head_deg.resize(count);
  bodies.is_airborne.resize(count);
  bodies.has_come.resize(count);
  bodies.trigger.resize(count);
  bodies.leader.resize(count);
  return bodies;
}

Ways make_ways(Meshes& meshes, const Fixed& fixed, const Bodies& bodies,
               const Knowledge& knowledge) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  const Vector3d still{0.0, 0.0, 0.0};
  Ways ways;
  ways.course.resize(count);
  ways.left_course.resize(count);
  ways.home = bodies.position;
  ways.wander_goal.assign(count, still);
  ways.script_facing.resize(count);
  ways.quiet.resize(count);
  for (const Agent& agent : level.agents) {
    ways.stride_left.push_back(level.kind_of(agent).move.stride);
  }
  ways.is_just_placed.assign(count, 1);
  ways.has_settled.resize(count);
  ways.highest_of_fall.resize(count);
  ways.velocity.assign(count, still);
  ways.air_share.assign(count, 1.0);
  ways.hangs.assign(count, 1);
  ways.leap.resize(count);
  ways.rests_until.resize(count);
  ways.pushed.assign(count, still);
  ways.route.resize(count);
  ways.pace.assign(count, Vector2d{0.0, 0.0});
  ways.pace_length.resize(count);
  ways.gathered.resize(count);
  ways.wish = ways.next_wish = ways.pace;
  ways.line.resize(count);
  ways.next_line.resize(count);
  ways.is_on_way.resize(count);
  ways.goes_on_way.resize(count);
  find_meshes(ways, meshes, fixed, knowledge);
  reserve_scratch(ways, count);
  return ways;
}

void reset_body(Bodies& bodies, Ways& ways, const Fixed& fixed, std::uint32_t who,
                const Vector3d& feet, const Vector2d& facing) {
  const Vector3d still{0.0, 0.0, 0.0};
  bodies.position[who] = bodies.previous[who] = bodies.seen_position[who] = feet;
  bodies.post[who] = ways.home[who] = feet;
  bodies.last_move[who] = still;
  bodies.facing[who] = bodies.head[who] = bodies.previous_head[who] = facing;
  bodies.placed_facing[who] = bodies.rest_facing[who] = facing;
  bodies.head_deg[who] = 0.0;
  bodies.is_airborne[who] = 0;
  bodies.leader[who].reset();
  ways.stride_left[who] = fixed.level->kinds[fixed.kind_index[who]].move.stride;
  ways.quiet[who] = 0;
  ways.script_facing[who].reset();
  ways.is_just_placed[who] = 1;
  ways.highest_of_fall[who].reset();
  ways.velocity[who] = still;
  ways.air_share[who] = 1.0;
  ways.hangs[who] = 1;
  ways.leap[who] = {};
  ways.rests_until[who] = 0;
  ways.pushed[who] = still;
  ways.pace[who] = {0.0, 0.0};
  ways.pace_length[who] = 0.0;
  ways.route[who].is_made = false;
}

void reset_course(Bodies& bodies, Ways& ways, std::uint32_t who) {
  bodies.trigger[who] = {};
  bodies.has_come[who] = 0;
  ways.course[who] = {};
  ways.left_course[who] = {};
  Route& route = ways.route[who];
  route.points.clear();
  route.links.clear();
  route.is_made = false;
}

}  // namespace gaze
