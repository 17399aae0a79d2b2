#include "gaze/tools/cover.hpp"

#include <algorithm>
#include <limits>

#include "study/body_view.hpp"
#include "study/regions.hpp"
#include "study/spots.hpp"

namespace gaze {
namespace {

struct Extent {
  Vector2d low;
  Vector2d high;

  explicit Extent(const Outline& outline) : low(outline.front()), high(outline.front()) {
    for (const Vector2d& p : outline) {
      low = low.cwiseMin(p);
      high = high.cwiseMax(p);
    }
  }
  bool overlaps(const Extent& other) const {
    return (low.array() <= other.high.array()).all() && (other.low.array() <= high.array()).all();
  }
};

// Of one part: a spot inside it close to the middle of its extent, for a text to point to.
UnseenPatch patch_of(const SpotGrid& grid, const Outlines& part) {
  UnseenPatch patch{area_of(part), part.front().front()};
  const Extent extent(part.front());
  const Vector2d middle = (extent.low + extent.high) / 2.0;
  double least = std::numeric_limits<double>::infinity();
  mark_spots(grid, part, [&](std::size_t spot) {
    const auto columns = static_cast<std::size_t>(grid.columns);
    const Vector2d at =
        grid.middle(static_cast<int>(spot % columns), static_cast<int>(spot / columns));
    const double off = (at - middle).squaredNorm();
    if (off >= least) return;
    least = off;
    patch.place = at;
  });
  return patch;
}

Outline bounds_of(const FreeFloor& floor) {
  return {floor.low, {floor.high.x(), floor.low.y()}, floor.high, {floor.low.x(), floor.high.y()}};
}

// Only holes near a piece are looked at: a hole lies within the outline whose hole it is.
Outlines part_on_floor(const FreeFloor& floor, const Outlines& seen) {
  Outlines near;
  for (const Outline& taken : floor.taken) {
    const bool is_near =
        !taken.empty() && std::any_of(seen.begin(), seen.end(), [&](const Outline& piece) {
          return !piece.empty() && Extent(taken).overlaps(Extent(piece));
        });
    if (is_near) near.push_back(taken);
  }
  const Outlines inside = combined(ClipperLib::ctIntersection, seen, {bounds_of(floor)});
  return combined(ClipperLib::ctDifference, inside, near);
}

}  // namespace

Cover::Cover(FreeFloor floor)
    : floor_(std::move(floor)),
      most_(floor_.grid.count(), 0),
      times_(floor_.grid.count(), 0),
      now_(floor_.grid.count(), 0) {}

void Cover::add(const Simulation& simulation, std::uint32_t looked_for) {
  const Level& level = simulation.level();
  ++moments_;
  std::fill(now_.begin(), now_.end(), std::uint16_t{0});
  Outlines seen_now;
  for (const AgentId agent : simulation.agents()) {
    const Kind& kind = level.kind_of(level.agents[agent.index]);
    const bool counts = looked_for == kNoTeam || is_hostile(level, kind.team, looked_for);
    if (!kind.sight || !counts) continue;
    auto known = std::find(agents_.begin(), agents_.end(), agent);
    if (known == agents_.end()) {
      known = agents_.insert(agents_.end(), agent);
      agent_sum_.push_back(0.0);
      views_.emplace_back();
      seen_by_.emplace_back(floor_.grid.count(), false);
    }
    const AgentState state = simulation.state(agent);
    if (!state.is_alive || !state.is_awake) continue;
    const auto number = static_cast<std::size_t>(known - agents_.begin());
    const Outlines seen = body_view(simulation, simulation.looker(agent), floor_, views_[number]);
    const Outlines on_floor = part_on_floor(floor_, seen);
    agent_sum_[number] += area_of(on_floor);
    mark_spots(floor_.grid, seen, [&](std::size_t spot) {
      ++now_[spot];
      seen_by_[number][spot] = true;
    });
    seen_now.insert(seen_now.end(), on_floor.begin(), on_floor.end());
  }
  const Outlines together = combined(ClipperLib::ctUnion, seen_now, {});
  seen_sum_ += area_of(together);
  ever_seen_ = combined(ClipperLib::ctUnion, ever_seen_, together);
  for (std::size_t spot = 0; spot < now_.size(); ++spot) {
    most_[spot] = std::max(most_[spot], now_[spot]);
    times_[spot] += now_[spot] > 0;
  }
}

std::vector<CoverAgent> Cover::agents() const {
  std::vector<CoverAgent> result;
  for (std::size_t i = 0; i < agents_.size(); ++i) {
    result.push_back({agents_[i], agent_sum_[i] / std::max(1, moments_)});
  }
  return result;
}

double Cover::seen_share() const {
  if (moments_ == 0 || floor_.area == 0.0) return 0.0;
  return seen_sum_ / moments_ / floor_.area;
}

double Cover::never_seen_share() const {
  if (floor_.area == 0.0) return 0.0;
  return std::max(0.0, 1.0 - area_of(ever_seen_) / floor_.area);
}

double Cover::seen_time(std::size_t spot) const {
  return moments_ == 0 ? 0.0 : static_cast<double>(times_[spot]) / moments_;
}

std::vector<UnseenPatch> Cover::unseen_patches() const {
  const Outlines floor = combined(ClipperLib::ctDifference, {bounds_of(floor_)}, floor_.taken);
  const Outlines unseen = combined(ClipperLib::ctDifference, floor, ever_seen_);
  std::vector<UnseenPatch> patches;
  for (const Outlines& part : parts_of(unseen)) patches.push_back(patch_of(floor_.grid, part));
  std::stable_sort(patches.begin(), patches.end(),
                   [](const UnseenPatch& a, const UnseenPatch& b) { return a.area > b.area; });
  return patches;
}

}  // namespace gaze
