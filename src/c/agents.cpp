#include "c/calls.hpp"

/// Who is there, and in what state.
using namespace gaze;
using namespace gaze::c;

static_assert(GAZE_POST == static_cast<int>(Mode::post) &&
              GAZE_OUT == static_cast<int>(Mode::out) &&
              GAZE_FLEE == static_cast<int>(Mode::flee) &&
              GAZE_HOST == static_cast<int>(Mode::host));
static_assert(GAZE_NOBODY_INDEX == kNobody && GAZE_NO_TEAM == kNoTeam);

gaze_status gaze_agents(const gaze_game* game, gaze_agent* agents, size_t room, size_t* count) {
  return guarded([&] {
    const std::vector<AgentId> all = game_of(game).agents();
    need(count, "the count") = all.size();
    if (all.size() > room) return refuse(GAZE_ROOM, "there is no room for all agents");
    if (!all.empty()) need(agents, "the list of agents");
    std::transform(all.begin(), all.end(), agents, [](AgentId id) { return agent_of(id); });
    return GAZE_OK;
  });
}

gaze_status gaze_find(const gaze_game* game, gaze_text id, gaze_agent* agent) {
  return guarded([&] {
    need(agent, "where the agent goes") = agent_of(game_of(game).find_agent(words(id)));
    return GAZE_OK;
  });
}

gaze_status gaze_id(const gaze_game* game, gaze_agent agent, gaze_text* id) {
  return guarded([&] {
    need(id, "where the id goes") = text_of(game_of(game).id_of(id_of(agent)));
    return GAZE_OK;
  });
}

int32_t gaze_is_there(const gaze_game* game, gaze_agent agent) {
  return game != nullptr && game->simulation.is_there(id_of(agent));
}

namespace {

gaze_state state_of_agent(const Simulation& game, AgentId id) {
  const AgentState state = game.state(id);
  gaze_state filled{};
  filled.position = vector_of(state.position);
  filled.facing_x = state.facing.x();
  filled.facing_y = state.facing.y();
  filled.head_x = state.head.x();
  filled.head_y = state.head.y();
  filled.health = state.health;
  filled.score = state.score;
  filled.target = agent_of(state.target);
  filled.team = game.level().kind_of(game.level().agents[id.index]).team;
  filled.mode = static_cast<int32_t>(state.mode);
  filled.is_alive = state.is_alive;
  filled.is_awake = state.is_awake;
  return filled;
}

// All have to be there before anything is done.
void need_all(const Simulation& game, const gaze_agent* agents, size_t count) {
  if (count > 0) need(agents, "the list of agents");
  for (size_t i = 0; i < count; ++i) static_cast<void>(game.state(id_of(agents[i])));
}

}  // namespace

gaze_status gaze_states(const gaze_game* game, const gaze_agent* agents, size_t count,
                        gaze_state* states, size_t stride) {
  return guarded([&] {
    const Simulation& simulation = game_of(game);
    need_all(simulation, agents, count);
    size_t told = 0;
    return fill_list(count, states, count, stride, &told,
                     [&](size_t i) { return state_of_agent(simulation, id_of(agents[i])); });
  });
}

gaze_status gaze_set_poses(gaze_game* game, const gaze_agent* agents, size_t count,
                           const gaze_pose* poses, size_t stride) {
  return guarded([&] {
    Simulation& simulation = game_of(game);
    need_all(simulation, agents, count);
    if (count == 0) return GAZE_OK;
    need(poses, "the list of poses");
    need_stride(count, stride, sizeof(gaze_pose));
    const auto for_each = [&](auto&& what) {
      for (size_t i = 0; i < count; ++i) {
        const gaze_pose& pose = *at(poses, i, stride);
        what(id_of(agents[i]), vector_of(pose.position), Angle::from_degrees(pose.facing_deg));
      }
    };
    for_each([&](AgentId agent, const Vector3d& position, Angle facing) {
      simulation.check_pose(agent, position, facing);
    });
    for_each([&](AgentId agent, const Vector3d& position, Angle facing) {
      simulation.set_pose(agent, position, facing);
    });
    return GAZE_OK;
  });
}

gaze_status gaze_set_aim(gaze_game* game, gaze_agent agent, const gaze_vector* aim, int32_t fires) {
  return guarded([&] {
    const auto place = aim == nullptr ? std::nullopt : std::optional(vector_of(*aim));
    game_of(game).set_aim(id_of(agent), place, fires != 0);
    return GAZE_OK;
  });
}
