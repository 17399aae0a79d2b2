#include "values/rules.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <tuple>

#include "geometry/polygon.hpp"
#include "geometry/wall.hpp"

namespace gaze {
namespace {

std::string point_text(const Vector2d& p) {
  return fmt::format("[{}, {}]", p.x(), p.y());
}

void check_order(std::vector<Broken>& broken, const std::string& key, double low, double high,
                 std::string_view rule) {
  if (low <= high) return;
  broken.push_back({key, fmt::format("is [{:g}, {:g}]; {}", low, high, rule)});
}

void check_flight(std::vector<Broken>& broken, const Attack& flight) {
  if (is_lobbed(flight) && flight.gravity_share && !(*flight.gravity_share > 0.0)) {
    broken.push_back(
        {"gravity_share", fmt::format("is {:g}; a lob needs more than 0", *flight.gravity_share)});
  }
}

void check_beam(std::vector<Broken>& broken, const Attack& beam) {
  const bool leads = beam.aim == Attack::Aim::lead || is_lobbed(beam);
  if (leads) {
    broken.push_back({"aim", "is for shots; a beam has \"direct\", \"ahead\" or \"mirror\""});
  }
  if (beam.locks_on && beam.aim == Attack::Aim::mirror) {
    broken.push_back({"locks_on", "stands beside aim = \"mirror\"; one of them is allowed"});
  }
  if (beam.locks_on && beam.hold.nanoseconds == 0) {
    broken.push_back({"locks_on", "needs hold above 0: how long it stays on at most"});
  }
}

std::string outline_fault(const std::vector<Vector2d>& points) {
  const auto fault = find_outline_fault(points);
  if (!fault) return "";
  const auto point = [&](std::size_t i) { return point_text(points[i]); };
  switch (fault->what) {
    case OutlineFault::What::too_few_points:
      return fmt::format("has {} points; 3 to {} are allowed", points.size(),
                         LevelLimits::outline_points);
    case OutlineFault::What::repeated_point:
      return fmt::format("repeats the point {}; the outline closes by itself", point(fault->first));
    case OutlineFault::What::crosses_itself:
      return fmt::format("crosses or touches itself: the side from {} meets the side from {}",
                         point(fault->first), point(fault->second));
    case OutlineFault::What::no_area:
      return "has no area";
  }
  return "";
}

void check_outline(std::vector<Broken>& broken, const std::vector<Vector2d>& points) {
  if (std::string what = outline_fault(points); !what.empty()) {
    broken.push_back({"outline", std::move(what)});
  }
}

std::string path_fault(const Solid& solid) {
  const std::vector<Vector2d>& points = solid.points;
  if (points.size() < 2) {
    return fmt::format("has {} points; 2 to {} are allowed", points.size(),
                       LevelLimits::path_points);
  }
  const auto same = std::adjacent_find(points.begin(), points.end());
  if (same != points.end()) return "has a stretch of no length at " + point_text(*same);
  if (widen_path(points, solid.thickness)) return "";
  return fmt::format("has a corner too sharp, or a stretch too short, for a thickness of {} m",
                     solid.thickness);
}

bool is_way_up(Solid::Form form) {
  return form == Solid::Form::ramp || form == Solid::Form::stairs;
}

}  // namespace

std::vector<Broken> broken_rules(const Sight& sight) {
  if (!sight.keep_range || !(*sight.keep_range < sight.range)) return {};
  return {{"keep_range", fmt::format("is {}; at least the range of {} m is allowed",
                                     *sight.keep_range, sight.range)}};
}

std::vector<Broken> broken_rules(const Scan& scan) {
  const bool is_empty = scan.style == Scan::Style::list && scan.headings.empty();
  if (!is_empty) return {};
  return {{"headings", "is empty; 1 to 1000 are allowed"}};
}

std::vector<Broken> broken_rules(const Head& head) {
  const double low = head.low.degrees();
  const double high = head.high.degrees();
  if (low <= 0.0 && 0.0 <= high) return {};
  return {{"limits", fmt::format("is [{}, {}]; the first must be 0 or less and the second 0 or "
                                 "more: straight ahead lies between them",
                                 low, high)}};
}

std::vector<Broken> broken_rules(const Attack& attack) {
  std::vector<Broken> broken;
  check_order(broken, "at_health", attack.health_low, attack.health_high,
              "the lesser share comes first");
  if (attack.how == Attack::How::beam) check_beam(broken, attack);
  if (attack.how != Attack::How::shot) return broken;
  check_flight(broken, attack);
  if (attack.bounces > 0 && attack.radius && !(*attack.radius > 0.0)) {
    broken.push_back({"bounces", "needs a radius above 0: a point has no side to bounce off by"});
  }
  return broken;
}

std::vector<Broken> broken_rules(const Thing& thing) {
  std::vector<Broken> broken;
  check_flight(broken, thing.flight);
  return broken;
}

// What gets about by hops alone has to get somewhere; only what stands on its post has a facing to
// turn about.
std::vector<Broken> broken_rules(const Move& move) {
  std::vector<Broken> broken;
  const auto need_above_zero = [&](const char* key, const std::optional<double>& value) {
    if (move.gait != Gait::hop || !value || *value > 0.0) return;
    broken.push_back(
        {key, fmt::format("is {}; above 0 to 1000 m is allowed for the gait \"hop\"", *value)});
  };
  need_above_zero("hop_height", move.hop_height);
  need_above_zero("hop_length", move.hop_length);
  check_order(broken, "turn_limits", move.turn_limits[0], move.turn_limits[1],
              "the lesser angle comes first");
  check_order(broken, "tilt_limits", move.tilt_limits[0], move.tilt_limits[1],
              "the lesser angle comes first");
  if (move.follow_start && *move.follow_start < move.follow_distance) {
    broken.push_back(
        {"follow_start", fmt::format("is {}; follow_distance, {} m, or more is allowed",
                                     *move.follow_start, move.follow_distance)});
  }
  if (move.gait != Gait::fixed) {
    const Move usual;
    if (move.turn_limits != usual.turn_limits) {
      broken.push_back({"turn_limits", "is for the gait \"fixed\""});
    }
    if (move.tilt_limits != usual.tilt_limits) {
      broken.push_back({"tilt_limits", "is for the gait \"fixed\""});
    }
  }
  if ((move.pace > 0.0) != !move.pace_of.empty()) {
    const bool has_pace = move.pace > 0.0;
    broken.push_back({has_pace ? "pace" : "pace_of",
                      has_pace ? "needs pace_of beside it: whose speed it is a share of"
                               : "needs pace beside it: which share of that speed"});
  }
  return broken;
}

std::vector<Broken> broken_rules(const Kind& kind) {
  constexpr std::size_t kMostFeelers = 32;
  constexpr std::size_t kMostAttacks = 64;
  constexpr std::size_t kMostRules = 64;
  std::vector<Broken> broken;
  const auto limit = [&](const char* key, std::size_t count, std::size_t most,
                         std::string_view what) {
    if (count <= most) return;
    broken.push_back({key, fmt::format("holds {} {}; at most {} are allowed", count, what, most)});
  };
  limit("feeler", kind.feelers.size(), kMostFeelers, "feelers");
  limit("attack", kind.attacks.size(), kMostAttacks, "attacks");
  limit("when", kind.when.rules.size(), kMostRules, "rules");
  if (kind.body_points.empty()) {
    broken.push_back({"body_points", "is empty; 1 to 32 are allowed"});
  }
  if (kind.move && kind.move->step_height && !(*kind.move->step_height < kind.height)) {
    broken.push_back({"move.step_height", fmt::format("is {}; below the height of {} m is allowed",
                                                      *kind.move->step_height, kind.height)});
  }
  return broken;
}

std::vector<Broken> broken_rules(const Agent& agent) {
  std::vector<Broken> broken;
  if (!agent.stops.empty() && agent.stops.size() != agent.patrol.size()) {
    broken.push_back({"patrol", fmt::format("has {} points and {} stops; one for each, or none",
                                            agent.patrol.size(), agent.stops.size())});
  }
  for (std::size_t i = 0; i + 1 < agent.script.size(); ++i) {
    if (agent.script[i].what != ScriptStep::What::repeat) continue;
    broken.push_back(
        {fmt::format("script[{}]", i + 1), "repeats; the steps after it would never be played"});
  }
  if (agent.track && !agent.script.empty()) {
    broken.push_back({"track", "stands beside a script; one of them is allowed"});
  }
  if (agent.driver == Driver::track && !agent.track) {
    broken.push_back({"driver", "is \"track\" without a track"});
  }
  if (agent.track && agent.driver && *agent.driver != Driver::track) {
    broken.push_back({"driver", "is another beside a track; \"track\" is allowed"});
  }
  return broken;
}

std::vector<Broken> broken_rules(const Solid& solid) {
  std::vector<Broken> broken;
  if (solid.form == Solid::Form::wall || solid.form == Solid::Form::door) {
    if (std::string what = path_fault(solid); !what.empty()) {
      broken.push_back({"path", std::move(what)});
    }
  } else if (is_way_up(solid.form)) {
    const Vector3d way = solid.to - solid.from;
    constexpr double kLeast = 0.01;  // metres
    if (!(way.x() * way.x() + way.y() * way.y() >= kLeast * kLeast)) {
      broken.push_back({"to",
                        "lies straight above or below where it begins: a ramp or stairs need "
                        "0.01 m of length in the plan at least"});
    }
  } else if (solid.form != Solid::Form::mesh) {
    check_outline(broken, solid.points);
  }
  return broken;
}

std::vector<Broken> broken_rules(const Zone& zone) {
  std::vector<Broken> broken;
  check_outline(broken, zone.outline);
  return broken;
}

std::vector<Broken> broken_rules(const Link& link) {
  if (link.from != link.to) return {};
  return {{"to", "is where the link begins; it leads nowhere"}};
}

std::vector<Broken> broken_rules(const Start& start) {
  std::vector<Broken> broken;
  check_outline(broken, start.outline);
  if (!start.apart_from.empty()) return broken;
  if (start.distance > 0.0) broken.push_back({"distance", "needs apart_from: whom"});
  if (start.out_of_sight) broken.push_back({"out_of_sight", "needs apart_from: whom"});
  return broken;
}

std::vector<Broken> broken_rules(const Bounds& bounds) {
  std::vector<Broken> broken;
  if (!bounds.outline.empty()) check_outline(broken, bounds.outline);
  if (bounds.outline.empty() && !bounds.low && !bounds.high) {
    broken.push_back({"", "has no outline, no low and no high; one of them is needed"});
  }
  if (bounds.low && bounds.high && !(*bounds.low < *bounds.high)) {
    broken.push_back({"high", fmt::format("is {}; above the low of {} m is allowed", *bounds.high,
                                          *bounds.low)});
  }
  return broken;
}

std::vector<Broken> broken_rules(const Figure& figure) {
  const std::array<std::pair<const char*, bool>, 10> given{{{"first", figure.first.has_value()},
                                                            {"last", figure.last.has_value()},
                                                            {"count", figure.count.has_value()},
                                                            {"sum", figure.sum.has_value()},
                                                            {"least", figure.least.has_value()},
                                                            {"most", figure.most.has_value()},
                                                            {"mean", figure.mean.has_value()},
                                                            {"start", figure.start.has_value()},
                                                            {"end", figure.end.has_value()},
                                                            {"share", figure.share.has_value()}}};
  std::vector<std::string> found;
  for (const auto& [key, is_given] : given) {
    if (is_given) found.emplace_back(key);
  }
  if (!figure.between.empty()) found.emplace_back("between");
  std::vector<Broken> broken;
  if (found.empty()) {
    broken.push_back({"",
                      "has none of first, last, count, sum, least, most, mean, start, end, "
                      "share and between; exactly one is needed"});
  } else if (found.size() > 1) {
    broken.push_back({found[1], fmt::format("stands beside {}; one of them is allowed", found[0])});
  }
  if (figure.sum && !figure.event) broken.push_back({"sum", "needs event: whose numbers they are"});
  if (figure.event && !figure.sum) broken.push_back({"event", "counts with sum alone"});
  if (figure.from && figure.to && !(*figure.from < *figure.to)) {
    broken.push_back({"to", fmt::format("is {} s; above {} s, from where it counts, is allowed",
                                        figure.to->seconds(), figure.from->seconds())});
  }
  return broken;
}

std::vector<Broken> broken_rules(const Expectation& expectation) {
  const auto& [at_least, at_most] = std::tie(expectation.at_least, expectation.at_most);
  const bool has_limit = at_least || at_most || expectation.exactly;
  std::vector<Broken> broken;
  if (!has_limit && !expectation.never) {
    broken.push_back(
        {"", "has none of at_least, at_most, exactly and never; at least one is needed"});
  }
  if (has_limit && expectation.never) {
    broken.push_back({"never", "stands beside a limit; what never occurs has no number"});
  }
  if (at_least && at_most && !(*at_least <= *at_most)) {
    broken.push_back({"at_most", fmt::format("is {}; at least {}, which at_least says, is allowed",
                                             *at_most, *at_least)});
  }
  return broken;
}

}  // namespace gaze
