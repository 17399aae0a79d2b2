#include <algorithm>
#include <cmath>

#include "geometry/plan_grid.hpp"
#include "geometry/polygon.hpp"
#include "travel/find_way.hpp"

namespace gaze {
namespace {

/// How well a place serves as a start: first whether it is out of sight, then how far away it is,
/// up to the distance that is asked for.
struct Merit {
  bool is_hidden = false;
  double distance = 0.0;
  bool operator>(const Merit& other) const {
    return is_hidden != other.is_hidden ? is_hidden : distance > other.distance;
  }
};

class StartChooser {
 public:
  StartChooser(Travelling& state, std::uint32_t who, std::size_t start)
      : state_(state), who_(who), start_(state.level().starts[start]) {
    const Whom& whom = state.fixed.starts[start].apart_from;
    if (whom.is_empty()) return;
    for (std::uint32_t other = 0; other < state.agent_count(); ++other) {
      if (other != who && whom.means(state.somebody(other))) apart_from_.push_back(other);
    }
  }

  /// Of some tries the first place that serves in full; if there is none, the best of them.
  bool choose() {
    constexpr int kTries = 256;
    Merit best;
    std::optional<Vector3d> place;
    for (int i = 0; i < kTries; ++i) {
      const auto candidate = draw();
      if (!candidate) continue;
      const Merit merit = merit_of(*candidate);
      if (place && !(merit > best)) continue;
      best = merit;
      place = candidate;
      if (merit.is_hidden && merit.distance >= start_.distance) break;
    }
    if (place) state_.bodies.position[who_] = *place;
    return place && best.is_hidden && best.distance >= start_.distance;
  }

 private:
  std::optional<Vector3d> draw() {
    const PlanBox box = box_around(start_.outline);
    const double x = state_.chance.share(who_);
    const double y = state_.chance.share(who_);
    const Vector2d p{box.low.x() + (box.high.x() - box.low.x()) * x,
                     box.low.y() + (box.high.y() - box.low.y()) * y};
    if (!contains(start_.outline, p)) return std::nullopt;
    const Vector3d& at = state_.bodies.position[who_];
    const bool is_upright = state_.plane() == Plane::upright;
    const Vector3d place{p.x(), is_upright ? 0.0 : p.y(), is_upright ? p.y() : at.z()};
    const auto feet = standing_place(state_, who_, place);
    return feet && !is_taken(*feet) ? feet : std::nullopt;
  }

  bool is_taken(const Vector3d& feet) const {
    for (std::uint32_t other = 0; other < state_.agent_count(); ++other) {
      if (other == who_) continue;
      const double gap = state_.kind(who_).radius + state_.kind(other).radius;
      const Vector3d& at = state_.bodies.position[other];
      if (level_distance(state_.plane(), feet, at) >= gap) continue;
      if (feet.z() < at.z() + state_.kind(other).height &&
          at.z() < feet.z() + state_.kind(who_).height) {
        return true;
      }
    }
    return false;
  }

  Merit merit_of(const Vector3d& feet) const {
    Merit merit{true, start_.distance};
    for (const std::uint32_t other : apart_from_) {
      const double away = plane_distance(state_.plane(), feet, state_.bodies.position[other]);
      merit.distance = std::min(merit.distance, away);
      if (start_.out_of_sight) merit.is_hidden = merit.is_hidden && !is_seen(other, feet);
    }
    return merit;
  }

  // True if the other could see the place wherever it looked: from its eye to any of the points of
  // the body that others look at.
  bool is_seen(std::uint32_t by, const Vector3d& feet) const {
    const Kind& its = state_.kind(by);
    const Vector3d eye = state_.bodies.position[by] + Vector3d{0.0, 0.0, eye_height(its)};
    const Kind& own = state_.kind(who_);
    return std::any_of(own.body_points.begin(), own.body_points.end(), [&](double share) {
      const Segment line{eye, feet + Vector3d{0.0, 0.0, share * own.height}};
      return state_.world.is_clear(line, Stops::sight);
    });
  }

  Travelling& state_;
  std::uint32_t who_;
  const Start& start_;
  std::vector<std::uint32_t> apart_from_;
};

}  // namespace

void choose_start(Travelling& state, std::uint32_t who) {
  std::vector<std::size_t> own;
  for (std::size_t i = 0; i < state.fixed.starts.size(); ++i) {
    if (state.fixed.starts[i].whom.means(state.somebody(who))) own.push_back(i);
  }
  if (own.empty()) return;
  const auto number = static_cast<std::size_t>(state.chance.share(who) * double(own.size()));
  if (!StartChooser(state, who, own[number]).choose()) state.ways.has_no_start.push_back(who);
  state.bodies.previous[who] = state.bodies.position[who];
  state.bodies.seen_position[who] = state.bodies.position[who];
  state.ways.home[who] = state.bodies.position[who];
  state.bodies.post[who] = state.bodies.position[who];
}

void choose_starts(Travelling& state) {
  for (std::uint32_t who = 0; who < state.agent_count() && !state.level().starts.empty(); ++who) {
    if (!state.agent(who).is_spare) choose_start(state, who);
  }
}

}  // namespace gaze
