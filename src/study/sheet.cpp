#include "gaze/tools/sheet.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "gaze/simulation.hpp"
#include "judge/judges.hpp"
#include "study/noticing.hpp"
#include "study/play_runs.hpp"

namespace gaze {
namespace {

double darkest(const Level& level) {
  double dimness = 0.0;
  for (const Zone& zone : level.zones) dimness = std::max(dimness, zone.dimness);
  return dimness;
}

std::optional<double> heard_from(const Hearing& hearing, double reach) {
  const double limit = std::min(hearing.range, reach * hearing.acuity);
  return limit > 0.0 ? std::optional(limit) : std::nullopt;
}

std::vector<SheetRow::Reach> reaches_of(const Kind& kind) {
  std::vector<SheetRow::Reach> reaches;
  for (const Attack& attack : kind.attacks) {
    if (attack.range > 0.0) reaches.push_back({attack.name, attack.range});
  }
  return reaches;
}

// What names agents that are not there names nobody.
void forget_names(Kind& kind) {
  kind.defeat.tells.clear();
  kind.defeat.wakes.clear();
  kind.wander.reset();
  kind.when.idle.reset();
  for (Rule& rule : kind.when.rules) rule.reaction.wakes.clear();
  if (kind.move) kind.move->follows.clear();
  kind.choose.tags.clear();
}

/// The two alone on an open floor, facing each other; the other stands still.
Level duel_of(const Level& level, std::uint32_t by, std::uint32_t whom, double apart) {
  Level duel;
  duel.name = "duel";
  duel.plane = level.plane;
  duel.ticks_per_second = level.ticks_per_second;
  duel.seconds = 120.0;
  duel.gravity = level.gravity;
  duel.ground_height = level.ground_height;
  duel.materials = level.materials;
  duel.teams = level.teams;
  duel.kinds = level.kinds;
  duel.named_kinds = level.named_kinds;
  for (Kind& kind : duel.kinds) forget_names(kind);
  const double height = level.ground_height.value_or(0.0);
  const Vector3d floor{0.0, 0.0, height};
  Agent one;
  one.id = "one";
  one.kind = by;
  one.position = floor;
  one.driver = Driver::mind;
  Agent other;
  other.id = "other";
  other.kind = whom;
  other.position = floor + Vector3d{apart, 0.0, 0.0};
  other.facing = Angle::from_degrees(180.0);
  other.driver = Driver::host;
  duel.agents = {one, other};
  return duel;
}

SheetRow::Played played(const Level& level, std::uint32_t by, std::uint32_t whom, double apart) {
  Simulation game(duel_of(level, by, whom, apart));
  const AgentId one = game.agent("one");
  const AgentId other = game.agent("other");
  SheetRow::Played result;
  result.from = apart;
  std::optional<double> first_attack;
  double last_hurt = 0.0;
  double lost = 0.0;
  while (game.seconds() < game.level().seconds && !result.defeated) {
    game.step();
    for (const Event& event : game.events()) {
      const double seconds = static_cast<double>(event.tick) / game.level().ticks_per_second;
      if (event.agent == one && event.other == other) {
        if (event.what == Event::What::noticed && !result.noticed) result.noticed = seconds;
        if (event.what == Event::What::attacked && !first_attack) first_attack = seconds;
      }
      if (event.agent != other || event.other != one) continue;
      if (event.what == Event::What::hurt) {
        lost += event.damage;
        last_hurt = seconds;
        if (!first_attack) first_attack = seconds;
      }
      if (event.what == Event::What::defeated || event.what == Event::What::caught) {
        result.defeated = seconds - first_attack.value_or(seconds);
      }
    }
  }
  const double taken = last_hurt - first_attack.value_or(last_hurt);
  if (taken > 0.0) result.damage_rate = lost / taken;
  return result;
}

SheetRow row_of(const Level& level, std::uint32_t by, std::uint32_t whom) {
  const Kind& kind = level.kinds[by];
  const Kind& foe = level.kinds[whom];
  SheetRow row;
  row.by = kind.name;
  row.whom = foe.name;
  if (kind.sight) {
    const Noticing noticing(level, kind, foe);
    row.notices.standing = noticing.standing();
    row.notices.moving = noticing.moving(0.0);
    if (const double dimness = darkest(level); dimness > 0.0) {
      row.notices.in_dim_light = noticing.moving(dimness);
    }
    row.angle = kind.sight->field_of_view.degrees();
  }
  if (kind.hearing && foe.move && travels(foe.move->gait)) {
    row.hears.walking = heard_from(*kind.hearing, foe.move->step_reach);
    row.hears.quiet = heard_from(*kind.hearing, foe.move->quiet_reach);
  }
  if (kind.nearness) row.near = kind.nearness->range;
  row.stop = nearest_in_chase(kind, foe);
  row.reaches = reaches_of(kind);
  row.foe_moves = foe.move && travels(foe.move->gait) && foe.move->speed > 0.0;
  row.speed = kind.move && travels(kind.move->gait) ? kind.move->speed : 0.0;
  row.pair = figures_of_pair(level, kind, foe);
  row.played = played(level, by, whom, row.stop + 0.01);
  return row;
}

bool is_armed_or_senses(const Kind& kind) {
  return kind.sight || kind.hearing || !kind.feelers.empty() || kind.nearness || kind.touch ||
         kind.hurt || !kind.attacks.empty();
}

}  // namespace

std::vector<SheetRow> balance_sheet(const Level& given, const StudyOptions& options) {
  constexpr std::size_t kMostRows = 2'000;
  Level level = given;
  complete(level);
  std::set<std::uint32_t> in_play;
  for (const Agent& agent : level.agents) {
    if (!agent.is_spare) in_play.insert(agent.kind);
  }
  std::vector<std::pair<std::uint32_t, std::uint32_t>> pairs;
  std::set<std::pair<std::string, std::string>> known;  // agents of their own kind fare alike
  for (const std::uint32_t by : in_play) {
    for (const std::uint32_t whom : in_play) {
      const Kind& kind = level.kinds[by];
      const Kind& foe = level.kinds[whom];
      const bool is_for_it = is_hostile(level, kind.team, foe.team) && !kind.thing && !foe.thing;
      if (is_for_it && is_armed_or_senses(kind) && pairs.size() < kMostRows &&
          known.emplace(kind.name, foe.name).second) {
        pairs.emplace_back(by, whom);
      }
    }
  }
  std::vector<SheetRow> rows(pairs.size());
  const auto is_done = for_all(pairs.size(), options, [&](std::size_t i, Account&) {
    rows[i] = row_of(level, pairs[i].first, pairs[i].second);
    return true;
  });
  std::vector<SheetRow> whole;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    if (is_done[i] != 0) whole.push_back(std::move(rows[i]));
  }
  return whole;
}

}  // namespace gaze
