#include <algorithm>

#include "navigation/path_search.hpp"

namespace gaze {
namespace {

/// One place where a way crosses a rim, with the points of the way before and after it.
class RimCrossing {
 public:
  RimCrossing(const NavigationMesh::Data& mesh, WayInPlan& way, const WayInPlan::Leg& leg)
      : mesh_(mesh), crossing_(mesh.crossings[leg.crossing]), at_(way.points, leg.to_point) {
    a_ = mesh.edges[crossing_.edge].from;
    b_ = mesh.edges[mesh.next(crossing_.edge)].from;
    cost_before_ = mesh.faces[crossing_.from_face].cost;
    cost_after_ = mesh.faces[crossing_.to_face].cost;
  }

  // The cost of both legs together (each length times the cost of a metre) is a convex function
  // along the rim, so that its least value can be found.
  /// @return By how much it has moved, metres.
  double shift() {
    constexpr int kRounds = 48;
    double low = 0.0;
    double high = 1.0;
    for (int i = 0; i < kRounds; ++i) {
      const double left = low + (high - low) * 0.382;
      const double right = low + (high - low) * 0.618;
      (cost_at(left) <= cost_at(right) ? high : low) =
          cost_at(left) <= cost_at(right) ? right : left;
    }
    const MeshPoint best = place((low + high) / 2.0);
    if (!(cost(best) < cost(at_.here())) || !is_free(best)) return 0.0;
    const double moved = distance(best, at_.here());
    at_.move(best);
    return moved;
  }

 private:
  struct Spot {
    Spot(std::vector<MeshPoint>& points, std::uint32_t end) : points_(points), end_(end) {}
    const MeshPoint& before() const { return points_[end_ - 2]; }
    const MeshPoint& here() const { return points_[end_]; }
    const MeshPoint& after() const { return points_[end_ + 1]; }
    void move(const MeshPoint& to) { points_[end_ - 1] = points_[end_] = to; }

   private:
    std::vector<MeshPoint>& points_;
    std::uint32_t end_;
  };

  MeshPoint place(double share) const {
    return {a_.x + (b_.x - a_.x) * share, a_.y + (b_.y - a_.y) * share};
  }
  double cost(const MeshPoint& p) const {
    return cost_before_ * distance(at_.before(), p) + cost_after_ * distance(p, at_.after());
  }
  double cost_at(double share) const { return cost(place(share)); }
  bool is_free(const MeshPoint& p) const {
    return is_straight_free(mesh_, crossing_.from_face, p, kNone, at_.before()) &&
           is_straight_free(mesh_, crossing_.to_face, p, kNone, at_.after());
  }

  const NavigationMesh::Data& mesh_;
  const Crossing& crossing_;
  Spot at_;
  MeshPoint a_;
  MeshPoint b_;
  double cost_before_ = 1.0;
  double cost_after_ = 1.0;
};

}  // namespace

// Crossings in a row depend on each other. They are moved in turn, round after round, until they
// have settled.
void shift_crossings(const NavigationMesh::Data& mesh, WayInPlan& way) {
  const auto is_rim = [&](const WayInPlan::Leg& leg) {
    return mesh.crossings[leg.crossing].edge != kNone;
  };
  if (std::none_of(way.crossings.begin(), way.crossings.end(), is_rim)) return;
  constexpr int kMostRounds = 64;
  constexpr double kSettled = 1e-6;  // metres
  double moved = 1.0;
  for (int i = 0; i < kMostRounds && moved > kSettled; ++i) {
    moved = 0.0;
    for (const WayInPlan::Leg& leg : way.crossings) {
      if (is_rim(leg)) moved = std::max(moved, RimCrossing(mesh, way, leg).shift());
    }
  }
}

}  // namespace gaze
