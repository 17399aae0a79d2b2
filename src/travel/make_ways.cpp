#include "travel/make_ways.hpp"

#include <algorithm>
#include <set>
#include <span>

#include "navigation/body_size.hpp"
#include "travel/find_way.hpp"
#include "travel/game_mesh.hpp"

namespace gaze {
namespace {

// What hovers has a mesh at its own height. Where a door or an area depends on who somebody is,
// each such agent has a mesh of its own. All others of a kind share one.
bool goes_as_kind(const Fixed& fixed, std::uint32_t who) {
  return !fixed.openings.goes_by_agents() && fixed.kind_of[who]->move->gait != Gait::hover;
}

// Which agents share a mesh.
void find_meshes(Ways& ways, Meshes& meshes, const Fixed& fixed, const Knowledge& knowledge) {
  constexpr std::uint32_t kUnknown = 0xFFFFFFFF;
  const Level& level = *fixed.level;
  std::vector<std::uint32_t> of_kind(level.kinds.size(), kUnknown);
  const auto first = static_cast<std::uint32_t>(ways.mesh_of.size());
  for (std::uint32_t who = first; who < level.agents.size(); ++who) {
    const std::uint32_t kind = fixed.kind_index[who];
    if (!goes_as_kind(fixed, who) || of_kind[kind] == kUnknown) {
      const Somebody somebody{who, kind, knowledge.tags[who]};
      of_kind[kind] = meshes.number_of(body_size(level, fixed.openings, somebody));
    }
    ways.mesh_of.push_back(of_kind[kind]);
  }
}

// Who is moved by its mind or its script looks for ways and for places to stand, and so does who
// begins at a start place.
bool may_need_mesh(const Fixed& fixed, std::uint32_t who) {
  const Kind& kind = *fixed.kind_of[who];
  const Driver driver = fixed.driver[who];
  const bool is_put = driver == Driver::host || driver == Driver::track;
  const bool goes = !is_put && travels(kind.move->gait);
  const std::uint64_t tags = fixed.limit_of[who]->tags;
  return goes || std::any_of(fixed.starts.begin(), fixed.starts.end(), [&](const StartChoice& one) {
           return one.whom.means({who, fixed.kind_index[who], tags});
         });
}

// Tags that an agent may have at some time and not at another, and that some door or area goes by.
std::vector<std::uint64_t> changing_tags(const Fixed& fixed) {
  std::uint64_t changing = 0;
  for (const ZoneTrigger& trigger : fixed.triggers) changing |= trigger.grants | trigger.takes;
  changing &= fixed.openings.tags_that_count();
  std::vector<std::uint64_t> single;
  for (std::uint64_t bit = 1; bit != 0; bit <<= 1U) {
    if ((changing & bit) != 0) single.push_back(bit);
  }
  return single;
}

// Calls `use(tags)` for all tags that an agent may come to hold; of more than four that change, for
// those with which it begins alone.
template <typename Use>
void for_all_tags(std::span<const std::uint64_t> changing, std::uint64_t own, Use&& use) {
  constexpr std::size_t kMostTried = 4;
  if (changing.size() > kMostTried) return use(own);
  for (std::uint64_t choice = 0; choice < std::uint64_t{1} << changing.size(); ++choice) {
    std::uint64_t tags = own;
    for (std::size_t i = 0; i < changing.size(); ++i) {
      if ((choice >> i & 1U) != 0) tags ^= changing[i];
    }
    use(tags);
  }
}

void reserve_scratch(Ways& ways, std::size_t first, std::size_t count) {
  constexpr std::size_t kUsualTurns = 48;
  constexpr std::size_t kUsualNeighbours = 20;
  for (std::size_t who = first; who < count; ++who) ways.route[who].points.reserve(kUsualTurns);
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

Meshes make_meshes(const Fixed& fixed, const World& world) {
  Meshes meshes;
  add_meshes(meshes, fixed, world, 0, static_cast<std::uint32_t>(fixed.level->agents.size()));
  return meshes;
}

void add_meshes(Meshes& meshes, const Fixed& fixed, const World& world, std::uint32_t first,
                std::uint32_t end) {
  const Level& level = *fixed.level;
  if (!has_ways(level)) return;
  const std::vector<std::uint64_t> changing = changing_tags(fixed);
  std::set<std::pair<std::uint32_t, std::uint32_t>> done;
  for (std::uint32_t who = first; who < end; ++who) {
    if (!may_need_mesh(fixed, who)) continue;
    const std::uint32_t own = goes_as_kind(fixed, who) ? 0 : who + 1;
    if (!done.insert({fixed.kind_index[who], own}).second) continue;
    for_all_tags(changing, fixed.limit_of[who]->tags, [&](std::uint64_t tags) {
      const Somebody somebody{who, fixed.kind_index[who], tags};
      const std::uint32_t number = meshes.number_of(body_size(level, fixed.openings, somebody));
      auto& mesh = meshes.meshes[number];
      if (!mesh) mesh = game_mesh(fixed, world, meshes.bodies[number]);
    });
  }
}

void add_agents(Bodies& bodies, const Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::size_t count = level.agents.size();
  for (std::size_t who = bodies.position.size(); who < count; ++who) {
    const Agent& agent = level.agents[who];
    Vector3d feet = agent.position;
    feet.z() = altitude_of(level, level.kind_of(agent), feet);
    const SineCosine turn = sine_cosine(agent.facing);
    const Vector2d facing{turn.cosine, turn.sine};
    for (auto* places : {&bodies.position, &bodies.previous, &bodies.seen_position, &bodies.post}) {
      places->push_back(feet);
    }
    for (auto* ways : {&bodies.facing, &bodies.head, &bodies.previous_head, &bodies.placed_facing,
                       &bodies.rest_facing}) {
      ways->push_back(facing);
    }
  }
  bodies.last_move.resize(count, Vector3d{0.0, 0.0, 0.0});
  bodies.head_deg.resize(count);
  bodies.is_airborne.resize(count);
  bodies.has_come.resize(count);
  bodies.trigger.resize(count);
  bodies.leader.resize(count);
}

void add_agents(Ways& ways, Meshes& meshes, const Fixed& fixed, const Bodies& bodies,
                const Knowledge& knowledge) {
  const Level& level = *fixed.level;
  const std::size_t first = ways.course.size();
  const std::size_t count = level.agents.size();
  const Vector3d still{0.0, 0.0, 0.0};
  const Vector2d no_pace{0.0, 0.0};
  for (std::size_t who = first; who < count; ++who) {
    ways.home.push_back(bodies.position[who]);
    ways.stride_left.push_back(level.kind_of(level.agents[who]).move->stride);
  }
  ways.course.resize(count);
  ways.left_course.resize(count);
  ways.wander_goal.resize(count, still);
  ways.script_facing.resize(count);
  ways.quiet.resize(count);
  ways.steering.resize(count);
  ways.is_just_placed.resize(count, 1);
  ways.has_settled.resize(count);
  ways.highest_of_fall.resize(count);
  ways.velocity.resize(count, still);
  ways.air_share.resize(count, 1.0);
  ways.hangs.resize(count, 1);
  ways.leap.resize(count);
  ways.rests_until.resize(count);
  ways.pushed.resize(count, still);
  ways.route.resize(count);
  ways.leads_round.resize(count);
  ways.ring_place.resize(count);
  ways.asked_goal.resize(count);
  ways.pace.resize(count, no_pace);
  ways.pace_length.resize(count);
  ways.gathered.resize(count);
  ways.wish.resize(count, no_pace);
  ways.next_wish.resize(count, no_pace);
  ways.line.resize(count);
  ways.next_line.resize(count);
  ways.is_on_way.resize(count);
  ways.goes_on_way.resize(count);
  find_meshes(ways, meshes, fixed, knowledge);
  reserve_scratch(ways, first, count);
}

Bodies make_bodies(const Fixed& fixed) {
  Bodies bodies;
  add_agents(bodies, fixed);
  return bodies;
}

Ways make_ways(Meshes& meshes, const Fixed& fixed, const Bodies& bodies,
               const Knowledge& knowledge) {
  Ways ways;
  add_agents(ways, meshes, fixed, bodies, knowledge);
  return ways;
}

void move_body(Bodies& bodies, Ways& ways, std::uint32_t who, const Vector3d& feet,
               const Vector2d& facing) {
  const Vector3d still{0.0, 0.0, 0.0};
  bodies.position[who] = bodies.previous[who] = bodies.seen_position[who] = feet;
  bodies.last_move[who] = still;
  bodies.facing[who] = bodies.head[who] = bodies.previous_head[who] = facing;
  bodies.head_deg[who] = 0.0;
  bodies.is_airborne[who] = 0;
  ways.is_just_placed[who] = 1;
  ways.highest_of_fall[who].reset();
  ways.velocity[who] = still;
  ways.air_share[who] = 1.0;
  ways.hangs[who] = 1;
  ways.leap.reset(who);
  ways.rests_until[who] = 0;
  ways.pushed[who] = still;
  ways.pace[who] = {0.0, 0.0};
  ways.pace_length[who] = 0.0;
  ways.route[who].is_made = false;
  ways.course[who].is_new = true;
}

void start_at(Bodies& bodies, Ways& ways, std::uint32_t who, const Vector3d& feet,
              const Vector2d& facing) {
  move_body(bodies, ways, who, feet, facing);
  bodies.post[who] = ways.home[who] = feet;
  bodies.placed_facing[who] = bodies.rest_facing[who] = facing;
}

void reset_body(Bodies& bodies, Ways& ways, const Fixed& fixed, std::uint32_t who,
                const Vector3d& feet, const Vector2d& facing) {
  start_at(bodies, ways, who, feet, facing);
  bodies.leader[who].reset();
  ways.stride_left[who] = fixed.level->kinds[fixed.kind_index[who]].move->stride;
  ways.quiet[who] = 0;
  ways.steering.reset(who);
  ways.script_facing.reset(who);
}

void forget_way(Ways& ways, std::uint32_t who) {
  Route& route = ways.route[who];
  route.is_made = false;
  route.own_face = 0;
  route.goal_face = 0;
}

void reset_course(Bodies& bodies, Ways& ways, std::uint32_t who) {
  bodies.trigger.reset(who);
  bodies.has_come[who] = 0;
  ways.course[who] = {};
  ways.left_course[who] = {};
  ways.ring_place.reset(who);
  Route& route = ways.route[who];
  route.points.clear();
  route.links.clear();
  route.is_made = false;
}

}  // namespace gaze
