#include <algorithm>
#include <set>
#include <string>

#include "combat/cooldown.hpp"
#include "simulation/stages.hpp"

/// What a defeat brings: a burst, what is left behind, score, word of it, and a return.
namespace gaze {
namespace {

using Index = std::uint32_t;

void burst_at_defeat(Simulation::State& state, Index who, Index by, Moment when) {
  const Kind& kind = state.kind(who);
  if (kind.defeat.attack.empty()) return;
  for (const Attack& attack : kind.attacks) {
    if (attack.name != kind.defeat.attack) continue;
    blast(state, by, who, attack, state.middle(who), attack.range, when);
  }
}

void tell_and_wake(Simulation::State& state, Index who, std::optional<Index> by) {
  const Defeat& defeat = state.kind(who).defeat;
  const auto named = [](const std::vector<std::string>& ids, const std::string& id) {
    return std::find(ids.begin(), ids.end(), id) != ids.end();
  };
  for (Index other = 0; other < state.fixed.placed; ++other) {
    const std::string& id = state.agent(other).id;
    const bool is_woken = named(defeat.wakes, id);
    const bool is_told = named(defeat.tells, id);
    if (is_woken) wake(state, other);
    if (is_told && by) tell_of(state, other, *by);
    if (is_woken || is_told) state.fire(other, Cause::triggered, "");
  }
}

// The one that has lain longest, if all are in use.
void put_next(Simulation::State& state, Leftover& leftover, const Vector3d& feet,
              const Vector2d& facing) {
  appear(state, leftover.first + leftover.next, feet, facing);
  leftover.next = (leftover.next + 1) % leftover.count;
}

void come_back_later(Simulation::State& state, Index who) {
  const auto& respawn = state.kind(who).defeat.respawn;
  if (!respawn) return;
  state.lives.returns_at[who] = state.now() + state.moments(*respawn);
  state.fights.returning.push_back(who);
}

void clear_mind(Simulation::State& state, Index who) {
  state.knowledge.contacts[who].clear();
  state.minds.target[who].reset();
  state.minds.has_target[who] = 0;
  state.knowledge.clue[who].reset();
  state.bodies.leader[who].reset();
  state.told.news[who] = {};
  state.minds.urged[who] = 0;
  // What it was about to do, and what was on its way to be told to it, is not done after a return.
  std::erase_if(state.minds.pending, [&](const Pending& one) { return one.who == who; });
  std::erase_if(state.senses.alarms, [&](const Alarm& one) { return one.to == who; });
  state.ways.pushed[who] = {0.0, 0.0, 0.0};
}

void reset_body(Simulation::State& state, Index who, const Vector3d& feet, const Vector2d& facing) {
  const Kind& kind = state.kind(who);
  state.bodies.position[who] = state.bodies.previous[who] = state.bodies.seen_position[who] = feet;
  state.ways.home[who] = state.bodies.post[who] = feet;
  state.bodies.last_move[who] = {0.0, 0.0, 0.0};
  state.bodies.facing[who] = state.bodies.head[who] = state.bodies.previous_head[who] = facing;
  state.bodies.placed_facing[who] = state.bodies.rest_facing[who] = facing;
  state.bodies.head_deg[who] = 0.0;
  state.lives.health[who] = kind.health;
  state.ways.stride_left[who] = kind.move.stride;
  state.ways.quiet[who] = 0;
  state.ways.script_facing[who].reset();
  state.bodies.is_airborne[who] = 0;
  state.ways.is_just_placed[who] = 1;
  state.ways.highest_of_fall[who].reset();
  state.ways.velocity[who] = {0.0, 0.0, 0.0};
  state.ways.air_share[who] = 1.0;
  state.ways.hangs[who] = 1;
  state.ways.flight[who] = {};
  state.ways.rests_until[who] = 0;
  state.ways.pace[who] = {0.0, 0.0};
  state.ways.pace_length[who] = 0.0;
}

void reset_senses(Simulation::State& state, Index who) {
  state.knowledge.tags[who] = state.limit(who).tags;
  change_body(state, who);
  state.senses.zones_of[who].clear();
  state.senses.touching[who].clear();
  state.knowledge.feelers[who] = 0;
  state.senses.was_near[who] = 0;
  state.minds.lasted[who] = 0;
  state.minds.turned_back[who] = {};
}

void reset_means(Simulation::State& state, Index who) {
  const Kind& kind = state.kind(who);
  state.ways.course[who] = {};
  state.ways.left_course[who] = {};
  state.bodies.trigger[who] = {};
  state.fights.grace_until[who] = kAlwaysReady;
  state.lives.hurt_at[who] = kAlwaysReady;
  Route& route = state.ways.route[who];
  route.points.clear();
  route.links.clear();
  route.is_made = false;
  for (std::size_t i = 0; i < kind.attacks.size(); ++i) {
    state.fights.ready[who][i] = {kAlwaysReady, kind.attacks[i].ammunition};
  }
  for (std::size_t i = 0; i < kind.carries.size(); ++i) {
    state.fights.pockets[who][i] = kind.carries[i].count;
  }
}

/// Calls `use(kind, attack, count)` for everything that an agent of a kind may leave behind: at its
/// defeat, without an attack, or where what it fires or throws ends.
template <typename Use>
void for_each_leftover(const Level& level, const Kind& kind, Use&& use) {
  const auto of_flight = [&](const Attack& attack) {
    if (attack.leaves) use(*attack.leaves, &attack, static_cast<Index>(attack.keeps));
  };
  if (kind.defeat.leaves) use(*kind.defeat.leaves, nullptr, Index{1});
  for (const Attack& attack : kind.attacks) of_flight(attack);
  if (kind.thing) of_flight(kind.thing->flight);
  for (const Pocket& pocket : kind.carries) of_flight(level.kinds[pocket.kind].thing->flight);
}

std::string free_id(std::set<std::string>& ids, std::string id) {
  while (!ids.insert(id).second) id += "-left";
  return id;
}

}  // namespace

// In the order of owners, so that those of one of its sources lie together. The level of a
// simulation holds its leftovers already: they are made anew.
std::shared_ptr<const Level> with_leftovers(std::shared_ptr<const Level> level) {
  const auto is_leftover = [](const Agent& agent) { return agent.is_leftover; };
  if (std::any_of(level->agents.begin(), level->agents.end(), is_leftover)) {
    auto as_written = std::make_shared<Level>(*level);
    std::erase_if(as_written->agents, is_leftover);
    level = std::move(as_written);
  }
  const auto leaves = [&](const Agent& agent) {
    bool any = false;
    for_each_leftover(*level, level->kind_of(agent),
                      [&](std::uint32_t, const Attack*, Index) { any = true; });
    return any;
  };
  if (std::none_of(level->agents.begin(), level->agents.end(), leaves)) return level;
  auto extended = std::make_shared<Level>(*level);
  std::vector<Agent>& agents = extended->agents;
  std::set<std::string> ids;
  for (const Agent& agent : agents) ids.insert(agent.id);
  for (std::size_t owner = 0; owner < agents.size(); ++owner) {
    for_each_leftover(*extended, extended->kind_of(agents[owner]),
                      [&](std::uint32_t kind, const Attack*, Index count) {
                        for (Index i = 1; i <= count; ++i) {
                          Agent agent;
                          agent.id = agents[owner].id + "-" + extended->kinds[kind].name;
                          agent.id = free_id(
                              ids, count > 1 ? agent.id + "-" + std::to_string(i) : agent.id);
                          agent.kind = kind;
                          agent.is_leftover = true;
                          agent.position = agents[owner].position;
                          agent.facing = agents[owner].facing;
                          agent.place = agents[owner].place;
                          agents.push_back(std::move(agent));
                        }
                      });
  }
  return extended;
}

void set_up_defeats(Simulation::State& state) {
  const Index count = static_cast<Index>(state.level().agents.size());
  state.lives.presence.assign(count, Presence::here);
  state.run.score.resize(count);
  state.lives.defeated_by.resize(count);
  state.lives.returns_at.assign(count, kNeverReady);
  Index next = static_cast<Index>(state.fixed.placed);
  for (Index owner = 0; owner < count; ++owner) {
    for_each_leftover(state.level(), state.kind(owner),
                      [&](std::uint32_t, const Attack* attack, Index number) {
                        state.fights.leftovers.push_back({owner, attack, next, number, 0});
                        next += number;
                      });
  }
  for (Index who = static_cast<Index>(state.fixed.placed); who < count; ++who) {
    state.lives.presence[who] = Presence::away;
    state.lives.alive[who] = 0;
    state.minds.mode[who] = Mode::out;
  }
}

void put_out(Simulation::State& state, Index who) {
  drop_all(state, who);
  state.lives.alive[who] = 0;
  state.lives.presence[who] = Presence::here;
  state.change_mode(who, Mode::out);
  clear_mind(state, who);
}

void defeat(Simulation::State& state, Index who, std::optional<Index> by, Moment when) {
  state.lives.health[who] = 0.0;
  state.lives.defeated_by[who] = by;
  Event& event = state.tell(Event::What::defeated, who);
  if (by) {
    event.other = AgentId{*by};
    event.score = state.kind(who).defeat.score;
    state.run.score[*by] += event.score;
  }
  put_out(state, who);
  burst_at_defeat(state, who, by.value_or(who), when);
  for (Leftover& leftover : state.fights.leftovers) {
    if (leftover.owner != who || leftover.attack != nullptr) continue;
    put_next(state, leftover, state.bodies.position[who], state.bodies.facing[who]);
  }
  tell_and_wake(state, who, by);
  come_back_later(state, who);
}

// As it began, but for its health and what it has.
void put_back(Simulation::State& state, Index who) {
  const double health = state.lives.health[who];
  const Vector3d feet = state.bodies.post[who];
  const Vector2d facing = state.bodies.placed_facing[who];
  clear_mind(state, who);
  reset_body(state, who, feet, facing);
  state.lives.health[who] = health;
  state.senses.touching[who].clear();
  state.ways.route[who].is_made = false;
  state.ways.course[who].is_new = true;  // a script goes on from there
  if (state.fixed.driver[who] != Driver::mind) return;
  state.ways.course[who] = state.ways.left_course[who] = {};
  state.change_mode(who, state.fixed.idle[who]);
}

void leave_behind(Simulation::State& state, Index owner, const Attack& attack,
                  const Vector3d& place) {
  if (!attack.leaves) return;
  for (Leftover& leftover : state.fights.leftovers) {
    if (leftover.owner != owner || leftover.attack != &attack) continue;
    const Vector3d feet = place - Vector3d{0.0, 0.0, attack.radius};
    put_next(state, leftover, feet, state.bodies.facing[owner]);
  }
}

// It has done nothing yet, and what it did before is forgotten.
void appear(Simulation::State& state, Index who, const Vector3d& feet, const Vector2d& facing) {
  clear_mind(state, who);
  reset_body(state, who, feet, facing);
  reset_senses(state, who);
  reset_means(state, who);
  state.lives.alive[who] = 1;
  state.minds.awake[who] = 1;
  state.lives.presence[who] = Presence::here;
  state.bodies.is_airborne[who] = state.kind(who).thing.has_value();  // it falls to what is below
  state.change_mode(who, state.fixed.idle[who]);
}

void bring_back(Simulation::State& state) {
  std::erase_if(state.fights.returning, [&](Index who) {
    if (state.lives.returns_at[who] > state.now()) return false;
    state.lives.returns_at[who] = kNeverReady;
    const SineCosine facing = sine_cosine(state.agent(who).facing);
    appear(state, who, state.agent(who).position, {facing.cosine, facing.sine});
    choose_start(state, who);
    return true;
  });
}

}  // namespace gaze
