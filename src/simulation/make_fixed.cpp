#include <algorithm>
#include <cmath>

#include "agents/pools.hpp"
#include "gaze/sides.hpp"
#include "geometry/plan.hpp"
#include "level/archive.hpp"
#include "simulation/make_fixed.hpp"
#include "values/level_bytes.hpp"

/// Works out what follows from a level.
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
    const auto number = static_cast<Index>(limits.cooldowns.size() - 1);
    const bool is_by_reaction = (limits.urged_only >> number & 1U) != 0;
    if (attack.locks_on && !is_by_reaction) limits.locking.push_back(number);
  }
  return limits;
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
  for (const Kind& kind : level.kinds) {
    fixed.follows.emplace_back(level, kind.move->follows, tags);
    const auto pickers =
        kind.thing ? std::span(kind.thing->picked_up_by) : std::span<const std::string>();
    fixed.pickers.emplace_back(level, pickers, tags);
  }
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

template <typename T>
void put(std::vector<T>& list, Index who, const T& value) {
  if (who == list.size()) {
    list.push_back(value);
  } else {
    list[who] = value;
  }
}

// A list of agents in the order of their numbers.
void list_if(std::vector<Index>& list, Index who, bool is_in) {
  const auto at = std::lower_bound(list.begin(), list.end(), who);
  const bool was_in = at != list.end() && *at == who;
  if (is_in && !was_in) list.insert(at, who);
  if (!is_in && was_in) list.erase(at);
}

// What follows from all agents together.
void sum_up(Fixed& fixed) {
  const Level& level = *fixed.level;
  fixed.uses_beams = false;
  fixed.tallest = fixed.widest = 0.0;
  for (const Kind* kind : fixed.kind_of) {
    fixed.uses_beams = fixed.uses_beams || has_attack(*kind, Attack::How::beam);
    fixed.tallest = std::max(fixed.tallest, kind->height);
    fixed.widest = std::max(fixed.widest, kind->radius);
  }
  fixed.uses_crowd = uses_crowd(fixed);
  fixed.has_relief = has_relief(level);
}

// Names live as long as those of the level with which the game began.
void keep_names(Links& links, const Links& begun) {
  links.noises = begun.noises;
  const auto keep = [&](NoiseName& name) {
    if (name.id != kNothing) name.text = links.noises[name.id];
  };
  for (KindLinks& kind : links.kinds) {
    kind.name = begun.kinds[kind.named].name;
    for (RuleLinks& rule : kind.rules) keep(rule.noise);
    for (NoiseName& noise : kind.attack_noises) keep(noise);
    keep(kind.flight_noise);
  }
  for (std::vector<ScriptLinks>& script : links.scripts) {
    for (ScriptLinks& step : script) keep(step.noise);
  }
  keep(links.step);
  keep(links.shot);
}

std::shared_ptr<Fixed> fixed_of(std::shared_ptr<const Level> level) {
  auto made = std::make_shared<Fixed>(std::move(level));
  Fixed& fixed = *made;
  look_names_up(fixed);
  for (const Kind& kind : fixed.level->kinds) fixed.limits.push_back(limits_of(fixed, kind));
  fixed.foes_of.resize(fixed.level->teams.size());
  for (Index who = 0; who < fixed.level->agents.size(); ++who) put_agent(fixed, who);
  sum_up(fixed);
  for (Index i = 0; i < fixed.level->solids.size(); ++i) {
    if (fixed.level->solids[i].form == Solid::Form::door) fixed.doors.push_back(i);
  }
  return made;
}

}  // namespace

std::shared_ptr<const Fixed> make_fixed(std::shared_ptr<const Level> level,
                                        std::vector<Kind> written) {
  std::vector<Pool> pools;
  auto made = fixed_of(with_pools(std::move(level), pools));
  made->pools = std::move(pools);
  made->written = std::make_shared<const std::vector<Kind>>(std::move(written));
  made->digest = digest_of(bytes_of_level(*made->level));
  return made;
}

std::shared_ptr<const Fixed> with_seed(const Fixed& fixed, std::uint64_t seed) {
  auto level = std::make_shared<Level>(*fixed.level);
  level->seed = seed;
  auto made = fixed_of(std::move(level));
  made->pools = fixed.pools;
  made->written = fixed.written;
  made->digest = digest_of(bytes_of_level(*made->level));
  return made;
}

std::shared_ptr<Fixed> changed(const Fixed& begun, std::shared_ptr<const Level> level) {
  auto made = fixed_of(std::move(level));
  made->digest = begun.digest;
  made->is_changed = true;
  made->begun = begun.is_changed ? begun.begun : begun.level;
  keep_names(made->links, begun.links);
  return made;
}

void put_agent(Fixed& fixed, Index who) {
  const Level& level = *fixed.level;
  const Agent& agent = level.agents[who];
  const Kind& kind = level.kind_of(agent);
  put(fixed.kind_of, who, &kind);
  put<const KindLimits*>(fixed.limit_of, who, &fixed.limits[agent.kind]);
  put(fixed.kind_index, who, agent.kind);
  put(fixed.driver, who, *agent.driver);
  put(fixed.idle, who, idle_mode(agent, kind));
  put(fixed.radius, who, kind.radius);
  if (who == fixed.generation.size()) {
    fixed.generation.push_back(0);
    fixed.vacancy.push_back(Vacancy::none);
  }
  list_if(fixed.things, who, kind.thing.has_value());
  list_if(fixed.healers, who, kind.heals > 0.0);
  list_if(fixed.touchers, who, has_attack(kind, Attack::How::touch));
  for (Index team = 0; team < level.teams.size(); ++team) {
    list_if(fixed.foes_of[team], who, is_hostile(level, team, kind.team));
  }
}

void put_agents(Fixed& fixed, Index first) {
  for (Index who = first; who < fixed.level->agents.size(); ++who) put_agent(fixed, who);
  fixed.links.scripts.resize(fixed.level->agents.size());
  sum_up(fixed);
}

}  // namespace gaze
