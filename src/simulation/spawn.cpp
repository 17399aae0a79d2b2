#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <string>

#include "agents/pools.hpp"
#include "combat/cooldown.hpp"
#include "combat/damage.hpp"
#include "combat/make_fights.hpp"
#include "combat/things.hpp"
#include "level/named_kind.hpp"
#include "mind/deciding.hpp"
#include "simulation/change.hpp"
#include "simulation/make_fixed.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"
#include "travel/travelling.hpp"
#include "values/playable.hpp"

/// Agents that come into a running game, leave it, or become others.
namespace gaze {
namespace {

using Index = std::uint32_t;

// The agent with all that was left out. Throws where it may not be in the level.
Agent checked(const Level& level, const Agent& wished) {
  if (wished.kind >= level.kinds.size()) {
    throw UsageError(fmt::format("there is no kind of number {}", wished.kind));
  }
  if (!wished.script.empty() || wished.driver == Driver::script) {
    throw UsageError("who is put into a running game has no script");
  }
  if (level.agents.size() >= LevelLimits::agents) {
    throw UsageError(fmt::format("{} agents; at most so many are allowed", level.agents.size()));
  }
  need_no_fault(faults_of(level, wished));
  Agent agent = wished;
  if (!agent.driver) agent.driver = Driver::mind;
  agent.is_spare = false;
  return agent;
}

bool is_in_use(const Simulation::State& state, const std::string& id) {
  for (Index who = 0; who < state.agent_count(); ++who) {
    if (state.fixed.vacancy[who] == Vacancy::none && state.agent(who).id == id) return true;
  }
  return false;
}

// The name of the kind with the first number that is free.
std::string next_id(const Simulation::State& state, const Kind& kind) {
  const std::string name = kind.name + "-";
  std::vector<char> is_used(state.agent_count() + 2);
  for (Index who = 0; who < state.agent_count(); ++who) {
    const std::string& id = state.agent(who).id;
    if (state.fixed.vacancy[who] != Vacancy::none || !id.starts_with(name)) continue;
    std::size_t number = 0;
    const char* end = id.data() + id.size();
    const auto read = std::from_chars(id.data() + name.size(), end, number);
    if (read.ec == std::errc{} && read.ptr == end && number < is_used.size()) is_used[number] = 1;
  }
  std::size_t number = 1;
  while (is_used[number]) ++number;
  return name + std::to_string(number);
}

// A number that is free is given to one of the same kind alone: what is kept for it to leave behind
// serves the next one. One that the level names (a door that opens for it, say) is given to nobody
// but who bears that name.
std::optional<Index> vacant_number(const Simulation::State& state, const Agent& agent) {
  std::optional<Index> free;
  for (Index who = 0; who < state.agent_count(); ++who) {
    const Vacancy vacancy = state.fixed.vacancy[who];
    if (vacancy == Vacancy::none || state.fixed.kind_index[who] != agent.kind) continue;
    if (state.agent(who).id == agent.id) return who;
    if (vacancy == Vacancy::free && !free) free = who;
  }
  return free;
}

// True if something in the level names the agent.
bool is_named(const Level& level, Index who) {
  const std::string& id = level.agents[who].id;
  const auto any = [](const auto& list, auto&& what) {
    return std::any_of(list.begin(), list.end(), what);
  };
  const auto has = [&](const std::vector<std::string>& names) {
    return std::find(names.begin(), names.end(), id) != names.end();
  };
  const auto lists = [&](const std::vector<Index>& agents) {
    return std::find(agents.begin(), agents.end(), who) != agents.end();
  };
  return any(level.zones,
             [&](const Zone& zone) {
               return has(zone.triggered_by) || has(zone.closed_to) || lists(zone.tells) ||
                      lists(zone.wakes);
             }) ||
         any(level.solids, [&](const Solid& solid) { return has(solid.door.opens_for); }) ||
         any(level.starts,
             [&](const Start& start) { return start.kind == id || start.apart_from == id; }) ||
         any(level.kinds,
             [&](const Kind& kind) {
               return (kind.thing && has(kind.thing->picked_up_by)) || has(kind.defeat.tells) ||
                      has(kind.defeat.wakes) || has(kind.move->follows) ||
                      any(kind.when.rules,
                          [&](const Rule& rule) { return has(rule.reaction.wakes); });
             }) ||
         any(level.figures,
             [&](const Figure& figure) {
               return figure.by == id || figure.of == id ||
                      any(figure.between,
                          [&](const EventPick& pick) { return pick.by == id || pick.of == id; });
             }) ||
         any(level.expectations,
             [&](const Expectation& one) { return one.figure.starts_with(id + "."); }) ||
         any(level.agents, [&](const Agent& agent) {
           return any(agent.script, [&](const ScriptStep& step) { return step.name == id; });
         });
}

// Those that were taken out have given up their ids.
void free_id(Level& level, const Fixed& fixed, const std::string& id) {
  for (Index who = 0; who < level.agents.size(); ++who) {
    if (fixed.vacancy[who] != Vacancy::none && level.agents[who].id == id) {
      level.agents[who].id = fmt::format("{}-{}-gone", id, who);
    }
  }
}

Index add(std::unique_ptr<Simulation::State>& state, const Agent& agent) {
  Changing change(state);
  const auto vacant = vacant_number(*state, agent);
  free_id(change.level, change.fixed, agent.id);
  if (vacant) {
    change.level.agents[*vacant] = agent;
    change.fixed.vacancy[*vacant] = Vacancy::none;
    change.fixed.links.scripts[*vacant].clear();
    put_agent(change.fixed, *vacant);
    return *vacant;
  }
  const auto who = static_cast<Index>(change.level.agents.size());
  change.level.agents.push_back(agent);
  add_pools(change.level, change.fixed.pools, who,
            [&](const std::string& id) { return is_in_use(*state, id); });
  put_agents(change.fixed, who);
  add_agents(*state, who);
  return who;
}

// If there is no mesh for its body yet, it is made here and not in the midst of a step.
void look_for_mesh(Simulation::State& state, Index who) {
  Travelling travelling(state);
  find_mesh(travelling, who);
  add_meshes(state.meshes, state.fixed, state.world, who, who + 1);
}

// As it is at the beginning of a game: it has always stood there.
void begin_with(Simulation::State& state, Index who) {
  const Agent& agent = state.agent(who);
  Vector3d feet = agent.position;
  feet.z() = altitude_of(state.level(), state.kind(who), feet);
  const SineCosine facing = sine_cosine(agent.facing);
  state.minds.mode[who] = state.fixed.idle[who];
  state.minds.mode_since[who] = state.now();
  state.lives.returns_at[who] = kNeverReady;
  state.lives.defeated_by[who].reset();
  state.score[who] = 0.0;
  state.fights.last_blast.reset(who);
  state.told.last_noise.reset(who);
  appear(state, who, feet, {facing.cosine, facing.sine});
  state.minds.awake[who] = !agent.is_asleep;
  look_for_mesh(state, who);
  Travelling travelling(state);
  turn_head(travelling, who);
  state.bodies.previous_head[who] = state.bodies.head[who];
}

void put_down_all(Simulation::State& state, Index who) {
  Fighting fighting(state);
  Travelling travelling(state);
  drop_all(fighting, who, state.bodies.position[who]);
  release_things(fighting);
  place_things(travelling);
}

void take_out(Simulation::State& state, Fixed& fixed, Level& level, Index who) {
  state.lives.alive[who] = 0;
  state.lives.presence[who] = Presence::away;
  state.lives.returns_at[who] = kNeverReady;
  state.minds.mode[who] = Mode::out;
  state.knowledge.contacts[who].clear();
  state.knowledge.clue.reset(who);
  // What was left behind goes on to be kept for the next that is.
  if (!level.agents[who].is_spare) {
    fixed.vacancy[who] = is_named(level, who) ? Vacancy::of_that_name : Vacancy::free;
  }
  level.agents[who].is_spare = true;
  ++fixed.generation[who];
}

}  // namespace

AgentId Simulation::spawn(std::string_view kind, const Vector3d& position, Angle facing,
                          std::string_view id, Driver driver) {
  Agent agent;
  agent.driver = driver;
  agent.kind = kind_called(level(), kind);
  agent.id = id.empty() ? next_id(*state_, level().kinds[agent.kind]) : std::string(id);
  agent.position = position;
  agent.facing = facing;
  return spawn(agent);
}

AgentId Simulation::spawn(const Agent& wished) {
  const Agent agent = checked(level(), wished);
  if (is_in_use(*state_, agent.id)) {
    throw UsageError(fmt::format("there is an agent '{}' already", agent.id));
  }
  const Index who = add(state_, agent);
  begin_with(*state_, who);
  return state_->id_of(who);
}

void Simulation::despawn(AgentId agent) {
  despawn(std::span<const AgentId>(&agent, 1));
}

void Simulation::despawn(std::span<const AgentId> agents) {
  std::vector<char> goes(state_->agent_count());
  for (const AgentId& agent : agents) {
    const Index who = state_->index_of(agent);
    if (!state_->is_in_game(who)) {
      throw UsageError(fmt::format("{} is not there", id_of(agent)));
    }
    goes[who] = 1;
  }
  Changing change(state_);
  for (Index who = 0; who < goes.size(); ++who) {
    if (goes[who]) put_down_all(*state_, who);
  }
  strike_out(*state_, goes);
  for (Index who = 0; who < goes.size(); ++who) {
    if (goes[who]) take_out(*state_, change.fixed, change.level, who);
  }
}

void Simulation::set_kind(AgentId agent, std::string_view name) {
  const Index who = state_->index_of(agent);
  const Index kind = kind_called(level(), name);
  Agent other = state_->agent(who);
  other.kind = kind;
  need_no_fault(faults_of(level(), other));
  if (other.is_spare) {
    throw UsageError(fmt::format("{} was left behind, and stays what it is", other.id));
  }
  if (state_->kind(who).thing || level().kinds[kind].thing) {
    throw UsageError("a thing is always a thing, and nothing else becomes one");
  }
  Changing change(state_);
  const auto first = static_cast<Index>(change.level.agents.size());
  change.level.agents[who].kind = kind;
  add_pools(change.level, change.fixed.pools, who,
            [&](const std::string& id) { return is_in_use(*state_, id); });
  put_agent(change.fixed, who);
  put_agents(change.fixed, first);
  add_agents(*state_, first);
  change_kind(state_->lives, state_->fights, state_->fixed, who);
  look_for_mesh(*state_, who);
}

}  // namespace gaze
