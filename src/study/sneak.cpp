#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
#include "sense/sensing.hpp"
#include "study/sneak_scene.hpp"

namespace gaze {
namespace {

/// Looks for a way, plays it, and proves that there is none.
class Sneaking {
 public:
  explicit Sneaking(const SneakScene& scene) : scene_(scene) {}

  Sneak find() {
    Sneak result;
    if (!scene_.is_goal_reachable()) {
      result.outcome = Sneak::Outcome::none;
      result.reason = "no way leads there at all";
      return result;
    }
    if (const auto goal = scene_.spot_before_goal()) search(result, *goal);
    if (result.outcome == Sneak::Outcome::found) return result;
    if (!ended(result)) prove(result);
    return result;
  }

 private:
  Perception perception(Certainty certainty) {
    return {scene_.floor,   scene_.world, scene_.own.level, scene_.watchers,
            scene_.sneaker, certainty,    scene_.effort};
  }

  // Whether the search has ended before it was through.
  bool ended(Sneak& result) const {
    if (scene_.effort.is_ended()) {
      result.reason = "the search was ended";
    } else if (scene_.effort.is_used_up()) {
      result.reason = fmt::format("given up after {} million looks at places {:.2f} m apart",
                                  SneakEffort::kMostLooks / 1'000'000, scene_.floor.size);
    }
    return scene_.effort.is_ended() || scene_.effort.is_used_up();
  }

  void prove(Sneak& result) {
    if (const std::string why = scene_.doubt(); !why.empty()) {
      result.reason = "no way was found, and " + why;
      return;
    }
    Perception sure = perception(Certainty::surely);
    const SneakSearch loose =
        search_loosely(scene_.floor, sure, scene_.watchers, scene_.moments,
                       scene_.spot_of(scene_.start), scene_.spot_of(scene_.goal), scene_.effort);
    if (ended(result)) return;
    if (loose.way.empty()) {
      result.outcome = Sneak::Outcome::none;
      result.reason.clear();
      name_barriers(result, scene_, loose, sure);
    } else if (result.reason.empty()) {
      result.reason = fmt::format(
          "no way was found over places {:.2f} m apart, and it is not certain that there is none",
          scene_.floor.size);
    }
  }

  void search(Sneak& result, std::uint32_t goal) {
    const std::uint32_t start = scene_.spot_of(scene_.start);
    constexpr std::size_t kMostTries = 40;
    Perception seen = perception(Certainty::middle);
    std::vector<Step> shut;
    for (result.tries = 0; result.tries < kMostTries;) {
      const SneakSearch found = search_strictly(scene_.floor, seen, scene_.watchers, scene_.moments,
                                                start, goal, shut, scene_.effort);
      if (!found.is_whole) return;
      if (found.way.empty()) {
        if (result.tries > 0) {
          result.reason = fmt::format("{} ways were played, and each was noticed", result.tries);
        }
        return;
      }
      ++result.tries;
      result.track = track_of(found.way);
      const auto noticed_at = play(result);
      if (!noticed_at) {
        result.outcome = Sneak::Outcome::found;
        result.seconds = result.track.points.back().seconds;
        return;
      }
      shut_near(shut, found.way, *noticed_at);
    }
    result.reason = fmt::format("{} ways were played, and each was noticed", result.tries);
  }

  Track track_of(std::vector<Step> way) const {
    // The middle of the last place may lie beyond the goal.
    while (way.size() > 1 && scene_.leads_to_goal(way[way.size() - 2].spot)) way.pop_back();
    Track track;
    for (std::size_t i = 0; i < way.size(); ++i) {
      // Of straight stretches at one speed the ends are enough.
      const bool is_between = i > 0 && i + 1 < way.size() &&
                              is_alike(way[i - 1], way[i]) == is_alike(way[i], way[i + 1]);
      if (is_between && velocity(way[i - 1], way[i]).isApprox(velocity(way[i], way[i + 1]), 1e-9)) {
        continue;
      }
      add_point(track, scene_.seconds_of(way[i].moment), scene_.floor.place(way[i].spot));
    }
    const double left = level_distance(Plane::ground, track.points.back().place, scene_.goal);
    if (left > 1e-9) {
      add_point(track, track.points.back().seconds + left / scene_.sneaker.speed, scene_.goal);
    }
    track.points.front().place = scene_.start;
    return track;
  }

