#include <algorithm>
#include <cmath>

#include "gaze/acquaintance.hpp"
#include "gaze/feeling.hpp"
#include "geometry/plan.hpp"
#include "geometry/polygon.hpp"
#include "sense/sensing.hpp"
#include "simulation/state.hpp"
#include "study/play_runs.hpp"
#include "study/sneak.hpp"

/// What watchers perceive of each place at each moment.
namespace gaze {
namespace {

using List = std::vector<Glimpse>;

bool is_alike(const WatcherAt& a, const WatcherAt& b) {
  return a.is_up == b.is_up && a.looker.feet == b.looker.feet &&
         a.looker.facing == b.looker.facing && a.zone_is_spent == b.zone_is_spent &&
         std::equal(a.feelers.begin(), a.feelers.end(), b.feelers.begin(), b.feelers.end(),
                    [](const BallPath& one, const BallPath& other) {
                      return one.path.from == other.path.from && one.path.to == other.path.to;
                    });
}

/// What one watcher perceives of one place.
class Perceiving {
 public:
  Perceiving(const SneakGrid& grid, const World& world, const Level& level, const Watcher& watcher,
             const Sneaker& sneaker, Certainty certainty)
      : grid_(grid),
        world_(world),
        level_(level),
        plane_(level.plane),
        watcher_(watcher),
        sneaker_(sneaker),
        certainty_(certainty),
        half_diagonal_(grid.size * 0.7072) {
    tick_ = 1.0 / level.ticks_per_second;
    moment_ = sneaker.ticks * tick_;
    for (const Zone& zone : level.zones) darkest_ = std::max(darkest_, zone.dimness);
  }

  List list(const WatcherAt& at) const {
    List list;
    if (!at.is_up) return list;
    const double reach = std::min(farthest(), 1e5);
    const Vector3d& feet = at.looker.feet;
    const int left = column_of(feet.x() - reach);
    const int right = column_of(feet.x() + reach) + 1;
    const int top = row_of(feet.y() + reach) + 1;
    for (int row = std::max(0, row_of(feet.y() - reach)); row <= std::min(grid_.rows - 1, top);
         ++row) {
      for (int column = std::max(0, left); column <= std::min(grid_.columns - 1, right); ++column) {
        const std::size_t spot = grid_.at(column, row);
        const auto& counts = certainty_ == Certainty::middle ? grid_.stands : grid_.any;
        if (counts[spot] == 0) continue;
        Glimpse glimpse = glimpse_at(at, grid_.place(spot));
        glimpse.spot = static_cast<std::uint32_t>(spot);
        if (glimpse.gain > 0.0F) list.push_back(glimpse);
      }
    }
    return list;
  }

 private:
  static constexpr double kAtOnce = 2.0;

  int column_of(double x) const {
    return static_cast<int>(std::floor((x - grid_.low.x()) / grid_.size));
  }
  int row_of(double y) const {
    return static_cast<int>(std::floor((y - grid_.low.y()) / grid_.size));
  }

  double farthest() const {
    double reach = 0.0;
    const Kind& kind = watcher_.kind;
    if (kind.sight) reach = kind.sight->range + sneaker_.kind.radius;
    if (kind.nearness) reach = std::max(reach, kind.nearness->range);
    if (kind.hearing) reach = std::max(reach, heard_from());
    for (const Feeler& feeler : kind.feelers) {
      reach = std::max(
          reach, length_of(*feeler.from) + feeler.length + feeler.thickness + sneaker_.kind.radius);
    }
    // What tells of somebody may lie anywhere.
    for (const Zone& zone : level_.zones) {
      const bool tells =
          std::find(zone.tells.begin(), zone.tells.end(), watcher_.agent.index) != zone.tells.end();
      if (tells) reach = 1e6;
    }
    return std::max(reach, kind.radius + sneaker_.kind.radius) + grid_.size;
  }

  double heard_from() const {
    const double reach = sneaker_.kind.move->quiet_reach * watcher_.kind.hearing->acuity;
    return std::min(watcher_.kind.hearing->range, reach);
  }

  static Glimpse glimpse(double gain, bool is_whole = true) {
    return {0, static_cast<float>(gain), is_whole};
  }

