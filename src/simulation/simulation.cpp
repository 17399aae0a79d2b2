#include "gaze/simulation.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include "sense/sensing.hpp"
#include "simulation/stages.hpp"

namespace gaze {
namespace {

using Index = std::uint32_t;

void forget_old_events(Simulation::State& state) {
  if (state.events.are_shown) {
    state.events.all.clear();
    state.events.sorted = 0;
  }
  state.events.are_shown = true;
}

// Why somebody who is hostile is not looked for: which of the filters leaves it out.
std::string filter_text(const Simulation::State& state, Index looker, Index other) {
  const Kind& kind = state.kind(looker);
  const std::string& name = state.agent(looker).id;
  const std::string& other_name = state.agent(other).id;
  const KindLimits& limits = state.limit(looker);
  if (!limits.wants_team[state.kind(other).team]) {
    return fmt::format("{} looks for agents of {} only; {} is of {}", name,
                       fmt::join(kind.choose.teams, ", "), other_name,
                       state.level().teams[state.kind(other).team].name);
  }
  if (!limits.wants_kind.empty() && !limits.wants_kind[state.fixed.kind_index[other]]) {
    return fmt::format("{} looks for agents of the kind {} only; {} is a {}", name,
                       fmt::join(kind.choose.kinds, ", "), other_name, state.kind(other).name);
  }
  std::vector<std::string> tags;
  for (std::size_t bit = 0; bit < state.fixed.openings.tag_names.size(); ++bit) {
    if ((state.knowledge.tags[other] >> bit & 1U) != 0)
      tags.push_back(state.fixed.openings.tag_names[bit]);
  }
  return fmt::format("{} looks for agents tagged {} only; {} has {}", name,
                     fmt::join(kind.choose.tags, " or "), other_name,
                     tags.empty() ? "no tag" : fmt::format("{}", fmt::join(tags, ", ")));
}

std::string_view absence(const Simulation::State& state, Index who) {
  constexpr std::array<std::string_view, 4> kWords{"defeated", "not there yet", "carried",
                                                   "in flight"};
  return kWords[static_cast<std::size_t>(state.lives.presence[who])];
}

std::string hindrance(const Simulation::State& state, Index looker, Index other) {
  const std::string& name = state.agent(looker).id;
  const std::string& other_name = state.agent(other).id;
  if (!state.lives.alive[looker]) return fmt::format("{} is {}", name, absence(state, looker));
  if (!state.lives.alive[other]) return fmt::format("{} is {}", other_name, absence(state, other));
  const auto team_name = [&](Index who) -> std::string {
    const std::uint32_t team = state.kind(who).team;
    return team == kNoTeam ? "no team" : state.level().teams[team].name;
  };
  if (!state.minds.awake[looker]) return fmt::format("{} is asleep until something wakes it", name);
  if (looker == other) return fmt::format("{} does not look for itself", name);
  if (!is_hostile(state.level(), state.kind(looker).team, state.kind(other).team)) {
    return fmt::format("{} ({}) is not hostile to {} ({}) and does not look for it", name,
                       team_name(looker), other_name, team_name(other));
  }
  if (!state.looks_for(looker, other)) return filter_text(state, looker, other);
  return {};
}

const Contact* find_contact(const Simulation::State& state, AgentId looker, AgentId other) {
  const Index about = state.index_of(other);
  for (const Contact& contact : state.knowledge.contacts[state.index_of(looker)]) {
    if (contact.other == about) return &contact;
  }
  return nullptr;
}

// Which share of the evidence that sight needs has been gathered.
double gathered_share(const Simulation::State& state, AgentId looker, AgentId other) {
  const Contact* contact = find_contact(state, looker, other);
  if (contact == nullptr) return 0.0;
  if (contact->is_seen) return 1.0;
  const Moment needed = state.limit(looker.index).notice.notice_time;
  return needed == 0 ? 0.0 : static_cast<double>(contact->gathered) / static_cast<double>(needed);
}

}  // namespace

bool looks_now(const Simulation::State& state, Index looker, Index other) {
  return looker != other && state.is_up(looker) && state.lives.alive[other] &&
         is_hostile(state.level(), state.kind(looker).team, state.kind(other).team) &&
         state.looks_for(looker, other);
}

std::uint32_t Simulation::State::index_of(AgentId id) const {
  if (id.index < agent_count()) {
    if (id.generation == fixed.generation[id.index]) return id.index;
    throw UsageError(
        fmt::format("the agent of number {} that is meant is no longer there: it was "
                    "the {}. of that number",
                    id.index, id.generation + 1));
  }
  if (id.index == kNobody) throw UsageError("the agent is nobody: its number was never set");
  throw UsageError(fmt::format("there is no agent of number {}; there are {}, from 0 on", id.index,
                               agent_count()));
}

Simulation::Simulation(const Prepared& prepared) {
  const Prepared::Data& data = data_of(prepared);
  state_ = std::make_unique<State>(data.fixed, data.world, data.meshes);
  begin(*state_);
}

Simulation::Simulation(const Prepared& prepared, std::shared_ptr<const RaySource> host) {
  const Prepared::Data& data = data_of(prepared);
  state_ = std::make_unique<State>(data.fixed, data.world.with_host(std::move(host)), data.meshes);
  begin(*state_);
}

Simulation::Simulation(const Level& level) : Simulation(Prepared(level)) {}

Simulation::Simulation(const std::shared_ptr<const Level>& level, const World& world)
    : Simulation(Prepared(level, world)) {}

Simulation::Simulation(const Simulation& other)
    : state_(other.state_ ? std::make_unique<State>(*other.state_) : nullptr) {}
Simulation::Simulation(Simulation&& other) noexcept = default;
Simulation& Simulation::operator=(const Simulation& other) {
  if (this == &other) return *this;
  if (!state_ || !other.state_ || state_->shared != other.state_->shared) {
    *this = Simulation(other);
  } else {  // what is there is written over, and its memory is used again
    static_cast<RunState&>(*state_) = *other.state_;
    static_cast<RoundState&>(*state_) = *other.state_;
  }
  return *this;
}
Simulation& Simulation::operator=(Simulation&& other) noexcept = default;
Simulation::~Simulation() = default;

void Simulation::step() {
  forget_old_events(*state_);
  play_step(*state_);
}

Advance Simulation::advance(double frame_seconds, int most_steps) {
  if (!(frame_seconds >= 0.0 && frame_seconds <= 3600.0)) {
    throw UsageError(fmt::format("a frame of {} s; 0 to 3600 is allowed", frame_seconds));
  }
  if (most_steps < 0) throw UsageError(fmt::format("at most {} steps; 0 and up", most_steps));
  forget_old_events(*state_);
  const int rate = state_->level().ticks_per_second;
  // Time is counted in ticks, so that 60 frames of 1/60 s make 60 steps. A step that is a billionth
  // short has merely lost that to rounding, and is taken.
  double& unspent = state_->unspent_ticks;
  unspent += frame_seconds * rate;
  const int due = static_cast<int>(std::floor(unspent + 1e-9));
  unspent = std::max(0.0, unspent - due);
  Advance done;
  done.steps = std::min(due, most_steps);
  done.left_over = unspent;
  done.lost_seconds = static_cast<double>(due - done.steps) / rate;
  for (int i = 0; i < done.steps; ++i) play_step(*state_);
  return done;
}

std::int64_t Simulation::tick() const noexcept {
  return state_->clock.tick;
}

double Simulation::seconds() const noexcept {
  return static_cast<double>(state_->clock.tick) / state_->level().ticks_per_second;
}

std::span<const Event> Simulation::events() const noexcept {
  if (!state_->events.are_shown) return {};
  return state_->events.all;
}

std::vector<Event> Simulation::events(const EventFilter& filter) const {
  if (filter.agent) static_cast<void>(state_->index_of(*filter.agent));
  std::vector<Event> picked;
  for (const Event& event : events()) {
    const bool is_about =
        !filter.agent || event.agent == *filter.agent || event.other == filter.agent;
    if (is_about && (!filter.what || event.what == *filter.what)) picked.push_back(event);
  }
  return picked;
}

std::size_t Simulation::agent_count() const noexcept {
  std::size_t count = 0;
  for (Index who = 0; who < state_->agent_count(); ++who) count += state_->is_in_game(who);
  return count;
}

std::vector<AgentId> Simulation::agents() const {
  std::vector<AgentId> all;
  for (Index who = 0; who < state_->agent_count(); ++who) {
    if (state_->is_in_game(who)) all.push_back(state_->id_of(who));
  }
  return all;
}

bool Simulation::is_there(AgentId agent) const noexcept {
  return agent.index < state_->agent_count() && state_->is_in_game(agent.index) &&
         state_->id_of(agent.index) == agent;
}

std::optional<AgentId> Simulation::find_agent(std::string_view id) const {
  const std::vector<Agent>& agents = state_->level().agents;
  for (Index i = 0; i < agents.size(); ++i) {
    if (agents[i].id == id && state_->fixed.vacancy[i] == Vacancy::none) return state_->id_of(i);
  }
  return std::nullopt;
}

AgentId Simulation::agent(std::string_view id) const {
  if (const auto found = find_agent(id)) return *found;
  throw UsageError(fmt::format("there is no agent '{}'", id));
}

const std::string& Simulation::id_of(AgentId agent) const {
  return state_->agent(state_->known_index(agent)).id;
}

AgentState Simulation::state(AgentId agent) const {
  const Index i = state_->index_of(agent);
  AgentState result;
  result.position = state_->bodies.position[i];
  result.facing = state_->bodies.facing[i];
  result.health = state_->lives.health[i];
  result.is_alive = state_->lives.alive[i] != 0;
  result.mode = state_->minds.mode[i];
  result.head = state_->bodies.head[i];
  result.is_awake = state_->minds.awake[i] != 0;
  result.score = state_->score[i];
  if (const Clue* clue = state_->knowledge.clue[i])
    result.goes_by = HeardNoise{clue->noise, clue->place};
  for (std::size_t bit = 0; bit < state_->fixed.openings.tag_names.size(); ++bit) {
    if ((state_->knowledge.tags[i] >> bit & 1U) != 0)
      result.tags.push_back(state_->fixed.openings.tag_names[bit]);
  }
  if (const auto target = state_->target_agent(i)) result.target = state_->id_of(*target);
  const Presence presence = state_->lives.presence[i];
  result.is_there = presence != Presence::away;
  result.is_alive |= presence == Presence::carried || presence == Presence::thrown;
  if (presence == Presence::carried) result.carrier = state_->id_of(state_->lives.carrier[i]);
  for (std::size_t n = 0; n < state_->fights.pockets[i].size(); ++n) {
    result.pockets.push_back(state_->fights.pockets[i][n]);
  }
  return result;
}

std::span<const Projectile> Simulation::projectiles() const noexcept {
  return state_->fights.projectiles;
}

std::uint64_t Simulation::projectiles_not_fired() const noexcept {
  return state_->fights.not_fired;
}

std::span<const BeamRay> Simulation::beams() const noexcept {
  return state_->fights.beam_rays;
}

std::optional<BlastMade> Simulation::last_blast(AgentId agent) const {
  const BlastMade* made = state_->fights.last_blast[state_->index_of(agent)];
  return made != nullptr ? std::optional(*made) : std::nullopt;
}

Looker Simulation::looker(AgentId agent) const {
  const Kind& kind = state_->kind(state_->index_of(agent));
  if (!kind.sight) throw UsageError(fmt::format("{} has no sight", id_of(agent)));
  return {state_->bodies.position[agent.index], state_->bodies.head[agent.index], *kind.sight,
          false};
}

LookedAt Simulation::looked(AgentId agent) const {
  return gaze::looked(Everyone(*state_), state_->index_of(agent));
}

Verdict Simulation::look(AgentId looker, AgentId other) const {
  const std::string& name = id_of(looker);  // both are there, or this throws
  const std::string& other_name = id_of(other);
  Verdict verdict;
  if (state_->kind(looker.index).sight) {
    Looker eyes = this->looker(looker);
    eyes.has_noticed = awareness(looker, other) == Awareness::noticed;
    verdict = gaze::look(state_->world, state_->level(), eyes, looked(other));
    verdict.gathered = gathered_share(*state_, looker, other);
  } else {
    verdict.has_sight = false;
  }
  verdict.looker = name;
  verdict.other = other_name;
  verdict.hindrance = hindrance(*state_, looker.index, other.index);
  verdict.sees = verdict.sees && verdict.hindrance.empty();
  return verdict;
}

Verdict Simulation::look(std::string_view looker, std::string_view other) const {
  return look(agent(looker), agent(other));
}

bool Simulation::sees(AgentId looker, AgentId other) const {
  const Index who = state_->index_of(looker);
  const Index whom = state_->index_of(other);
  if (!state_->kind(who).sight || !looks_now(*state_, who, whom)) return false;
  Looker eyes = this->looker(looker);
  eyes.has_noticed = awareness(looker, other) == Awareness::noticed;
  return can_see(state_->world, eyes, looked(other));
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

bool Simulation::is_over() const noexcept {
  return state_->is_over && !state_->level().round.resets;
}

std::optional<NoiseMade> Simulation::last_noise(AgentId agent) const {
  const MadeNoise* made = state_->told.last_noise[state_->index_of(agent)];
  if (!made) return std::nullopt;
  return NoiseMade{made->name.text, made->noise.place, made->noise.reach, made->tick};
}

std::optional<Sense> Simulation::noticed_by(AgentId looker, AgentId other) const {
  const Contact* contact = find_contact(*state_, looker, other);
  if (contact == nullptr || contact->state == Contact::State::gathering) return std::nullopt;
  return contact->by;
}

std::optional<NavigationMesh> Simulation::mesh(AgentId agent) const {
  const Index number = state_->ways.mesh_of[state_->index_of(agent)];
  return state_->meshes.meshes[number];
}

const Level& Simulation::level() const noexcept {
  return state_->level();
}
const World& Simulation::world() const noexcept {
  return state_->world;
}

}  // namespace gaze
