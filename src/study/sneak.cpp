#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "geometry/plan.hpp"
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
      const std::string shut = scene_.what_may_open();
      result.outcome = shut.empty() ? Sneak::Outcome::none : Sneak::Outcome::undecided;
      result.reason = shut.empty()
                          ? "no path leads there at all"
                          : fmt::format("{}; whether it opens in play is not searched", shut);
      return result;
    }
    if (const auto goal = scene_.spot_before_goal()) search(result, *goal);
    if (result.outcome == Sneak::Outcome::found) return result;
    if (!ended(result)) prove(result);
    return result;
  }

 private:
  static Perception perception(const SneakScene& scene, Certainty certainty) {
    return {scene.floor,   scene.world, scene.own.level, scene.watchers,
            scene.sneaker, certainty,   scene.effort};
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
    Perception sure = perception(scene_, Certainty::surely);
    const SneakSearch loose = search_everywhere(scene_, sure);
    if (ended(result)) return;
    if (!loose.way.empty()) {
      if (!result.reason.empty()) return;
      result.reason = fmt::format(
          "no path was found over places {:.2f} m apart, and it is not certain that there is none",
          scene_.floor.size);
      return;
    }
    if (leads_through_what_may_go(result)) return;
    result.outcome = Sneak::Outcome::none;
    result.reason.clear();
    name_barriers(result, scene_, loose, sure);
  }

  static SneakSearch search_everywhere(const SneakScene& scene, Perception& sure) {
    return search_loosely(scene.floor, sure, scene.watchers, scene.moments,
                          scene.spot_of(scene.start), scene.spot_of(scene.goal), scene.effort);
  }

  // Whether a path may lead through a door or a solid that breaks.
  bool leads_through_what_may_go(Sneak& result) const {
    const auto opened = scene_.opened();
    if (!opened) return false;
    if (!opened->fits()) {
      result.reason = "no path was found, and there are too many places beyond what may open";
      return true;
    }
    Perception sure = perception(*opened, Certainty::surely);
    const SneakSearch loose = search_everywhere(*opened, sure);
    if (ended(result)) return true;
    if (loose.way.empty()) return false;
    result.reason =
        "no path was found, and whether one leads through what opens or breaks in play is not "
        "searched";
    return true;
  }

  void search(Sneak& result, std::uint32_t goal) {
    const std::uint32_t start = scene_.spot_of(scene_.start);
    constexpr std::size_t kMostTries = 40;
    Perception seen = perception(scene_, Certainty::middle);
    std::vector<Step> shut;
    for (result.tries = 0; result.tries < kMostTries;) {
      const SneakSearch found = search_strictly(scene_.floor, seen, scene_.watchers, scene_.moments,
                                                start, goal, shut, scene_.effort);
      if (!found.is_whole) return;
      if (found.way.empty()) {
        if (result.tries > 0) result.reason = none_of_the_played(result.tries);
        return;
      }
      ++result.tries;
      result.track = track_of(found.way);
      const auto mishap = play_way(scene_, result);
      if (!mishap) {
        result.outcome = Sneak::Outcome::found;
        result.seconds = result.track.points.back().seconds;
        return;
      }
      shut_near(shut, found.way, mishap->seconds);
      if (mishap->in_the_way) shut_round(shut, *mishap);
    }
    result.reason = none_of_the_played(result.tries);
  }

  static std::string none_of_the_played(std::size_t tries) {
    return fmt::format("{} {} played, and none got there unnoticed, alive and unblocked", tries,
                       tries == 1 ? "path was" : "paths were");
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

  // Closes the cells that another body covers: at all times if it stays, else around this time.
  void shut_round(std::vector<Step>& shut, const Mishap& mishap) const {
    const SneakFloor& floor = scene_.floor;
    const double reach = mishap.in_the_way->radius + scene_.sneaker.kind.radius;
    const double moment = mishap.seconds * scene_.own.level.ticks_per_second / scene_.sneaker.ticks;
    const auto about = static_cast<std::uint32_t>(std::lround(moment));
    const bool stays = mishap.in_the_way->stays;
    const std::uint32_t first = stays ? 1 : std::max(about, 2U) - 1;
    const std::uint32_t last = stays ? static_cast<std::uint32_t>(scene_.moments) : about + 1;
    for (std::uint32_t spot = 0; spot < floor.count(); ++spot) {
      const Vector3d off = floor.place(spot) - mishap.in_the_way->place;
      if (level_length(off) >= reach || std::abs(off.z()) >= scene_.sneaker.kind.height) continue;
      for (std::uint32_t k = first; k <= last; ++k) shut.push_back({k, spot});
    }
  }

  // Closes the cells of the failed path around this time.
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