  Glimpse glimpse_at(const WatcherAt& at, const Vector3d& place) const {
    if (is_felt(at, place) || is_told_of(at, place)) return glimpse(kAtOnce);
    if (!watcher_.kind.sight) return glimpse(0.0);
    if (certainty_ == Certainty::middle) return glimpse(seen(at, place));
    const double notice = watcher_.kind.sight->notice_time.seconds();
    if (notice == 0.0) {
      return glimpse(sure_rate(at, place, half_diagonal_) > 0.0 ? kAtOnce : 0.0);
    }
    // Since the moment before the body was within one place's width of here. Of a watcher that kept
    // still meanwhile it is certain what it saw; of another, only what it sees just now.
    if (at.has_kept_still) {
      const double rate = sure_rate(at, place, half_diagonal_ + grid_.size);
      if (rate > 0.0) return glimpse(rate * moment_ / notice);
    }
    return glimpse(sure_rate(at, place, half_diagonal_) * tick_ / notice, false);
  }

  // Zones that tell of who steps into them. For certain only where all of the place lies in one.
  bool is_told_of(const WatcherAt& at, const Vector3d& place) const {
    for (std::size_t i = 0; i < level_.zones.size(); ++i) {
      const Zone& zone = level_.zones[i];
      const bool tells =
          std::find(zone.tells.begin(), zone.tells.end(), watcher_.agent.index) != zone.tells.end();
      if (!tells || sneaker_.triggers[i] == 0 || at.zone_is_spent[i] != 0) continue;
      const double half = grid_.size / 2.0;
      int inside = 0;
      for (const double x : {-half, half}) {
        for (const double y : {-half, half}) {
          inside += is_in(plane_, zone, place + Vector3d{x, y, 0.0}) ? 1 : 0;
        }
      }
      const bool is_sure = certainty_ == Certainty::surely;
      if (is_sure ? inside == 4 && is_convex(zone.outline) : inside > 0) return true;
    }
    return false;
  }

  static bool is_convex(const std::vector<Vector2d>& outline) {
    return convex_hull(outline).size() == outline.size();
  }

  // A body in the way of a feeler, before what that meets without it.
  bool is_in_feeler(const WatcherAt& at, const Vector3d& place) const {
    const bool is_sure = certainty_ == Certainty::surely;
    return std::any_of(at.feelers.begin(), at.feelers.end(), [&](const BallPath& feeler) {
      const Vector3d& a = feeler.path.from;
      const Vector3d& b = feeler.path.to;
      const double off = distance_to_segment(Vector2d{a.x(), a.y()}, Vector2d{b.x(), b.y()},
                                             Vector2d{place.x(), place.y()});
      const double reach = feeler.radius + sneaker_.kind.radius;
      const double low = place.z();
      const double high = place.z() + sneaker_.kind.height;
      const auto is_at_height = [&](const Vector3d& p) { return p.z() >= low && p.z() <= high; };
      if (!is_sure) return off <= reach;
      return off + half_diagonal_ <= reach && is_at_height(a) && is_at_height(b);
    });
  }

  // By nearness and by touch; in the middle of a place also by hearing, whatever is in between.
  bool is_felt(const WatcherAt& at, const Vector3d& place) const {
    const Vector3d off = place - at.looker.feet;
    const double level_off = level_length(off);
    const Kind& kind = watcher_.kind;
    const bool is_sure = certainty_ == Certainty::surely;
    if (kind.nearness) {
      const auto axes =
          kind.nearness->axes.value_or(std::array<bool, 3>{true, true, plane_ == Plane::space});
      const double off_axes = distance_along(axes, at.looker.feet, place);
      if (off_axes + (is_sure ? half_diagonal_ : 0.0) <= kind.nearness->range) return true;
    }
    if (is_in_feeler(at, place)) return true;
    if (is_sure) return false;
    const bool is_beside = off.z() < kind.height && -off.z() < sneaker_.kind.height;
    if (is_beside && level_off <= kind.radius + sneaker_.kind.radius + grid_.size / 2.0)
      return true;
    return kind.hearing && sneaker_.kind.move->quiet_reach > 0.0 && level_off <= heard_from();
  }

  LookedAt looked(const Vector3d& place, double visibility) const {
    LookedAt other;
    other.feet = place;
    other.height = sneaker_.kind.height;
    other.body_points = sneaker_.kind.body_points;
    other.radius = sneaker_.kind.radius;
    other.visibility = visibility;
    return other;
  }

  double gain_of(double rate) const {
    const double notice = watcher_.kind.sight->notice_time.seconds();
    return notice == 0.0 ? (rate > 0.0 ? kAtOnce : 0.0) : rate * moment_ / notice;
  }

  double seen(const WatcherAt& at, const Vector3d& place) const {
    const LookedAt other = looked(place, sneaker_.kind.visibility);
    if (!can_see(world_, at.looker, other)) return 0.0;
    return gain_of(evidence_rate(world_, at.looker, other));
  }

