#include "gaze/simulation.hpp"

#include <fmt/format.h>

#include "combat/cooldown.hpp"
#include "simulation/state.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

KindLimits limits_of(const Kind& kind, int ticks_per_second) {
  KindLimits limits;
  if (kind.sight) {
    limits.notice = {moments_of(kind.sight->notice_time, ticks_per_second),
                     moments_of(kind.sight->remember, ticks_per_second)};
  }
  const double turn_deg = kind.move.turn_rate.degrees() / ticks_per_second;
  limits.turn = sine_cosine(Angle::from_degrees(std::min(turn_deg, 180.0)));
  for (const Attack& attack : kind.attacks) {
    limits.cooldowns.push_back(moments_of(attack.cooldown, ticks_per_second));
    limits.lifetimes.push_back(moments_of(attack.lifetime, ticks_per_second));
  }
  return limits;
}

void place_agent(Simulation::State& state, const Agent& agent) {
  const Kind& kind = state.level->kind_of(agent);
  const SineCosine facing = sine_cosine(agent.facing);
  state.position.push_back(agent.position);
  state.facing.push_back({facing.cosine, facing.sine});
  state.health.push_back(kind.health);
  state.idle.push_back(idle_mode(agent, kind));
  state.ready.emplace_back(kind.attacks.size(), kAlwaysReady);
}

void find_foes(Simulation::State& state) {
  const Level& level = *state.level;
  state.foes_of.resize(level.teams.size());
  for (Index team = 0; team < level.teams.size(); ++team) {
    for (Index i = 0; i < level.agents.size(); ++i) {
      if (is_hostile(level, team, level.kind_of(level.agents[i]).team)) {
        state.foes_of[team].push_back(i);
      }
    }
  }
}

void set_up(Simulation::State& state) {
  const Level& level = *state.level;
  for (const Kind& kind : level.kinds) {
    state.limits.push_back(limits_of(kind, level.ticks_per_second));
  }
  for (const Agent& agent : level.agents) place_agent(state, agent);
  find_foes(state);
  const std::size_t count = level.agents.size();
  state.previous = state.position;
  state.previous_facing = state.facing;
  state.seen_position = state.position;
  state.home = state.position;
  state.placed_facing = state.facing;
  state.mode = state.idle;
  state.alive.assign(count, 1);
  state.target.resize(count);
  state.course.resize(count);
  state.contacts.resize(count);
  state.news.resize(count);
  state.wishes.resize(count);
  sense(state);
  order_events(state);
}

void play_step(Simulation::State& state) {
  ++state.tick;
  decide(state);
  travel(state);
  fight(state);
  sense(state);
  order_events(state);
  state.previous = state.position;
  state.previous_facing = state.facing;
}

void forget_old_events(Simulation::State& state) {
  if (state.events_are_old) {
    state.events.clear();
    state.sorted_events = 0;
  }
  state.events_are_old = true;
}

std::string hindrance(const Simulation::State& state, Index looker, Index other) {
  const std::string& name = state.agent(looker).id;
  const std::string& other_name = state.agent(other).id;
  if (!state.alive[looker]) return fmt::format("{} is defeated", name);
  if (!state.alive[other]) return fmt::format("{} is defeated", other_name);
  const auto team_name = [&](Index who) -> std::string {
    const std::uint32_t team = state.kind(who).team;
    return team == kNoTeam ? "no team" : state.level->teams[team].name;
  };
  if (looker == other) return fmt::format("{} does not look for itself", name);
  if (!is_hostile(*state.level, state.kind(looker).team, state.kind(other).team)) {
    return fmt::format("{} ({}) is not hostile to {} ({}) and does not look for it", name,
                       team_name(looker), other_name, team_name(other));
  }
  return {};
}

const Contact* find_contact(const Simulation::State& state, AgentId looker, AgentId other) {
  for (const Contact& contact : state.contacts[looker.index]) {
    if (contact.other == other.index) return &contact;
  }
  return nullptr;
}

}  // namespace

Simulation::Simulation(const Level& level)
    : Simulation(std::make_shared<const Level>(level), World(level)) {}

Simulation::Simulation(std::shared_ptr<const Level> level, World world)
    : state_(std::make_unique<State>(std::move(level), std::move(world))) {
  set_up(*state_);
}

Simulation::Simulation(const Simulation& other) : state_(std::make_unique<State>(*other.state_)) {}
Simulation::Simulation(Simulation&& other) noexcept = default;
Simulation& Simulation::operator=(const Simulation& other) {
  *this = Simulation(other);
  return *this;
}
Simulation& Simulation::operator=(Simulation&& other) noexcept = default;
Simulation::~Simulation() = default;

