#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "judge/judges.hpp"
#include "level/numbers.hpp"

namespace gaze {
namespace {

using Severity = Finding::Severity;

std::set<std::string> used_kinds(const Level& level) {
  std::set<std::string> used;
  for (const Agent& agent : level.agents) used.insert(level.kind_of(agent).name);
  for (std::size_t i = 0; i < level.named_kinds; ++i) used.insert(level.kinds[i].like);
  const auto use = [&](const std::optional<std::uint32_t>& kind) {
    if (kind) used.insert(level.kinds[*kind].name);
  };
  for (const Kind& kind : level.kinds) {
    use(kind.defeat.leaves);
    for (const Attack& attack : kind.attacks) use(attack.leaves);
    if (kind.thing) use(kind.thing->flight.leaves);
    for (const Pocket& pocket : kind.carries) use(pocket.kind);
  }
  return used;
}

bool has_agents(const Level& level, std::uint32_t team) {
  return std::any_of(level.agents.begin(), level.agents.end(),
                     [&](const Agent& agent) { return level.kind_of(agent).team == team; });
}

// Kinds from an included file are shared by levels, and need not play in each.
bool is_shared(const Level& level, const Kind& kind) {
  return !level.agents.empty() && kind.place.file != level.agents.front().place.file;
}

bool can_notice_or_act(const Kind& kind) {
  return kind.sight || kind.hearing || kind.nearness || kind.touch || kind.hurt ||
         !kind.feelers.empty() || !kind.attacks.empty() || !kind.when.rules.empty();
}

// A level in its first minutes: there are foes, and nobody has anything to notice them with.
void judge_eyes(Bench& bench) {
  const Level& level = bench.level();
  const bool anybody =
      any_agent(level, [](const Agent&, const Kind& kind) { return can_notice_or_act(kind); });
  if (anybody) return;
  for (const Agent& agent : level.agents) {
    const Kind& kind = level.kind_of(agent);
    if (agent.driver != Driver::mind || bench.foes_in_play(kind).empty()) continue;
    bench.say(
        Severity::warning, "nobody-notices", agent.place,
        worded("{} is hostile to somebody here, but nobody in this level has a sense: nothing "
               "will be noticed; [kind.{}.sight] would give it eyes",
               agent.id, kind.name));
    return;
  }
}

}  // namespace

void judge_names(Bench& bench) {
  const Level& level = bench.level();
  if (level.agents.empty()) {
    bench.say(Severity::warning, "no-agents", level.place,
              "there is no agent in this level: nothing will happen; [[agent]] places one");
  }
  judge_eyes(bench);
  const std::set<std::string> used = used_kinds(level);
  for (std::size_t i = 0; i < level.named_kinds; ++i) {
    const Kind& kind = level.kinds[i];
    if (used.contains(kind.name) || is_shared(level, kind)) continue;
    bench.say(Severity::warning, "kind-never-used", kind.place,
              worded("kind {} is never used: no agent is of it and no kind is like it", kind.name));
  }
  for (std::uint32_t team = 0; team < level.teams.size(); ++team) {
    for (const std::uint32_t hostile : level.teams[team].hostile) {
      if (has_agents(level, hostile) || !has_agents(level, team)) continue;
      bench.say(Severity::warning, "hostile-team-empty", level.teams[team].place,
                worded("{} are hostile to {}, but no agent is of that team: there is nobody "
                       "of it to notice",
                       level.teams[team].name, level.teams[hostile].name));
    }
  }
}

}  // namespace gaze
