#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "gaze/tools/figures.hpp"
#include "level/figures.hpp"
#include "level/numbers.hpp"

/// Figures in words.
namespace gaze {
namespace {

// Of a hurt or a defeat `by` names who suffers it, and `of` who does it.
std::string whom_text(std::optional<Happening> event, const std::string& by,
                      const std::string& of) {
  const bool is_reversed = event && is_suffered(*event);
  const std::string& doer = is_reversed ? of : by;
  const std::string& about = is_reversed ? by : of;
  std::string text;
  if (!doer.empty()) text += " by " + doer;
  if (!about.empty()) text += " of " + about;
  return text;
}

std::string pick_text(const EventPick& pick) {
  return fmt::format("{}{}", name_of(pick.event), whom_text(pick.event, pick.by, pick.of));
}

std::optional<Happening> event_of(const Figure& figure) {
  for (const auto& event : {figure.first, figure.last, figure.count, figure.event}) {
    if (event) return event;
  }
  return std::nullopt;
}

// What is counted or waited for.
std::string what_text(const Figure& figure) {
  if (figure.first) return fmt::format("first {}", name_of(*figure.first));
  if (figure.last) return fmt::format("last {}", name_of(*figure.last));
  if (figure.count) return fmt::format("count of {}", name_of(*figure.count));
  if (figure.sum) {
    return fmt::format("sum of {} of {}", kCarriedNames[static_cast<std::size_t>(*figure.sum)],
                       name_of(*figure.event));
  }
  if (!figure.between.empty()) {
    return fmt::format("from {} to {}", pick_text(figure.between[0]), pick_text(figure.between[1]));
  }
  return "";
}

std::string quantity_text(const Figure& figure, const char* how, Quantity quantity) {
  const std::string by = figure.by.empty() ? "anybody" : figure.by;
  const std::string of = figure.of.empty() ? "anybody" : figure.of;
  if (quantity == Quantity::seen_by) {
    return fmt::format("{} that see {}{}", how, by, figure.of.empty() ? "" : ", of " + of);
  }
  const std::string_view name = kQuantityNames[static_cast<std::size_t>(quantity)];
  if (quantity > Quantity::evidence) return fmt::format("{} {} of {}", how, name, by);
  return fmt::format("{} {} from {} to {}", how, name, by, of);
}

// "share of the time that collector is seen by pruner".
std::string share_text(const Figure& figure) {
  const auto what = *figure.share;
  const std::string by = figure.by.empty() ? "anybody" : figure.by;
  const std::string_view name = kSituationNames[static_cast<std::size_t>(what)];
  if (what > Situation::noticed) return fmt::format("share of the time that {} is in {}", by, name);
  return fmt::format("share of the time that {} is {}{}", by, name,
                     figure.of.empty() ? "" : " by " + figure.of);
}

std::string all_but_time(const Figure& figure) {
  if (figure.share) return share_text(figure);
  if (figure.least) return quantity_text(figure, "least", *figure.least);
  if (figure.most) return quantity_text(figure, "most", *figure.most);
  if (figure.mean) return quantity_text(figure, "mean", *figure.mean);
  if (figure.start) return quantity_text(figure, "first", *figure.start);
  if (figure.end) return quantity_text(figure, "last", *figure.end);
  return what_text(figure) + whom_text(event_of(figure), figure.by, figure.of);
}

// Digits behind the point that a figure of its unit is shown with; none: as short as it can be.
std::optional<int> usual_digits(const Figure& figure, double value) {
  const std::string_view unit = unit_of(figure);
  if (unit == "s") return 3;
  if (!unit.empty()) return std::nullopt;
  const bool is_whole = value == static_cast<double>(std::llround(value));
  return figure.count || is_whole ? 0 : 3;
}

bool compares_alike(const std::string& text, double value, std::span<const double> limits) {
  const double shown = std::stod(text);
  return std::all_of(limits.begin(), limits.end(), [&](double limit) {
    return (shown < limit) == (value < limit) && (shown > limit) == (value > limit);
  });
}

}  // namespace

std::string figure_text(const Figure& figure, const std::optional<double>& value,
                        std::span<const double> limits) {
  if (!value) return "none";
  constexpr int kMostDigits = 17;
  const auto usual = usual_digits(figure, *value);
  std::string number = usual ? fmt::format("{:.{}f}", *value, *usual) : number_text(*value);
  int digits = usual.value_or(2);
  while (!compares_alike(number, *value, limits) && digits < kMostDigits) {
    number = fmt::format("{:.{}f}", *value, ++digits);
  }
  const std::string_view unit = unit_of(figure);
  return unit.empty() ? number : fmt::format("{} {}", number, unit);
}

std::string describe(const Figure& figure) {
  std::string text = all_but_time(figure);
  if (figure.from) text += fmt::format(" from {} s", number_text(figure.from->seconds()));
  if (figure.to) text += fmt::format(" to {} s", number_text(figure.to->seconds()));
  return text;
}

}  // namespace gaze
