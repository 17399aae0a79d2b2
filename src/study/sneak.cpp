#include "study/sneak.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "gaze/path.hpp"
#include "geometry/plan.hpp"
#include "level/named_kind.hpp"
#include "level/numbers.hpp"
#include "level/spelling.hpp"
#include "level/whom.hpp"
#include "navigation/body_size.hpp"
#include "sense/sensing.hpp"
#include "study/play_runs.hpp"

namespace gaze {
namespace {

/// The level with whoever goes driven from outside, with the body that is asked for.
struct SneakLevel {
  Level level;
  std::uint32_t who = 0;
  Vector3d start{0.0, 0.0, 0.0};
};

std::uint32_t agent_called(const Level& level, const std::string& id) {
  std::vector<std::string> ids;
  for (std::uint32_t i = 0; i < level.agents.size(); ++i) {
    if (level.agents[i].id == id) return i;
    ids.push_back(level.agents[i].id);
  }
  throw UsageError(fmt::format("there is no agent '{}'{}", id, suggestion(id, ids)));
}

SneakLevel prepared_for(const Level& given, const SneakTask& task) {
  if (given.plane == Plane::upright) {
    throw UsageError("ways that nobody notices are looked for in levels seen from above");
  }
  SneakLevel result;
  result.level = given;
  result.who = agent_called(given, task.agent);
  Agent& agent = result.level.agents[result.who];
  if (!task.body.empty()) agent.kind = kind_called(given, task.body);
  agent.driver = Driver::host;
  agent.script.clear();
  agent.track.reset();
  if (task.from) agent.position = *task.from;
  complete(result.level);
  result.start = agent.position;
  return result;
}

void need_walker(const Kind& kind) {
  if (kind.move && travels(kind.move->gait) && kind.move->speed > 0.0) return;
  throw UsageError(fmt::format("a {} does not go anywhere", kind.name));
}

Vector3d place_on(const NavigationMesh& mesh, const Vector3d& place, std::string_view what) {
  const auto found = mesh.find(place);
  if (found) return found->place;
  const auto nearest = mesh.nearest(place);
  throw UsageError(fmt::format("{} at [{:.2f}, {:.2f}] is off the floor of that body{}", what,
                               place.x(), place.y(),
                               nearest ? fmt::format("; [{:.2f}, {:.2f}] is the nearest of it",
                                                     nearest->place.x(), nearest->place.y())
                                       : std::string()));
}

constexpr double kUsualSpot = 0.25;   // metres
constexpr double kFinestSpot = 0.06;  // the same

/// Looks for a way in one level.
class Sneaking {
 public:
  Sneaking(const Level& given, const SneakTask& task, SneakEffort& effort)
      : task_(task), effort_(effort), own_(prepared_for(given, task)), world_(own_.level) {
    sneaker_.kind = own_.level.kind_of(own_.level.agents[own_.who]);
    need_walker(sneaker_.kind);
    sneaker_.speed = sneaker_.kind.move->speed;
    const BodySize body = body_size(own_.level, own_.level.agents[own_.who]);
    mesh_.emplace(own_.level, world_, body, 0);
    start_ = place_on(*mesh_, own_.start, "the start");
    goal_ = place_on(*mesh_, task.to, "the goal");
    for (std::uint32_t i = 0; i < own_.level.zones.size(); ++i) {
      sneaker_.triggers.push_back(triggers(i) ? 1 : 0);
    }
    lay_out();
  }

  /// Whether there are not too many places and moments.
  bool fits() const { return floor_.columns > 0; }
  double spot() const { return floor_.size; }

  Sneak find() {
    if (!fits()) throw UsageError("there are too many places: a larger spot is needed");
    Sneak result;
    if (!mesh_->is_reachable(mesh_->island_of(*mesh_->find(start_)),
                             mesh_->island_of(*mesh_->find(goal_)))) {
      result.outcome = Sneak::Outcome::none;
      result.reason = "no way leads there at all";
      return result;
    }
    if (const auto goal = spot_before_goal()) search(result, spot_of(start_), *goal);
    if (result.outcome == Sneak::Outcome::found) return result;
    if (!ended(result)) prove(result);
    return result;
  }

