#include "navigation/path_search.hpp"

#include <algorithm>
#include <cmath>

namespace gaze {
namespace {

/// How wide the buckets of the queue are: as a share of the straight distance, and at least so many
/// metres. However wide they are, the search goes on until nothing that is left can be shorter, so
/// that the way found is a shortest one.
constexpr double kBucketShare = 1.0 / 2048.0;
constexpr double kLeastBucket = 1e-3;

constexpr std::uint32_t kLastStamp = 0x7FFFFFFF;

MeshPoint mirrored(const MeshPoint& p, const MeshPoint& a, const MeshPoint& b) {
  const double x = b.x - a.x;
  const double y = b.y - a.y;
  const double length2 = x * x + y * y;
  if (length2 == 0.0) return p;
  const double off = 2.0 * ((p.x - a.x) * y - (p.y - a.y) * x) / length2;
  return {p.x - off * y, p.y + off * x};
}

}  // namespace

// The distance from a place to the box around all goals.
__attribute__((always_inline)) inline double PathSearch::ahead(const MeshPoint& p) const {
  const double x = std::max(std::max(low_.x - p.x, p.x - high_.x), 0.0);
  const double y = std::max(std::max(low_.y - p.y, p.y - high_.y), 0.0);
  return std::sqrt(x * x + y * y);
}

__attribute__((always_inline)) inline void PathSearch::push(double at_least, std::uint32_t item) {
  if (at_least < length_) queue_.push(at_least, item);
}

// Most of a search goes on here, and takes a sixth less if it is not called.
__attribute__((always_inline)) inline void PathSearch::reach_at(std::uint32_t number,
                                                                const MeshPoint& at, double length,
                                                                std::uint32_t from) {
  Reached& reached = reached_[number];
  if (reached.stamp == stamp_ && reached.length <= length) return;
  const double at_least = length + ahead(at) * mesh_->least_cost;
  if (at_least >= length_) return;
  reached.length = length;
  reached.from = from;
  reached.stamp = stamp_ & kLastStamp;
  reached.is_left = 0;
  push(at_least, number);
}

void PathSearch::begin(const NavigationMesh::Data& mesh, const PlaceInPlan& from,
                       std::span<const PlaceInPlan> goals) {
  mesh_ = &mesh;
  start_ = from.at;
  start_cost_ = mesh.faces[from.face].cost;
  goals_.clear();
  low_ = high_ = goals.front().at;
  length_ = std::numeric_limits<double>::infinity();
  for (const PlaceInPlan& goal : goals) {
    goals_.push_back({goal.at, goal.face, kNone, length_, false});
    low_ = {std::min(low_.x, goal.at.x), std::min(low_.y, goal.at.y)};
    high_ = {std::max(high_.x, goal.at.x), std::max(high_.y, goal.at.y)};
  }
  gaps_.clear();
  looked_at_ = 0;
  turn_count_ = mesh.turns.turn_count();
  double farthest = 0.0;
  for (const Goal& goal : goals_) farthest = std::max(farthest, distance(start_, goal.at));
  queue_.reset(ahead(start_) * mesh.least_cost,
               std::max(farthest * mesh.least_cost * kBucketShare, kLeastBucket));
  reached_.resize(std::max(reached_.size(), turn_count_ + mesh.crossings.size()));
  stamp_ = (stamp_ + 1) & kLastStamp;
  if (stamp_ == 0) {
    for (Reached& reached : reached_) reached.stamp = 0;
    stamp_ = 1;
  }
}

void PathSearch::find(const NavigationMesh::Data& mesh, const PlaceInPlan& from,
                      std::span<const PlaceInPlan> goals, std::span<const char> shut,
                      const Standing* standing) {
  begin(mesh, from, goals);
  shut_ = shut;
  standing_ = standing;
  for (Goal& goal : goals_) {
    if (!is_straight_free(mesh, from.face, start_, goal.face, goal.at)) continue;
    if (is_barred(start_, goal.at, {true, true})) continue;
    goal.is_done = start_cost_ <= mesh.least_cost;
    reach_goal(goal, distance(start_, goal.at) * start_cost_, kNone);
  }
  if (length_ == 0.0) return;
  open_start(from.face);
  while (queue_.least() < length_) {
    const std::uint32_t item = queue_.pop();
    ++looked_at_;
    if ((item & kGapBit) != 0) {
      look_into(item & ~kGapBit);
    } else {
      leave(item);
    }
    if (goals_.size() > 1) finish_goals();
  }
}

bool PathSearch::has_found(std::size_t goal) const {
  return goals_[goal].length < std::numeric_limits<double>::infinity();
}

// Begins in all faces that hold the start, and looks out through the edges on which the start does
// not lie.
void PathSearch::open_start(std::uint32_t first) {
  each_face_about(*mesh_, first, start_, about_, [&](std::uint32_t face) {
    const MeshFace& its = mesh_->faces[face];
    for (const std::uint32_t crossing : mesh_->crossings_of(face)) see_crossing(crossing);
    for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
      const MeshEdge& edge = mesh_->edges[e];
      const MeshEdge& after = mesh_->edges[mesh_->next(e)];
      see(edge.corner);
      if (edge.twin == kNone || lies_on(edge.from, after.from, start_)) continue;
      // Seen from inside its face, an edge runs from right to left.
      add_gap({edge.from, after.from, edge.twin});
    }
  });
}

