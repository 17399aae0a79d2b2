#include "c/calls.hpp"

/// What a host decides between two steps.
using namespace gaze;
using namespace gaze::c;

namespace {

// Of a call that says whether it has done anything.
template <typename Do>
gaze_status told(int32_t* done, Do&& what) {
  return guarded([&] {
    const bool is_done = what();
    if (done != nullptr) *done = is_done;
    return GAZE_OK;
  });
}

template <typename Do>
gaze_status simply(Do&& what) {
  return guarded([&] {
    what();
    return GAZE_OK;
  });
}

}  // namespace

gaze_status gaze_teleport(gaze_game* game, gaze_agent agent, gaze_pose pose, int32_t* done) {
  return told(done, [&] {
    return game_of(game).teleport(id_of(agent), vector_of(pose.position),
                                  Angle::from_degrees(pose.facing_deg));
  });
}

gaze_status gaze_hurt(gaze_game* game, gaze_agent agent, double points, gaze_agent by,
                      int32_t* done) {
  return told(done, [&] { return game_of(game).hurt(id_of(agent), points, maybe(by)); });
}

gaze_status gaze_heal(gaze_game* game, gaze_agent agent, double points, int32_t* done) {
  return told(done, [&] { return game_of(game).heal(id_of(agent), points); });
}

gaze_status gaze_revive(gaze_game* game, gaze_agent agent, int32_t* done) {
  return told(done, [&] { return game_of(game).revive(id_of(agent)); });
}

gaze_status gaze_wake(gaze_game* game, gaze_agent agent) {
  return simply([&] { game_of(game).wake(id_of(agent)); });
}

gaze_status gaze_give_tag(gaze_game* game, gaze_agent agent, gaze_text tag) {
  return simply([&] { game_of(game).give_tag(id_of(agent), words(tag)); });
}

gaze_status gaze_take_tag(gaze_game* game, gaze_agent agent, gaze_text tag) {
  return simply([&] { game_of(game).take_tag(id_of(agent), words(tag)); });
}

gaze_status gaze_take(gaze_game* game, gaze_agent agent, gaze_agent thing, int32_t* done) {
  return told(done, [&] { return game_of(game).take(id_of(agent), id_of(thing)); });
}

gaze_status gaze_throw(gaze_game* game, gaze_agent agent, gaze_text kind, gaze_vector place,
                       int32_t* done) {
  return told(
      done, [&] { return game_of(game).throw_thing(id_of(agent), words(kind), vector_of(place)); });
}

gaze_status gaze_drop(gaze_game* game, gaze_agent agent) {
  return simply([&] { game_of(game).drop(id_of(agent)); });
}

gaze_status gaze_make_noise(gaze_game* game, gaze_vector place, double reach, gaze_text name,
                            gaze_agent maker) {
  return simply(
      [&] { game_of(game).make_noise(vector_of(place), reach, words(name), maybe(maker)); });
}

gaze_status gaze_set_gone(gaze_game* game, uint32_t solid, int32_t is_gone) {
  return simply([&] { game_of(game).set_gone({solid}, is_gone != 0); });
}

gaze_status gaze_add_block(gaze_game* game, gaze_text id, const double* outline, size_t corners,
                           double base, double height, uint32_t material, int32_t can_go,
                           uint32_t* solid) {
  return simply([&] {
    Solid block;
    block.id = words(id);
    if (corners > 0) need(outline, "the outline");
    if (corners > LevelLimits::outline_points) throw UsageError("an outline of too many corners");
    for (size_t i = 0; i < corners; ++i) {
      block.points.emplace_back(outline[2 * i], outline[2 * i + 1]);
    }
    block.base = base;
    block.height = height;
    block.material = material;
    block.can_go = can_go != 0;
    const SolidId added = game_of(game).add_solid(block);
    if (solid != nullptr) *solid = added.index;
  });
}

gaze_status gaze_spawn(gaze_game* game, gaze_text kind, gaze_pose pose, gaze_text id,
                       int32_t host_drives, gaze_agent* agent) {
  return simply([&] {
    const Driver driver = host_drives != 0 ? Driver::host : Driver::mind;
    const AgentId spawned =
        game_of(game).spawn(words(kind), vector_of(pose.position),
                            Angle::from_degrees(pose.facing_deg), words(id), driver);
    if (agent != nullptr) *agent = agent_of(spawned);
  });
}

gaze_status gaze_despawn(gaze_game* game, const gaze_agent* agents, size_t count) {
  return simply([&] {
    if (count > 0) need(agents, "the list of agents");
    std::vector<AgentId> ids;
    std::transform(agents, agents + count, std::back_inserter(ids), id_of);
    game_of(game).despawn(ids);
  });
}

gaze_status gaze_set_kind(gaze_game* game, gaze_agent agent, gaze_text kind) {
  return simply([&] { game_of(game).set_kind(id_of(agent), words(kind)); });
}

gaze_status gaze_set_value(gaze_game* game, gaze_text path, double value) {
  return simply([&] { game_of(game).set_value(words(path), value); });
}

gaze_status gaze_value(const gaze_game* game, gaze_text path, double* value) {
  return simply([&] { need(value, "where the value goes") = game_of(game).value(words(path)); });
}