  // How fast evidence grows at least, wherever within some distance the feet are: a ball round the
  // way to each body point meets nothing, so that no line to a point of that ball does.
  double sure_rate(const WatcherAt& at, const Vector3d& place, double around) const {
    const Sight& sight = *watcher_.kind.sight;
    const double low = std::min(sneaker_.kind.visibility,
                                sneaker_.kind.still_visibility.value_or(sneaker_.kind.visibility));
    if (!(low > 0.0)) return 0.0;
    const double to_middle = plane_distance(plane_, place, at.looker.feet);
    const double surface = sight.measure == Measure::surface ? sneaker_.kind.radius : 0.0;
    const double farthest_in_it = std::max(0.0, to_middle + around - surface);
    if (farthest_in_it > sight.range) return 0.0;
    const LookedAt other = looked(place, low);
    const Vector3d eye = eye_of(plane_, at.looker);
    if (!is_surely_in_field(at, other, eye, around)) return 0.0;
    int clear = 0;
    for (const double share : sneaker_.kind.body_points) {
      const Vector3d point = place + Vector3d{0.0, 0.0, share * sneaker_.kind.height};
      clear += world_.is_clear(BallPath{{eye, point}, around}, Stops::sight) ? 1 : 0;
    }
    const double visible = clear / static_cast<double>(sneaker_.kind.body_points.size());
    if (!(visible > 0.0) || visible < sight.visible_at_least) return 0.0;
    const double start = sight.fade_from * sight.range;
    double fade = 1.0;
    if (sight.fade_from < 1.0 && farthest_in_it > start) {
      fade = (sight.range - farthest_in_it) / (sight.range - start);
    }
    return low * visible * fade * (1.0 - darkest_);
  }

  // The whole disc lies in the field of view: by its middle, and the angle under which it is seen.
  bool is_surely_in_field(const WatcherAt& at, const LookedAt& other, const Vector3d& eye,
                          double around) const {
    const Sight& sight = *watcher_.kind.sight;
    if (sight.field_of_view.degrees() >= 360.0 && !sight.vertical_field_of_view) return true;
    const Vector3d middle = other.feet + Vector3d{0.0, 0.0, other.height / 2.0};
    const double away = length_of(Vector3d(middle - eye));
    if (away <= around) return false;
    const double half_seen = std::asin(around / away) * 180.0 / M_PI;
    Looker narrow = at.looker;
    narrow.sight.near_ring = 0.0;
    const double field = sight.field_of_view.degrees() - 2.0 * half_seen;
    if (!(field > 0.0)) return false;
    narrow.sight.field_of_view = Angle::from_degrees(field);
    if (sight.vertical_field_of_view) {
      const double tall = sight.vertical_field_of_view->degrees() - 2.0 * half_seen;
      if (!(tall > 0.0)) return false;
      narrow.sight.vertical_field_of_view = Angle::from_degrees(tall);
    }
    const DistanceAndAngle measured = measure(plane_, narrow, other);
    if (measured.angle_deg > field / 2.0) return false;
    if (!sight.vertical_field_of_view) return true;
    return plane_ == Plane::space && can_see(world_with_nothing(), narrow, other);
  }

  // A world without anything in it leaves range and field of view to decide.
  static const World& world_with_nothing() {
    static thread_local const World kEmpty = [] {
      Level nothing;
      nothing.plane = Plane::space;
      return World(nothing);
    }();
    return kEmpty;
  }