void Simulation::step() {
  forget_old_events(*state_);
  play_step(*state_);
}

int Simulation::advance(double frame_seconds) {
  if (!(frame_seconds >= 0.0 && frame_seconds <= 3600.0)) {
    throw UsageError(fmt::format("a frame of {} s; 0 to 3600 is allowed", frame_seconds));
  }
  forget_old_events(*state_);
  // Counted in ticks, so that 60 frames of 1/60 s make 60 steps: what is a billionth of a step
  // short of one has been lost to rounding.
  state_->unspent_ticks += frame_seconds * state_->level->ticks_per_second;
  const int steps = static_cast<int>(std::floor(state_->unspent_ticks + 1e-9));
  state_->unspent_ticks = std::max(0.0, state_->unspent_ticks - steps);
  for (int i = 0; i < steps; ++i) play_step(*state_);
  return steps;
}

std::int64_t Simulation::tick() const {
  return state_->tick;
}

double Simulation::seconds() const {
  return static_cast<double>(state_->tick) / state_->level->ticks_per_second;
}

std::span<const Event> Simulation::events() const {
  if (!state_->events_are_old) return {};
  return state_->events;
}

std::size_t Simulation::agent_count() const {
  return state_->agent_count();
}

AgentId Simulation::agent(std::string_view id) const {
  const std::vector<Agent>& agents = state_->level->agents;
  for (Index i = 0; i < agents.size(); ++i) {
    if (agents[i].id == id) return {i};
  }
  throw UsageError(fmt::format("there is no agent '{}'", id));
}

const std::string& Simulation::id_of(AgentId agent) const {
  return state_->agent(agent.index).id;
}

AgentState Simulation::state(AgentId agent) const {
  const Index i = agent.index;
  if (i >= agent_count()) throw UsageError("no such agent");
  AgentState result{state_->position[i],   state_->facing[i], state_->health[i],
                    state_->alive[i] != 0, state_->mode[i],   std::nullopt};
  if (const auto target = state_->target_agent(i)) result.target = AgentId{*target};
  return result;
}

std::span<const Projectile> Simulation::projectiles() const {
  return state_->projectiles;
}

Looker Simulation::looker(AgentId agent) const {
  const Kind& kind = state_->kind(agent.index);
  if (!kind.sight) throw UsageError(fmt::format("{} has no sight", id_of(agent)));
  return {state_->position[agent.index], state_->facing[agent.index], *kind.sight, false};
}

Looked Simulation::looked(AgentId agent) const {
  return state_->looked(agent.index);
}

Verdict Simulation::look(AgentId looker, AgentId other) const {
  Verdict verdict;
  if (state_->kind(looker.index).sight) {
    Looker eyes = this->looker(looker);
    eyes.has_noticed = awareness(looker, other) == Awareness::noticed;
    verdict = gaze::look(state_->world, *state_->level, eyes, looked(other));
  } else {
    verdict.has_sight = false;
  }
  verdict.looker = id_of(looker);
  verdict.other = id_of(other);
  verdict.hindrance = hindrance(*state_, looker.index, other.index);
  verdict.sees = verdict.sees && verdict.hindrance.empty();
  return verdict;
}

Verdict Simulation::look(std::string_view looker, std::string_view other) const {
  return look(agent(looker), agent(other));
}

Awareness Simulation::awareness(AgentId looker, AgentId other) const {
  const Contact* contact = find_contact(*state_, looker, other);
  if (contact == nullptr) return Awareness::unaware;
  switch (contact->state) {
    case Contact::State::gathering:
      return Awareness::gathering;
    case Contact::State::noticed:
      return Awareness::noticed;
    default:
      return Awareness::remembers;
  }
}

std::optional<Vector3d> Simulation::last_place(AgentId looker, AgentId other) const {
  const Contact* contact = find_contact(*state_, looker, other);
  if (contact == nullptr) return std::nullopt;
  return contact->last_place;
}

void Simulation::set_pose(AgentId agent, const Vector3d& position, Angle facing) {
  if (state_->agent(agent.index).driver != Driver::host) {
    throw UsageError(fmt::format("{} is not driven by the host", id_of(agent)));
  }
  if (!position.allFinite() || !std::isfinite(facing.degrees())) {
    throw UsageError(fmt::format("the pose of {} is not finite", id_of(agent)));
  }
  const SineCosine direction = sine_cosine(facing);
  state_->position[agent.index] = position;
  state_->facing[agent.index] = {direction.cosine, direction.sine};
}

const Level& Simulation::level() const {
  return *state_->level;
}
const World& Simulation::world() const {
  return state_->world;
}

}  // namespace gaze
