#include <algorithm>
#include <cmath>

#include "combat/cooldown.hpp"
#include "simulation/stages.hpp"

/// What is worked out once from a level, and everybody in their places.
namespace gaze {
namespace {

using Index = std::uint32_t;

// The head turns as fast as it scans, whatever else. Back to a scan that has gone on meanwhile it
// turns at least twice as fast: at the same speed it would lag behind for ever.
double head_turn_of(const Kind& kind, double least_by_scan) {
  if (!kind.head && !kind.scan) return 0.0;
  const double own = kind.head ? kind.head->turn_rate.degrees() : kind.move.turn_rate.degrees();
  return kind.scan ? std::max(own, least_by_scan * kind.scan->rate.degrees()) : own;
}

double farthest_sense(const Level& level, const Kind& kind) {
  double radius = 0.0;
  for (const Kind& other : level.kinds) radius = std::max(radius, other.radius);
  double farthest = 0.0;
  if (kind.sight) {
    const bool to_surface = kind.sight->measure == Measure::surface;
    farthest = kind.sight->keep_range + (to_surface ? radius : 0.0);
  }
  if (kind.touch) farthest = std::max(farthest, kind.radius + radius + kTouchGap);
  for (const Feeler& feeler : kind.feelers) {
    const Vector3d& from = feeler.from;
    const double start = std::sqrt(from.x() * from.x() + from.y() * from.y() + from.z() * from.z());
    farthest = std::max(farthest, start + feeler.length + feeler.thickness / 2.0 + radius);
  }
  return farthest;
}

void add_filters(KindLimits& limits, const Simulation::State& state, const Kind& kind) {
  const Level& level = state.level();
  const auto has = [](const std::vector<std::string>& names, const std::string& name) {
    return names.empty() || std::find(names.begin(), names.end(), name) != names.end();
  };
  limits.is_foe_of_team.push_back(false);
  for (Index team = 0; team < level.teams.size(); ++team) {
    limits.is_foe_of_team.push_back(is_hostile(level, kind.team, team) ||
                                    is_hostile(level, team, kind.team));
  }
  limits.is_solid_to_team.push_back(is_solid_to(level, kind, kNoTeam));
  for (Index team = 0; team < level.teams.size(); ++team) {
    limits.is_solid_to_team.push_back(is_solid_to(level, kind, team));
  }
  if (kind.team == kNoTeam) return;
  for (Index team = 0; team < level.teams.size(); ++team) {
    limits.wants_team.push_back(is_hostile(level, kind.team, team) &&
                                has(kind.choose.teams, level.teams[team].name));
  }
  if (kind.choose.kinds.empty()) return;
  for (const Kind& other : level.kinds) {
    const auto is_it = [&](const std::string& name) {
      return is_of_kind(level, state.fixed.bases, other, name);
    };
    limits.wants_kind.push_back(
        std::any_of(kind.choose.kinds.begin(), kind.choose.kinds.end(), is_it));
  }
}

KindLimits limits_of(const Simulation::State& state, const Kind& kind) {
  const int ticks_per_second = state.level().ticks_per_second;
  KindLimits limits;
  if (kind.sight) {
    limits.notice = {moments_of(kind.sight->notice_time, ticks_per_second),
                     moments_of(kind.sight->ebb_time, ticks_per_second),
                     moments_of(kind.sight->remember, ticks_per_second)};
  }
  const double turn_deg = kind.move.turn_rate.degrees() / ticks_per_second;
  limits.turn = sine_cosine(Angle::from_degrees(std::min(turn_deg, 180.0)));
  limits.head_turn_deg = head_turn_of(kind, 1.0) / ticks_per_second;
  limits.back_to_scan_deg = head_turn_of(kind, 2.0) / ticks_per_second;
  limits.farthest = farthest_sense(state.level(), kind);
  limits.tags = tag_bits(state.fixed.openings.tag_names, kind.tags);
  limits.wanted_tags = tag_bits(state.fixed.openings.tag_names, kind.choose.tags);
  limits.reacts = !kind.when.rules.empty();
  add_filters(limits, state, kind);
  limits.grace = moments_of(kind.grace, ticks_per_second);
  limits.heals_after = moments_of(kind.heals_after, ticks_per_second);
  const auto [low, high] = kind.move.turn_limits;
  if (low > -180.0 || high < 180.0) limits.turret_turn_deg = turn_deg;
  for (const Attack& attack : kind.attacks) {
    limits.cooldowns.push_back(moments_of(attack.cooldown, ticks_per_second));
    for (const Rule& rule : kind.when.rules) {
      if (rule.reaction.attack != attack.name) continue;
      limits.urged_only |= std::uint64_t{1} << (limits.cooldowns.size() - 1);
    }
  }
  return limits;
}

void place_agent(Simulation::State& state, const Agent& agent) {
  const Kind& kind = state.level().kind_of(agent);
  const SineCosine facing = sine_cosine(agent.facing);
  state.bodies.position.push_back(agent.position);
  state.bodies.position.back().z() = altitude_of(kind, agent.position);
  state.bodies.facing.push_back({facing.cosine, facing.sine});
  state.lives.health.push_back(kind.health);
  state.fixed.idle.push_back(idle_mode(agent, kind));
  state.fixed.kind_index.push_back(agent.kind);
  state.fixed.driver.push_back(agent.driver);
  state.minds.awake.push_back(!agent.is_asleep);
  state.ways.stride_left.push_back(kind.move.stride);
  state.knowledge.tags.push_back(state.fixed.limits[agent.kind].tags);
  std::vector<Readiness>& ready = state.fights.ready.emplace_back();
  for (const Attack& attack : kind.attacks) ready.push_back({kAlwaysReady, attack.ammunition});
}

void find_foes(Simulation::State& state) {
  const Level& level = state.level();
  state.fixed.foes_of.resize(level.teams.size());
  for (Index team = 0; team < level.teams.size(); ++team) {
    for (Index i = 0; i < level.agents.size(); ++i) {
      if (is_hostile(level, team, level.kind_of(level.agents[i]).team)) {
        state.fixed.foes_of[team].push_back(i);
      }
    }
  }
}

void look_names_up(Simulation::State& state) {
  const Level& level = state.level();
  for (const Zone& zone : level.zones) {
    const std::vector<std::string>& tags = state.fixed.openings.tag_names;
    state.fixed.triggers.push_back({Whom(level, zone.triggered_by, tags),
                                    tag_bits(tags, zone.grants), tag_bits(tags, zone.takes)});
  }
  state.fixed.bases = bases_of(level);
}

// Few foes are looked through one by one, many are looked up by where they are.
bool uses_crowd(const Simulation::State& state) {
  const std::vector<Agent>& agents = state.level().agents;
  return std::any_of(agents.begin(), agents.end(), [&](const Agent& agent) {
    const Kind& kind = state.level().kind_of(agent);
    const bool looks_at_many =
        kind.sight && kind.team != kNoTeam && state.fixed.foes_of[kind.team].size() > kFewFoes;
    return looks_at_many || !kind.feelers.empty() || kind.touch || kind.tell;
  });
}

void set_up_senses(Simulation::State& state) {
  const std::size_t count = state.level().agents.size();
  state.knowledge.contacts.resize(count);
  state.told.news.resize(count);
  state.knowledge.clue.resize(count);
  state.knowledge.feelers.resize(count);
  state.senses.touching.resize(count);
  state.senses.was_near.resize(count);
  state.knowledge.is_still.assign(count, 1);
  state.knowledge.dimness.resize(count);
  state.senses.zones_of.resize(count);
  state.senses.zone_spent.resize(state.level().zones.size());
  state.told.last_noise.resize(count);
  state.minds.urged.resize(count);
  state.minds.lasted.resize(count);
  state.minds.turned_back.resize(count);
  state.minds.mode_since.resize(count);
  state.fixed.uses_crowd = uses_crowd(state);
}

}  // namespace

void place_all(Simulation::State& state) {
  const Level& level = state.level();
  look_names_up(state);
  for (const Kind& kind : level.kinds) state.fixed.limits.push_back(limits_of(state, kind));
  for (const Agent& agent : level.agents) place_agent(state, agent);
  find_foes(state);
  const std::size_t count = level.agents.size();
  state.bodies.previous = state.bodies.position;
  state.bodies.last_move.assign(count, Vector3d{0.0, 0.0, 0.0});
  state.bodies.seen_position = state.bodies.position;
  state.ways.home = state.bodies.position;
  state.bodies.post = state.bodies.position;
  state.bodies.placed_facing = state.bodies.facing;
  state.bodies.rest_facing = state.bodies.facing;
  state.minds.mode = state.fixed.idle;
  state.lives.alive.assign(count, 1);
  state.minds.target.resize(count);
  state.minds.has_target.resize(count);
  state.ways.course.resize(count);
  state.ways.left_course.resize(count);
  state.ways.quiet.resize(count);
  state.ways.script_facing.resize(count);
  state.bodies.head_deg.resize(count);
  state.bodies.head = state.bodies.facing;
  set_up_fights(state);
  set_up_things(state);
  set_up_solids(state);
  set_up_senses(state);
  set_up_roaming(state);
  set_up_routes(state);
  set_up_neighbours(state);
  set_up_footing(state);
  set_up_defeats(state);
}

void begin(Simulation::State& state) {
  choose_starts(state);
  for (Index who = 0; who < state.agent_count(); ++who) turn_head(state, who);
  state.bodies.previous_head = state.bodies.head;
  sense(state);
  order_events(state);
}

}  // namespace gaze
