#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "level/spelling.hpp"
#include "level/whom.hpp"

/// Causes of reactions that nothing in the level brings about, and names that differ by case alone.
namespace gaze {
namespace {

using Severity = Finding::Severity;

void add_noises(const Attack& attack, std::set<std::string>& noises) {
  if (attack.noise_reach > 0.0) noises.insert(attack.name);
  if (attack.fire_reach > 0.0) noises.insert("shot");
}

std::vector<std::string> noises_made(const Level& level) {
  std::set<std::string> noises;
  for (const Kind& kind : level.kinds) {
    for (const Attack& attack : kind.attacks) add_noises(attack, noises);
    if (kind.thing) add_noises(kind.thing->flight, noises);
    if (kind.move->step_reach > 0.0 || kind.move->quiet_reach > 0.0) noises.insert("step");
    for (const Rule& rule : kind.when.rules) {
      if (!rule.reaction.noise.empty()) noises.insert(rule.reaction.noise);
    }
  }
  for (const Agent& agent : level.agents) {
    for (const ScriptStep& step : agent.script) {
      if (step.what == ScriptStep::What::noise) noises.insert(step.noise);
    }
  }
  return {noises.begin(), noises.end()};
}

/// What of a level decides whether anything ever happens to agents of one kind.
class Unmet {
 public:
  Unmet(Bench& bench, const Kind& kind, const std::vector<std::string>& noises)
      : bench_(bench), level_(bench.level()), kind_(kind), noises_(noises) {}

  void judge() {
    for (const Rule& rule : kind_.when.rules) {
      const std::string why = why_never(rule);
      if (why.empty()) continue;
      const std::string cause(name_of(rule.cause));
      const std::string name = rule.name.empty() ? cause : fmt::format("{}.{}", cause, rule.name);
      bench_.say(Severity::warning, "cause-never-comes",
                 bench_.place_of(kind_, rule.name.empty() ? "when." + cause : "when." + name),
                 worded("{} reacts to when.{}, but {}: that never happens", kind_.name, name, why));
    }
  }

 private:
  // Says why a cause never comes. Empty if it may come, or if another finding tells why not.
  std::string why_never(const Rule& rule) const {
    switch (rule.cause) {
      case Cause::hears:
        return why_never_heard(rule);
      case Cause::told:
        return why_never_told(rule);
      case Cause::near:
        return why_never_near(rule);
      case Cause::touches:
        return why_never_touched(rule);
      case Cause::triggered:
        return why_never_triggered();
      case Cause::hurt:
        return any_agent(level_, [&](const Agent&, const Kind& other) { return can_hurt(other); })
                   ? ""
                   : "nobody has an attack that can hurt it";
      case Cause::arrives:
        return goes_into(Mode::investigate) || goes_into(Mode::search)
                   ? ""
                   : "nothing makes it investigate or search";
      case Cause::lasts:
        return why_never_lasts(rule);
      default:
        return "";
    }
  }

  std::string why_never_heard(const Rule& rule) const {
    if (!kind_.hearing) return "";
    if (noises_.empty()) return has_host() ? "" : "nothing makes any noise";
    if (rule.name.empty()) return "";
    if (std::find(noises_.begin(), noises_.end(), rule.name) != noises_.end()) return "";
    if (rule.name == "step") return "nobody's steps make a noise: move.step_reach is 0 everywhere";
    if (rule.name == "shot") return "no shot makes a noise: fire_reach is 0 everywhere";
    if (is_of_level(rule.name)) {
      return worded("a {} makes no noise: its noise_reach is 0", rule.name);
    }
    const std::string_view nearest = nearest_name(rule.name, noises_);
    const std::string hint =
        nearest.empty() ? std::string() : worded(" (did you mean '{}'?)", nearest);
    if (hint.empty() && has_host()) return "";  // the program may make it
    return worded("nothing makes a noise '{}'{}", rule.name, hint);
  }

  // True for the name of an attack or of a thing: the noise that it makes would have that name.
  bool is_of_level(const std::string& name) const {
    return std::any_of(level_.kinds.begin(), level_.kinds.end(), [&](const Kind& kind) {
      return (kind.thing && kind.thing->flight.name == name) ||
             std::any_of(kind.attacks.begin(), kind.attacks.end(),
                         [&](const Attack& attack) { return attack.name == name; });
    });
  }

  std::string why_never_told(const Rule& rule) const {
    if (kind_.team == kNoTeam) return "it has no team, and only one's own team tells";
    bool is_told_by_zone = false;
    for (const Zone& zone : level_.zones) is_told_by_zone |= names_it(zone.tells);
    is_told_by_zone |= any_agent(level_, [&](const Agent&, const Kind& other) {
      return names_it_by_id(other.defeat.tells);
    });
    if (rule.name.empty() && is_told_by_zone) return "";
    const bool is_told = any_agent(level_, [&](const Agent&, const Kind& other) {
      return other.tell && other.team == kind_.team &&
             (rule.name.empty() || is_of_kind(level_, bench_.bases(), other, rule.name));
    });
    if (is_told) return "";
    return rule.name.empty() ? "nobody of its team tells anything: none has a [tell]"
                             : worded("no {} of its team has a [tell]", rule.name);
  }

