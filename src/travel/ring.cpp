#include "travel/ring.hpp"

#include <algorithm>
#include <cmath>

#include "travel/find_way.hpp"

namespace gaze {
namespace {

/// Metres between bodies that stand side by side on a ring.
constexpr double kElbowRoom = 0.02;

/// Metres added to the gap beside a body, so that rounding does not make the position taken.
constexpr double kClearOf = 1e-6;

/// m/s. A slower agent counts as standing.
constexpr double kCreeps = 0.1;

constexpr int kMostRows = 4;

Vector2d plan_of(const Vector3d& p) {
  return {p.x(), p.y()};
}

/// Whether a straight way keeps a distance from the origin, or comes no nearer to it than it
/// begins.
bool keeps_off(const Vector2d& from, const Vector2d& to, double distance) {
  const Vector2d along = to - from;
  const double length2 = dot(along, along);
  const double share = length2 > 0.0 ? std::clamp(-dot(from, along) / length2, 0.0, 1.0) : 0.0;
  const Vector2d nearest = from + along * share;
  return share == 0.0 || dot(nearest, nearest) >= distance * distance;
}

/// Finds the position of one agent on a ring. Positions are relative to the centre of the ring.
class Ring {
 public:
  Ring(Travelling& state, std::uint32_t who, std::uint32_t centre, const Leg& leg)
      : state_(state),
        who_(who),
        centre_(centre),
        leg_(leg),
        own_(plan_of(state.bodies.position[who] - leg.goal)),
        distance_(length_of(own_)),
        row_(2.0 * state.fixed.radius[who] + kElbowRoom) {}

  Leg leg() {
    if (distance_ == 0.0 || distance_ > leg_.stop + kMostRows * row_) return leg_;
    find_taken();
    for (int row = 0; row < kMostRows; ++row) {
      const double radius = leg_.stop + row * row_;
      // Between two rows the agent stays: it never steps back.
      const Vector2d ahead = distance_ > radius ? Vector2d(own_ * (radius / distance_)) : own_;
      if (distance_ > radius - row_ && is_free(ahead)) {
        take(ahead);
        return {leg_.goal, std::max(leg_.stop, std::min(radius, distance_)), leg_.speed};
      }
      if (const auto place = nearest_free(radius)) {
        take(*place);
        return way_to(*place, radius);
      }
    }
    return leg_;
  }

 private:
  // Collects taken positions. An agent that approaches the same ring takes its goal if it is nearer
  // to it. Any other agent takes its position while it stands.
  void find_taken() {
    taken().clear();
    const double reach = leg_.stop + (kMostRows + 1) * row_ + state_.fixed.widest;
    state_.ways.walkers.near(leg_.goal, reach, [&](std::uint32_t other, double) {
      if (other == who_ || other == centre_ || !state_.lives.alive[other]) return;
      const Vector3d& its = state_.bodies.seen_position[other];
      if (!state_.are_solid(who_, other) ||
          !state_.share_a_height(who_, other, its.z() - state_.bodies.position[who_].z())) {
        return;
      }
      const double gap = state_.fixed.radius[who_] + state_.fixed.radius[other] + kElbowRoom;
      const RingPlace* place = state_.ways.ring_place[other];
      const Vector2d at = plan_of(its - leg_.goal);
      if (place == nullptr || place->centre != centre_) {
        if (state_.ways.pace_length[other] == 0.0) taken().push_back({at, gap});
        return;
      }
      const double way = length_of(Vector2d(at - place->offset));
      const double own_way = length_of(Vector2d(own_ - place->offset));
      if (way < own_way || (way == own_way && other < who_)) {
        taken().push_back({place->offset, gap});
      }
      // An agent that is stuck also blocks its own position.
      const bool creeps = state_.ways.pace_length[other] < kCreeps;
      if (creeps && way > kElbowRoom) taken().push_back({at, gap});
    });
  }

  bool is_free(const Vector2d& place) const {
    return std::all_of(taken().begin(), taken().end(), [&](const TakenPlace& one) {
      const Vector2d way = place - one.at;
      return dot(way, way) >= one.gap * one.gap;
    });
  }

