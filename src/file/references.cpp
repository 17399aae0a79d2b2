#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "file/read.hpp"
#include "level/spelling.hpp"

/// Names that can be looked up only once the whole level has been read.
namespace gaze {
namespace {

/// Everything that one name after another is looked up in.
class References {
 public:
  References(ReadContext& context, const Level& level) : context_(context), level_(level) {
    for (const Kind& kind : level.kinds) tags_.insert(kind.tags.begin(), kind.tags.end());
    for (const Zone& zone : level.zones) tags_.insert(zone.grants.begin(), zone.grants.end());
    for (const Agent& agent : level.agents) agents_.push_back(agent.id);
    tag_names_.assign(tags_.begin(), tags_.end());
    anybody_ = agents_;
    anybody_.insert(anybody_.end(), tags_.begin(), tags_.end());
    for (const Team& team : level.teams) anybody_.push_back(team.name);
    for (const Kind& kind : level.kinds) anybody_.push_back(kind.name);
  }

  void check() {
    std::set<std::uint32_t> done;
    for (const Agent& agent : level_.agents) {
      if (agent.kind < level_.kinds.size() && done.insert(agent.kind).second) check_kind(agent);
    }
    for (const Zone& zone : level_.zones) {
      for (const std::string& tag : zone.takes)
        need(tag_names_, tag, "tag", zone_place(zone, "takes"));
      for (const std::string& name : zone.triggered_by) {
        need(anybody_, name, "agent, kind, team or tag", zone_place(zone, "triggered_by"));
      }
      for (const std::string& name : zone.closed_to) {
        need(anybody_, name, "agent, kind, team or tag", zone_place(zone, "closed_to"));
      }
    }
    for (const Solid& solid : level_.solids) {
      const auto place = level_.origin(fmt::format("door.{}.opens_for", solid.id));
      for (const std::string& name : solid.door.opens_for) {
        need(anybody_, name, "agent, kind, team or tag", place.value_or(solid.place));
      }
    }
    check_starts();
    check_scripts();
    if (tags_.size() > 64) {
      context_.faults.add(level_.agents.empty() ? Place{} : level_.agents[0].place,
                          fmt::format("{} different tags; at most 64 are allowed", tags_.size()));
    }
  }

 private:
  void check_kind(const Agent& agent) {
    const Kind& kind = level_.kind_of(agent);
    const auto place = [&](const std::string& key) {
      return level_.origin(agent, key).value_or(kind.place);
    };
    for (const std::string& name : kind.move.follows) {
      need(anybody_, name, "agent, kind, team or tag", place("move.follows"));
    }
    if (kind.wander && !kind.wander->area.empty()) {
      std::vector<std::string> zones;
      for (const Zone& zone : level_.zones) zones.push_back(zone.id);
      need(zones, kind.wander->area, "zone", place("wander.area"));
    }
    for (const std::string& id : kind.defeat.tells)
      need(agents_, id, "agent", place("defeat.tells"));
    for (const std::string& id : kind.defeat.wakes)
      need(agents_, id, "agent", place("defeat.wakes"));
    for (const Pocket& pocket : kind.carries) {
      need_thing(pocket.kind, place("carries." + level_.kinds[pocket.kind].name));
    }
    for (const std::string& tag : kind.choose.tags)
      need(tag_names_, tag, "tag", place("choose.tags"));
    for (const Rule& rule : kind.when.rules) {
      const std::string key = fmt::format("when.{}", name_of(rule.cause));
      const std::string name = rule.name.empty() ? "any" : rule.name;
      for (const std::string& id : rule.reaction.wakes) {
        const auto plain = level_.origin(agent, key + ".wakes");
        need(agents_, id, "agent", plain ? *plain : place(fmt::format("{}.{}.wakes", key, name)));
      }
    }
  }

  void check_starts() {
    std::vector<std::string> kinds = agents_;
    for (std::size_t i = 0; i < level_.named_kinds; ++i) kinds.push_back(level_.kinds[i].name);
    for (const Start& start : level_.starts) {
      const auto place = [&](const std::string& key) {
        return level_.origin(fmt::format("start.{}.{}", start.id, key)).value_or(start.place);
      };
      need(kinds, start.kind, "kind or agent", place("kind"));
      if (start.apart_from.empty()) continue;
      need(anybody_, start.apart_from, "agent, kind, team or tag", place("apart_from"));
    }
  }

  void check_scripts() {
    for (const Agent& agent : level_.agents) {
      for (const ScriptStep& step : agent.script) check_step(agent, step, step.written);
    }
  }

  void check_step(const Agent& agent, const ScriptStep& step, const Place& place) {
    if (step.what == ScriptStep::What::throw_) need_thing(step.kind, place);
    if (step.what == ScriptStep::What::take) {
      need(agents_, step.name, "agent", place);
      const auto taken = std::find(agents_.begin(), agents_.end(), step.name);
      if (taken == agents_.end()) return;
      need_thing(level_.agents[static_cast<std::size_t>(taken - agents_.begin())].kind, place);
    }
    if (step.what == ScriptStep::What::aim && !step.name.empty() && agent.kind != kNoSuch) {
      std::vector<std::string> attacks;
      for (const Attack& attack : level_.kind_of(agent).attacks) attacks.push_back(attack.name);
      need(attacks, step.name, "attack", place);
    }
  }

  void need_thing(std::uint32_t kind, const Place& place) {
    if (kind >= level_.kinds.size() || level_.kinds[kind].thing) return;
    context_.faults.add(place,
                        fmt::format("'{0}' is no thing to be carried and thrown: the kind needs "
                                    "a table [kind.{0}.thing]",
                                    level_.kinds[kind].name));
  }

  Place zone_place(const Zone& zone, const std::string& key) const {
    return level_.origin(fmt::format("zone.{}.{}", zone.id, key)).value_or(zone.place);
  }

  void need(const std::vector<std::string>& names, const std::string& name, std::string_view what,
            const Place& place) {
    if (std::find(names.begin(), names.end(), name) != names.end()) return;
    context_.faults.add(place,
                        fmt::format("there is no {} '{}'{}", what, name, suggestion(name, names)));
  }

  ReadContext& context_;
  const Level& level_;
  std::set<std::string> tags_;
  std::vector<std::string> tag_names_;
  std::vector<std::string> anybody_;  ///< Agents, tags, teams and kinds.
  std::vector<std::string> agents_;
};

}  // namespace

void check_references(ReadContext& context, const Level& level) {
  References(context, level).check();
}

}  // namespace gaze
