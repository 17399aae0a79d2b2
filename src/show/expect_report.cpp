#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <pugixml.hpp>
#include <sstream>
#include <tuple>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/rounded.hpp"

/// What came of expectations: as text, JSON and JUnit XML.
namespace gaze {
namespace {

using Json = nlohmann::ordered_json;

// Limits of an expectation. An `exactly` that holds is left out: its number may be off by rounding,
// and that needs no digits.
std::vector<double> limits_of(const ExpectResult& result) {
  std::vector<double> limits;
  const auto add = [&](const std::optional<double>& limit) {
    if (limit) limits.push_back(*limit);
  };
  add(result.expectation.at_least);
  add(result.expectation.at_most);
  if (!result.holds) add(result.expectation.exactly);
  return limits;
}

// ", 0.233 s too little"
std::string missed_text(const ExpectResult& result) {
  if (!result.missed_by) return "";
  const double value = *result.values[result.told];
  const auto& [least, exact] = std::tie(result.expectation.at_least, result.expectation.exactly);
  const bool is_low = (least && value < *least) || (exact && value < *exact);
  return fmt::format(", {} too {}", figure_text(result.figure, result.missed_by),
                     is_low ? "little" : "much");
}

// "collector.warning is 0.767 s, 0.233 s too little; expected: at least 1 s".
std::string number_line(const ExpectResult& result) {
  const std::size_t runs = result.values.size();
  const std::string limit = limit_text(result.expectation, result.figure);
  const std::string number =
      figure_text(result.figure, result.values[result.told], limits_of(result));
  if (runs == 1) {
    return fmt::format("{} is {}{}; expected: {}", result.figure.name, number, missed_text(result),
                       limit);
  }
  const double needed = std::ceil(result.expectation.of_runs * static_cast<double>(runs) - 1e-9);
  std::string line = fmt::format("{} in {} of {} runs as expected ({}), {:.0f} needed",
                                 result.figure.name, result.held, runs, limit, needed);
  if (result.held == runs) return line;
  return line + fmt::format("; with seed {} it is {}{}", result.seeds[result.told], number,
                            missed_text(result));
}

std::string spread_line(const ExpectResult& result) {
  const Spread spread = spread_of(result.values);
  if (spread.some == 0) return "none in any run";
  const auto text = [&](double value) { return figure_text(result.figure, value); };
  if (spread.some == spread.runs && text(spread.least) == text(spread.most)) {
    return fmt::format("{} in all runs", text(spread.least));
  }
  std::string line =
      fmt::format("median {}, half of them {} to {}, all {} to {}", text(spread.median),
                  text(spread.low), text(spread.high), text(spread.least), text(spread.most));
  if (spread.some < spread.runs) {
    line += fmt::format("; none in {} runs", spread.runs - spread.some);
  }
  return line;
}

// What is told of one that fails, each on a line of its own.
std::vector<std::string> why_lines(const ExpectResult& result) {
  std::vector<std::string> lines;
  if (result.values.size() > 1) lines.push_back(spread_line(result));
  if (result.reasons.empty()) lines.push_back("nothing of this happened");
  for (const Explained& reason : result.reasons) {
    lines.push_back(fmt::format("{:.3f} s  {}", reason.seconds, reason.what));
    lines.push_back(fmt::format("         {}", reason.where));
    if (!reason.verdict.empty()) lines.push_back(fmt::format("         {}", reason.verdict));
  }
  return lines;
}

Json number(const std::optional<double>& value) {
  return value ? Json(rounded(*value)) : Json(nullptr);
}

Json json_of(const ExpectResult& result) {
  Json json{{"id", result.expectation.id},
            {"holds", result.holds},
            {"figure", result.figure.name},
            {"unit", unit_of(result.figure)},
            {"expected", limit_text(result.expectation, result.figure)},
            {"runs", result.values.size()},
            {"held", result.held},
            {"needed", rounded(result.expectation.of_runs)},
            {"seed", result.seeds[result.told]},
            {"value", number(result.values[result.told])},
            {"missed_by", number(result.missed_by)}};
  Json values = Json::array();
  for (const auto& value : result.values) values.push_back(number(value));
  json["values"] = std::move(values);
  Json reasons = Json::array();
  for (const Explained& reason : result.reasons) {
    Json one{{"time", rounded(reason.seconds)}, {"what", reason.what}, {"where", reason.where}};
    if (!reason.verdict.empty()) one["verdict"] = reason.verdict;
    reasons.push_back(std::move(one));
  }
  json["reasons"] = std::move(reasons);
  return json;
}

// Characters that XML cannot hold.
std::string for_xml(std::string text) {
  for (char& c : text) {
    const auto code = static_cast<unsigned char>(c);
    if (code < 0x20 && c != '\n' && c != '\t') c = '?';
  }
  return text;
}

void set(pugi::xml_node node, const char* name, const std::string& value) {
  node.append_attribute(name).set_value(for_xml(value).c_str());
}

double seconds_of(std::span<const ExpectResult> results) {
  double seconds = 0.0;
  for (const ExpectResult& result : results) seconds += result.wall_seconds;
  return seconds;
}

std::size_t failures_of(std::span<const ExpectResult> results) {
  return static_cast<std::size_t>(std::count_if(
      results.begin(), results.end(), [](const ExpectResult& one) { return !one.holds; }));
}

void add_case(pugi::xml_node suite, const std::string& level, const ExpectResult& result) {
  pugi::xml_node node = suite.append_child("testcase");
  set(node, "name", result.expectation.id);
  set(node, "classname", level);
  set(node, "time", fmt::format("{:.3f}", result.wall_seconds));
  if (result.holds) return;
  pugi::xml_node failure = node.append_child("failure");
  set(failure, "message", number_line(result));
  set(failure, "type", "expectation");
  std::string text;
  for (const std::string& line : why_lines(result)) text += line + "\n";
  failure.append_child(pugi::node_pcdata).set_value(for_xml(text).c_str());
}

}  // namespace

std::string figure_table(std::span<const Figure> figures, std::span<const FigureValue> values) {
  std::size_t width = 0;
  for (const Figure& figure : figures) width = std::max(width, figure.name.size());
  std::string text;
  for (std::size_t i = 0; i < figures.size(); ++i) {
    text += fmt::format("{:<{}} {:>14}  {}\n", figures[i].name, width,
                        figure_text(figures[i], values[i].value), describe(figures[i]));
  }
  return text;
}

std::string expect_text(std::span<const ExpectResult> results) {
  std::string text;
  for (const ExpectResult& result : results) {
    text += fmt::format("{}  {}: {}\n", result.holds ? "holds" : "FAILS", result.expectation.id,
                        number_line(result));
    if (result.holds && result.values.size() == 1) continue;
    if (result.holds) {
      text += "         " + spread_line(result) + "\n";
      continue;
    }
    for (const std::string& line : why_lines(result)) text += "         " + line + "\n";
  }
  return text;
}

std::string expect_json(std::span<const LevelResults> levels) {
  Json all = Json::array();
  for (const LevelResults& level : levels) {
    Json json{{"level", level.level}, {"failed", failures_of(level.results)}};
    json["expectations"] = Json::array();
    for (const ExpectResult& one : level.results) json["expectations"].push_back(json_of(one));
    all.push_back(std::move(json));
  }
  return all.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

std::string expect_junit(std::span<const LevelResults> levels) {
  pugi::xml_document document;
  pugi::xml_node root = document.append_child("testsuites");
  for (const LevelResults& level : levels) {
    pugi::xml_node suite = root.append_child("testsuite");
    set(suite, "name", level.level);
    set(suite, "tests", std::to_string(level.results.size()));
    set(suite, "failures", std::to_string(failures_of(level.results)));
    set(suite, "errors", "0");
    set(suite, "skipped", "0");
    set(suite, "time", fmt::format("{:.3f}", seconds_of(level.results)));
    for (const ExpectResult& result : level.results) add_case(suite, level.level, result);
  }
  std::ostringstream text;
  document.save(text, " ");
  return text.str();
}

}  // namespace gaze
