#include "gaze/level.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace gaze {

std::optional<Place> Level::origin(std::string_view path) const {
  if (const auto found = origins.find(path); found != origins.end()) return found->second;
  constexpr std::string_view kAgent = "agent.";
  if (!path.starts_with(kAgent)) return std::nullopt;
  const std::string_view rest = path.substr(kAgent.size());
  const std::string_view id = rest.substr(0, rest.find('.'));
  const auto agent = std::find_if(agents.begin(), agents.end(),
                                  [&](const Agent& candidate) { return candidate.id == id; });
  if (agent == agents.end()) return std::nullopt;
  if (rest.size() == id.size()) return agent->place;
  return origin(*agent, rest.substr(id.size() + 1));
}

std::optional<Place> Level::origin(const Agent& agent, std::string_view key) const {
  auto found = origins.find(fmt::format("agent.{}.{}", agent.id, key));
  if (found == origins.end() && agent.kind < kinds.size()) {
    found = origins.find(fmt::format("kind.{}.{}", kind_of(agent).name, key));
  }
  return found == origins.end() ? std::nullopt : std::optional(found->second);
}

bool is_hostile(const Level& level, std::uint32_t team, std::uint32_t other) {
  if (team == kNoTeam || other == kNoTeam) return false;
  const std::vector<std::uint32_t>& hostile = level.teams[team].hostile;
  return std::find(hostile.begin(), hostile.end(), other) != hostile.end();
}

Mode idle_mode(const Agent& agent, const Kind& kind) {
  if (agent.driver == Driver::host) return Mode::host;
  const bool is_scripted = !agent.driver && (agent.track || !agent.script.empty());
  if (is_scripted || agent.driver == Driver::track || agent.driver == Driver::script)
    return Mode::script;
  if (kind.when.idle) return *kind.when.idle;
  const bool mirrors =
      std::any_of(kind.attacks.begin(), kind.attacks.end(),
                  [](const Attack& attack) { return attack.aim == Attack::Aim::mirror; });
  if (mirrors) return Mode::mirror;
  if (agent.patrol.size() >= 2) return Mode::patrol;
  if (kind.wander) return Mode::wander;
  return kind.move && !kind.move->follows.empty() ? Mode::follow : Mode::post;
}

bool is_solid_to(const Level& level, const Kind& kind, std::uint32_t team) {
  if (kind.thing) return false;
  const bool are_foes = is_hostile(level, kind.team, team) || is_hostile(level, team, kind.team);
  return are_foes ? kind.solid_to.foes : kind.solid_to.friends;
}

bool stop_each_other(const Level& level, const Kind& a, const Kind& b) {
  return is_solid_to(level, a, b.team) && is_solid_to(level, b, a.team);
}

double share_taken(const Kind& kind, const std::string& damage_kind) {
  const auto own = kind.resist.find(damage_kind);
  return own == kind.resist.end() ? 1.0 : 1.0 - own->second;
}

double stop_distance(const Kind& chaser, const Kind& target) {
  const double both = chaser.radius + target.radius;
  return chaser.move ? chaser.move->stop_distance.value_or(both) : both;
}

double eye_height(const Kind& kind) {
  return kind.sight && kind.sight->eye ? kind.sight->eye->z() : kEyeShare * kind.height;
}

double farthest_sight(const Kind& kind) {
  return kind.sight ? kind.sight->keep_range.value_or(kind.sight->range) : 0.0;
}

std::string_view name_of(Plane plane) {
  constexpr std::array<std::string_view, 3> kNames{"ground", "upright", "space"};
  return kNames[static_cast<std::size_t>(plane)];
}

}  // namespace gaze
