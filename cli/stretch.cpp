#include "stretch.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <nlohmann/json.hpp>

#include "show/round.hpp"

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
      has ? cell(verdict.range.value, verdict.range.pass, 3) : cell(row.distance, true, 3),
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

template <typename Value>
ChartLine line_of(const std::vector<WatchRow>& rows, std::string label, bool is_limit,
                  Value&& value) {
  ChartLine line{std::move(label), {}, is_limit};
  for (const WatchRow& row : rows) {
    line.values.push_back(row.verdict.has_sight ? value(row.verdict)
                                                : std::numeric_limits<double>::quiet_NaN());
  }
  return line;
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

Chart chart_of(const std::vector<WatchRow>& rows, const std::string& title) {
  Chart chart;
  chart.title = title;
  chart.bands = bands_of(rows);
  ChartPanel distance{"distance, m", 0.0, 1.0, {}, {}};
  ChartPanel angle{"angle, degrees", 0.0, 180.0, {}, {}};
  ChartPanel share{"share", 0.0, 1.0, {}, {}};
  distance.lines = {
      line_of(rows, "measured", false, [](const Verdict& v) { return v.range.value; }),
      line_of(rows, "range", true, [](const Verdict& v) { return v.range.limit; })};
  angle.lines = {
      line_of(rows, "off the facing", false, [](const Verdict& v) { return v.field.value_deg; }),
      line_of(rows, "half the field of view", true,
              [](const Verdict& v) { return v.field.limit_deg; })};
  share.lines = {line_of(rows, "visible", false, [](const Verdict& v) { return v.line.visible; }),
                 line_of(rows, "evidence", false, [](const Verdict& v) { return v.gathered; })};
  distance.high = std::ceil(highest(distance.lines));
  for (const WatchRow& row : rows) {
    chart.times.push_back(row.seconds);
    distance.passes.push_back(row.verdict.range.pass);
    angle.passes.push_back(row.verdict.field.pass);
    share.passes.push_back(row.verdict.line.pass);
    if (!row.broke.empty()) chart.marks.push_back({row.seconds, row.broke});
  }
  chart.panels = {std::move(distance), std::move(angle), std::move(share)};
  return chart;
}

}  // namespace gaze::cli
