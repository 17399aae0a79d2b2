#include "agents/links.hpp"

#include <algorithm>
#include <map>

namespace gaze {
namespace {

using Index = std::uint32_t;

template <typename List, typename NameOf>
Index number_of(const List& list, std::string_view name, NameOf&& name_of_one) {
  const auto it = std::find_if(list.begin(), list.end(),
                               [&](const auto& one) { return name_of_one(one) == name; });
  return it == list.end() ? kNothing : static_cast<Index>(it - list.begin());
}

constexpr auto kByName = [](const auto& one) -> std::string_view { return one.name; };

/// Looks names up, many of them: each is looked for once.
class Finder {
 public:
  Finder(const Level& level, std::vector<std::string_view>& noises)
      : level_(level), noises_(noises) {
    for (Index i = 0; i < level.agents.size(); ++i) agents_.emplace(level.agents[i].id, i);
    for (Index i = 0; i < level.kinds.size(); ++i) kinds_.emplace(level.kinds[i].name, i);
    for (Index i = 0; i < level.zones.size(); ++i) zones_.emplace(level.zones[i].id, i);
  }

  const Level& level() const { return level_; }
  Index agent(std::string_view id) const { return find(agents_, id); }
  Index kind(std::string_view name) const { return find(kinds_, name); }
  Index zone(std::string_view id) const { return find(zones_, id); }

  std::vector<Index> agents(const std::vector<std::string>& ids) const {
    std::vector<Index> found;
    for (const std::string& id : ids) {
      if (const Index who = agent(id); who != kNothing) found.push_back(who);
    }
    std::sort(found.begin(), found.end());
    return found;
  }

  NoiseName noise(std::string_view name) {
    const auto [it, is_new] = numbers_.emplace(name, static_cast<Index>(noises_.size()));
    if (is_new) noises_.push_back(name);
    return {it->first, it->second};
  }

 private:
  using Numbers = std::map<std::string_view, Index>;

  static Index find(const Numbers& numbers, std::string_view name) {
    const auto it = numbers.find(name);
    return it == numbers.end() ? kNothing : it->second;
  }

  const Level& level_;
  std::vector<std::string_view>& noises_;
  Numbers agents_, kinds_, zones_, numbers_;
};

Index mode_of(std::string_view name) {
  const Index count = static_cast<Index>(Mode::out) + 1;
  for (Index mode = 0; mode < count; ++mode) {
    if (name_of(static_cast<Mode>(mode)) == name) return mode;
  }
  return kNothing;
}

// What the cause of a rule is about, by number.
Index about(Finder& finder, const Kind& kind, const Rule& rule) {
  if (rule.name.empty()) return kAnything;
  switch (rule.cause) {
    case Cause::feels:
    case Cause::misses:
      return number_of(kind.feelers, rule.name, kByName);
    case Cause::touches:
      return number_of(kSideNames, rule.name, [](std::string_view side) { return side; });
    case Cause::near:
    case Cause::told:
      return finder.kind(rule.name);
    case Cause::hears:
      return finder.noise(rule.name).id;
    case Cause::lasts:
      return mode_of(rule.name);
    default:
      return kNothing;
  }
}

RuleLinks links_of(Finder& finder, const Kind& kind, const Rule& rule) {
  const Reaction& reaction = rule.reaction;
  RuleLinks links;
  links.about = about(finder, kind, rule);
  if (!reaction.attack.empty()) {
    links.attack = number_of(kind.attacks, reaction.attack, kByName);
  }
  if (!reaction.noise.empty()) links.noise = finder.noise(reaction.noise);
  links.wakes = finder.agents(reaction.wakes);
  links.after = moments_of(reaction.after, finder.level().ticks_per_second);
  return links;
}

std::vector<std::uint64_t> refills_of(const Level& level, const Thing& thing) {
  std::vector<std::uint64_t> refills;
  if (thing.refills.empty()) return refills;
  for (const Kind& kind : level.kinds) {
    std::uint64_t bits = 0;
    for (const std::string& name : thing.refills) {
      const Index attack = number_of(kind.attacks, name, kByName);
      if (attack != kNothing) bits |= std::uint64_t{1} << attack;
    }
    refills.push_back(bits);
  }
  return refills;
}

KindLinks links_of(Finder& finder, const Kind& kind) {
  KindLinks links;
  links.name = kind.name;
  links.named = finder.kind(kind.name);
  for (const Rule& rule : kind.when.rules) links.rules.push_back(links_of(finder, kind, rule));
  for (const Attack& attack : kind.attacks)
    links.attack_noises.push_back(finder.noise(attack.name));
  links.at_defeat = number_of(kind.attacks, kind.defeat.attack, kByName);
  if (kind.thing) {
    links.flight_noise = finder.noise(kind.thing->flight.name);
    links.refills = refills_of(finder.level(), *kind.thing);
  }
  links.wakes = finder.agents(kind.defeat.wakes);
  links.tells = finder.agents(kind.defeat.tells);
  if (kind.wander) links.area = finder.zone(kind.wander->area);
  return links;
}

ScriptLinks links_of(Finder& finder, const Kind& kind, const ScriptStep& step) {
  ScriptLinks links;
  switch (step.what) {
    case ScriptStep::What::take:
      links.thing = finder.agent(step.name);
      break;
    case ScriptStep::What::aim:
      if (!step.name.empty()) {
        const Index attack = number_of(kind.attacks, step.name, kByName);
        links.attacks = attack == kNothing ? 0 : std::uint64_t{1} << attack;
      }
      break;
    case ScriptStep::What::noise:
      links.noise = finder.noise(step.noise);
      break;
    default:
      break;
  }
  return links;
}

void name_noises(Finder& finder, const Track& track) {
  for (const TrackPoint& point : track.points) {
    for (const TrackDeed& deed : point.deeds) {
      if (deed.what == TrackDeed::What::noise) static_cast<void>(finder.noise(deed.name));
    }
  }
}

}  // namespace

Links::Links(const Level& level) {
  Finder finder(level, noises);
  step = finder.noise("step");
  shot = finder.noise("shot");
  for (const Kind& kind : level.kinds) kinds.push_back(links_of(finder, kind));
  for (const Agent& agent : level.agents) {
    std::vector<ScriptLinks>& links = scripts.emplace_back();
    for (const ScriptStep& step_of_script : agent.script) {
      links.push_back(links_of(finder, level.kind_of(agent), step_of_script));
    }
    if (agent.track) name_noises(finder, *agent.track);
  }
}

}  // namespace gaze
