#include "navigation/corner_fan.hpp"

#include <algorithm>
#include <functional>
#include <queue>

namespace gaze {
namespace {

// Keeps the gaps on one edge as few as they can be.
void join(std::vector<Gap>& gaps, Gap gap) {
  const auto meet = [](const MeshPoint& a, const MeshPoint& b) { return distance(a, b) <= kSnap; };
  for (std::size_t i = 0; i < gaps.size();) {
    const bool is_right = meet(gaps[i].left, gap.right);
    const bool is_left = meet(gaps[i].right, gap.left);
    if (!is_right && !is_left) {
      ++i;
      continue;
    }
    if (is_right) gap.right = gaps[i].right;
    if (is_left) gap.left = gaps[i].left;
    gaps[i] = gaps.back();
    gaps.pop_back();
  }
  gaps.push_back(gap);
}

}  // namespace

void CornerFan::begin(const NavigationMesh::Data& mesh, const MeshPoint& root) {
  mesh_ = &mesh;
  root_ = root;
  seen_.clear();
  reach2_ = 0.0;
}

const std::vector<std::uint32_t>& CornerFan::look(const NavigationMesh::Data& mesh,
                                                  std::uint32_t corner, Hand side) {
  const MeshCorner& its = mesh.corners[corner];
  begin(mesh, its.at);
  sees_all_ = false;
  sides_ = sides_at(its, side);
  open(its.edge);
  return look_on();
}

const std::vector<std::uint32_t>& CornerFan::look_beyond(const NavigationMesh::Data& mesh,
                                                         const Crossing& crossing) {
  begin(mesh, crossing.to);
  sees_all_ = true;
  each_face_about(mesh, crossing.to_face, root_, about_, [&](std::uint32_t number) {
    take_crossings(number);
    const MeshFace& face = mesh.faces[number];
    for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
      const MeshPoint& right = mesh.edges[e].from;
      const MeshPoint& left = mesh.edges[mesh.next(e)].from;
      take(mesh.edges[e].corner);
      if (mesh.edges[e].twin == kNone || lies_on(right, left, root_)) continue;
      gaps_.push_back({right, left, mesh.edges[e].twin});
    }
  });
  return look_on();
}

const std::vector<std::uint32_t>& CornerFan::look_on() {
  // The parts come in any order. That is a little quicker where few vertices are in sight.
  constexpr int kManyLooks = 500;
  for (int looks = 0; !gaps_.empty() && looks < kManyLooks; ++looks) {
    const Gap gap = gaps_.back();
    gaps_.pop_back();
    look_through(gap, [&](const Gap& next) { gaps_.push_back(next); });
  }
  if (!gaps_.empty()) look_edge_by_edge();
  std::sort(seen_.begin(), seen_.end());
  seen_.erase(std::unique(seen_.begin(), seen_.end()), seen_.end());
  return seen_;
}

template <typename Visit>
void CornerFan::look_through(const Gap& gap, Visit&& visit) {
  ++gaps_looked_through_;
  reach_over(mesh_->edges[gap.edge].polygon);
  const FaceView view(*mesh_, root_, gap);
  view.look_through([&](std::uint32_t seen) { take(seen); }, visit);
  view.each_crossing([&](std::uint32_t crossing) { take_crossing(crossing); });
}

// Every vertex that a look passes splits it in two, and both parts may come to the same edge behind
// it. Edges are looked through from near to far. So most parts have arrived when an edge has its
// turn, and parts that meet there become one again.
void CornerFan::look_edge_by_edge() {
  using Item = std::pair<double, std::uint32_t>;  // distance, edge
  std::priority_queue<Item, std::vector<Item>, std::greater<>> queue;
  waiting_.resize(std::max(waiting_.size(), mesh_->edges.size()));
  const auto add = [&](const Gap& gap) {
    std::vector<Gap>& on_it = waiting_[gap.edge];
    if (on_it.empty()) {
      const MeshPoint& from = mesh_->edges[gap.edge].from;
      const MeshPoint& to = mesh_->edges[mesh_->next(gap.edge)].from;
      queue.emplace(distance_to_segment(from, to, root_), gap.edge);
    }
    join(on_it, gap);
  };
  for (const Gap& gap : gaps_) add(gap);
  gaps_.clear();
  std::vector<Gap> now;
  // Only on a mesh that folds back onto itself could a look go on without end.
  std::size_t looks_left = 1'000 * mesh_->edges.size();
  while (!queue.empty() && looks_left > 0) {
    now.swap(waiting_[queue.top().second]);
    queue.pop();
    for (const Gap& gap : now) {
      look_through(gap, add);
      looks_left -= looks_left > 0;
    }
    now.clear();
  }
  for (; !queue.empty(); queue.pop()) waiting_[queue.top().second].clear();
}

