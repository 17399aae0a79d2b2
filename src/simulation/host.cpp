#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "combat/cooldown.hpp"
#include "combat/damage.hpp"
#include "combat/things.hpp"
#include "gaze/simulation.hpp"
#include "level/named_kind.hpp"
#include "level/spelling.hpp"
#include "mind/deciding.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"
#include "travel/travelling.hpp"

/// What a host does to a game between two steps.
namespace gaze {
namespace {

using Index = std::uint32_t;

// The name of a noise: one of the level, or one that the host has made up, which is kept.
NoiseName noise_name(Simulation::State& state, std::string_view name) {
  const std::vector<std::string_view>& known = state.fixed.links.noises;
  const auto it = std::find(known.begin(), known.end(), name);
  if (it != known.end()) return {*it, static_cast<Index>(it - known.begin())};
  auto& own = state.host_names;
  auto made = std::find_if(own.begin(), own.end(), [&](const auto& one) { return *one == name; });
  if (made == own.end()) made = own.insert(own.end(), std::make_shared<const std::string>(name));
  return {**made, static_cast<Index>(known.size()) + static_cast<Index>(made - own.begin())};
}

// A place where something may be in a level.
void need_place(const Vector3d& place, std::string_view what) {
  if (place.allFinite() && place.cwiseAbs().maxCoeff() <= LevelLimits::coordinate) return;
  throw UsageError(fmt::format("{} is [{}, {}, {}]; up to {} m from the origin is allowed", what,
                               place.x(), place.y(), place.z(), LevelLimits::coordinate));
}

void need_host_driven(const Simulation::State& state, AgentId id) {
  const Index who = state.index_of(id);
  if (state.fixed.driver[who] == Driver::host) return;
  throw UsageError(fmt::format("{} is not driven by the host", state.agent(who).id));
}

SineCosine need_facing(const Simulation::State& state, Index who, Angle facing) {
  constexpr double kMostDegrees = 1e6;  // beyond it a facing is mostly rounding
  if (std::abs(facing.degrees()) <= kMostDegrees) return sine_cosine(facing);
  throw UsageError(fmt::format("{} is to face {} degrees; up to {} either way is allowed",
                               state.agent(who).id, facing.degrees(), kMostDegrees));
}

void need_points(double points, std::string_view what) {
  if (points >= 0.0 && std::isfinite(points)) return;
  throw UsageError(fmt::format("{} of {} points; 0 and up is allowed", what, points));
}

std::uint64_t need_tag(const Simulation::State& state, std::string_view tag) {
  const std::vector<std::string>& known = state.fixed.openings.tag_names;
  const auto it = std::find(known.begin(), known.end(), tag);
  if (it != known.end()) return std::uint64_t{1} << (it - known.begin());
  throw UsageError(
      fmt::format("no kind has the tag '{}' and no zone grants it{}", tag, suggestion(tag, known)));
}

// What depends on the tags of an agent is looked up anew.
void set_tags(Simulation::State& state, Index who, std::uint64_t tags) {
  if (state.knowledge.tags[who] == tags) return;
  state.knowledge.tags[who] = tags;
  Travelling travelling(state);
  change_body(travelling, who);
}

}  // namespace

void need_deed(const Simulation::State& state, const TrackDeed& deed) {
  const Level& level = state.level();
  need_place(deed.place, "the place of a deed");
  if (deed.what == TrackDeed::What::take) {
    const auto is_it = [&](const Agent& agent) { return agent.id == deed.name; };
    const auto thing = std::find_if(level.agents.begin(), level.agents.end(), is_it);
    if (thing != level.agents.end() && level.kind_of(*thing).thing) return;
    throw UsageError(fmt::format("there is no thing '{}' to take", deed.name));
  }
  if (deed.what == TrackDeed::What::throw_ && !level.kinds[kind_called(level, deed.name)].thing) {
    throw UsageError(fmt::format("a {} is no thing", deed.name));
  }
  if (deed.what != TrackDeed::What::noise) return;
  const auto& known = state.fixed.links.noises;
  if (std::find(known.begin(), known.end(), deed.name) == known.end()) {
    throw UsageError(fmt::format("the level has no noise '{}'", deed.name));
  }
  if (!(deed.reach > 0.0 && std::isfinite(deed.reach))) {
    throw UsageError(
        fmt::format("the noise '{}' reaches {} m; above 0 is allowed", deed.name, deed.reach));
  }
}

void Simulation::make_noise(const Vector3d& place, double reach, std::string_view name,
                            std::optional<AgentId> maker) {
  need_place(place, "the place of a noise");
  if (!(reach > 0.0 && std::isfinite(reach))) {
    throw UsageError(fmt::format("the noise '{}' reaches {} m; above 0 is allowed", name, reach));
  }
  if (maker) static_cast<void>(state_->index_of(*maker));
  const std::optional<Index> who = maker ? std::optional(maker->index) : std::nullopt;
  Teller(*state_).make_noise(place, reach, noise_name(*state_, name), who);
}

void Simulation::wake(AgentId agent) {
  Deciding deciding(*state_);
  gaze::wake(deciding, state_->index_of(agent));
}

void Simulation::check_pose(AgentId agent, const Vector3d& position, Angle facing) const {
  need_host_driven(*state_, agent);
  need_place(position, "the place of " + id_of(agent));
  static_cast<void>(need_facing(*state_, agent.index, facing));
}

void Simulation::set_pose(AgentId agent, const Vector3d& position, Angle facing) {
  check_pose(agent, position, facing);
  const SineCosine direction = sine_cosine(facing);
  state_->bodies.position[agent.index] = position;
  state_->bodies.facing[agent.index] = {direction.cosine, direction.sine};
  state_->bodies.head[agent.index] = state_->bodies.facing[agent.index];
  state_->bodies.placed_facing[agent.index] = state_->bodies.facing[agent.index];
}

void Simulation::set_aim(AgentId agent, const std::optional<Vector3d>& aim, bool fires) {
  need_host_driven(*state_, agent);
  if (aim) need_place(*aim, "the aim of " + id_of(agent));
  state_->bodies.trigger.set(agent.index, {aim, false, ~std::uint64_t{0}, fires, kNeverReady});
}

void Simulation::steer(AgentId agent, const Steering& steering) {
  const Index who = state_->index_of(agent);
  if (state_->fixed.driver[who] == Driver::mind) {
    throw UsageError(
        fmt::format("{} is driven by its mind; who has a script, a track or the host "
                    "for a driver can be steered",
                    id_of(agent)));
  }
  if (!steering.way.allFinite()) {
    throw UsageError(fmt::format("{} is to go [{}, {}]; finite numbers are allowed", id_of(agent),
                                 steering.way.x(), steering.way.y()));
  }
  if (steering.aim) need_place(*steering.aim, "the aim of " + id_of(agent));
  for (const TrackDeed& deed : steering.deeds) need_deed(*state_, deed);
  state_->ways.steering.set(who, steering);
}

void Simulation::let_go(AgentId agent) {
  const Index who = state_->index_of(agent);
  if (!state_->ways.steering[who]) return;
  state_->ways.steering.reset(who);
  state_->ways.course[who].is_new = true;  // that it came no nearer meanwhile does not count
}

bool Simulation::is_steered(AgentId agent) const {
  return state_->ways.steering[state_->index_of(agent)] != nullptr;
}

bool Simulation::take(AgentId agent, AgentId thing) {
  const Index who = state_->index_of(agent);
  const Index what = state_->index_of(thing);
  Fighting fighting(*state_);
  return state_->is_up(who) && gaze::take(fighting, who, state_->bodies.position[who], what);
}

bool Simulation::throw_thing(AgentId agent, std::string_view kind, const Vector3d& place) {
  static_cast<void>(state_->index_of(agent));
  need_place(place, "the place to throw to");
  const Index number = kind_called(level(), kind);
  if (!level().kinds[number].thing) throw UsageError(fmt::format("a {} is no thing", kind));
  Fighting fighting(*state_);
  const Vector3d& feet = state_->bodies.position[agent.index];
  return state_->is_up(agent.index) &&
         gaze::throw_thing(fighting, agent.index, feet, number, place);
}

void Simulation::drop(AgentId agent) {
  Fighting fighting(*state_);
  Travelling travelling(*state_);
  const Index who = state_->index_of(agent);
  drop_all(fighting, who, state_->bodies.position[who]);
  release_things(fighting);
  place_things(travelling);
}

bool Simulation::teleport(AgentId agent, const Vector3d& place, Angle facing) {
  const Index who = state_->index_of(agent);
  need_place(place, "the place of " + id_of(agent));
  const SineCosine way = need_facing(*state_, who, facing);
  if (!state_->lives.alive[who]) return false;
  start_at(state_->bodies, state_->ways, who, place, {way.cosine, way.sine});
  return true;
}

bool Simulation::hurt(AgentId agent, double points, std::optional<AgentId> by) {
  const Index who = state_->index_of(agent);
  const auto from = by ? std::optional(state_->index_of(*by)) : std::nullopt;
  need_points(points, "a hurt");
  if (!state_->lives.alive[who] || state_->kind(who).thing) return false;
  Fighting fighting(*state_);
  gaze::hurt(fighting, who, points, from);
  settle_who_is_there(*state_);
  return true;
}

bool Simulation::heal(AgentId agent, double points) {
  const Index who = state_->index_of(agent);
  need_points(points, "a healing");
  if (!state_->lives.alive[who]) return false;
  double& health = state_->lives.health[who];
  health = std::min(state_->kind(who).health, health + points);
  return true;
}

bool Simulation::revive(AgentId agent) {
  const Index who = state_->index_of(agent);
  const bool is_defeated =
      !state_->lives.alive[who] && state_->lives.presence[who] == Presence::here;
  if (!is_defeated) return false;
  bring_back(*state_, who);
  return true;
}

void Simulation::give_tag(AgentId agent, std::string_view tag) {
  const Index who = state_->index_of(agent);
  set_tags(*state_, who, state_->knowledge.tags[who] | need_tag(*state_, tag));
}

void Simulation::take_tag(AgentId agent, std::string_view tag) {
  const Index who = state_->index_of(agent);
  set_tags(*state_, who, state_->knowledge.tags[who] & ~need_tag(*state_, tag));
}

void Simulation::set_gone(SolidId solid, bool is_gone) {
  const std::vector<Solid>& solids = state_->level().solids;
  if (solid.index >= solids.size()) {
    throw UsageError(fmt::format("there is no solid of number {}; there are {}, from 0 on",
                                 solid.index, solids.size()));
  }
  if (!can_go_away(solids[solid.index])) {
    throw UsageError(
        fmt::format("'{}' is there to stay: doors, what breaks and what has `can_go` can go",
                    solids[solid.index].id));
  }
  if (state_->world.is_gone(solid) == is_gone) return;
  Fighting fighting(*state_);
  gaze::set_gone(fighting, solid.index, is_gone);
}

}  // namespace gaze
