#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/rounded.hpp"

/// Two runs side by side, as text and JSON.
namespace gaze {
namespace {

using Json = nlohmann::ordered_json;

std::string fork_text(const RunFork& fork, const std::array<std::string, 2>& names) {
  std::string text = fmt::format("The runs part at {:.3f} s, by {}", fork.seconds, fork.who);
  if (fork.others > 0) {
    text += fmt::format(" and {} other{}", fork.others, fork.others == 1 ? "" : "s");
  }
  text += "\n";
  const std::size_t width = std::max(names[0].size(), names[1].size());
  for (std::size_t i = 0; i < 2; ++i) {
    text += fmt::format("  {:<{}}  {} {}\n", names[i], width, fork.who, fork.states[i]);
    if (fork.verdicts[i].empty()) continue;
    text += fmt::format("  {:<{}}  {}\n", "", width, fork.verdicts[i]);
  }
  return text;
}

std::string opening_text(const Comparison& comparison, const std::array<std::string, 2>& names) {
  if (comparison.fork) return fork_text(*comparison.fork, names);
  if (!comparison.is_compared_by_tick) {
    return "The runs have different tick rates: only their figures and the number of their events "
           "are compared\n";
  }
  if (comparison.differs_inside) {
    return "No difference shows. At the end the runs differ in memories, cooldowns or planned "
           "paths\n";
  }
  return "The runs do not part: all that both have is alike to the last bit\n";
}

std::string value_line(const ValueDifference& one) {
  const auto side = [&](std::size_t i) {
    if (one.values[i].empty()) return std::string("left out");
    return fmt::format("{} ({})", one.values[i], one.places[i]);
  };
  return fmt::format("  {}: {} | {}\n", one.path, side(0), side(1));
}

// "+12 points", "0.417 s later", "from none": how the second differs from the first.
std::string change_text(const Figure& figure, const std::array<std::optional<double>, 2>& values) {
  if (values[0] == values[1]) return "the same";
  if (!values[0] || !values[1]) return "";
  const double change = *values[1] - *values[0];
  if (figure.first || figure.last) {
    return fmt::format("{:.3f} s {}", std::abs(change), change > 0.0 ? "later" : "sooner");
  }
  return fmt::format("{}{}", change > 0.0 ? "+" : "-", figure_text(figure, std::abs(change)));
}

std::string figures_side_by_side(const Comparison& comparison,
                                 const std::array<std::string, 2>& names) {
  if (comparison.figures.empty()) return "";
  std::size_t width = 0;
  for (const Figure& figure : comparison.figures) width = std::max(width, figure.name.size());
  std::string text = fmt::format("\nFigures: {} | {}\n", names[0], names[1]);
  for (std::size_t i = 0; i < comparison.figures.size(); ++i) {
    const Figure& figure = comparison.figures[i];
    const auto& values = comparison.values[i];
    text += fmt::format("  {:<{}} {:>14} {:>14}  {}\n", figure.name, width,
                        figure_text(figure, values[0]), figure_text(figure, values[1]),
                        change_text(figure, values));
  }
  return text;
}

std::string events_side_by_side(const Comparison& comparison) {
  if (comparison.events.empty()) return "\nEvents: as many of each sort\n";
  std::string text = "\nEvents that differ in number or time\n";
  for (const EventDifference& one : comparison.events) {
    const auto side = [&](std::size_t i) {
      return one.count[i] == 0 ? std::string("never")
                               : fmt::format("{} x from {:.3f} s", one.count[i], one.first[i]);
    };
    text += fmt::format("  {:>20} {:>20}  {}\n", side(0), side(1), one.what);
  }
  return text;
}

Json strings(const std::vector<std::string>& list) {
  return Json(list);
}

Json null_or(const std::optional<double>& value) {
  return value ? Json(rounded(*value)) : Json(nullptr);
}

}  // namespace

std::string compare_text(const Comparison& comparison, std::span<const ValueDifference> values,
                         const std::array<std::string, 2>& names) {
  std::string text = opening_text(comparison, names);
  const auto missing = [&](const std::vector<std::string>& ids, const std::string& name) {
    for (const std::string& id : ids) text += fmt::format("  only in {}: {}\n", name, id);
  };
  missing(comparison.only_in_one, names[0]);
  missing(comparison.only_in_other, names[1]);
  if (!values.empty()) {
    text += fmt::format("\nValues that differ: {} | {}\n", names[0], names[1]);
    for (const ValueDifference& one : values) text += value_line(one);
  }
  return text + figures_side_by_side(comparison, names) + events_side_by_side(comparison);
}

std::string compare_json(const Comparison& comparison, std::span<const ValueDifference> values,
                         const std::array<std::string, 2>& names) {
  Json json{{"names", names}};
  json["parts"] = nullptr;
  if (comparison.fork) {
    const RunFork& fork = *comparison.fork;
    json["parts"] = {
        {"time", rounded(fork.seconds)}, {"agent", fork.who},         {"other", fork.of},
        {"states", fork.states},         {"verdicts", fork.verdicts}, {"more_agents", fork.others}};
  }
  json["compared_by_tick"] = comparison.is_compared_by_tick;
  json["differs_inside"] = comparison.differs_inside;
  json["only_in_one"] = strings(comparison.only_in_one);
  json["only_in_other"] = strings(comparison.only_in_other);
  json["values"] = Json::array();
  for (const ValueDifference& one : values) {
    json["values"].push_back({{"path", one.path}, {"values", one.values}, {"places", one.places}});
  }
  json["figures"] = Json::array();
  for (std::size_t i = 0; i < comparison.figures.size(); ++i) {
    json["figures"].push_back(
        {{"name", comparison.figures[i].name},
         {"unit", unit_of(comparison.figures[i])},
         {"values", {null_or(comparison.values[i][0]), null_or(comparison.values[i][1])}}});
  }
  json["events"] = Json::array();
  for (const EventDifference& one : comparison.events) {
    json["events"].push_back({{"what", one.what},
                              {"count", one.count},
                              {"first",
                               {one.count[0] > 0 ? Json(rounded(one.first[0])) : Json(nullptr),
                                one.count[1] > 0 ? Json(rounded(one.first[1])) : Json(nullptr)}}});
  }
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace gaze
