#include <algorithm>
#include <cmath>
#include <limits>

#include "geometry/plan.hpp"
#include "geometry/plan_grid.hpp"
#include "geometry/polygon.hpp"
#include "sense/sensing.hpp"
#include "study/sneak.hpp"

/// What watchers perceive of each place at each moment.
namespace gaze {
namespace watching {

bool is_alike(const WatcherAt& a, const WatcherAt& b) {
  return a.is_up == b.is_up && a.has_kept_still == b.has_kept_still &&
         a.looker.feet == b.looker.feet && a.looker.facing == b.looker.facing &&
         a.zone_is_spent == b.zone_is_spent &&
         std::equal(a.feelers.begin(), a.feelers.end(), b.feelers.begin(), b.feelers.end(),
                    [](const BallPath& one, const BallPath& other) {
                      return one.path.from == other.path.from && one.path.to == other.path.to;
                    });
}

/// A place, and how far from its middle a body in it may be: now, and a moment before.
struct Spot {
  Vector3d middle;
  double around = 0.0;
  double around_before = 0.0;
  double spread = 0.0;  ///< In height alone.
};

/// What one watcher perceives of one place.
class Perceiving {
 public:
  Perceiving(const SneakFloor& floor, const World& world, const Level& level,
             const Watcher& watcher, const Sneaker& sneaker, Certainty certainty)
      : floor_(floor),
        world_(world),
        level_(level),
        plane_(level.plane),
        watcher_(watcher),
        sneaker_(sneaker),
        certainty_(certainty),
        reach_(reach_of(watcher, level, sneaker) + floor.size) {
    tick_ = 1.0 / level.ticks_per_second;
    moment_ = sneaker.ticks * tick_;
    for (const Zone& zone : level.zones) {
      if (watcher.kind.sight && gathers() && zone.dimness > 0.0) dark_.push_back(&zone);
    }
  }

  bool reaches_row(std::uint32_t moment, int row) const {
    if (certainty_ == Certainty::surely && watcher_.may_turn_away) return false;
    const WatcherAt& at = watcher_.at[moment];
    const double y = floor_.low.y() + row * floor_.size;
    return at.is_up && std::abs(y - at.looker.feet.y()) <= reach_;
  }
  bool reaches_column(std::uint32_t moment, int column) const {
    const double x = floor_.low.x() + column * floor_.size;
    return std::abs(x - watcher_.at[moment].looker.feet.x()) <= reach_;
  }

  // @return How much evidence it gathers there, below 0 if it may have lost some before.
  float gain(std::uint32_t moment, std::uint32_t number) const {
    const double half_diagonal = floor_.size * std::sqrt(0.5);
    Spot spot;
    spot.middle = floor_.place(number);
    spot.spread = floor_.spread[number];
    spot.around = std::hypot(half_diagonal, spot.spread);
    spot.around_before = std::hypot(half_diagonal + floor_.size, floor_.spread_about[number]);
    return gain_at(watcher_.at[moment], spot);
  }

 private:
  static constexpr float kAtOnce = 2.0F;

  float gain_at(const WatcherAt& at, const Spot& spot) const {
    if (is_felt(at, spot) || is_told_of(at, spot)) return kAtOnce;
    if (!watcher_.kind.sight) return 0.0F;
    if (certainty_ == Certainty::middle) return static_cast<float>(seen(at, spot.middle));
    const double notice = watcher_.kind.sight->notice_time.seconds();
    if (notice == 0.0) {
      return sure_rate(at, spot.middle, spot.around) > 0.0 ? kAtOnce : 0.0F;
    }
    // Since the moment before the body was within one place's width of here. Of a watcher that kept
    // still meanwhile it is certain what it saw; of another, only what it sees just now.
    if (at.has_kept_still) {
      const double rate = sure_rate(at, spot.middle, spot.around_before);
      if (rate > 0.0) return static_cast<float>(rate * moment_ / notice);
    }
    return static_cast<float>(-sure_rate(at, spot.middle, spot.around) * tick_ / notice);
  }

