#include "serve/changes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "gaze/tools/compare.hpp"
#include "gaze/tools/figures.hpp"
#include "geometry/plan.hpp"

namespace gaze::serve {
namespace {

/// Of the events of one sort: how many there were, and when the first was.
struct Sorted {
  int count = 0;
  double first = 0.0;
};

std::map<std::string, Sorted> sorted(const Simulation& game, const std::vector<Event>& events,
                                     double until) {
  std::map<std::string, Sorted> sorts;
  for (const Event& event : events) {
    const double seconds = static_cast<double>(event.tick) / game.level().ticks_per_second;
    if (seconds > until) continue;
    const auto [at, is_new] = sorts.try_emplace(sort_of(game, event), Sorted{0, seconds});
    ++at->second.count;
    static_cast<void>(is_new);
  }
  return sorts;
}

std::string times(int count) {
  return count == 1 ? "once" : fmt::format("{} times", count);
}

// Nothing if both are alike.
std::string change_of(const std::string& sort, const Sorted& before, const Sorted& now) {
  if (before.count == 0) return fmt::format("new: {} at {:.2f} s", sort, now.first);
  if (now.count == 0) return fmt::format("no longer: {} (before at {:.2f} s)", sort, before.first);
  std::string text;
  const double later = now.first - before.first;
  if (later != 0.0) {
    text = fmt::format("{} {:.2f} s {} ({:.2f} s, before {:.2f} s)", sort, std::abs(later),
                       later > 0.0 ? "later" : "earlier", now.first, before.first);
  }
  if (before.count != now.count) {
    text += text.empty() ? sort + " " : ", ";
    text += fmt::format("{}, before {}", times(now.count), times(before.count));
  }
  return text;
}

double seconds_of(const Simulation& game, std::int64_t tick) {
  return static_cast<double>(tick) / game.level().ticks_per_second;
}

Vector2d blended(const std::vector<Vector2d>& places, double share) {
  return places.size() < 2 ? places[0] : Vector2d(places[0] + (places[1] - places[0]) * share);
}

}  // namespace

std::vector<std::string> changes(const Past& before, const Run& now) {
  const double until =
      std::min(seconds_of(*before.last, before.end), seconds_of(now.game(), now.end()));
  const auto old_sorts = sorted(*before.last, before.events, until);
  const auto new_sorts = sorted(now.game(), now.events(), until);
  std::vector<std::pair<double, std::string>> lines;
  const auto compare = [&](const std::string& sort, const Sorted& was, const Sorted& is) {
    const std::string text = change_of(sort, was, is);
    const double when = was.count == 0  ? is.first
                        : is.count == 0 ? was.first
                                        : std::min(was.first, is.first);
    if (!text.empty()) lines.emplace_back(when, text);
  };
  for (const auto& [sort, was] : old_sorts) {
    const auto at = new_sorts.find(sort);
    compare(sort, was, at == new_sorts.end() ? Sorted{} : at->second);
  }
  for (const auto& [sort, is] : new_sorts) {
    if (!old_sorts.contains(sort)) compare(sort, {}, is);
  }
  std::stable_sort(lines.begin(), lines.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<std::string> texts;
  texts.reserve(lines.size());
  for (auto& [when, text] : lines) texts.push_back(std::move(text));
  return texts;
}

std::vector<Mark> ghost_marks(const Past& before, std::int64_t tick) {
  const Level& level = before.last->level();
  const std::int64_t every = trail_step(level);
  std::vector<Mark> marks;
  const std::int64_t first = std::min(tick, before.end) / every * every;
  const double share = static_cast<double>(tick - first) / static_cast<double>(every);
  for (const AgentId agent : before.last->agents()) {
    const auto places = before.trails.of(agent, first, first + every);
    if (places.empty()) continue;
    const Kind& kind = level.kind_of(level.agents[agent.index]);
    Mark& mark = marks.emplace_back();
    mark.form = Mark::Form::circle;
    mark.layer = Layer::agents;
    mark.meaning = Meaning::body;
    const double up = level.plane == Plane::upright ? kind.height / 2.0 : 0.0;
    mark.points = {blended(places, std::min(share, 1.0)) + Vector2d{0.0, up}};
    mark.radius = kind.radius;
    mark.number = kind.team;
  }
  return marks;
}

void add_trails(std::vector<Mark>& marks, const Simulation& game, const TrailLog& trails) {
  constexpr int kSeconds = 8;
  const Level& level = game.level();
  for (const AgentId agent : game.agents()) {
    auto places = trails.of(agent, game.tick() - std::int64_t{kSeconds} * level.ticks_per_second,
                            game.tick());
    places.push_back(plan_part(level.plane, game.state(agent).position));
    if (places.size() < 2) continue;
    Mark mark;
    mark.layer = Layer::ways;
    mark.meaning = Meaning::trail;
    mark.who = agent;
    mark.number = level.kind_of(level.agents[agent.index]).team;
    mark.points = std::move(places);
    marks.insert(marks.begin(), std::move(mark));
  }
}

}  // namespace gaze::serve