 private:
  // Places as fine as asked for, or as the size of the level allows.
  void lay_out() {
    constexpr double kMostStates = 200'000'000;  // places and moments
    double spot = task_.spot.value_or(kUsualSpot);
    const double rate = own_.level.ticks_per_second;
    while (true) {
      sneaker_.ticks = std::max(1, static_cast<int>(std::lround(spot * rate / sneaker_.speed)));
      const double size = sneaker_.speed * sneaker_.ticks / rate;
      moments_ = static_cast<std::size_t>(own_.level.seconds * rate / sneaker_.ticks) + 1;
      watchers_ = watchers_of(own_.level, {own_.who}, sneaker_, moments_);
      const SneakExtent extent = extent_of(*mesh_, own_.level, watchers_, sneaker_, start_, goal_);
      const Vector2d sides = (extent.high - extent.low) / size + Vector2d{1.0, 1.0};
      if (sides.x() * sides.y() * static_cast<double>(moments_) <= kMostStates) {
        floor_ = sneak_floor(*mesh_, start_, extent, size, effort_);
        return;
      }
      if (task_.spot) return;
      spot *= 2.0;
    }
  }

  // Why nothing can be proven, whatever the searches find.
  std::string doubt() const {
    if (!mesh_->links().empty()) {
      return fmt::format("where {} hops, drops or climbs is not searched", task_.agent);
    }
    const std::vector<std::string> tags = tag_names(own_.level);
    const Somebody somebody = who_goes(tags);
    for (const Agent& agent : own_.level.agents) {
      const Kind& kind = own_.level.kind_of(agent);
      if (!kind.move || kind.move->follows.empty()) continue;
      if (!Whom(own_.level, kind.move->follows, tags).means(somebody)) continue;
      return fmt::format("{} follows {}, and watchers may do something else for that", agent.id,
                         task_.agent);
    }
    return {};
  }

  Somebody who_goes(const std::vector<std::string>& tags) const {
    return {own_.who, own_.level.agents[own_.who].kind, tag_bits(tags, sneaker_.kind.tags)};
  }

  Perception perception(Certainty certainty) {
    return {floor_, world_, own_.level, watchers_, sneaker_, certainty, effort_};
  }

  // Whether the search has ended before it was through.
  bool ended(Sneak& result) const {
    if (effort_.is_ended()) {
      result.reason = "the search was ended";
    } else if (effort_.is_used_up()) {
      result.reason = fmt::format("given up after {} million looks at places {:.2f} m apart",
                                  SneakEffort::kMostLooks / 1'000'000, floor_.size);
    }
    return effort_.is_ended() || effort_.is_used_up();
  }

  void prove(Sneak& result) {
    if (const std::string why = doubt(); !why.empty()) {
      result.reason = "no way was found, and " + why;
      return;
    }
    Perception sure = perception(Certainty::surely);
    const SneakSearch loose =
        search_loosely(floor_, sure, watchers_, moments_, spot_of(start_), spot_of(goal_), effort_);
    if (ended(result)) return;
    if (loose.way.empty()) {
      result.outcome = Sneak::Outcome::none;
      result.reason.clear();
      name_barriers(result, loose, sure);
    } else if (result.reason.empty()) {
      result.reason = fmt::format(
          "no way was found over places {:.2f} m apart, and it is not certain that there is none",
          floor_.size);
    }
  }

  bool triggers(std::uint32_t zone) const {
    const std::vector<std::string> tags = tag_names(own_.level);
    const Whom whom(own_.level, own_.level.zones[zone].triggered_by, tags);
    return whom.is_empty() ? !sneaker_.kind.thing : whom.means(who_goes(tags));
  }

  // In the square of a place that at its height.
  std::uint32_t spot_of(const Vector3d& place) const {
    const auto number = [&](double off, int count) {
      return std::clamp(static_cast<int>(std::lround(off / floor_.size)), 0, count - 1);
    };
    const std::size_t square = floor_.at(number(place.x() - floor_.low.x(), floor_.columns),
                                         number(place.y() - floor_.low.y(), floor_.rows));
    std::uint32_t best = kNoSpot;
    double least = std::numeric_limits<double>::infinity();
    for (std::uint32_t spot = floor_.first[square]; spot < floor_.first[square + 1]; ++spot) {
      const double off = std::abs(floor_.height[spot] - place.z()) - floor_.spread[spot];
      if (off < least) best = spot;
      least = std::min(least, off);
    }
    return best;
  }

  // Whether a body gets straight on from the middle of a place to the goal.
  bool leads_to_goal(std::uint32_t spot) const {
    if (!floor_.stands[spot]) return false;
    if (level_distance(Plane::ground, floor_.place(spot), goal_) > 1.5 * floor_.size) return false;
    const auto end = mesh_->straight_on(*floor_.stands[spot], goal_);
    return end && std::abs(end->place.z() - goal_.z()) < 1e-6;
  }

