#include <algorithm>
#include <functional>
#include <queue>

#include "travel/fan.hpp"

namespace gaze {
namespace {

/// Looks from one corner along the ways that touch it on one side: between its rim's directions; or
/// from the end of a crossing all round.
class CornerFan {
 public:
  explicit CornerFan(const NavigationMesh::Data& mesh)
      : mesh_(mesh), turn_count_(static_cast<std::uint32_t>(2 * mesh.corners.size())) {}

  /// The turns that are seen, in ascending order.
  const std::vector<std::uint32_t>& look(std::uint32_t corner, Hand side) {
    const MeshCorner& its = mesh_.corners[corner];
    root_ = its.at;
    seen_.clear();
    reach_ = 0.0;
    sees_all_ = false;
    // With the corner on its right a way leaves between the rim onward and straight on along the
    // rim from before; with the corner on its left it goes the other way round.
    const MeshPoint straight_on = beyond(its.before, its.at);
    const MeshPoint straight_back = beyond(its.after, its.at);
    right_ = side == Hand::right ? its.after : straight_back;
    left_ = side == Hand::right ? straight_on : its.before;
    open(its.edge);
    return look_on();
  }

  /// From the end of a crossing.
  const std::vector<std::uint32_t>& look_beyond(const Crossing& crossing) {
    root_ = crossing.to;
    seen_.clear();
    sees_all_ = true;
    each_face_about(mesh_, crossing.to_face, root_, about_, [&](std::uint32_t number) {
      take_crossings(number);
      const MeshFace& face = mesh_.faces[number];
      for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
        const MeshPoint& right = mesh_.edges[e].from;
        const MeshPoint& left = mesh_.edges[mesh_.next(e)].from;
        take(mesh_.edges[e].corner);
        if (mesh_.edges[e].twin == kNone || lies_on(right, left, root_)) continue;
        gaps_.push_back({right, left, mesh_.edges[e].twin});
      }
    });
    return look_on();
  }

  double reach() const { return reach_; }

