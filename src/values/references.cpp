#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "level/spelling.hpp"
#include "values/whole.hpp"

/// Names that can be looked up only once the whole level has been read.
namespace gaze {
namespace {

/// Everything that one name after another is looked up in.
class References {
 public:
  References(FaultList& faults, const Level& level) : faults_(faults), level_(level) {
    for (const Kind& kind : level.kinds) tags_.insert(kind.tags.begin(), kind.tags.end());
    for (const Zone& zone : level.zones) tags_.insert(zone.grants.begin(), zone.grants.end());
    for (const Agent& agent : level.agents) agents_.push_back(agent.id);
    tag_names_.assign(tags_.begin(), tags_.end());
    anybody_ = agents_;
    anybody_.insert(anybody_.end(), tags_.begin(), tags_.end());
    for (const Team& team : level.teams) anybody_.push_back(team.name);
    for (const Kind& kind : level.kinds) {
      anybody_.push_back(kind.name);
      for (const Attack& attack : kind.attacks) attacks_.push_back(attack.name);
    }
  }

  void check() {
    std::set<std::uint32_t> done;
    for (const Agent& agent : level_.agents) {
      if (agent.kind < level_.kinds.size() && done.insert(agent.kind).second) check_kind(agent);
    }
    for (const Zone& zone : level_.zones) check_zone(zone);
    for (const Solid& solid : level_.solids) {
      const std::string path = fmt::format("door.{}.opens_for", solid.id);
      for (const std::string& name : solid.door.opens_for) {
        need(anybody_, name, kAnybody, path, solid.place);
      }
    }
    check_starts();
    for (const Figure& figure : level_.figures) check_figure(figure);
    check_expectations();
    for (const Agent& agent : level_.agents) {
      for (const ScriptStep& step : agent.script) check_step(agent, step);
      if (agent.track) check_track(agent);
    }
    constexpr std::size_t kMostTags = 64;
    if (tags_.size() > kMostTags) {
      faults_.add(
          "kind", level_.agents.empty() ? Place{} : level_.agents[0].place,
          fmt::format("{} different tags; at most {} are allowed", tags_.size(), kMostTags));
    }
  }

 private:
  static constexpr std::string_view kAnybody = "agent, kind, team or tag";

  void check_zone(const Zone& zone) {
    const auto path = [&](std::string_view key) { return fmt::format("zone.{}.{}", zone.id, key); };
    for (const std::string& tag : zone.takes) {
      need(tag_names_, tag, "tag", path("takes"), zone.place);
    }
    for (const std::string& name : zone.triggered_by) {
      need(anybody_, name, kAnybody, path("triggered_by"), zone.place);
    }
    for (const std::string& name : zone.closed_to) {
      need(anybody_, name, kAnybody, path("closed_to"), zone.place);
    }
  }

  void check_kind(const Agent& agent) {
    const Kind& kind = level_.kind_of(agent);
    const auto path = [&](std::string_view key) {
      return level_.origin(agent, key) || !kind.place.file.empty()
                 ? fmt::format("agent.{}.{}", agent.id, key)
                 : fmt::format("kind.{}.{}", kind.name, key);
    };
    const auto need_all = [&](const std::vector<std::string>& known,
                              const std::vector<std::string>& wanted, std::string_view what,
                              const std::string& key) {
      for (const std::string& name : wanted) need(known, name, what, path(key), kind.place);
    };
    if (kind.move) need_all(anybody_, kind.move->follows, kAnybody, "move.follows");
    if (kind.thing) {
      need_all(anybody_, kind.thing->picked_up_by, kAnybody, "thing.picked_up_by");
      need_all(attacks_, kind.thing->refills, "attack", "thing.refills");
    }
    if (kind.wander && !kind.wander->area.empty()) {
      std::vector<std::string> zones;
      for (const Zone& zone : level_.zones) zones.push_back(zone.id);
      need(zones, kind.wander->area, "zone", path("wander.area"), kind.place);
    }
    need_all(agents_, kind.defeat.tells, "agent", "defeat.tells");
    need_all(agents_, kind.defeat.wakes, "agent", "defeat.wakes");
    for (const Pocket& pocket : kind.carries) {
      if (pocket.kind >= level_.kinds.size()) continue;
      if (std::string wrong = no_thing(pocket.kind); !wrong.empty()) {
        faults_.add(path("carries." + level_.kinds[pocket.kind].name), kind.place,
                    std::move(wrong));
      }
    }
    need_all(tag_names_, kind.choose.tags, "tag", "choose.tags");
    for (const Rule& rule : kind.when.rules) {
      const std::string key = fmt::format("when.{}", name_of(rule.cause));
      const bool is_plain = level_.origin(agent, key + ".wakes").has_value();
      const std::string name = rule.name.empty() ? "any" : rule.name;
      need_all(agents_, rule.reaction.wakes, "agent",
               is_plain ? key + ".wakes" : fmt::format("{}.{}.wakes", key, name));
    }
  }

  void check_starts() {
    std::vector<std::string> kinds = agents_;
    const std::size_t named = level_.named_kinds == 0 ? level_.kinds.size() : level_.named_kinds;
    for (std::size_t i = 0; i < named; ++i) kinds.push_back(level_.kinds[i].name);
    for (const Start& start : level_.starts) {
      const std::string path = fmt::format("start.{}.", start.id);
      need(kinds, start.kind, "kind or agent", path + "kind", start.place);
      if (start.apart_from.empty()) continue;
      need(anybody_, start.apart_from, kAnybody, path + "apart_from", start.place);
    }
  }