  static bool is_alike(const Step& a, const Step& b) { return a.spot == b.spot; }

  Vector3d velocity(const Step& a, const Step& b) const {
    return (scene_.floor.place(b.spot) - scene_.floor.place(a.spot)) /
           static_cast<double>(b.moment - a.moment);
  }

  static void add_point(Track& track, double seconds, const Vector3d& place) {
    TrackPoint point;
    point.seconds = seconds;
    point.place = place;
    point.is_quiet = true;
    track.points.push_back(std::move(point));
  }

  // Plays the way. @return When somebody noticed, if anybody did before the end of it.
  std::optional<double> play(Sneak& result) const {
    Level level = scene_.own.level;
    Agent& agent = level.agents[scene_.own.who];
    agent.driver = Driver::track;
    agent.track = std::make_shared<const Track>(result.track);
    agent.position = result.track.points.front().place;
    Simulation game(level);
    const AgentId who = game.agent(scene_.task.agent);
    const double end = result.track.points.back().seconds;
    result.most_evidence = 0.0;
    result.by.clear();
    while (true) {
      for (const Watcher& watcher : scene_.watchers) {
        const AgentId other = watcher.agent;
        if (!game.is_there(other)) continue;
        if (game.awareness(other, who) == Awareness::noticed) return game.seconds();
        if (!watcher.kind.sight) continue;
        if (game.awareness(other, who) != Awareness::gathering) continue;
        const double evidence = game.look(other, who).gathered;
        if (evidence <= result.most_evidence) continue;
        result.most_evidence = evidence;
        result.by = watcher.id;
      }
      if (game.seconds() >= end) return std::nullopt;
      game.step();
      for (const Event& event : game.events()) {
        const bool is_found_out =
            event.what == Event::What::noticed || event.what == Event::What::heard;
        if (is_found_out && event.other == who) return game.seconds();
      }
    }
  }

  // What was noticed is not done again just then.
  void shut_near(std::vector<Step>& shut, const std::vector<Step>& way, double seconds) const {
    const double moment = seconds * scene_.own.level.ticks_per_second / scene_.sneaker.ticks;
    const auto next = std::find_if(way.begin(), way.end(), [&](const Step& step) {
      return static_cast<double>(step.moment) >= moment - 1e-9;
    });
    const auto at = next == way.end() ? way.end() - 1 : next;
    for (auto it = at == way.begin() ? at : at - 1; it <= at; ++it) {
      for (std::uint32_t k = it->moment > 1 ? it->moment - 1 : 1; k <= it->moment + 1; ++k) {
        shut.push_back({k, it->spot});
      }
    }
  }

  const SneakScene& scene_;
};

}  // namespace

Sneak sneak_once(const SneakScene& scene) {
  return Sneaking(scene).find();
}

Sneak sneak(const Level& level, const SneakTask& task, const StudyOptions& options) {
  if (task.spot && !(*task.spot > 0.0 && std::isfinite(*task.spot))) {
    throw UsageError(fmt::format("a spot of {} m; above 0 is allowed", *task.spot));
  }
  SneakEffort effort(options);
  const SneakScene first(level, task, effort);
  if (!first.fits()) throw UsageError("there are too many places: a larger spot is needed");
  Sneak answer = sneak_once(first);
  if (task.spot) return answer;
  // What cannot be told over these places may be over finer ones.
  constexpr double kFinestSpot = 0.06;  // metres
  SneakTask finer = task;
  for (double spot = first.floor.size; answer.outcome == Sneak::Outcome::undecided;) {
    spot /= 2.0;
    if (spot < kFinestSpot || !effort.goes_on(0, 1)) break;
    finer.spot = spot;
    const SneakScene next(level, finer, effort);
    if (!next.fits()) break;
    answer = sneak_once(next);
  }
  return answer;
}

std::string track_csv(const Track& track) {
  std::string text = "time,x,y,z,does\n";
  for (const TrackPoint& point : track.points) {
    text += fmt::format("{},{},{},{},{}\n", point.seconds, point.place.x(), point.place.y(),
                        point.place.z(), point.is_quiet ? "quiet" : "");
  }
  return text;
}

}  // namespace gaze
