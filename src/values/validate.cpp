#include <fmt/format.h>

#include <set>

#include "values/playable.hpp"
#include "values/validator.hpp"
#include "values/whole.hpp"

/// Holds a level that a program has made against the rules that files are read by.
namespace gaze {
namespace {

/// Goes through all parts of a level.
class Whole {
 public:
  explicit Whole(const Level& level) : level_(level), faults_(level) {}

  /// What a world is made of alone, which goes by numbers.
  std::vector<Fault> check_solids_alone(std::uint32_t first) {
    needs_ids_ = false;
    check_solids(first);
    return faults_.take();
  }

  std::vector<Fault> check_last_solid() {
    check_counts();
    check_solids(level_.solids.size() - 1);
    if (faults_.empty()) check_last_solid_among_others(faults_, level_);
    return faults_.take();
  }

  std::vector<Fault> check_agent(const Agent& agent) {
    named("agent", agent.id, kAgentKeys, agent.place, agent);
    return faults_.take();
  }

  std::vector<Fault> check() {
    check_counts();
    Validator(faults_, level_, "", kLevelKeys, level_.place).check(level_);
    for (const Material& material : level_.materials) {
      named("material", material.name, kMaterialKeys, level_.place, material);
    }
    check_teams();
    check_kinds();
    check_solids(0);
    for (const Zone& zone : level_.zones) named("zone", zone.id, kZoneKeys, zone.place, zone);
    for (const Link& link : level_.links) named("link", link.id, kLinkKeys, link.place, link);
    for (const Start& start : level_.starts) {
      named("start", start.id, kStartKeys, start.place, start);
    }
    if (level_.bounds) named("bounds", "", kBoundsKeys, level_.bounds->place, *level_.bounds);
    for (const Agent& agent : level_.agents) {
      named("agent", agent.id, kAgentKeys, agent.place, agent);
    }
    check_names("figure", level_.figures, level_.figures.size());
    for (const Figure& figure : level_.figures) {
      named("figure", figure.name, kFigureKeys, figure.place, figure);
    }
    for (const Expectation& one : level_.expectations) {
      named("expect", one.id, kExpectKeys, one.place, one);
    }
    check_round();
    if (!faults_.empty()) return faults_.take();
    return faults_of_whole(level_);
  }

 private:
  template <typename Part>
  void named(std::string_view what, const std::string& name, const KeyTable& keys,
             const Place& written, const Part& part) {
    const std::string path = name.empty() ? std::string(what) : fmt::format("{}.{}", what, name);
    Validator validator(faults_, level_, path, keys, written);
    validator.needs_ids = needs_ids_;
    validator.check(part);
  }

  void check_counts() {
    const auto limit = [&](std::string_view what, std::size_t count, std::size_t most) {
      if (count <= most) return;
      faults_.add(std::string(what), level_.place,
                  fmt::format("{} {}s; at most {} are allowed", count, what, most));
    };
    limit("agent", level_.agents.size(), LevelLimits::agents);
    limit("solid", level_.solids.size(), LevelLimits::solids);
    limit("kind", level_.kinds.size(), LevelLimits::list_items + LevelLimits::agents);
    limit("zone", level_.zones.size(), LevelLimits::list_items);
    limit("link", level_.links.size(), LevelLimits::list_items);
    limit("start", level_.starts.size(), LevelLimits::list_items);
  }

  // What goes by names needs one name for one thing.
  template <typename List>
  void check_names(std::string_view what, const List& list, std::size_t count) {
    std::set<std::string_view> known;
    for (std::size_t i = 0; i < count; ++i) {
      const std::string& name = list[i].name;
      const std::string path = fmt::format("{}.{}", what, name);
      if (!is_name(name)) {
        faults_.add(
            path, level_.place,
            fmt::format("{} '{}' is no name; letters, digits, _ and - are allowed", what, name));
      } else if (!known.insert(name).second) {
        faults_.add(path, level_.place, fmt::format("{} '{}' is defined twice", what, name));
      }
    }
  }

  void check_teams() {
    check_names("material", level_.materials, level_.materials.size());
    check_names("team", level_.teams, level_.teams.size());
    for (const Team& team : level_.teams) {
      const std::string path = fmt::format("team.{}", team.name);
      Validator validator(faults_, level_, path, kTeamKeys, team.place);
      for (const std::uint32_t other : team.hostile) validator.team("hostile", other);
    }
  }

  void check_kinds() {
    if (level_.named_kinds > level_.kinds.size()) {
      return faults_.add("kind", level_.place,
                         fmt::format("{} kinds are named, but there are {}", level_.named_kinds,
                                     level_.kinds.size()));
    }
    check_names("kind", level_.kinds,
                level_.named_kinds == 0 ? level_.kinds.size() : level_.named_kinds);
    for (const Kind& kind : level_.kinds) {
      Validator validator(faults_, level_, fmt::format("kind.{}", kind.name), kKindKeys,
                          kind.place);
      validator.own_kind = &kind;
      validator.check(kind);
    }
  }

  void check_solids(std::size_t first) {
    for (std::size_t i = first; i < level_.solids.size(); ++i) {
      const Solid& solid = level_.solids[i];
      if (solid.form > Solid::Form::mesh) {
        faults_.add("solid." + solid.id, solid.place,
                    fmt::format("solid '{}' has a form that is none", solid.id));
        continue;
      }
      const KeyTable& keys = table_of(solid.form);
      const bool is_flat = is_walkway(solid.form) || solid.form == Solid::Form::mesh;
      if (level_.plane == Plane::upright && is_flat) {
        faults_.add(fmt::format("{}.{}", keys.name, solid.id), solid.place,
                    fmt::format("[[{}]] belongs in ground and space levels", keys.name));
        continue;
      }
      named(keys.name, solid.id, keys, solid.place, solid);
    }
  }

  void check_round() {
    for (const std::uint32_t team : level_.round.ends_without) {
      if (team < level_.teams.size()) continue;
      faults_.add("round.ends", level_.round.place,
                  fmt::format("round.ends is team number {}; there are {}, from 0 on", team,
                              level_.teams.size()));
    }
  }

  const Level& level_;
  FaultList faults_;
  bool needs_ids_ = true;
};

}  // namespace

std::vector<Fault> validate(const Level& level) {
  return Whole(level).check();
}

std::vector<Fault> faults_of(const Level& level, const Agent& agent) {
  return Whole(level).check_agent(agent);
}

std::vector<Fault> faults_of_last_solid(const Level& level) {
  return Whole(level).check_last_solid();
}

void need_solids(const Level& level, std::uint32_t first) {
  auto faults = Whole(level).check_solids_alone(first);
  if (!faults.empty()) throw LevelError(std::move(faults));
}

std::shared_ptr<const Level> playable(std::shared_ptr<const Level> level) {
  if (auto faults = validate(*level); !faults.empty()) throw LevelError(std::move(faults));
  if (is_complete(*level)) return level;
  auto whole = std::make_shared<Level>(*level);
  complete(*whole);
  return whole;
}

std::shared_ptr<const Level> playable(const Level& level) {
  return playable(std::make_shared<const Level>(level));
}

}  // namespace gaze
