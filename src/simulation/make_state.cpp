#include <algorithm>
#include <cmath>

#include "combat/make_fights.hpp"
#include "level/archive.hpp"
#include "mind/make_minds.hpp"
#include "sense/make_senses.hpp"
#include "simulation/stages.hpp"
#include "travel/make_ways.hpp"
#include "values/level_bytes.hpp"

/// Works out once what follows from a level, and puts everybody into their places.
namespace gaze {
namespace {

using Index = std::uint32_t;

// A head turns at least as fast as it scans. Back to a scan that has gone on meanwhile it turns at
// least twice as fast: at the same speed it would lag behind for ever.
double head_turn_of(const Kind& kind, double least_by_scan) {
  if (!kind.head && !kind.scan) return 0.0;
  const double own = kind.head ? kind.head->turn_rate.degrees() : kind.move->turn_rate.degrees();
  return kind.scan ? std::max(own, least_by_scan * kind.scan->rate.degrees()) : own;
}

double farthest_sense(const Level& level, const Kind& kind) {
  double radius = 0.0;
  for (const Kind& other : level.kinds) radius = std::max(radius, other.radius);
  double farthest = 0.0;
  if (kind.sight) {
    const bool to_surface = kind.sight->measure == Measure::surface;
    farthest = *kind.sight->keep_range + (to_surface ? radius : 0.0);
  }
  if (kind.touch) farthest = std::max(farthest, kind.radius + radius + kTouchGap);
  for (const Feeler& feeler : kind.feelers) {
    const Vector3d& from = *feeler.from;
    const double start = length_of(from);
    farthest = std::max(farthest, start + feeler.length + feeler.thickness / 2.0 + radius);
  }
  return farthest;
}

void add_filters(KindLimits& limits, const Fixed& fixed, const Kind& kind) {
  const Level& level = *fixed.level;
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
      return is_of_kind(level, fixed.bases, other, name);
    };
    limits.wants_kind.push_back(
        std::any_of(kind.choose.kinds.begin(), kind.choose.kinds.end(), is_it));
  }
}

KindLimits limits_of(const Fixed& fixed, const Kind& kind) {
  const int ticks_per_second = fixed.level->ticks_per_second;
  KindLimits limits;
  if (kind.sight) {
    limits.notice = {moments_of(kind.sight->notice_time, ticks_per_second),
                     moments_of(kind.sight->ebb_time, ticks_per_second),
                     moments_of(kind.sight->remember, ticks_per_second)};
  }
  const double turn_deg = kind.move->turn_rate.degrees() / ticks_per_second;
  limits.turn = sine_cosine(Angle::from_degrees(std::min(turn_deg, 180.0)));
  limits.head_turn_deg = head_turn_of(kind, 1.0) / ticks_per_second;
  limits.back_to_scan_deg = head_turn_of(kind, 2.0) / ticks_per_second;
  limits.farthest = farthest_sense(*fixed.level, kind);
  limits.tags = tag_bits(fixed.openings.tag_names, kind.tags);
  limits.wanted_tags = tag_bits(fixed.openings.tag_names, kind.choose.tags);
  limits.reacts = !kind.when.rules.empty();
  add_filters(limits, fixed, kind);
  limits.grace = moments_of(kind.grace, ticks_per_second);
  limits.heals_after = moments_of(kind.heals_after, ticks_per_second);
  const auto [low, high] = kind.move->turn_limits;
  if (low > -180.0 || high < 180.0) limits.turret_turn_deg = turn_deg;
  for (const Attack& attack : kind.attacks) {
    limits.cooldowns.push_back(moments_of(*attack.cooldown, ticks_per_second));
    for (const Rule& rule : kind.when.rules) {
      if (rule.reaction.attack != attack.name) continue;
      limits.urged_only |= std::uint64_t{1} << (limits.cooldowns.size() - 1);
    }
  }
  return limits;
}

void find_foes(Fixed& fixed) {
  const Level& level = *fixed.level;
  fixed.foes_of.resize(level.teams.size());
  for (Index team = 0; team < level.teams.size(); ++team) {
    for (Index i = 0; i < level.agents.size(); ++i) {
      if (is_hostile(level, team, level.kind_of(level.agents[i]).team)) {
        fixed.foes_of[team].push_back(i);
      }
    }
  }
}

void look_names_up(Fixed& fixed) {
  const Level& level = *fixed.level;
  const std::vector<std::string>& tags = fixed.openings.tag_names;
  for (const Zone& zone : level.zones) {
    fixed.triggers.push_back({Whom(level, zone.triggered_by, tags), tag_bits(tags, zone.grants),
                              tag_bits(tags, zone.takes)});
  }
  for (const Start& start : level.starts) {
    const std::span<const std::string> apart_from{&start.apart_from,
                                                  start.apart_from.empty() ? 0U : 1U};
    fixed.starts.push_back({Whom(level, {&start.kind, 1}, tags), Whom(level, apart_from, tags)});
  }
  for (const Kind& kind : level.kinds) fixed.follows.emplace_back(level, kind.move->follows, tags);
  fixed.bases = bases_of(level);
}

