#include "gaze/tools/cover.hpp"

#include <algorithm>

#include "study/regions.hpp"
#include "study/spots.hpp"

namespace gaze {
namespace {

// Takes the spots that hang together with a spot, side by side.
void take_patch(const SpotGrid& grid, std::vector<char>& open, int column, int row,
                std::vector<std::pair<int, int>>& patch) {
  const auto take = [&](int c, int r) {
    if (c < 0 || r < 0 || c >= grid.columns || r >= grid.rows || !open[grid.index(c, r)]) return;
    open[grid.index(c, r)] = 0;
    patch.emplace_back(c, r);
  };
  take(column, row);
  for (std::size_t i = 0; i < patch.size(); ++i) {
    const auto [c, r] = patch[i];
    take(c - 1, r);
    take(c + 1, r);
    take(c, r - 1);
    take(c, r + 1);
  }
}

UnseenPatch patch_of(const SpotGrid& grid, const std::vector<std::pair<int, int>>& patch) {
  Vector2d centre{0.0, 0.0};
  for (const auto& [c, r] : patch) centre += grid.middle(c, r) / double(patch.size());
  const auto nearest = std::min_element(patch.begin(), patch.end(), [&](auto& a, auto& b) {
    return (grid.middle(a.first, a.second) - centre).squaredNorm() <
           (grid.middle(b.first, b.second) - centre).squaredNorm();
  });
  return {grid.size * grid.size * double(patch.size()),
          grid.middle(nearest->first, nearest->second)};
}

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

// Only holes near a piece are looked at: a hole lies within the outline whose hole it is.
Outlines part_on_floor(const FreeFloor& floor, const Outline& seen) {
  if (seen.size() < 3) return {};
  const Extent extent(seen);
  Outlines near;
  for (const Outline& taken : floor.taken) {
    if (!taken.empty() && Extent(taken).overlaps(extent)) near.push_back(taken);
  }
  const Outline bounds{
      floor.low, {floor.high.x(), floor.low.y()}, floor.high, {floor.low.x(), floor.high.y()}};
  const Outlines inside = combined(ClipperLib::ctIntersection, {seen}, {bounds});
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
      seen_by_.emplace_back(floor_.grid.count(), false);
    }
    const AgentState state = simulation.state(agent);
    if (!state.is_alive || !state.is_awake) continue;
    const Outline outline = outline_of(seen_area(simulation.world(), simulation.looker(agent)));
    const Outlines on_floor = part_on_floor(floor_, outline);
    const auto number = static_cast<std::size_t>(known - agents_.begin());
    agent_sum_[number] += area_of(on_floor);
    mark_spots(floor_.grid, {outline}, [&](std::size_t spot) {
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
  const SpotGrid& grid = floor_.grid;
  std::vector<char> open(grid.count());
  for (std::size_t spot = 0; spot < open.size(); ++spot) {
    open[spot] = floor_.is_free[spot] != 0 && times_[spot] == 0;
  }
  std::vector<UnseenPatch> patches;
  std::vector<std::pair<int, int>> patch;
  for (int row = 0; row < grid.rows; ++row) {
    for (int column = 0; column < grid.columns; ++column) {
      patch.clear();
      take_patch(grid, open, column, row, patch);
      if (!patch.empty()) patches.push_back(patch_of(grid, patch));
    }
  }
  std::stable_sort(patches.begin(), patches.end(),
                   [](const UnseenPatch& a, const UnseenPatch& b) { return a.area > b.area; });
  return patches;
}

}  // namespace gaze