  // Zones that tell of who steps into them. For certain only where all of the place lies in one.
  bool is_told_of(const WatcherAt& at, const Spot& spot) const {
    for (std::size_t i = 0; i < level_.zones.size(); ++i) {
      const Zone& zone = level_.zones[i];
      const bool tells =
          std::find(zone.tells.begin(), zone.tells.end(), watcher_.agent.index) != zone.tells.end();
      if (!tells || sneaker_.triggers[i] == 0 || at.zone_is_spent[i] != 0) continue;
      const double half = floor_.size / 2.0;
      int inside = 0;
      for (const double x : {-half, half}) {
        for (const double y : {-half, half}) {
          for (const double z : {-spot.spread, spot.spread}) {
            inside += is_in(plane_, zone, spot.middle + Vector3d{x, y, z}) ? 1 : 0;
          }
        }
      }
      const bool is_sure = certainty_ == Certainty::surely;
      if (is_sure ? inside == 8 && is_convex(zone.outline) : inside > 0) return true;
    }
    return false;
  }

  static bool is_convex(const std::vector<Vector2d>& outline) {
    return convex_hull(outline).size() == outline.size();
  }

  // A body in the way of a feeler, before what that meets without it.
  bool is_in_feeler(const WatcherAt& at, const Spot& spot) const {
    const Vector3d& place = spot.middle;
    const bool is_sure = certainty_ == Certainty::surely;
    return std::any_of(at.feelers.begin(), at.feelers.end(), [&](const BallPath& feeler) {
      const Vector3d& a = feeler.path.from;
      const Vector3d& b = feeler.path.to;
      const double off = distance_to_segment(Vector2d{a.x(), a.y()}, Vector2d{b.x(), b.y()},
                                             Vector2d{place.x(), place.y()});
      const double reach = feeler.radius + sneaker_.kind.radius;
      const double low = place.z() + spot.spread;
      const double high = place.z() - spot.spread + sneaker_.kind.height;
      const auto is_at_height = [&](const Vector3d& p) { return p.z() >= low && p.z() <= high; };
      if (!is_sure) return off <= reach;
      return off + spot.around <= reach && is_at_height(a) && is_at_height(b);
    });
  }

  // By nearness and by touch; in the middle of a place also by hearing, whatever is in between.
  bool is_felt(const WatcherAt& at, const Spot& spot) const {
    const Vector3d& place = spot.middle;
    const Vector3d off = place - at.looker.feet;
    const double level_off = level_length(off);
    const Kind& kind = watcher_.kind;
    const bool is_sure = certainty_ == Certainty::surely;
    if (kind.nearness) {
      const double off_axes = distance_along(*kind.nearness->axes, at.looker.feet, place);
      if (off_axes + (is_sure ? spot.around : 0.0) <= kind.nearness->range) return true;
    }
    if (is_in_feeler(at, spot)) return true;
    if (is_sure) return false;
    const bool is_beside = off.z() < kind.height && -off.z() < sneaker_.kind.height;
    if (is_beside && level_off <= kind.radius + sneaker_.kind.radius + floor_.size / 2.0)
      return true;
    return kind.hearing && sneaker_.kind.move->quiet_reach > 0.0 &&
           level_off <= heard_from(kind, sneaker_);
  }

  LookedAt looked(const Vector3d& place, double visibility) const {
    LookedAt other;
    other.feet = place;
    other.height = sneaker_.kind.height;
    other.body_points = sneaker_.kind.body_points;
    other.radius = sneaker_.kind.radius;
    other.visibility = visibility;
    other.dimness = dimness_at(place);
    return other;
  }

  // In overlapping zones the darkest counts, as in play.
  double dimness_at(const Vector3d& place) const {
    double dimness = 0.0;
    for (const Zone* zone : dark_) {
      if (zone->dimness > dimness && is_in(plane_, *zone, place)) dimness = zone->dimness;
    }
    return dimness;
  }