  void check_figure(const Figure& figure) {
    const auto check = [&](std::string_view key, const std::string& name) {
      if (name.empty()) return;
      need(anybody_, name, kAnybody, fmt::format("figure.{}.{}", figure.name, key), figure.place);
    };
    check("by", figure.by);
    check("of", figure.of);
    for (std::size_t i = 0; i < figure.between.size(); ++i) {
      check(fmt::format("between[{}].by", i + 1), figure.between[i].by);
      check(fmt::format("between[{}].of", i + 1), figure.between[i].of);
    }
  }

  void check_expectations() {
    std::vector<std::string> figures;
    for (const Figure& figure : all_figures(level_)) figures.push_back(figure.name);
    std::set<std::string> known;
    for (const Expectation& one : level_.expectations) {
      need(figures, one.figure, "figure", fmt::format("expect.{}.figure", one.id), one.place);
      if (known.insert(one.id).second) continue;
      faults_.add(fmt::format("expect.{}.id", one.id), one.place,
                  fmt::format("the id '{}' is that of another expectation", one.id));
    }
  }

  // A step is told where it stands itself.
  void check_step(const Agent& agent, const ScriptStep& step) {
    const auto tell = [&](const std::string& message) {
      if (message.empty()) return;
      const Place& place = step.written.file.empty() ? agent.place : step.written;
      faults_.add_at(place, fmt::format("agent.{}.script", agent.id), message);
    };
    if (step.what == ScriptStep::What::throw_) tell(no_thing(step.kind));
    if (step.what == ScriptStep::What::take) {
      tell(no_name(agents_, step.name, "agent"));
      const auto taken = std::find(agents_.begin(), agents_.end(), step.name);
      if (taken == agents_.end()) return;
      tell(no_thing(level_.agents[static_cast<std::size_t>(taken - agents_.begin())].kind));
    }
    if (step.what == ScriptStep::What::aim && !step.name.empty() &&
        agent.kind < level_.kinds.size()) {
      std::vector<std::string> attacks;
      for (const Attack& attack : level_.kind_of(agent).attacks) attacks.push_back(attack.name);
      tell(no_name(attacks, step.name, "attack"));
    }
  }

  // What stands in a track is told at its line.
  void check_track(const Agent& agent) {
    for (const TrackPoint& point : agent.track->points) {
      const Place place{agent.track->file, static_cast<int>(point.line), 1};
      const auto tell = [&](const std::string& message) {
        if (!message.empty()) {
          faults_.add_at(place, fmt::format("agent.{}.track", agent.id), message);
        }
      };
      if (agent.kind < level_.kinds.size()) {
        std::vector<std::string> known;
        for (const Attack& attack : level_.kind_of(agent).attacks) known.push_back(attack.name);
        for (const std::string& name : point.attacks) tell(no_name(known, name, "attack"));
      }
      for (const TrackDeed& deed : point.deeds) tell(wrong_with(deed));
    }
  }

  std::string wrong_with(const TrackDeed& deed) const {
    if (deed.what == TrackDeed::What::take) {
      if (std::string wrong = no_name(agents_, deed.name, "agent"); !wrong.empty()) return wrong;
      const auto taken = std::find(agents_.begin(), agents_.end(), deed.name);
      return no_thing(level_.agents[static_cast<std::size_t>(taken - agents_.begin())].kind);
    }
    if (deed.what != TrackDeed::What::throw_) return "";
    std::vector<std::string> kinds;
    for (const Kind& kind : level_.kinds) kinds.push_back(kind.name);
    if (std::string wrong = no_name(kinds, deed.name, "kind"); !wrong.empty()) return wrong;
    const auto thrown = std::find(kinds.begin(), kinds.end(), deed.name);
    return no_thing(static_cast<std::uint32_t>(thrown - kinds.begin()));
  }

  // What is wrong with the number of a kind, or with a name; empty if nothing is.
  std::string no_thing(std::uint32_t kind) const {
    if (kind >= level_.kinds.size() || level_.kinds[kind].thing) return "";
    return fmt::format(
        "'{0}' is no thing to be carried and thrown: the kind needs a table "
        "[kind.{0}.thing]",
        level_.kinds[kind].name);
  }
  static std::string no_name(const std::vector<std::string>& names, const std::string& name,
                             std::string_view what) {
    if (std::find(names.begin(), names.end(), name) != names.end()) return "";
    return fmt::format("there is no {} '{}'{}", what, name, suggestion(name, names));
  }

  void need(const std::vector<std::string>& names, const std::string& name, std::string_view what,
            const std::string& path, const Place& written) {
    if (std::string wrong = no_name(names, name, what); !wrong.empty()) {
      faults_.add(path, written, std::move(wrong));
    }
  }

  FaultList& faults_;
  const Level& level_;
  std::set<std::string> tags_;
  std::vector<std::string> tag_names_;
  std::vector<std::string> attacks_;  ///< Of all kinds.
  std::vector<std::string> anybody_;  ///< Agents, tags, teams and kinds.
  std::vector<std::string> agents_;
};

}  // namespace

void check_references(FaultList& faults, const Level& level) {
  References(faults, level).check();
}

}  // namespace gaze