// All faces about the corner, from the rim behind it to the rim before it.
void CornerFan::open(std::uint32_t edge) {
  while (true) {
    std::uint32_t before = edge;
    for (std::uint32_t e = mesh_->next(edge); e != edge; e = mesh_->next(e)) {
      take(mesh_->edges[e].corner);
      before = e;
    }
    reach_over(mesh_->edges[edge].polygon);
    take_crossings(mesh_->edges[edge].polygon);
    open_face(edge, before);
    const std::uint32_t twin = mesh_->edges[before].twin;
    if (twin == kNone) return;
    edge = twin;
  }
}

// Looks through the edges of a face that do not touch the vertex at the corner, as far as they lie
// in the fan.
void CornerFan::open_face(std::uint32_t first, std::uint32_t last) {
  for (std::uint32_t e = mesh_->next(first); e != last; e = mesh_->next(e)) {
    const std::uint32_t twin = mesh_->edges[e].twin;
    if (twin == kNone || mesh_->faces[mesh_->edges[twin].polygon].exits < 2) continue;
    Gap gap{mesh_->edges[e].from, mesh_->edges[mesh_->next(e)].from, twin};
    if (clip(gap)) gaps_.push_back(gap);
  }
}

// The part of a gap that lies between the sides of the fan. A vertex on a side belongs to the fan.
// An end that lies in the fan is kept wherever the other end is: that one may lie straight behind
// the corner.
bool CornerFan::clip(Gap& gap) const {
  const double right_at_right = turn(root_, sides_.right, gap.right);
  const double right_at_left = turn(root_, sides_.right, gap.left);
  const double left_at_right = turn(root_, sides_.left, gap.right);
  const double left_at_left = turn(root_, sides_.left, gap.left);
  const bool is_right_in = right_at_right >= 0.0 && left_at_right <= 0.0;
  const bool is_left_in = right_at_left >= 0.0 && left_at_left <= 0.0;
  const bool meets_right = right_at_right < 0.0 && right_at_left > 0.0;
  const bool meets_left = left_at_left > 0.0 && left_at_right < 0.0;
  if (!(is_right_in || meets_right) || !(is_left_in || meets_left)) return false;
  const Gap whole = gap;
  const auto at = [&](double share) {
    return MeshPoint{whole.right.x + (whole.left.x - whole.right.x) * share,
                     whole.right.y + (whole.left.y - whole.right.y) * share};
  };
  if (!is_right_in) gap.right = at(right_at_right / (right_at_right - right_at_left));
  if (!is_left_in) gap.left = at(left_at_right / (left_at_right - left_at_left));
  return true;
}

// No point of a face, or of a dead end beside it, is farther away than its farthest vertex.
void CornerFan::reach_over(std::uint32_t number, bool with_dead_ends) {
  const MeshFace& face = mesh_->faces[number];
  for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
    reach2_ = std::max(reach2_, squared_distance(root_, mesh_->edges[e].from));
    const std::uint32_t twin = mesh_->edges[e].twin;
    if (!with_dead_ends || twin == kNone) continue;
    const std::uint32_t face_beyond = mesh_->edges[twin].polygon;
    if (mesh_->faces[face_beyond].exits < 2) reach_over(face_beyond, false);
  }
}

bool CornerFan::is_outside(const MeshPoint& p) const {
  if (sees_all_) return false;
  return turn(root_, sides_.right, p) < -kTouching || turn(root_, sides_.left, p) > kTouching;
}

void CornerFan::take(std::uint32_t corner) {
  const auto seen = turn_seen(*mesh_, root_, corner);
  if (seen && !is_outside(mesh_->corners[corner].at)) seen_.push_back(*seen);
}

void CornerFan::take_crossing(std::uint32_t crossing) {
  const MeshPoint& at = mesh_->crossings[crossing].from;
  if ((at.x == root_.x && at.y == root_.y) || is_outside(at)) return;
  seen_.push_back(static_cast<std::uint32_t>(2 * mesh_->corners.size()) + crossing);
}

void CornerFan::take_crossings(std::uint32_t face) {
  for (const std::uint32_t crossing : mesh_->crossings_of(face)) take_crossing(crossing);
}

}  // namespace gaze