  // At least the dimness of every place within some distance: of all zones whose boxes come so
  // near.
  double dimness_about(const Vector3d& place, double around) const {
    double dimness = 0.0;
    const Vector2d at = plan_part(plane_, place);
    for (const Zone* zone : dark_) {
      const PlanBox box = box_around(zone->outline);
      const bool is_near = ((box.low.array() - around) <= at.array()).all() &&
                           (at.array() <= (box.high.array() + around)).all();
      if (is_near) dimness = std::max(dimness, zone->dimness);
    }
    return dimness;
  }

  // False: it notices a visible agent immediately, also in the dark.
  bool gathers() const { return watcher_.kind.sight->notice_time.seconds() > 0.0; }

  double gain_of(double rate) const {
    if (gathers()) return rate * moment_ / watcher_.kind.sight->notice_time.seconds();
    return rate > 0.0 ? kAtOnce : 0.0;
  }

  double seen(const WatcherAt& at, const Vector3d& place) const {
    const LookedAt other = looked(place, sneaker_.kind.visibility);
    if (!can_see(world_, at.looker, other)) return 0.0;
    return gain_of(gathers() ? evidence_rate(world_, at.looker, other) : 1.0);
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
    return low * visible * fade * (1.0 - dimness_about(place, around));
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

  const SneakFloor& floor_;
  const World& world_;
  const Level& level_;
  Plane plane_;
  const Watcher& watcher_;
  const Sneaker& sneaker_;
  Certainty certainty_;
  double reach_;
  double tick_ = 0.0;    ///< Seconds.
  double moment_ = 0.0;  ///< Seconds.
  std::vector<const Zone*> dark_;
};

/// A watcher, and what it has seen of places since it last changed.
struct Eye {
  Perceiving perceiving;
  std::vector<std::uint32_t> begun;  ///< By moment: since when it has been as it is then.
  std::vector<float> known;          ///< By place; not a number: not looked at yet.
  std::uint32_t known_since = 0xFFFFFFFF;

  bool stays(std::uint32_t moment) const {
    const bool is_last = moment + 1U >= begun.size();
    return begun[moment] < moment || (!is_last && begun[moment + 1U] == begun[moment]);
  }
  void remember(std::uint32_t moment, std::size_t spots) {
    if (known_since == begun[moment]) return;
    known_since = begun[moment];
    known.assign(spots, std::numeric_limits<float>::quiet_NaN());
  }
};

/// What was found in one row of the floor.
struct RowOfGlimpses {
  struct One {
    std::uint32_t spot = 0;
    std::uint32_t watcher = 0;
    float gain = 0.0F;
  };
  std::vector<One> list;
  std::uint64_t looks = 0;
};

void wipe(Seen& seen, std::size_t spots) {
  if (seen.row.empty()) seen.row.assign(spots, 0);
  for (const std::uint32_t spot : seen.spots) seen.row[spot] = 0;
  seen.spots.clear();
  seen.gain.clear();
  seen.whole.clear();
}

void add(Seen& seen, const RowOfGlimpses& row, std::size_t watchers) {
  for (const auto& one : row.list) {
    std::uint32_t& at = seen.row[one.spot];
    if (at == 0) {
      seen.spots.push_back(one.spot);
      at = static_cast<std::uint32_t>(seen.spots.size());
      seen.gain.resize(at * watchers, 0.0F);
      seen.whole.resize(at * watchers, 0);
    }
    const std::size_t i = (at - 1U) * watchers + one.watcher;
    seen.gain[i] = std::abs(one.gain);
    seen.whole[i] = one.gain > 0.0F ? 1 : 0;
  }
}

}  // namespace watching

double heard_from(const Kind& kind, const Sneaker& sneaker) {
  const double reach = sneaker.kind.move->quiet_reach * kind.hearing->acuity;
  return std::min(kind.hearing->range, reach);
}

struct Perception::Eyes {
  const SneakFloor& floor;
  Certainty certainty;
  SneakEffort& effort;
  std::vector<watching::Eye> list;