  std::string why_never_near(const Rule& rule) const {
    if (!kind_.nearness || rule.name.empty()) return "";
    const bool comes = any_agent(level_, [&](const Agent&, const Kind& other) {
      return is_hostile(level_, kind_.team, other.team) &&
             is_of_kind(level_, bench_.bases(), other, rule.name);
    });
    return comes ? "" : worded("no {} is of a team that it is hostile to", rule.name);
  }

  std::string why_never_touched(const Rule& rule) const {
    if (!kind_.touch || rule.name.empty()) return "";
    const auto side = std::find(kSideNames.begin(), kSideNames.end(), rule.name);
    if (side == kSideNames.end()) return "";
    const auto number = static_cast<std::size_t>(side - kSideNames.begin());
    return kind_.touch->sides.test(number)
               ? ""
               : worded("its touch does not feel by its {} side", rule.name);
  }

  std::string why_never_triggered() const {
    for (const Zone& zone : level_.zones) {
      if (names_it(zone.tells) || names_it(zone.wakes)) return "";
    }
    const bool is_named = any_agent(level_, [&](const Agent&, const Kind& other) {
      return names_it_by_id(other.defeat.tells) || names_it_by_id(other.defeat.wakes);
    });
    return is_named ? "" : "no zone and no defeat tells or wakes it";
  }

  std::string why_never_lasts(const Rule& rule) const {
    for (auto i = static_cast<int>(Mode::post); i < static_cast<int>(Mode::out); ++i) {
      const auto mode = static_cast<Mode>(i);
      if (name_of(mode) == rule.name && goes_into(mode)) return "";
    }
    return worded("nothing brings it into the mode {}", rule.name);
  }

  bool goes_into(Mode mode) const {
    const std::vector<Rule>& rules = kind_.when.rules;
    const bool leads = std::any_of(rules.begin(), rules.end(),
                                   [&](const Rule& rule) { return rule.reaction.mode == mode; });
    if (leads) return true;
    if (mode == Mode::return_) return !rules.empty();
    return any_agent(level_, [&](const Agent& agent, const Kind& kind) {
      return &kind == &kind_ && idle_mode(agent, kind) == mode;
    });
  }

  bool can_hurt(const Kind& other) const {
    const auto is_harm = [](const Attack& attack) { return attack.damage > 0.0; };
    const bool has_attack = std::any_of(other.attacks.begin(), other.attacks.end(), is_harm);
    return has_attack || (other.thing && is_harm(other.thing->flight));
  }

  bool has_host() const {
    return any_agent(level_,
                     [](const Agent& agent, const Kind&) { return agent.driver == Driver::host; });
  }

  bool names_it(const std::vector<std::uint32_t>& agents) const {
    return std::any_of(agents.begin(), agents.end(), [&](std::uint32_t agent) {
      return &level_.kind_of(level_.agents[agent]) == &kind_;
    });
  }

  bool names_it_by_id(const std::vector<std::string>& ids) const {
    return any_agent(level_, [&](const Agent& agent, const Kind& kind) {
      return &kind == &kind_ && std::find(ids.begin(), ids.end(), agent.id) != ids.end();
    });
  }

  Bench& bench_;
  const Level& level_;
  const Kind& kind_;
  const std::vector<std::string>& noises_;
};

Place place_of_tag(const Level& level, const std::string& tag) {
  const auto holds = [&](const std::vector<std::string>& tags) {
    return std::find(tags.begin(), tags.end(), tag) != tags.end();
  };
  for (const Kind& kind : level.kinds) {
    if (!holds(kind.tags)) continue;
    return level.origin(fmt::format("kind.{}.tags", kind.name)).value_or(kind.place);
  }
  for (const Zone& zone : level.zones) {
    if (holds(zone.grants)) return zone.place;
  }
  return {};
}

void judge_tags(Bench& bench) {
  const std::vector<std::string> tags = tag_names(bench.level());
  for (std::size_t i = 0; i < tags.size(); ++i) {
    for (std::size_t j = 0; j < i; ++j) {
      if (!differ_by_case(tags[i], tags[j])) continue;
      bench.say(Severity::warning, "tags-alike", place_of_tag(bench.level(), tags[i]),
                worded("the tags '{}' and '{}' differ by upper and lower case alone: they are "
                       "two tags, and who looks for one does not find the other",
                       tags[j], tags[i]));
    }
  }
}

}  // namespace

void judge_unmet(Bench& bench) {
  const Level& level = bench.level();
  const std::vector<std::string> noises = noises_made(level);
  for (const std::uint32_t index : bench.kinds_in_play()) {
    Unmet(bench, level.kinds[index], noises).judge();
  }
  judge_tags(bench);
}

}  // namespace gaze