  const SneakGrid& grid_;
  const World& world_;
  const Level& level_;
  Plane plane_;
  const Watcher& watcher_;
  const Sneaker& sneaker_;
  Certainty certainty_;
  double half_diagonal_;
  double tick_ = 0.0;     ///< Seconds.
  double moment_ = 0.0;   ///< Seconds.
  double darkest_ = 0.0;  ///< Wherever that is.
};

// Those that find bodies that are hostile, up to what they meet.
std::vector<BallPath> feelers_of(const Simulation& game, const Watcher& watcher) {
  std::vector<BallPath> paths;
  if (watcher.kind.feelers.empty()) return paths;
  const AgentState state = game.state(watcher.agent);
  const std::vector<FeelerAnswer> answers = feelers(game, watcher.agent);
  for (std::size_t i = 0; i < answers.size(); ++i) {
    const Feeler& feeler = watcher.kind.feelers[i];
    if (feeler.finds == Feeler::Finds::nothing) continue;
    const Vector2d& facing = feeler.turns_with_head ? state.head : state.facing;
    BallPath path = feeler_path(game.level().plane, feeler, state.position, facing);
    const Felt& felt = answers[i].felt;
    const double length = length_of(Vector3d(path.path.to - path.path.from));
    if (felt.distance && length > 0.0) {
      path.path.to =
          path.path.from + (path.path.to - path.path.from) * std::min(1.0, *felt.distance / length);
    }
    paths.push_back(path);
  }
  return paths;
}

std::vector<char> spent_zones(const Simulation& game) {
  const Simulation::State& state = state_of(game);
  std::vector<char> spent;
  for (std::size_t i = 0; i < game.level().zones.size(); ++i) {
    spent.push_back(game.level().zones[i].once && state.senses.zone_spent[i] != 0 ? 1 : 0);
  }
  return spent;
}

void note_motion(const Simulation& game, Watcher& watcher) {
  const AgentState state = game.state(watcher.agent);
  const WatcherAt& last = watcher.at.back();
  const bool is_up = state.is_alive && state.is_awake && state.is_there;
  watcher.has_moved |=
      is_up != last.is_up || state.position != last.looker.feet || state.head != last.looker.facing;
}

bool may_notice(const Level& level, const Kind& kind, const Kind& sneaker) {
  const bool senses =
      kind.sight || kind.nearness || kind.hearing || !kind.feelers.empty() || kind.touch;
  return senses && is_hostile(level, kind.team, sneaker.team);
}

}  // namespace

std::vector<Watcher> watchers_of(const Level& level, AgentId who, const Sneaker& sneaker,
                                 std::size_t moments) {
  Simulation game(level);
  std::vector<Watcher> watchers;
  const double moment = static_cast<double>(sneaker.ticks) / level.ticks_per_second;
  for (const AgentId agent : game.agents()) {
    const Kind& kind = game.level().kind_of(game.level().agents[agent.index]);
    if (agent == who || !may_notice(level, kind, sneaker.kind)) continue;
    Watcher watcher;
    watcher.agent = agent;
    watcher.id = game.id_of(agent);
    watcher.kind = kind;
    watcher.ebb = 1.0;
    if (kind.sight && kind.sight->ebb_time.nanoseconds > 0) {
      watcher.ebb = moment / kind.sight->ebb_time.seconds();
    }
    watchers.push_back(std::move(watcher));
  }
  if (game.is_there(who)) game.despawn(who);
  for (std::size_t k = 0; k < moments; ++k) {
    for (Watcher& watcher : watchers) {
      WatcherAt at;
      const AgentState state = game.state(watcher.agent);
      at.has_kept_still = k > 0 && !watcher.has_moved;
      watcher.has_moved = false;
      at.is_up = state.is_alive && state.is_awake && state.is_there;
      at.looker.feet = state.position;
      at.looker.facing = state.head;
      at.feelers = feelers_of(game, watcher);
      at.zone_is_spent = spent_zones(game);
      if (watcher.kind.sight) at.looker = game.looker(watcher.agent);
      watcher.at.push_back(std::move(at));
    }
    for (int tick = 0; tick < sneaker.ticks; ++tick) {
      game.step();
      for (Watcher& watcher : watchers) note_motion(game, watcher);
    }
  }
  return watchers;
}

Perception perceive(const SneakGrid& grid, const World& world, const Level& level,
                    const std::vector<Watcher>& watchers, const Sneaker& sneaker,
                    Certainty certainty, const StudyOptions& options) {
  Perception perception;
  perception.lists.resize(watchers.size());
  struct Job {
    std::size_t watcher = 0;
    std::size_t first = 0;  // moment
  };
  std::vector<Job> jobs;
  for (std::size_t w = 0; w < watchers.size(); ++w) {
    perception.lists[w].resize(watchers[w].at.size());
    for (std::size_t k = 0; k < watchers[w].at.size(); ++k) {
      const bool is_new = k == 0 || !is_alike(watchers[w].at[k], watchers[w].at[k - 1]);
      if (is_new) jobs.push_back({w, k});
    }
  }
  StudyOptions silent;
  silent.threads = options.threads;
  for_all(jobs.size(), silent, [&](std::size_t i) {
    const Watcher& watcher = watchers[jobs[i].watcher];
    const Perceiving perceiving(grid, world, level, watcher, sneaker, certainty);
    auto list = std::make_shared<const List>(perceiving.list(watcher.at[jobs[i].first]));
    auto& lists = perception.lists[jobs[i].watcher];
    for (std::size_t k = jobs[i].first; k < lists.size(); ++k) {
      if (k > jobs[i].first && !is_alike(watcher.at[k], watcher.at[k - 1])) break;
      lists[k] = list;
    }
  });
  return perception;
}

}  // namespace gaze
