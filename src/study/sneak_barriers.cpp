#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "gaze/path.hpp"
#include "geometry/plan.hpp"
#include "level/numbers.hpp"
#include "sense/sensing.hpp"
#include "study/sneak_scene.hpp"

/// What keeps anybody from getting there unnoticed, and what would open a way.
namespace gaze {
namespace {

class Barriers {
 public:
  Barriers(const SneakScene& scene, const SneakSearch& loose, const Perception& sure)
      : scene_(scene), loose_(loose), sure_(sure) {}

  void name(Sneak& result) const {
    const Path path = find_path(scene_.mesh, scene_.start, scene_.goal);
    if (path.outcome != Path::Outcome::whole) {
      result.reason = "no path leads there at all";
      return;
    }
    for (const std::uint32_t spot : spots_along(path)) {
      if (spot == kNoSpot || loose_.reached[spot] != 0) continue;
      result.barriers = barriers_at(spot);
      if (!result.barriers.empty()) break;
    }
    if (result.barriers.empty()) {
      result.reason = fmt::format("no way leads there in the {} s of the level unseen",
                                  number_text(scene_.own.level.seconds));
    }
    if (!scene_.task.names_change) return;
    for (SneakBarrier& barrier : result.barriers) name_change(barrier);
  }

 private:
  std::vector<std::uint32_t> spots_along(const Path& path) const {
    std::vector<std::uint32_t> spots;
    for (std::size_t i = 1; i < path.points.size(); ++i) {
      const Vector3d way = path.points[i] - path.points[i - 1];
      const int steps = std::max(1, static_cast<int>(length_of(way) / (0.5 * scene_.floor.size)));
      for (int k = 1; k <= steps; ++k) {
        spots.push_back(
            scene_.spot_of(path.points[i - 1] + way * (static_cast<double>(k) / steps)));
      }
    }
    return spots;
  }

  std::vector<SneakBarrier> barriers_at(std::uint32_t spot) const {
    std::vector<SneakBarrier> barriers;
    for (std::size_t w = 0; w < scene_.watchers.size(); ++w) {
      SneakBarrier barrier;
      barrier.watcher = scene_.watchers[w].id;
      barrier.place = scene_.floor.place(spot);
      bool sees = false;
      for (std::uint32_t k = 0; k < scene_.moments; ++k) {
        if (!(sure_.gain(w, k, spot) > 0.0F)) continue;
        if (!sees) barrier.from = scene_.seconds_of(k);
        sees = true;
        barrier.to = scene_.seconds_of(k);
      }
      if (!sees) continue;
      barrier.zone = telling_zone(scene_.watchers[w], barrier.place);
      if (scene_.watchers[w].kind.sight) barrier.range_now = scene_.watchers[w].kind.sight->range;
      barriers.push_back(std::move(barrier));
    }
    return barriers;
  }

  std::string telling_zone(const Watcher& watcher, const Vector3d& place) const {
    for (std::size_t i = 0; i < scene_.own.level.zones.size(); ++i) {
      const Zone& zone = scene_.own.level.zones[i];
      const bool tells =
          std::find(zone.tells.begin(), zone.tells.end(), watcher.agent.index) != zone.tells.end();
      if (tells && scene_.sneaker.triggers[i] != 0 && is_in(scene_.own.level.plane, zone, place))
        return zone.id;
    }
    return "";
  }

  bool opens(const Level& changed) const {
    SneakTask task = scene_.task;
    task.names_change = false;
    task.spot = scene_.floor.size;
    const SneakScene other(changed, task, scene_.effort);
    return other.fits() && sneak_once(other).outcome == Sneak::Outcome::found;
  }

  void name_change(SneakBarrier& barrier) const {
    look_for_change(barrier);
    barrier.is_tried = !scene_.effort.is_ended() && !scene_.effort.is_used_up();
  }

  // Looks for the largest range of one watcher's sight, in whole centimetres, at which a way opens.
  // What it finds was searched and played, so it holds as it is printed.
  void look_for_change(SneakBarrier& barrier) const {
    if (!barrier.zone.empty()) {
      Level changed = scene_.own.level;
      for (Zone& zone : changed.zones) {
        if (zone.id == barrier.zone) zone.tells.clear();
      }
      barrier.opens_without = opens(changed);
      return;
    }
    constexpr double kCentimetres = 100.0;  // of a metre
    constexpr int kMostTries = 7;
    int low = static_cast<int>(std::ceil(barrier.range_now / 64.0 * kCentimetres));
    int high = static_cast<int>(std::ceil(barrier.range_now * kCentimetres));
    const auto range = [&](int centimetres) { return centimetres / kCentimetres; };
    if (low <= 0 || low >= high || !opens(with_range(barrier.watcher, range(low)))) return;
    for (int i = 0; i < kMostTries && high - low > 1; ++i) {
      const int middle = (low + high) / 2;
      (opens(with_range(barrier.watcher, range(middle))) ? low : high) = middle;
    }
    barrier.range = range(low);
  }

  // The watcher gets a kind of its own, of another range.
  Level with_range(const std::string& watcher, double range) const {
    Level changed = scene_.own.level;
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

  const SneakScene& scene_;
  const SneakSearch& loose_;
  const Perception& sure_;
};

}  // namespace

void name_barriers(Sneak& result, const SneakScene& scene, const SneakSearch& loose,
                   const Perception& sure) {
  Barriers(scene, loose, sure).name(result);
}

}  // namespace gaze
