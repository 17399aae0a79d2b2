#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <set>
#include <string>
#include <tuple>

#include "judge/judges.hpp"
#include "level/numbers.hpp"
#include "navigation/mesh.hpp"
#include "values/playable.hpp"

namespace gaze {

Place Bench::place_of(const Kind& kind, const std::string& key) const {
  const auto agent = std::find_if(level_.agents.begin(), level_.agents.end(),
                                  [&](const Agent& one) { return &level_.kind_of(one) == &kind; });
  const auto written = [&](const std::string& path) {
    return agent == level_.agents.end() ? level_.origin("kind." + kind.name + "." + path)
                                        : level_.origin(*agent, path);
  };
  for (std::string path = key;; path.resize(path.rfind('.'))) {
    if (const auto place = written(path)) return *place;
    if (path.find('.') == std::string::npos) return kind.place;
  }
}

std::vector<const Kind*> Bench::foes_in_play(const Kind& kind) const {
  std::vector<const Kind*> foes;
  for (const std::uint32_t index : in_play_) {
    const Kind& other = level_.kinds[index];
    if (is_hostile(level_, kind.team, other.team)) foes.push_back(&other);
  }
  return foes;
}

NavigationMesh Bench::mesh_of(const Agent& agent) {
  const auto number = static_cast<std::uint32_t>(&agent - level_.agents.data());
  const std::uint64_t tags = tag_bits(openings_.tag_names, level_.kind_of(agent).tags);
  const BodySize size = body_size(level_, openings_, {number, agent.kind, tags});
  const auto it = std::find_if(meshes_.begin(), meshes_.end(),
                               [&](const NavigationMesh& mesh) { return mesh.body() == size; });
  if (it != meshes_.end()) return *it;
  const NavigationMesh& mesh = meshes_.emplace_back(level_, world_, size);
  if (mesh.corners_without_sights() > 0) tell_slow_ways(level_.kind_of(agent), mesh);
  return mesh;
}

void Bench::tell_slow_ways(const Kind& kind, const NavigationMesh& mesh) {
  say(Finding::Severity::note, "slow-ways", kind.place,
      worded("the solids have {} corners for kind '{}', and which of them see each other was "
             "not worked out for {}: it takes more than {} million looks, or there are more than "
             "{} million such sights; ways are as short, and take longer to find",
             mesh.corner_count(), kind.name, mesh.corners_without_sights(),
             NavigationMesh::kMostLooks / 1'000'000, NavigationMesh::kMostSights / 1'000'000));
}

void Bench::say_left_out(const std::string& what, std::size_t looked_at, const std::string& whom,
                         std::size_t left_out) {
  if (left_out == 0) return;
  say(Finding::Severity::note, "not-all-judged", level_.place,
      fmt::format("{} {} {}, and not for the other {}: it would take too long", what, looked_at,
                  whom, left_out));
}

std::string Bench::why_apart(const NavigationMesh& mesh, const Vector3d& from, const Vector3d& to) {
  constexpr std::size_t kMostPartings = 50;
  const auto island_at = [&](const Vector3d& place) { return mesh.island_of(*mesh.find(place)); };
  const auto key = std::tuple(&data_of(mesh), island_at(from), island_at(to));
  const auto known = partings_.find(key);
  if (known != partings_.end()) return known->second;
  if (partings_.size() >= kMostPartings) {
    return fmt::format("what is between them was not looked for, as it was for {} others",
                       kMostPartings);
  }
  return partings_[key] = describe(level_, parting(level_, world_, mesh, from, to));
}

bool has_cover(const Level& level) {
  return std::any_of(level.solids.begin(), level.solids.end(), [&](const Solid& solid) {
    return level.materials[solid.material].stops.test(static_cast<std::size_t>(Stops::sight));
  });
}

bool has_attack(const Kind& kind, Attack::How how) {
  return std::any_of(kind.attacks.begin(), kind.attacks.end(),
                     [&](const Attack& attack) { return attack.how == how; });
}

bool leads_to(const Kind& kind, Mode mode) {
  return std::any_of(kind.when.rules.begin(), kind.when.rules.end(),
                     [&](const Rule& rule) { return rule.reaction.mode == mode; });
}

bool is_written(const Level& level, const Kind& kind, const std::string& key) {
  const std::string path = fmt::format("kind.{}.{}", kind.name, key);
  const auto it = level.origins.lower_bound(path);
  if (it == level.origins.end() || !it->first.starts_with(path)) return false;
  return it->first.size() == path.size() || it->first[path.size()] == '.';
}

bool can_chase(const Kind& kind) {
  const bool chases =
      std::any_of(kind.when.rules.begin(), kind.when.rules.end(),
                  [](const Rule& rule) { return rule.reaction.mode == Mode::chase; });
  return travels(kind.move->gait) && chases;
}

std::vector<Finding> judge(const Level& as_given, const std::function<bool()>& goes_on) {
  const std::shared_ptr<const Level> whole = playable(as_given);
  const Level& level = *whole;
  const World world(level);
  Bench bench(level, world);
  constexpr std::array kJudges{judge_placement, judge_ranges,    judge_shots,      judge_pairs,
                               judge_blocked,   judge_defeats,   judge_chases,     judge_names,
                               judge_in_vain,   judge_powerless, judge_exposure,   judge_unmet,
                               judge_habits,    judge_senses,    judge_ways,       judge_links,
                               judge_meshes,    judge_tracks,    judge_blind_spots};
  for (const auto judge_part : kJudges) {
    if (goes_on && !goes_on()) break;
    judge_part(bench);
  }
  std::vector<Finding> findings = bench.take();
  std::stable_sort(findings.begin(), findings.end(), [](const Finding& a, const Finding& b) {
    return std::tie(a.severity, a.place) < std::tie(b.severity, b.place);
  });
  return findings;
}

bool has_fault(const std::vector<Finding>& findings) {
  return std::any_of(findings.begin(), findings.end(), [](const Finding& finding) {
    return finding.severity != Finding::Severity::note;
  });
}

std::string_view name_of(Finding::Severity severity) {
  switch (severity) {
    case Finding::Severity::error:
      return "error";
    case Finding::Severity::warning:
      return "warning";
    default:
      return "note";
  }
}

}  // namespace gaze