  // Taken positions block arcs of the ring. The nearest free position is an end of such an arc.
  std::optional<Vector2d> nearest_free(double radius) {
    auto& ends = state_.ways.ring_ends;
    ends.clear();
    for (const TakenPlace& one : taken()) {
      const double away = length_of(one.at);
      const double gap = one.gap + kClearOf;
      if (away == 0.0) continue;
      const double cosine = (radius * radius + away * away - gap * gap) / (2.0 * radius * away);
      if (!(std::abs(cosine) < 1.0)) continue;
      const Vector2d middle = one.at * (radius / away);
      const double sine = std::sqrt(1.0 - cosine * cosine);
      for (const double side : {-sine, sine}) {
        const Vector2d end{middle.x() * cosine - middle.y() * side,
                           middle.x() * side + middle.y() * cosine};
        if (is_free(end)) ends.push_back(end);
      }
    }
    std::sort(ends.begin(), ends.end(),
              [&](const Vector2d& a, const Vector2d& b) { return dot(a, own_) > dot(b, own_); });
    const auto found =
        std::find_if(ends.begin(), ends.end(), [&](const Vector2d& end) { return can_stand(end); });
    return found == ends.end() ? std::nullopt : std::optional(*found);
  }

  // Returns whether a position is on the mesh and no solid separates it from the target.
  bool can_stand(const Vector2d& offset) const {
    const Vector3d place = place_at(offset);
    if (!standing_place(state_, who_, place)) return false;
    const Vector3d up{0.0, 0.0, state_.kind(who_).height / 2.0};
    return !state_.world.first_touch(Segment{leg_.goal + up, place + up}, Stops::bodies);
  }

  // Leads straight unless a body on the ring blocks the line; then along the outside of the ring.
  Leg way_to(const Vector2d& place, double radius) const {
    const double most = radius + row_ / 2.0;
    const bool is_straight = std::all_of(taken().begin(), taken().end(), [&](const auto& one) {
      return dot(one.at, one.at) > most * most ||
             keeps_off(own_ - one.at, place - one.at, one.gap - kElbowRoom);
    });
    if (is_straight) return {place_at(place), 0.0, leg_.speed};
    constexpr double kTurn = 20.0;  // degrees
    const SineCosine turn = sine_cosine(Angle::from_degrees(kTurn));
    const double outside = radius + row_;
    if (dot(own_, place) >= distance_ * length_of(place) * turn.cosine) {
      return {place_at(place * (outside / radius)), 0.0, leg_.speed};  // right before its place
    }
    const double sine = cross(own_, place) >= 0.0 ? turn.sine : -turn.sine;
    const Vector2d on = turned(Vector2d(own_ * (outside / distance_)), {sine, turn.cosine});
    return {place_at(on), 0.0, leg_.speed};
  }

  void take(const Vector2d& offset) {
    state_.ways.ring_place.set(who_, {centre_, offset, state_.clock.tick});
  }

  Vector3d place_at(const Vector2d& offset) const {
    return leg_.goal + Vector3d{offset.x(), offset.y(), 0.0};
  }

  std::vector<TakenPlace>& taken() const { return state_.ways.ring_taken; }

  Travelling& state_;
  std::uint32_t who_;
  std::uint32_t centre_;
  Leg leg_;
  Vector2d own_;
  double distance_;
  double row_;  ///< From one row to the next, metres.
};

}  // namespace

Leg share_ring(Travelling& state, std::uint32_t who, std::uint32_t centre, const Leg& leg) {
  const Gait gait = state.kind(who).move->gait;
  const bool can_surround =
      state.plane() != Plane::upright && (gait == Gait::walk || gait == Gait::hover);
  return can_surround && leg.stop > 0.0 ? Ring(state, who, centre, leg).leg() : leg;
}

void forget_ring_places(Travelling& state) {
  state.ways.ring_place.reset_if(
      [&](const RingPlace& place) { return place.tick + 1 < state.clock.tick; });
}

}  // namespace gaze
