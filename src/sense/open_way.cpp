#include "sense/open_way.hpp"

#include <algorithm>
#include <cmath>
#include <queue>
#include <vector>

#include "geometry/slanted.hpp"
#include "world/index.hpp"
#include "world/walk.hpp"

namespace gaze {
namespace {

double distance(const Vector2d& a, const Vector2d& b) {
  return std::sqrt(dot(b - a, b - a));
}

Vector2d outward(const PrismEdge& edge) {
  return Vector2d{edge.dy, -edge.dx} / std::sqrt(edge.dx * edge.dx + edge.dy * edge.dy);
}

/// The search for one way. Place 0 is the start, place 1 the goal, the others are corners.
class WaySearch {
 public:
  WaySearch(const World& world, const PlanPoint& from, const PlanPoint& to, Stops what, double most)
      : world_(world), across_(to.across), what_(what), most_(most), places_{from.plan, to.plan} {
    add_corners();
    reached_.assign(places_.size(), false);
  }

  std::optional<double> shortest() {
    open(0, 0.0);
    while (!steps_.empty()) {
      const Step step = steps_.top();
      steps_.pop();
      if (reached_[step.to] || !is_clear(step.from, step.to)) continue;
      if (step.to == 1) return step.length;
      open(step.to, step.length);
    }
    return std::nullopt;
  }

 private:
  struct Step {
    double at_least;  // of any way by it
    double length;    // up to its end
    std::size_t from;
    std::size_t to;
    bool operator<(const Step& other) const {
      return at_least != other.at_least ? at_least > other.at_least : to > other.to;
    }
  };

  void add_corners() {
    const World::Index& index = index_of(world_);
    const Vector2d middle = (places_[0] + places_[1]) / 2.0;
    const double reach = most_ / 2.0;
    const PlanPoint centre{middle, across_};
    walk_any(index.tree, Walker({centre, centre}, {reach, reach, 0.0}), [&](std::uint32_t piece) {
      const PieceShape shape(index, piece);
      const Slice slice(shape.prism(), across_, across_);
      if (stops(world_, piece, what_) && !slice.is_empty()) add_corners_of(slice.prism());
      return false;
    });
  }

  void add_corners_of(const Prism& prism) {
    for (std::size_t i = 0; i < prism.edges.size(); ++i) {
      const PrismEdge& edge = prism.edges[i];
      const PrismEdge& before = prism.edges[(i + prism.edges.size() - 1) % prism.edges.size()];
      const Vector2d a = outward(before);
      const Vector2d b = outward(edge);
      // Away from both edges by the gap; at needle points no farther than twenty times that.
      const Vector2d shift = (a + b) * (kCornerGap / std::max(0.05, 1.0 + dot(a, b)));
      const Vector2d corner = Vector2d{edge.x, edge.y} + shift;
      if (distance(places_[0], corner) + distance(corner, places_[1]) <= most_) {
        places_.push_back(corner);
      }
    }
  }

  void open(std::size_t place, double length) {
    reached_[place] = true;
    for (std::size_t next = 1; next < places_.size(); ++next) {
      if (reached_[next]) continue;
      const double through = length + distance(places_[place], places_[next]);
      const double at_least = through + distance(places_[next], places_[1]);
      if (at_least <= most_) steps_.push({at_least, through, place, next});
    }
  }

  bool is_clear(std::size_t a, std::size_t b) const {
    const Segment way{from_plan(world_.plane(), {places_[a], across_}),
                      from_plan(world_.plane(), {places_[b], across_})};
    return world_.is_clear(way, what_);
  }

  const World& world_;
  double across_;
  Stops what_;
  double most_;
  std::vector<Vector2d> places_;
  std::vector<bool> reached_;
  std::priority_queue<Step> steps_;
};

}  // namespace

std::optional<double> open_way(const World& world, const PlanPoint& from, const PlanPoint& to,
                               Stops what, double most) {
  if (distance(from.plan, to.plan) > most) return std::nullopt;
  return WaySearch(world, from, to, what, most).shortest();
}

}  // namespace gaze
