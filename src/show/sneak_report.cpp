#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "gaze/tools/report.hpp"
#include "level/numbers.hpp"
#include "level/rounded.hpp"

/// Ways that nobody notices, as text and JSON.
namespace gaze {
namespace {

using Json = nlohmann::ordered_json;

std::string barrier_text(const Level& level, const SneakBarrier& barrier) {
  if (!barrier.zone.empty()) {
    const std::string_view change = !barrier.is_tried       ? ""
                                    : barrier.opens_without ? "; without that a way opens"
                                                            : "; without that none opens either";
    return fmt::format("  {} is told by {} of who steps into it, at {}{}\n", barrier.watcher,
                       barrier.zone, place_text(level.plane, barrier.place), change);
  }
  std::string text =
      fmt::format("  {} sees {} for certain from {:.2f} to {:.2f} s", barrier.watcher,
                  place_text(level.plane, barrier.place), barrier.from, barrier.to);
  if (barrier.range) {
    text += fmt::format("; with a range of {} m instead of {} m a way opens",
                        number_text(*barrier.range), number_text(barrier.range_now));
  } else if (barrier.is_tried) {
    text += "; no smaller range of it alone opens a way";
  }
  return text + "\n";
}

Json spot_json(const Vector3d& p) {
  return {rounded(p.x()), rounded(p.y()), rounded(p.z())};
}

std::string_view outcome_text(Sneak::Outcome outcome) {
  switch (outcome) {
    case Sneak::Outcome::found:
      return "found";
    case Sneak::Outcome::none:
      return "none";
    default:
      return "undecided";
  }
}

}  // namespace

std::string sneak_text(const Level& level, const SneakTask& task, const Sneak& sneak) {
  const std::string to = place_text(level.plane, task.to);
  if (sneak.outcome == Sneak::Outcome::undecided) {
    return fmt::format("undecided: {}\n", sneak.reason);
  }
  if (sneak.outcome == Sneak::Outcome::none) {
    std::string text =
        fmt::format("{} cannot get to {} unnoticed within {} s{}\n", task.agent, to,
                    number_text(level.seconds), sneak.reason.empty() ? "" : ": " + sneak.reason);
    for (const SneakBarrier& barrier : sneak.barriers) text += barrier_text(level, barrier);
    return text;
  }
  std::string text = fmt::format("{} gets to {} unnoticed in {:.3f} s (played, at try {})\n",
                                 task.agent, to, sneak.seconds, sneak.tries);
  text += sneak.by.empty()
              ? std::string("  nobody gathers any evidence\n")
              : fmt::format("  {} gathers most evidence: {:.0f} % of what it needs to notice\n",
                            sneak.by, sneak.most_evidence * 100.0);
  const auto& points = sneak.track.points;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const bool waits = i + 1 < points.size() && points[i + 1].place == points[i].place;
    text += fmt::format("  {:8.3f} s  {}{}\n", points[i].seconds,
                        place_text(level.plane, points[i].place), waits ? "  waits" : "");
  }
  return text;
}

std::string sneak_json(const SneakTask& task, const Sneak& sneak) {
  Json json{{"agent", task.agent},
            {"to", spot_json(task.to)},
            {"outcome", outcome_text(sneak.outcome)},
            {"reason", sneak.reason},
            {"tries", sneak.tries}};
  json["way"] = Json::array();
  if (sneak.outcome == Sneak::Outcome::found) {
    json["seconds"] = rounded(sneak.seconds);
    json["most_evidence"] = rounded(sneak.most_evidence);
    json["by"] = sneak.by;
    for (const TrackPoint& point : sneak.track.points) {
      json["way"].push_back({{"time", rounded(point.seconds)}, {"place", spot_json(point.place)}});
    }
  }
  json["barriers"] = Json::array();
  for (const SneakBarrier& barrier : sneak.barriers) {
    json["barriers"].push_back(
        {{"watcher", barrier.watcher},
         {"place", spot_json(barrier.place)},
         {"zone", barrier.zone},
         {"change_was_tried", barrier.is_tried},
         {"opens_without", barrier.opens_without},
         {"from", rounded(barrier.from)},
         {"to", rounded(barrier.to)},
         {"range", rounded(barrier.range_now)},
         {"opens_at", barrier.range ? Json(rounded(*barrier.range)) : Json(nullptr)}});
  }
  return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace gaze