// If there are few foes they are looked through one by one; if there are many they are found by
// where they are.
bool uses_crowd(const Fixed& fixed) {
  const std::vector<Agent>& agents = fixed.level->agents;
  return std::any_of(agents.begin(), agents.end(), [&](const Agent& agent) {
    const Kind& kind = fixed.level->kind_of(agent);
    const bool looks_at_many =
        kind.sight && kind.team != kNoTeam && fixed.foes_of[kind.team].size() > kFewFoes;
    return looks_at_many || !kind.feelers.empty() || kind.touch || kind.tell;
  });
}

bool is_low(const Level& level, const Solid& solid, double highest_step) {
  return *solid.base + solid.height <= level.ground_height.value_or(0.0) + highest_step;
}

bool leaves_ground(const Level& level) {
  const auto hops = [](const Kind& kind) {
    return *kind.move->hop_height > 0.0 || *kind.move->drop_height > 0.0;
  };
  const auto hops_by_script = [](const Agent& agent) {
    return std::any_of(agent.script.begin(), agent.script.end(),
                       [](const ScriptStep& step) { return step.what == ScriptStep::What::hop; });
  };
  return std::any_of(level.kinds.begin(), level.kinds.end(), hops) ||
         std::any_of(level.agents.begin(), level.agents.end(), hops_by_script);
}

// True if an agent of the kind may step up or down, or fall.
bool has_relief(const Level& level) {
  double highest_step = 0.0;
  for (const Kind& kind : level.kinds) {
    highest_step = std::max(highest_step, *kind.move->step_height);
  }
  const bool any_low = std::any_of(level.solids.begin(), level.solids.end(), [&](const Solid& s) {
    return is_walkway(s.form) || s.form == Solid::Form::mesh || is_low(level, s, highest_step);
  });
  return any_low || level.plane != Plane::ground || leaves_ground(level);
}

bool has_attack(const Kind& kind, Attack::How how) {
  return std::any_of(kind.attacks.begin(), kind.attacks.end(),
                     [&](const Attack& attack) { return attack.how == how; });
}

void add_agent(Fixed& fixed, Index who) {
  const Agent& agent = fixed.level->agents[who];
  const Kind& kind = fixed.level->kind_of(agent);
  fixed.kind_of.push_back(&kind);
  fixed.limit_of.push_back(&fixed.limits[agent.kind]);
  fixed.kind_index.push_back(agent.kind);
  fixed.driver.push_back(*agent.driver);
  fixed.idle.push_back(idle_mode(agent, kind));
  fixed.radius.push_back(kind.radius);
  if (!agent.is_leftover) ++fixed.placed;
  if (kind.thing) fixed.things.push_back(who);
  if (kind.heals > 0.0) fixed.healers.push_back(who);
  if (has_attack(kind, Attack::How::touch)) fixed.touchers.push_back(who);
  fixed.uses_beams |= has_attack(kind, Attack::How::beam);
  fixed.tallest = std::max(fixed.tallest, kind.height);
  fixed.widest = std::max(fixed.widest, kind.radius);
}

}  // namespace

std::shared_ptr<const Fixed> make_fixed(std::shared_ptr<const Level> level) {
  auto made = std::make_shared<Fixed>(with_leftovers(std::move(level)));
  Fixed& fixed = *made;
  fixed.digest = digest_of(bytes_of_level(*fixed.level));
  look_names_up(fixed);
  for (const Kind& kind : fixed.level->kinds) fixed.limits.push_back(limits_of(fixed, kind));
  for (Index who = 0; who < fixed.level->agents.size(); ++who) add_agent(fixed, who);
  find_foes(fixed);
  fixed.uses_crowd = uses_crowd(fixed);
  fixed.has_relief = has_relief(*fixed.level);
  for (Index i = 0; i < fixed.level->solids.size(); ++i) {
    if (fixed.level->solids[i].form == Solid::Form::door) fixed.doors.push_back(i);
  }
  return made;
}

RunState::RunState(const Fixed& fixed, Meshes the_meshes)
    : chance(fixed.level->seed, fixed.level->agents.size()),
      meshes(std::move(the_meshes)),
      score(fixed.level->agents.size()) {}

RoundState::RoundState(const Fixed& fixed, World the_world, RunState& run)
    : world(std::move(the_world)),
      bodies(make_bodies(fixed)),
      lives(make_lives(fixed)),
      minds(make_minds(fixed, run.clock.tick * kMomentsPerTick)),
      knowledge(make_knowledge(fixed)),
      senses(make_senses(fixed)),
      ways(make_ways(run.meshes, fixed, bodies, knowledge)),
      fights(make_fights(fixed)),
      told(fixed.level->agents.size()),
      door_used(fixed.doors.size()) {}

}  // namespace gaze