  // The nearest place whose middle leads straight to the goal.
  std::optional<std::uint32_t> spot_before_goal() const {
    std::optional<std::uint32_t> best;
    double least = std::numeric_limits<double>::infinity();
    floor_.for_near(spot_of(goal_), [&](std::uint32_t spot) {
      const double off = level_distance(Plane::ground, floor_.place(spot), goal_);
      if (off >= least || !leads_to_goal(spot)) return;
      least = off;
      best = spot;
    });
    return best;
  }

  void search(Sneak& result, std::uint32_t start, std::uint32_t goal) {
    constexpr std::size_t kMostTries = 40;
    Perception seen = perception(Certainty::middle);
    std::vector<Step> shut;
    for (result.tries = 0; result.tries < kMostTries;) {
      const SneakSearch found =
          search_strictly(floor_, seen, watchers_, moments_, start, goal, shut, effort_);
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

  double seconds_of(std::uint32_t moment) const {
    return static_cast<double>(moment) * sneaker_.ticks / own_.level.ticks_per_second;
  }

  Track track_of(std::vector<Step> way) const {
    // The middle of the last place may lie beyond the goal.
    while (way.size() > 1 && leads_to_goal(way[way.size() - 2].spot)) way.pop_back();
    Track track;
    for (std::size_t i = 0; i < way.size(); ++i) {
      // Of straight stretches at one speed the ends are enough.
      const bool is_between = i > 0 && i + 1 < way.size() &&
                              is_alike(way[i - 1], way[i]) == is_alike(way[i], way[i + 1]);
      if (is_between && velocity(way[i - 1], way[i]).isApprox(velocity(way[i], way[i + 1]), 1e-9)) {
        continue;
      }
      add_point(track, seconds_of(way[i].moment), floor_.place(way[i].spot));
    }
    const double left = level_distance(Plane::ground, track.points.back().place, goal_);
    if (left > 1e-9) {
      add_point(track, track.points.back().seconds + left / sneaker_.speed, goal_);
    }
    track.points.front().place = start_;
    return track;
  }

  static bool is_alike(const Step& a, const Step& b) { return a.spot == b.spot; }

  Vector3d velocity(const Step& a, const Step& b) const {
    return (floor_.place(b.spot) - floor_.place(a.spot)) / static_cast<double>(b.moment - a.moment);
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
    Level level = own_.level;
    Agent& agent = level.agents[own_.who];
    agent.driver = Driver::track;
    agent.track = std::make_shared<const Track>(result.track);
    agent.position = result.track.points.front().place;
    Simulation game(level);
    const AgentId who = game.agent(task_.agent);
    const double end = result.track.points.back().seconds;
    result.most_evidence = 0.0;
    result.by.clear();
    while (true) {
      for (const Watcher& watcher : watchers_) {
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
        if (event.what == Event::What::noticed && event.other == who) return game.seconds();
      }
    }
  }

  // What was noticed is not done again just then.
  void shut_near(std::vector<Step>& shut, const std::vector<Step>& way, double seconds) const {
    const double moment = seconds * own_.level.ticks_per_second / sneaker_.ticks;
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

  // Along the shortest way there: the first place that is seen and cannot be reached, and who sees
  // it.
  void name_barriers(Sneak& result, const SneakSearch& loose, const Perception& sure) const {
    const Path path = find_path(*mesh_, start_, goal_);
    if (path.outcome != Path::Outcome::whole) {
      result.reason = "no way leads there at all";
      return;
    }
    for (const std::uint32_t spot : spots_along(path)) {
      if (spot == kNoSpot || loose.reached[spot] != 0) continue;
      result.barriers = barriers_at(spot, sure);
      if (!result.barriers.empty()) break;
    }
    if (result.barriers.empty()) {
      result.reason = fmt::format("no way leads there in the {} s of the level unseen",
                                  number_text(own_.level.seconds));
    }
    if (!task_.names_change) return;
    for (SneakBarrier& barrier : result.barriers) name_change(barrier);
  }

  std::vector<std::uint32_t> spots_along(const Path& path) const {
    std::vector<std::uint32_t> spots;
    for (std::size_t i = 1; i < path.points.size(); ++i) {
      const Vector3d way = path.points[i] - path.points[i - 1];
      const int steps = std::max(1, static_cast<int>(length_of(way) / (0.5 * floor_.size)));
      for (int k = 1; k <= steps; ++k) {
        spots.push_back(spot_of(path.points[i - 1] + way * (static_cast<double>(k) / steps)));
      }
    }
    return spots;
  }

  std::vector<SneakBarrier> barriers_at(std::uint32_t spot, const Perception& sure) const {
    std::vector<SneakBarrier> barriers;
    for (std::size_t w = 0; w < watchers_.size(); ++w) {
      SneakBarrier barrier;
      barrier.watcher = watchers_[w].id;
      barrier.place = floor_.place(spot);
      bool sees = false;
      for (std::uint32_t k = 0; k < moments_; ++k) {
        if (!(sure.gain(w, k, spot) > 0.0F)) continue;
        if (!sees) barrier.from = seconds_of(k);
        sees = true;
        barrier.to = seconds_of(k);
      }
      if (!sees) continue;
      barrier.zone = telling_zone(watchers_[w], barrier.place);
      if (watchers_[w].kind.sight) barrier.range_now = watchers_[w].kind.sight->range;
      barriers.push_back(std::move(barrier));
    }
    return barriers;
  }

  std::string telling_zone(const Watcher& watcher, const Vector3d& place) const {
    for (std::size_t i = 0; i < own_.level.zones.size(); ++i) {
      const Zone& zone = own_.level.zones[i];
      const bool tells =
          std::find(zone.tells.begin(), zone.tells.end(), watcher.agent.index) != zone.tells.end();
      if (tells && sneaker_.triggers[i] != 0 && is_in(own_.level.plane, zone, place))
        return zone.id;
    }
    return "";
  }

  bool opens(const Level& changed) const {
    SneakTask task = task_;
    task.names_change = false;
    task.spot = floor_.size;
    return Sneaking(changed, task, effort_).find().outcome == Sneak::Outcome::found;
  }

  void name_change(SneakBarrier& barrier) const {
    look_for_change(barrier);
    barrier.is_tried = !effort_.is_ended() && !effort_.is_used_up();
  }

  // Halves the range of one watcher's sight until the value at which a way opens is known to a
  // hundredth of it.
  void look_for_change(SneakBarrier& barrier) const {
    if (!barrier.zone.empty()) {
      Level changed = own_.level;
      for (Zone& zone : changed.zones) {
        if (zone.id == barrier.zone) zone.tells.clear();
      }
      barrier.opens_without = opens(changed);
      return;
    }
    if (!(barrier.range_now > 0.0)) return;
    double low = barrier.range_now / 64.0;
    double high = barrier.range_now;
    if (!opens(with_range(barrier.watcher, low))) return;
    for (int i = 0; i < 7; ++i) {
      const double middle = (low + high) / 2.0;
      (opens(with_range(barrier.watcher, middle)) ? low : high) = middle;
    }
    barrier.range = low;
  }

  // The watcher gets a kind of its own, of another range.
  Level with_range(const std::string& watcher, double range) const {
    Level changed = own_.level;
    if (changed.named_kinds == 0) changed.named_kinds = changed.kinds.size();
    for (Agent& agent : changed.agents) {
      if (agent.id != watcher) continue;
      Kind kind = changed.kinds[agent.kind];
      kind.sight->range = range;
      agent.kind = static_cast<std::uint32_t>(changed.kinds.size());
      changed.kinds.push_back(std::move(kind));
    }
    return changed;
  }

  const SneakTask& task_;
  SneakEffort& effort_;
  SneakLevel own_;
  World world_;
  Sneaker sneaker_;
  std::optional<NavigationMesh> mesh_;
  Vector3d start_{0.0, 0.0, 0.0};
  Vector3d goal_{0.0, 0.0, 0.0};
  SneakFloor floor_;
  std::size_t moments_ = 0;
  std::vector<Watcher> watchers_;
};

}  // namespace

Sneak sneak(const Level& level, const SneakTask& task, const StudyOptions& options) {
  if (task.spot && !(*task.spot > 0.0 && std::isfinite(*task.spot))) {
    throw UsageError(fmt::format("a spot of {} m; above 0 is allowed", *task.spot));
  }
  SneakEffort effort(options);
  Sneaking first(level, task, effort);
  Sneak answer = first.find();
  if (task.spot) return answer;
  // What cannot be told over these places may be over finer ones.
  SneakTask finer = task;
  for (double spot = first.spot(); answer.outcome == Sneak::Outcome::undecided;) {
    spot /= 2.0;
    if (spot < kFinestSpot || !effort.goes_on(0, 1)) break;
    finer.spot = spot;
    Sneaking next(level, finer, effort);
    if (!next.fits()) break;
    answer = next.find();
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