void PathSearch::look_into(std::uint32_t number) {
  const FaceView view(*mesh_, start_, Gap(gaps_[number]));
  view.look_through([&](std::uint32_t corner) { see(corner); },
                    [&](const Gap& gap) { add_gap(gap); });
  view.each_crossing([&](std::uint32_t crossing) { see_crossing(crossing); });
}

// Reaches a crossing whose beginning is seen from the start.
void PathSearch::see_crossing(std::uint32_t crossing) {
  const Crossing& its = mesh_->crossings[crossing];
  if (is_shut(its) || is_barred(start_, its.from, {true, false})) return;
  reach(turn_count_ + crossing, distance(start_, its.from) * start_cost_ + its.length, kNone);
}

// Reaches a corner that is seen from the start.
void PathSearch::see(std::uint32_t corner) {
  if (corner == kNone) return;
  const MeshCorner& its = mesh_->corners[corner];
  const auto side = touches(start_, its);
  if (side && !is_barred(start_, its.at, {true, false})) {
    reach(2 * corner + static_cast<std::uint32_t>(*side), distance(start_, its.at) * start_cost_,
          kNone);
  }
}

void PathSearch::reach(std::uint32_t number, double length, std::uint32_t from) {
  reach_at(number,
           number < turn_count_ ? mesh_->turns.places[number / 2]
                                : mesh_->crossings[number - turn_count_].to,
           length, from);
}

void PathSearch::leave(std::uint32_t number) {
  Reached& reached = reached_[number];
  if (reached.is_left) return;
  reached.is_left = 1;
  if (number < turn_count_) {
    leave_turn(number);
  } else {
    leave_crossing(number);
  }
}

// If the only goal is seen, nothing else need be gone round, as long as no metre costs less than
// another.
void PathSearch::leave_turn(std::uint32_t turn_number) {
  const MeshPoint& at = mesh_->turns.places[turn_number / 2];
  const std::vector<double>& costs = mesh_->turns.costs;
  const double cost = costs.empty() ? mesh_->least_cost : costs[turn_number / 2];
  const double length = reached_[turn_number].length;
  bool sees_all = cost <= mesh_->least_cost;
  const bool may_see = ahead(at) <= static_cast<double>(mesh_->turns.nodes[turn_number].reach);
  for (Goal& goal : goals_) {
    if (goal.is_done) continue;
    const bool sees_it =
        may_see && sees(turn_number, goal) && !is_barred(at, goal.at, {false, true});
    sees_all &= sees_it;
    if (sees_it) reach_goal(goal, length + distance(at, goal.at) * cost, turn_number);
  }
  if (!sees_all) go_on(seen_from(turn_number), turn_number, at, cost);
}

void PathSearch::leave_crossing(std::uint32_t number) {
  const Crossing& crossing = mesh_->crossings[number - turn_count_];
  const double length = reached_[number].length;
  const double cost = mesh_->faces[crossing.to_face].cost;
  bool sees_all = cost <= mesh_->least_cost;
  for (Goal& goal : goals_) {
    if (goal.is_done) continue;
    const bool sees_it =
        is_straight_free(*mesh_, crossing.to_face, crossing.to, goal.face, goal.at) &&
        !is_barred(crossing.to, goal.at, {false, true});
    sees_all &= sees_it;
    if (sees_it) reach_goal(goal, length + distance(crossing.to, goal.at) * cost, number);
  }
  if (!sees_all) go_on(seen_beyond(number - turn_count_), number, crossing.to, cost);
}

std::span<const std::uint32_t> PathSearch::seen_from(std::uint32_t turn_number) {
  const std::uint32_t corner = turn_number / 2;
  if (corner < mesh_->turns.linked) return mesh_->turns.seen_from(turn_number);
  return fan_.look(*mesh_, corner, static_cast<Hand>(turn_number % 2));
}

std::span<const std::uint32_t> PathSearch::seen_beyond(std::uint32_t crossing) {
  if (crossing < mesh_->turns.linked_crossings) return mesh_->turns.seen_beyond(crossing);
  return fan_.look_beyond(*mesh_, mesh_->crossings[crossing]);
}

void PathSearch::reach_goal(Goal& goal, double length, std::uint32_t from) {
  if (length >= goal.length) return;
  goal.length = length;
  goal.last = from;
  note_longest();
}

void PathSearch::note_longest() {
  length_ = 0.0;
  for (const Goal& goal : goals_) {
    if (!goal.is_done) length_ = std::max(length_, goal.length);
  }
}