  void look(std::uint32_t moment, int row, std::span<const std::uint8_t> near,
            watching::RowOfGlimpses& found) {
    std::vector<std::uint32_t> spots;
    const std::uint32_t end = floor.first_of_row(row + 1);
    for (std::uint32_t spot = floor.first_of_row(row); spot < end; ++spot) {
      const bool counts = certainty == Certainty::surely || floor.stands[spot];
      if (counts && near[floor.square(spot)] != 0) spots.push_back(spot);
    }
    if (spots.empty()) return;
    for (std::uint32_t w = 0; w < list.size(); ++w) {
      if (list[w].perceiving.reaches_row(moment, row)) look(moment, w, spots, found);
    }
  }

 private:
  void look(std::uint32_t moment, std::uint32_t watcher, std::span<const std::uint32_t> spots,
            watching::RowOfGlimpses& found) {
    watching::Eye& eye = list[watcher];
    const bool remembers = eye.known_since == eye.begun[moment];
    for (const std::uint32_t spot : spots) {
      if (!eye.perceiving.reaches_column(moment, floor.column[spot])) continue;
      float gain = remembers ? eye.known[spot] : std::numeric_limits<float>::quiet_NaN();
      if (std::isnan(gain)) {
        gain = eye.perceiving.gain(moment, spot);
        ++found.looks;
        if (remembers) eye.known[spot] = gain;
      }
      if (gain != 0.0F) found.list.push_back({spot, watcher, gain});
    }
  }
};

Perception::Perception(const SneakFloor& floor, const World& world, const Level& level,
                       const std::vector<Watcher>& watchers, const Sneaker& sneaker,
                       Certainty certainty, SneakEffort& effort)
    : eyes_(std::make_unique<Eyes>(Eyes{floor, certainty, effort, {}})) {
  for (const Watcher& watcher : watchers) {
    watching::Eye eye{{floor, world, level, watcher, sneaker, certainty}, {}, {}};
    for (std::uint32_t k = 0; k < watcher.at.size(); ++k) {
      const bool is_new = k == 0 || !watching::is_alike(watcher.at[k], watcher.at[k - 1]);
      eye.begun.push_back(is_new ? k : eye.begun.back());
    }
    eyes_->list.push_back(std::move(eye));
  }
}

Perception::~Perception() = default;

void Perception::look(std::uint32_t moment, std::span<const std::uint8_t> near, Seen& seen) {
  Eyes& eyes = *eyes_;
  watching::wipe(seen, eyes.floor.count());
  for (watching::Eye& eye : eyes.list) {
    if (eye.stays(moment)) eye.remember(moment, eyes.floor.count());
  }
  std::vector<watching::RowOfGlimpses> rows(static_cast<std::size_t>(eyes.floor.rows));
  eyes.effort.for_rows(eyes.floor, [&](int row) {
    eyes.look(moment, row, near, rows[static_cast<std::size_t>(row)]);
  });
  for (const watching::RowOfGlimpses& row : rows) {
    watching::add(seen, row, eyes.list.size());
    eyes.effort.count(row.looks);
  }
}

float Perception::gain(std::size_t watcher, std::uint32_t moment, std::uint32_t spot) const {
  const watching::Perceiving& perceiving = eyes_->list[watcher].perceiving;
  const bool reaches = perceiving.reaches_row(moment, eyes_->floor.row[spot]) &&
                       perceiving.reaches_column(moment, eyes_->floor.column[spot]);
  return reaches ? std::abs(perceiving.gain(moment, spot)) : 0.0F;
}

bool SneakEffort::goes_on(std::size_t done, std::size_t all) {
  is_ended_ |= options_.goes_on && !options_.goes_on(done, all);
  return !is_ended_ && !is_used_up();
}

}  // namespace gaze
