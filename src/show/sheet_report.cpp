#include <fmt/format.h>
#include <fmt/ranges.h>

#include <nlohmann/json.hpp>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/rounded.hpp"

/// The balance sheet as text, CSV and JSON.
namespace gaze {
namespace {

using Json = nlohmann::ordered_json;

std::string metres(const std::optional<double>& value) {
  return value ? number_text(*value) + " m" : "never";
}

std::string notices_text(const SheetRow& row) {
  if (!row.angle) return "no sight";
  if (!row.notices.standing && !row.notices.moving) {
    return fmt::format("never; {} degrees wide", number_text(*row.angle));
  }
  std::string text = fmt::format("{} standing", metres(row.notices.standing));
  if (row.foe_moves) text += fmt::format(", {} coming up", metres(row.notices.moving));
  if (row.notices.in_dim_light) {
    text += fmt::format(", {} in the dim", metres(row.notices.in_dim_light));
  }
  return text + fmt::format("; {} degrees wide", number_text(*row.angle));
}

std::string other_senses_text(const SheetRow& row) {
  std::string text;
  const auto add = [&](const std::string& part) { text += (text.empty() ? "" : "; ") + part; };
  if (row.hears.walking || row.hears.quiet) {
    add(fmt::format("hears steps from {}, quiet ones {}", metres(row.hears.walking),
                    metres(row.hears.quiet)));
  }
  if (row.near) add("feels it within " + metres(row.near));
  return text;
}

std::string chase_text(const SheetRow& row) {
  if (!row.pair.gain) return row.speed > 0.0 ? "does not chase" : "stays where it is";
  const double gain = *row.pair.gain;
  const std::string speeds =
      fmt::format("{} m/s against {} m/s", number_text(row.speed), number_text(row.speed + gain));
  if (gain < 0.0) return fmt::format("catches up by {} m/s: {}", number_text(-gain), speeds);
  if (gain > 0.0) return fmt::format("is outrun by {} m/s: {}", number_text(gain), speeds);
  return "keeps its distance: " + speeds;
}

std::string running_text(const SheetRow& row) {
  const auto& away = row.pair.running_away;
  if (!away) return "";
  return fmt::format("running from {} m costs up to {} of {} points, {}", number_text(away->from),
                     number_text(away->lost), number_text(row.pair.health),
                     away->seconds ? fmt::format("and takes {} s", number_text(*away->seconds))
                                   : "and does not get away");
}

std::string harms_of(const SheetRow& row) {
  std::vector<std::string> texts;
  for (const PairFigures::Harm& harm : row.pair.harms) texts.push_back(harm_text(harm));
  return fmt::format("{}", fmt::join(texts, ", "));
}

std::string reaches_of(const SheetRow& row) {
  std::vector<std::string> texts;
  for (const SheetRow::Reach& reach : row.reaches) {
    texts.push_back(fmt::format("{} {} m", reach.attack, number_text(reach.metres)));
  }
  return fmt::format("{}", fmt::join(texts, ", "));
}

std::string played_text(const SheetRow& row) {
  const SheetRow::Played& played = row.played;
  std::string text = played.noticed ? fmt::format("notices after {:.3f} s", *played.noticed)
                                    : std::string("never notices");
  if (played.damage_rate > 0.0) {
    text += fmt::format(", {} points/s", number_text(played.damage_rate));
  }
  text += played.defeated ? fmt::format(", defeats in {:.3f} s", *played.defeated)
                          : std::string(", does not defeat in 120 s");
  return text + fmt::format(" (from {} m)", number_text(played.from));
}

Json none_or(const std::optional<double>& value) {
  return value ? Json(rounded(*value)) : Json(nullptr);
}

std::string csv_cell(const std::optional<double>& value) {
  return value ? fmt::format("{}", rounded(*value)) : "";
}

}  // namespace

std::string sheet_text(std::span<const SheetRow> rows) {
  std::string text;
  for (const SheetRow& row : rows) {
    text += fmt::format("{}{} against {} ({} points)\n", text.empty() ? "" : "\n", row.by, row.whom,
                        number_text(row.pair.health));
    const auto line = [&](const char* what, const std::string& value) {
      if (!value.empty()) text += fmt::format("  {:<8} {}\n", what, value);
    };
    line("sees", notices_text(row));
    line("senses", other_senses_text(row));
    line("chase",
         chase_text(row) + (row.pair.gain ? fmt::format("; stops at {} m", number_text(row.stop))
                                          : std::string()));
    line("reach", reaches_of(row));
    line("harm", harms_of(row));
    line("running", running_text(row));
    line("played", played_text(row));
  }
  if (text.empty()) return "nobody is hostile to anybody in play\n";
  return text +
         "\n(all but what was played follows from the values alone, on an open floor; harm if all "
         "of it hits)\n";
}

std::string sheet_csv(std::span<const SheetRow> rows) {
  std::string text =
      "by,whom,health,notices_standing,notices_moving,notices_dim,hears_walking,hears_quiet,near,"
      "angle,stop,reach,speed,gap_per_second,defeated_if_all_hits,running_costs,running_takes,"
      "played_from,played_noticed,played_damage_rate,played_defeated\n";
  for (const SheetRow& row : rows) {
    std::optional<double> reach;
    for (const SheetRow::Reach& one : row.reaches) {
      reach = std::max(reach.value_or(0.0), one.metres);
    }
    std::optional<double> defeated;
    for (const PairFigures::Harm& harm : row.pair.harms) {
      if (harm.seconds && harm.is_in_reach())
        defeated = std::min(defeated.value_or(*harm.seconds), *harm.seconds);
    }
    const auto& away = row.pair.running_away;
    const std::optional<double> cells[] = {row.pair.health,
                                           row.notices.standing,
                                           row.notices.moving,
                                           row.notices.in_dim_light,
                                           row.hears.walking,
                                           row.hears.quiet,
                                           row.near,
                                           row.angle,
                                           row.stop,
                                           reach,
                                           row.speed,
                                           row.pair.gain,
                                           defeated,
                                           away ? std::optional(away->lost) : std::nullopt,
                                           away ? away->seconds : std::nullopt,
                                           row.played.from,
                                           row.played.noticed,
                                           row.played.damage_rate,
                                           row.played.defeated};
    text += row.by + "," + row.whom;
    for (const auto& cell : cells) text += "," + csv_cell(cell);
    text += "\n";
  }
  return text;
}

std::string sheet_json(std::span<const SheetRow> rows) {
  Json list = Json::array();
  for (const SheetRow& row : rows) {
    Json one{{"by", row.by}, {"whom", row.whom}, {"health", rounded(row.pair.health)}};
    one["notices"] = {{"standing", none_or(row.notices.standing)},
                      {"moving", none_or(row.notices.moving)},
                      {"dim", none_or(row.notices.in_dim_light)}};
    one["hears"] = {{"walking", none_or(row.hears.walking)}, {"quiet", none_or(row.hears.quiet)}};
    one["near"] = none_or(row.near);
    one["angle"] = none_or(row.angle);
    one["stop"] = rounded(row.stop);
    one["speed"] = rounded(row.speed);
    one["gap_per_second"] = none_or(row.pair.gain);
    one["reach"] = Json::array();
    for (const SheetRow::Reach& reach : row.reaches) {
      one["reach"].push_back({{"attack", reach.attack}, {"metres", rounded(reach.metres)}});
    }
    one["harm"] = Json::array();
    for (const PairFigures::Harm& harm : row.pair.harms) {
      one["harm"].push_back({{"attack", harm.attack},
                             {"in_reach", harm.is_in_reach()},
                             {"dealt", rounded(harm.dealt)},
                             {"seconds", none_or(harm.seconds)}});
    }
    one["running"] = nullptr;
    if (const auto& away = row.pair.running_away) {
      one["running"] = {{"from", rounded(away->from)},
                        {"costs", rounded(away->lost)},
                        {"seconds", none_or(away->seconds)}};
    }
    one["played"] = {{"from", rounded(row.played.from)},
                     {"noticed", none_or(row.played.noticed)},
                     {"damage_rate", rounded(row.played.damage_rate)},
                     {"defeated", none_or(row.played.defeated)}};
    list.push_back(std::move(one));
  }
  return list.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace gaze
