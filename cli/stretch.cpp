#include "stretch.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <nlohmann/json.hpp>

#include "level/rounded.hpp"

namespace gaze::cli {
namespace {

using Json = nlohmann::ordered_json;

const char* awareness_word(Awareness awareness) {
  switch (awareness) {
    case Awareness::unaware:
      return "unaware";
    case Awareness::gathering:
      return "gathering";
    case Awareness::noticed:
      return "noticed";
    default:
      return "remembers";
  }
}

std::string cell(double value, bool pass, int decimals) {
  return fmt::format("{:.{}f}{}", value, decimals, pass ? " " : "!");
}

// Without its time.
std::string cells(const WatchRow& row) {
  const Verdict& verdict = row.verdict;
  const bool has = verdict.has_sight;
  return fmt::format(
      "{:>9}  {:>8}  {:>8}  {:>8}  {:<11}  {:<9}  {:<8}  {}\n",
      has ? cell(verdict.range.value, verdict.range.pass, 2) : cell(row.distance, true, 2),
      has ? cell(verdict.field.value_deg, verdict.field.pass, 1) : "-",
      has ? cell(verdict.line.visible * 100.0, verdict.line.pass, 0) : "-",
      has ? fmt::format("{:.0f}", verdict.gathered * 100.0) : "-", name_of(row.mode),
      awareness_word(row.awareness), row.by ? name_of(*row.by) : "-", row.broke);
}

std::vector<ChartBand> bands_of(const std::vector<WatchRow>& rows) {
  std::vector<ChartBand> bands;
  for (const WatchRow& row : rows) {
    const std::string mode(name_of(row.mode));
    if (bands.empty() || bands.back().label != mode) {
      if (!bands.empty()) bands.back().to = row.seconds;
      bands.push_back({row.seconds, row.seconds, mode});
    }
    bands.back().to = row.seconds;
  }
  return bands;
}

/// What a panel holds against each other; nothing for rows to which it does not apply.
using Number = std::function<std::optional<double>(const WatchRow&)>;

ChartLine line_of(const std::vector<WatchRow>& rows, std::string label, bool is_limit,
                  const Number& number) {
  ChartLine line{std::move(label), {}, is_limit};
  for (const WatchRow& row : rows) {
    line.values.push_back(number(row).value_or(std::numeric_limits<double>::quiet_NaN()));
  }
  return line;
}

// A number of the verdict, for those that see.
template <typename Value>
Number seen(Value&& value) {
  return [value](const WatchRow& row) -> std::optional<double> {
    if (!row.verdict.has_sight) return std::nullopt;
    return value(row.verdict);
  };
}

double highest(const std::vector<ChartLine>& lines) {
  double high = 0.0;
  for (const ChartLine& line : lines) {
    for (const double value : line.values)
      high = std::isfinite(value) ? std::max(high, value) : high;
  }
  return high > 0.0 ? high : 1.0;
}

}  // namespace

std::string table(const std::vector<WatchRow>& rows) {
  std::string text = fmt::format("{:>8}  {:>9}  {:>8}  {:>8}  {:>8}  {:<11}  {:<9}  {:<8}  {}\n",
                                 "time s", "distance ", "angle ", "visible ", "evidence", "mode",
                                 "knows", "by", "crossed since (+ passes, - fails)");
  for (std::size_t i = 0; i < rows.size(); ++i) {
    text += fmt::format("{:8.3f}  {}", rows[i].seconds, cells(rows[i]));
    std::size_t last = i;
    while (last + 1 < rows.size() && cells(rows[last + 1]) == cells(rows[i])) ++last;
    if (last < i + 2) continue;
    text += fmt::format("{:>8}  the same in {} more rows\n",
                        fmt::format("to {:.3f}", rows[last].seconds), last - i);
    i = last;
  }
  return text + "! beyond its limit; distance in m, angle in degrees, visible and evidence in %\n";
}

std::string table_json(const std::vector<WatchRow>& rows) {
  Json json = Json::array();
  for (const WatchRow& row : rows) {
    Json one;
    one["time"] = rounded(row.seconds);
    one["mode"] = name_of(row.mode);
    one["knows"] = awareness_word(row.awareness);
    if (row.by) one["by"] = name_of(*row.by);
    one["sees"] = row.verdict.sees;
    if (row.verdict.has_sight) {
      one["distance"] = rounded(row.verdict.range.value);
      one["angle"] = rounded(row.verdict.field.value_deg);
      one["visible"] = rounded(row.verdict.line.visible);
      one["evidence"] = rounded(row.verdict.gathered);
    }
    one["crossed"] = row.broke;
    json.push_back(std::move(one));
  }
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

namespace {

bool any(const std::vector<WatchRow>& rows, const std::function<bool(const WatchRow&)>& is) {
  return std::any_of(rows.begin(), rows.end(), is);
}

// From 0 to the next whole metre above all lines.
ChartPanel metres(const std::string& label, std::vector<ChartLine> lines) {
  ChartPanel panel{label, 0.0, 1.0, std::move(lines), {}};
  panel.high = std::ceil(highest(panel.lines));
  return panel;
}

void add_sight(Chart& chart, const std::vector<WatchRow>& rows) {
  ChartPanel distance = metres(
      "distance, m",
      {line_of(rows, "measured", false, seen([](const Verdict& v) { return v.range.value; })),
       line_of(rows, "range", true, seen([](const Verdict& v) { return v.range.limit; }))});
  ChartPanel angle{"angle, degrees",
                   0.0,
                   180.0,
                   {line_of(rows, "off the middle of the view", false,
                            seen([](const Verdict& v) { return v.field.value_deg; })),
                    line_of(rows, "half the field of view", true,
                            seen([](const Verdict& v) { return v.field.limit_deg; }))},
                   {}};
  ChartPanel share{
      "share",
      0.0,
      1.0,
      {line_of(rows, "visible", false, seen([](const Verdict& v) { return v.line.visible; })),
       line_of(rows, "evidence", false, seen([](const Verdict& v) { return v.gathered; }))},
      {}};
  for (const WatchRow& row : rows) {
    distance.passes.push_back(row.verdict.range.pass);
    angle.passes.push_back(row.verdict.field.pass);
    share.passes.push_back(row.verdict.line.pass);
  }
  chart.panels.insert(chart.panels.end(),
                      {std::move(distance), std::move(angle), std::move(share)});
}

void add_nearness(Chart& chart, const std::vector<WatchRow>& rows) {
  const auto number = [](double NearnessAnswer::*part) {
    return [part](const WatchRow& row) -> std::optional<double> {
      return row.nearness ? std::optional((*row.nearness).*part) : std::nullopt;
    };
  };
  ChartPanel panel = metres("nearness, m along its axes",
                            {line_of(rows, "measured", false, number(&NearnessAnswer::value)),
                             line_of(rows, "range", true, number(&NearnessAnswer::limit))});
  for (const WatchRow& row : rows) panel.passes.push_back(row.nearness && row.nearness->pass);
  chart.panels.push_back(std::move(panel));
}

void add_hearing(Chart& chart, const std::vector<WatchRow>& rows) {
  const auto way = [](const WatchRow& row) -> std::optional<double> {
    if (!row.noise) return std::nullopt;
    return row.noise->verdict.around.value_or(row.noise->verdict.distance);
  };
  const auto limit = [](const WatchRow& row) -> std::optional<double> {
    if (!row.noise) return std::nullopt;
    return std::min(row.noise->verdict.range, row.noise->verdict.reach);
  };
  ChartPanel panel =
      metres("the last noise of the other, m", {line_of(rows, "as far as sound goes", false, way),
                                                line_of(rows, "heard up to", true, limit)});
  for (const WatchRow& row : rows) panel.passes.push_back(row.noise && row.noise->verdict.hears);
  chart.panels.push_back(std::move(panel));
}

}  // namespace

// A panel for each thing that its senses measure.
Chart chart_of(const std::vector<WatchRow>& rows, const std::string& title) {
  Chart chart;
  chart.title = title;
  chart.bands = bands_of(rows);
  for (const WatchRow& row : rows) {
    chart.times.push_back(row.seconds);
    if (!row.broke.empty()) chart.marks.push_back({row.seconds, row.broke});
  }
  if (any(rows, [](const WatchRow& row) { return row.verdict.has_sight; })) add_sight(chart, rows);
  if (any(rows, [](const WatchRow& row) { return row.nearness.has_value(); })) {
    add_nearness(chart, rows);
  }
  if (any(rows, [](const WatchRow& row) { return row.noise.has_value(); })) {
    add_hearing(chart, rows);
  }
  if (chart.panels.empty()) {
    chart.panels.push_back(metres("distance between the feet, m",
                                  {line_of(rows, "measured", false, [](const WatchRow& row) {
                                    return std::optional(row.distance);
                                  })}));
  }
  return chart;
}

}  // namespace gaze::cli
