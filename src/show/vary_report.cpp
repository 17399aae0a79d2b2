#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/rounded.hpp"

/// What figures come to when values are varied: as text, CSV and JSON.
namespace gaze {
namespace {

using Json = nlohmann::ordered_json;
using Numbers = std::vector<std::optional<double>>;

Json number_or_null(const std::optional<double>& value) {
  return value ? Json(rounded(*value)) : Json(nullptr);
}

// "93 points", "83 (77 to 90) points", and in how many runs there was none.
std::string cell_text(const Figure& figure, const Numbers& values,
                      std::span<const double> limits = {}) {
  const Spread spread = spread_of(values);
  if (spread.some == 0) return "none";
  std::string text = figure_text(figure, spread.median, limits);
  if (spread.low < spread.high) {
    text += fmt::format(" ({} to {})", figure_text(figure, spread.low, limits),
                        figure_text(figure, spread.high, limits));
  }
  if (spread.some < spread.runs) {
    text += fmt::format(", none in {}", spread.runs - spread.some);
  }
  return text;
}

/// Columns as wide as what stands in them, to the right but for the first.
std::string table_text(const std::vector<std::vector<std::string>>& rows) {
  std::vector<std::size_t> widths;
  for (const auto& row : rows) {
    widths.resize(std::max(widths.size(), row.size()));
    for (std::size_t i = 0; i < row.size(); ++i) widths[i] = std::max(widths[i], row[i].size());
  }
  std::string text;
  for (const auto& row : rows) {
    for (std::size_t i = 0; i < row.size(); ++i) {
      text += fmt::format("{}{:>{}}", i == 0 ? "" : "  ", row[i], widths[i]);
    }
    text += "\n";
  }
  return text;
}

std::string one_axis(const Variation& variation) {
  std::vector<std::vector<std::string>> rows{{variation.axes[0].path}};
  for (const Figure& figure : variation.figures) rows[0].push_back(figure.name);
  for (const VaryPoint& point : variation.points) {
    auto& row = rows.emplace_back();
    row.push_back(variation.axes[0].values[point.at[0]]);
    for (std::size_t f = 0; f < variation.figures.size(); ++f) {
      row.push_back(cell_text(variation.figures[f], point.values[f]));
    }
  }
  return table_text(rows);
}

// Medians alone: with more a table would be too wide to be read.
std::string two_axes(const Variation& variation) {
  const auto& [down, across] = std::tie(variation.axes[0], variation.axes[1]);
  std::string text;
  for (std::size_t f = 0; f < variation.figures.size(); ++f) {
    const Figure& figure = variation.figures[f];
    text += fmt::format("{}{}{}\n", f == 0 ? "" : "\n", figure.name,
                        variation.runs > 1 ? ", medians" : "");
    std::vector<std::vector<std::string>> rows(
        down.values.size() + 1, std::vector<std::string>(across.values.size() + 1, "-"));
    rows[0][0] = fmt::format("{} \\ {}", down.path, across.path);
    for (std::size_t i = 0; i < down.values.size(); ++i) rows[i + 1][0] = down.values[i];
    for (std::size_t k = 0; k < across.values.size(); ++k) rows[0][k + 1] = across.values[k];
    for (const VaryPoint& point : variation.points) {
      const Spread spread = spread_of(point.values[f]);
      rows[point.at[0] + 1][point.at[1] + 1] =
          spread.some == 0 ? "none" : figure_text(figure, spread.median);
    }
    text += table_text(rows);
  }
  return text;
}

std::string jump_line(const Variation& variation, const Jump& jump) {
  const Figure& figure = variation.figures[jump.figure];
  return fmt::format("{} jumps from {} to {} between {} and {}\n", figure.name,
                     figure_text(figure, jump.before), figure_text(figure, jump.after), jump.from,
                     jump.to);
}

Json spread_json(const Numbers& values) {
  const Spread spread = spread_of(values);
  Json json{{"runs", spread.runs}, {"some", spread.some}};
  if (spread.some == 0) return json;
  json["least"] = rounded(spread.least);
  json["low"] = rounded(spread.low);
  json["median"] = rounded(spread.median);
  json["high"] = rounded(spread.high);
  json["most"] = rounded(spread.most);
  json["mean"] = rounded(spread.mean);
  return json;
}

Json numbers_json(const Numbers& numbers) {
  Json list = Json::array();
  for (const auto& number : numbers) list.push_back(number_or_null(number));
  return list;
}

std::string dumped_text(const Json& json) {
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

std::string wish_text(const Search& search) {
  Expectation wish;
  wish.at_least = search.wish.at_least;
  wish.at_most = search.wish.at_most;
  std::string text = fmt::format("{} {}", search.figure.name, limit_text(wish, search.figure));
  if (search.wish.runs > 1) {
    text += fmt::format(" in {} of {} runs", number_text(search.wish.of_runs), search.wish.runs);
  }
  return text;
}

std::string tried_text(const Search& search, const Tried& tried) {
  std::vector<double> limits;
  for (const auto& limit : {search.wish.at_least, search.wish.at_most}) {
    if (limit) limits.push_back(*limit);
  }
  std::string text = cell_text(search.figure, tried.numbers, limits);
  if (tried.numbers.size() > 1) {
    text +=
        fmt::format(", as wished in {:.0f} of {} runs",
                    tried.share * static_cast<double>(tried.numbers.size()), tried.numbers.size());
  }
  return text;
}

Json tried_json(const Tried& tried) {
  return {{"value", tried.value},
          {"holds", tried.holds},
          {"share", rounded(tried.share)},
          {"numbers", numbers_json(tried.numbers)}};
}

}  // namespace

std::string vary_text(const Variation& variation) {
  std::string text = variation.axes.size() == 1 ? one_axis(variation) : two_axes(variation);
  if (variation.runs > 1) {
    text += fmt::format("(medians of {} runs, in brackets the middle half)\n", variation.runs);
  }
  for (const Jump& jump : variation.jumps) text += jump_line(variation, jump);
  return text;
}

std::string vary_csv(const Variation& variation) {
  std::string text;
  for (const Axis& axis : variation.axes) text += axis.path + ",";
  text += "run";
  for (const Figure& figure : variation.figures) text += "," + figure.name;
  text += "\n";
  for (const VaryPoint& point : variation.points) {
    for (std::size_t run = 0; run < variation.runs; ++run) {
      for (std::size_t i = 0; i < point.at.size(); ++i) {
        text += variation.axes[i].values[point.at[i]] + ",";
      }
      text += std::to_string(run + 1);
      for (const auto& values : point.values) {
        text += values[run] ? fmt::format(",{}", rounded(*values[run])) : ",";
      }
      text += "\n";
    }
  }
  return text;
}

std::string vary_json(const Variation& variation) {
  Json json{{"runs", variation.runs}, {"whole", variation.is_whole}};
  json["over"] = Json::array();
  for (const Axis& axis : variation.axes) {
    json["over"].push_back({{"path", axis.path}, {"values", axis.values}});
  }
  json["figures"] = Json::array();
  for (const Figure& figure : variation.figures) {
    json["figures"].push_back(
        {{"name", figure.name}, {"unit", unit_of(figure)}, {"what", describe(figure)}});
  }
  json["points"] = Json::array();
  for (const VaryPoint& point : variation.points) {
    Json one{{"values", Json::array()}, {"figures", Json::array()}};
    for (std::size_t i = 0; i < point.at.size(); ++i) {
      one["values"].push_back(variation.axes[i].values[point.at[i]]);
    }
    for (const auto& values : point.values) {
      one["figures"].push_back(
          {{"spread", spread_json(values)}, {"numbers", numbers_json(values)}});
    }
    json["points"].push_back(std::move(one));
  }
  json["jumps"] = Json::array();
  for (const Jump& jump : variation.jumps) {
    json["jumps"].push_back({{"figure", variation.figures[jump.figure].name},
                             {"from", jump.from},
                             {"to", jump.to},
                             {"before", number_or_null(jump.before)},
                             {"after", number_or_null(jump.after)}});
  }
  return dumped_text(json);
}

std::string find_text(const Search& search) {
  const std::string wish = wish_text(search);
  const auto& tried = search.tried;
  if (tried.empty()) return fmt::format("nothing was played: {}\n", wish);
  std::string text;
  for (const Limit& limit : search.limits) {
    text += fmt::format("{}: {} {} between {} and {}\n", search.path, wish,
                        limit.after.holds ? "begins to hold" : "ceases to hold", limit.before.value,
                        limit.after.value);
    for (const Tried* side : {&limit.before, &limit.after}) {
      text += fmt::format("  at {:<20} {}: {}\n", side->value, side->holds ? "holds" : "FAILS",
                          tried_text(search, *side));
    }
  }
  if (search.limits.size() > 1) {
    text += fmt::format("{} limits: it holds in more than one stretch, or between two\n",
                        search.limits.size());
  }
  if (!search.limits.empty()) return text;
  const bool holds = tried.front().holds;
  text = fmt::format("{}: {} holds {} from {} to {}, at all {} values that were played\n",
                     search.path, wish, holds ? "always" : "nowhere", tried.front().value,
                     tried.back().value, tried.size());
  for (const Tried* end : {&tried.front(), &tried.back()}) {
    text += fmt::format("  at {:<20} {}: {}\n", end->value, end->holds ? "holds" : "FAILS",
                        tried_text(search, *end));
  }
  return text;
}

std::string find_json(const Search& search) {
  Json json{
      {"path", search.path},       {"figure", search.figure.name}, {"unit", unit_of(search.figure)},
      {"wish", wish_text(search)}, {"width", search.width},        {"whole", search.is_whole}};
  json["limits"] = Json::array();
  for (const Limit& limit : search.limits) {
    json["limits"].push_back(
        {{"before", tried_json(limit.before)}, {"after", tried_json(limit.after)}});
  }
  json["tried"] = Json::array();
  for (const Tried& tried : search.tried) json["tried"].push_back(tried_json(tried));
  return dumped_text(json);
}

}  // namespace gaze