 private:
  const std::vector<std::uint32_t>& look_on() {
    // In any order, which is a little quicker where few vertices are in sight.
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
  void look_through(const Gap& gap, Visit&& visit) {
    reach_over(mesh_.edges[gap.edge].polygon);
    const FaceView view(mesh_, root_, gap);
    view.look_through([&](std::uint32_t seen) { take(seen); }, visit);
    view.each_crossing([&](std::uint32_t crossing) { take_crossing(crossing); });
  }

  // Every vertex that a look passes splits it, and what has been split comes to the same edges once
  // for each part. Edges are looked through near ones first, so that most parts have come to an
  // edge when it is its turn: those that meet there are one again.
  void look_edge_by_edge() {
    using Item = std::pair<double, std::uint32_t>;  // distance, edge
    std::priority_queue<Item, std::vector<Item>, std::greater<>> queue;
    waiting_.resize(mesh_.edges.size());
    const auto add = [&](const Gap& gap) {
      std::vector<Gap>& on_it = waiting_[gap.edge];
      if (on_it.empty()) {
        const MeshPoint& from = mesh_.edges[gap.edge].from;
        const MeshPoint& to = mesh_.edges[mesh_.next(gap.edge)].from;
        queue.emplace(distance_to_segment(from, to, root_), gap.edge);
      }
      join(on_it, gap);
    };
    for (const Gap& gap : gaps_) add(gap);
    gaps_.clear();
    std::vector<Gap> now;
    // Looks that never end would take a mesh that folds back onto itself.
    std::size_t looks_left = 1'000 * mesh_.edges.size();
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

  // Keeps those on one edge as few as they can be.
  static void join(std::vector<Gap>& gaps, Gap gap) {
    const auto meet = [](const MeshPoint& a, const MeshPoint& b) {
      return distance(a, b) <= kSnap;
    };
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

  bool is_outside(const MeshPoint& p) const {
    if (sees_all_) return false;
    return turn(root_, right_, p) < -kTouching || turn(root_, left_, p) > kTouching;
  }

  void take_crossing(std::uint32_t crossing) {
    const MeshPoint& at = mesh_.crossings[crossing].from;
    if ((at.x == root_.x && at.y == root_.y) || is_outside(at)) return;
    seen_.push_back(turn_count_ + crossing);
  }

  void take_crossings(std::uint32_t face) {
    for (const std::uint32_t crossing : mesh_.crossings_of(face)) take_crossing(crossing);
  }

  static MeshPoint beyond(const MeshPoint& from, const MeshPoint& at) {
    return {2.0 * at.x - from.x, 2.0 * at.y - from.y};
  }

  // All faces about the corner, from the rim onward to the rim from before.
  void open(std::uint32_t edge) {
    while (true) {
      std::uint32_t before = edge;
      for (std::uint32_t e = mesh_.next(edge); e != edge; e = mesh_.next(e)) {
        take(mesh_.edges[e].corner);
        before = e;
      }
      reach_over(mesh_.edges[edge].polygon);
      take_crossings(mesh_.edges[edge].polygon);
      open_face(edge, before);
      const std::uint32_t twin = mesh_.edges[before].twin;
      if (twin == kNone) return;
      edge = twin;
    }
  }

  // The edges of a face that do not touch its vertex at the corner, as far as the fan reaches.
  void open_face(std::uint32_t first, std::uint32_t last) {
    for (std::uint32_t e = mesh_.next(first); e != last; e = mesh_.next(e)) {
      const std::uint32_t twin = mesh_.edges[e].twin;
      if (twin == kNone || mesh_.faces[mesh_.edges[twin].polygon].exits < 2) continue;
      Gap gap{mesh_.edges[e].from, mesh_.edges[mesh_.next(e)].from, twin};
      if (clip(gap)) gaps_.push_back(gap);
    }
  }

  // The part of a gap between the fan's sides; a vertex on a side belongs to it. An end that is in
  // the fan stays, whatever the other: that may lie straight behind.
  bool clip(Gap& gap) const {
    const double right_at_right = turn(root_, right_, gap.right);
    const double right_at_left = turn(root_, right_, gap.left);
    const double left_at_right = turn(root_, left_, gap.right);
    const double left_at_left = turn(root_, left_, gap.left);
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

  // No point of a face, or of a dead end beside it, is farther than a corner of it.
  void reach_over(std::uint32_t number, bool with_dead_ends = true) {
    const MeshFace& face = mesh_.faces[number];
    for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
      reach_ = std::max(reach_, distance(root_, mesh_.edges[e].from));
      const std::uint32_t twin = mesh_.edges[e].twin;
      if (!with_dead_ends || twin == kNone) continue;
      const std::uint32_t beyond = mesh_.edges[twin].polygon;
      if (mesh_.faces[beyond].exits < 2) reach_over(beyond, false);
    }
  }

  void take(std::uint32_t corner) {
    if (corner == kNone) return;
    const MeshCorner& its = mesh_.corners[corner];
    if (its.at.x == root_.x && its.at.y == root_.y) return;
    if (is_outside(its.at)) return;
    if (const auto side = touches(root_, its)) {
      seen_.push_back(2 * corner + static_cast<std::uint32_t>(*side));
    }
  }

  const NavigationMesh::Data& mesh_;
  MeshPoint root_;
  MeshPoint right_;  ///< The sides of the fan pass through these.
  MeshPoint left_;
  std::vector<Gap> gaps_;
  std::vector<std::vector<Gap>> waiting_;  ///< By edge.
  std::vector<std::uint32_t> about_;       ///< Scratch.
  std::vector<std::uint32_t> seen_;
  double reach_ = 0.0;
  bool sees_all_ = false;
  std::uint32_t turn_count_;
};

}  // namespace

void link_turns(NavigationMesh::Data& mesh) {
  TurnGraph& graph = mesh.turns;
  graph = {};
  graph.nodes.reserve(mesh.corners.size() + 1);
  CornerFan fan(mesh);
  for (std::uint32_t corner = 0; corner < mesh.corners.size(); ++corner) {
    TurnNode node;
    node.at = mesh.corners[corner].at;
    node.cost = mesh.faces[mesh.edges[mesh.corners[corner].edge].polygon].cost;
    for (const Hand hand : {Hand::right, Hand::left}) {
      const auto index = static_cast<std::size_t>(hand);
      node.first[index] = static_cast<std::uint32_t>(graph.to.size());
      const auto& seen = fan.look(corner, hand);
      graph.to.insert(graph.to.end(), seen.begin(), seen.end());
      node.reach[index] = static_cast<float>(fan.reach()) * 1.00001F;
    }
    graph.nodes.push_back(node);
  }
  const auto end = static_cast<std::uint32_t>(graph.to.size());
  graph.nodes.push_back({{}, {end, end}, {}});
  for (const Crossing& crossing : mesh.crossings) {
    graph.first_beyond.push_back(static_cast<std::uint32_t>(graph.to.size()));
    const auto& seen = fan.look_beyond(crossing);
    graph.to.insert(graph.to.end(), seen.begin(), seen.end());
  }
  graph.first_beyond.push_back(static_cast<std::uint32_t>(graph.to.size()));
}

}  // namespace gaze