// Settles the goals to which no way that is still to come can be shorter than the one found so far.
void PathSearch::finish_goals() {
  const double least = queue_.least();
  bool has_changed = false;
  for (Goal& goal : goals_) {
    if (goal.is_done || least < goal.length) continue;
    goal.is_done = true;
    has_changed = true;
  }
  if (has_changed) note_longest();
}

void PathSearch::go_on(std::span<const std::uint32_t> seen, std::uint32_t from, const MeshPoint& at,
                       double cost) {
  const double length = reached_[from].length;
  const MeshPoint* const places = mesh_->turns.places.data();
  const TurnNode* const nodes = mesh_->turns.nodes.data();
  const std::uint32_t turn_count = turn_count_;
  for (const std::uint32_t next : seen) {
    if (next < turn_count) {
      __builtin_prefetch(nodes + next);  // needed as soon as its turn has come
      const MeshPoint& to = places[next / 2];
      if (is_barred(at, to, {})) continue;
      reach_at(next, to, length + distance(at, to) * cost, from);
    } else {
      const Crossing& crossing = mesh_->crossings[next - turn_count];
      if (is_shut(crossing) || is_barred(at, crossing.from, {})) continue;
      reach(next, length + distance(at, crossing.from) * cost + crossing.length, from);
    }
  }
}

bool PathSearch::sees(std::uint32_t turn_number, const Goal& goal) const {
  const MeshCorner& corner = mesh_->corners[turn_number / 2];
  const auto reach = static_cast<double>(mesh_->turns.nodes[turn_number].reach);
  if (distance(corner.at, goal.at) > reach) return false;
  const auto side = touches(goal.at, corner);
  // Seen from the goal, the same line leads in the other direction, and left and right change
  // places.
  if (!side || static_cast<std::uint32_t>(*side) == turn_number % 2) return false;
  std::uint32_t edge = corner.edge;
  while (true) {
    const std::uint32_t face = mesh_->edges[edge].polygon;
    if (face == goal.face) return true;
    // The face from which the goal is looked for: the last one along the rim before the corner, or
    // the first one that has the goal ahead.
    const MeshFace& its = mesh_->faces[face];
    const std::uint32_t before = edge == its.first ? its.first + its.count - 1 : edge - 1;
    const bool is_ahead =
        turn(corner.at, mesh_->edges[mesh_->next(edge)].from, goal.at) >= -kTouching &&
        turn(corner.at, mesh_->edges[before].from, goal.at) <= kTouching;
    if (is_ahead && is_straight_free(*mesh_, face, corner.at, goal.face, goal.at)) return true;
    edge = mesh_->edges[before].twin;
    if (edge == kNone) return false;
  }
}

void PathSearch::add_gap(const Gap& gap) {
  gaps_.push_back(gap);
  push(at_least(gap), static_cast<std::uint32_t>(gaps_.size() - 1) | kGapBit);
}

double PathSearch::at_least(const Gap& gap) const {
  return shortest_by(gap) * mesh_->least_cost;
}

// A length that no way through a gap can be below. It is the length of the straight way through the
// gap to the goal (which is mirrored to the far side if it lies on the near one), or of the way
// bent at one of the ends of the gap. Which side is the far one is told by the order of the ends,
// and not by where the start lies, which may be on the gap itself. If there are many goals, it is
// the distance to the gap.
double PathSearch::shortest_by(const Gap& gap) const {
  if (goals_.size() > 1)
    return std::max(distance_to_segment(gap.right, gap.left, start_), ahead(start_));
  MeshPoint goal = goals_.front().at;
  if (turn(gap.right, gap.left, goal) > 0.0) goal = mirrored(goal, gap.right, gap.left);
  if (turn(start_, gap.right, goal) < 0.0) {
    return distance(start_, gap.right) + distance(gap.right, goal);
  }
  if (turn(start_, gap.left, goal) > 0.0) {
    return distance(start_, gap.left) + distance(gap.left, goal);
  }
  return distance(start_, goal);
}

void PathSearch::trace(std::size_t goal, WayInPlan& way) const {
  way.points.assign({goals_[goal].at});
  way.crossings.clear();
  for (std::uint32_t t = goals_[goal].last; t != kNone; t = reached_[t].from) {
    if (t < turn_count_) {
      way.points.push_back(mesh_->corners[t / 2].at);
      continue;
    }
    const Crossing& crossing = mesh_->crossings[t - turn_count_];
    way.crossings.push_back({static_cast<std::uint32_t>(way.points.size()), t - turn_count_});
    way.points.push_back(crossing.to);
    way.points.push_back(crossing.from);
  }
  way.points.push_back(start_);
  std::reverse(way.points.begin(), way.points.end());
  std::reverse(way.crossings.begin(), way.crossings.end());
  const auto last = static_cast<std::uint32_t>(way.points.size() - 1);
  for (WayInPlan::Leg& leg : way.crossings) leg.to_point = last - leg.to_point;
}

}  // namespace gaze
