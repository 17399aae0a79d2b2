#include <algorithm>
#include <limits>

#include "geometry/plan.hpp"
#include "navigation/corner_fan.hpp"
#include "navigation/mend.hpp"

/// Which sights of a mended mesh are as they were, and which have to be looked for again.
namespace gaze {
namespace {

using Index = std::uint32_t;

/// Metres. A sight that passes new outlines as near as this is looked for again.
constexpr double kNear = 0.001;

/// True if a segment passes near a convex outline: nothing separates them, neither an edge of the
/// outline nor the line of the segment.
bool passes_near(const MeshPoint& from, const MeshPoint& to, const Polygon& outline) {
  for (std::size_t i = 0; i < outline.size(); ++i) {
    const Vector2d& a = outline[i];
    const Vector2d along = outline[(i + 1) % outline.size()] - a;
    const double near = kNear * length_of(along);
    const auto off = [&](const MeshPoint& p) {
      return along.y() * (p.x - a.x()) - along.x() * (p.y - a.y());
    };
    if (off(from) > near && off(to) > near) return false;
  }
  const double near = kNear * distance(from, to);
  double least = std::numeric_limits<double>::infinity();
  double most = -least;
  for (const Vector2d& p : outline) {
    const double side = turn(from, to, {p.x(), p.y()});
    least = std::min(least, side);
    most = std::max(most, side);
  }
  return least <= near && most >= -near;
}

/// The turns and crossings of a mesh, numbered as in the turn graph: the former first.
class Nodes {
 public:
  explicit Nodes(const NavigationMesh::Data& mesh)
      : mesh_(mesh), turns_(static_cast<Index>(2 * mesh.corners.size())) {}

  Index turn_count() const { return turns_; }
  Index count() const { return turns_ + static_cast<Index>(mesh_.crossings.size()); }

  /// Where a way to it ends; for crossings that is where they begin.
  const MeshPoint& at(Index node) const {
    return node < turns_ ? mesh_.corners[node / 2].at : mesh_.crossings[node - turns_].from;
  }

  /// The same for the way back. What one node sees sees it when both are turned round.
  Index turned_round(Index node) const {
    return node < turns_ ? node ^ 1U : turns_ + reversed(mesh_, node - turns_);
  }

 private:
  const NavigationMesh::Data& mesh_;
  Index turns_;
};

class MendTurns {
 public:
  MendTurns(NavigationMesh::Data& mesh, const NavigationMesh::Data& old, const Cutting& cutting)
      : mesh_(mesh), old_(old), cutting_(cutting), nodes_(mesh), old_nodes_(old) {
    for (const Hindrance& hindrance : cutting.hindrances) {
      boxes_.push_back(box_around(hindrance.outline));
    }
    note_origins();
  }

  void mend() {
    look_from_all_that_is_new();
    TurnGraph& graph = mesh_.turns;
    graph = {};
    place_corners(mesh_);
    graph.linked = linked_of(old_.turns.linked, old_.corners.size(), cutting_.moved.corner,
                             mesh_.corners.size());
    graph.linked_crossings = linked_of(old_.turns.linked_crossings, old_.crossings.size(),
                                       cutting_.moved.crossing, mesh_.crossings.size());
    graph.to.reserve(old_.turns.to.size() + 1'000);
    graph.nodes.reserve(nodes_.turn_count() + 1);
    note_doubtful();
    for (Index turn = 0; turn < nodes_.turn_count();) {
      const Index end = end_of_run(turn);
      if (is_doubtful_[turn] == 0 && take_over_run(turn, end)) turn = end;
      while (turn < end) add_turn(turn++);
    }
    graph.nodes.push_back({here()});
    for (Index crossing = 0; crossing < mesh_.crossings.size(); ++crossing) add_crossing(crossing);
    graph.first_beyond.push_back(here());
  }

 private:
  Index here() const { return static_cast<Index>(mesh_.turns.to.size()); }

  // Which node each was before, and which each is now; kNone: it is new, or gone.
  void note_origins() {
    origin_.assign(nodes_.count(), kNone);
    now_.assign(old_nodes_.count(), kNone);
    const auto note = [&](Index before, Index now) {
      origin_[now] = before;
      now_[before] = now;
    };
    for (Index i = 0; i < old_.corners.size(); ++i) {
      const Index now = cutting_.moved.corner[i];
      if (now == kNone) continue;
      for (Index hand = 0; hand < 2; ++hand) note(2 * i + hand, 2 * now + hand);
    }
    for (Index i = 0; i < old_.crossings.size(); ++i) {
      const Index now = cutting_.moved.crossing[i];
      if (now != kNone) note(old_nodes_.turn_count() + i, nodes_.turn_count() + now);
    }
  }

  // A turn of which it has to be found out whether it sees what it saw before: one that is new, one
  // that saw something that is gone, one whose sights may pass what is new. What sees something is
  // what is seen from there, both turned round; where that does not hold, for not all turns are
  // linked, it is noticed when sights are taken over.
  void note_doubtful() {
    is_doubtful_.assign(nodes_.turn_count(), 0);
    for (Index turn = 0; turn < nodes_.turn_count(); ++turn) {
      const Index before = origin_[turn];
      is_doubtful_[turn] =
          before == kNone || sees_new_[turn] != 0 ||
          reaches_new(mesh_.turns.places[turn / 2], old_.turns.nodes[before].reach);
    }
    for (Index gone = 0; gone < old_nodes_.turn_count(); ++gone) {
      if (now_[gone] != kNone) continue;
      for (const Index seen : old_.turns.seen_from(gone)) {
        const Index now = now_[old_nodes_.turned_round(seen)];
        if (now < nodes_.turn_count()) is_doubtful_[now] = 1;
      }
    }
  }

  // Where turns end that were one after the other before as well, and are all taken over; one that
  // is not is a run of its own.
  Index end_of_run(Index first) const {
    constexpr Index kMost = 1024;
    const Index end = std::min(first + kMost, 2 * mesh_.turns.linked);
    if (is_doubtful_[first] != 0 || first >= end) return first + 1;
    Index at = first + 1;
    while (at < end && is_doubtful_[at] == 0 && origin_[at] == origin_[at - 1] + 1) ++at;
    return at;
  }

  // False if something that was seen is gone.
  bool take_over_run(Index first, Index end) {
    if (first >= 2 * mesh_.turns.linked) return false;
    TurnGraph& graph = mesh_.turns;
    const Index before = origin_[first];
    const Index more = here() - old_.turns.nodes[before].first;
    for (Index i = 0; i < end - first; ++i) {
      TurnNode node = old_.turns.nodes[before + i];
      node.first += more;
      graph.nodes.push_back(node);
    }
    const Index from = old_.turns.nodes[before].first;
    const Index count = old_.turns.nodes[before + end - first].first - from;
    const std::size_t begin = graph.to.size();
    graph.to.resize(begin + count);
    bool stays = true;
    for (Index i = 0; i < count; ++i) {
      const Index now = now_[old_.turns.to[from + i]];
      graph.to[begin + i] = now;
      stays &= now != kNone;
    }
    if (stays) return true;
    graph.to.resize(begin);
    graph.nodes.resize(graph.nodes.size() - (end - first));
    return false;
  }

  // What is seen from there now sees what is new as well.
  void look_from_all_that_is_new() {
    sees_new_.assign(nodes_.count(), 0);
    for (Index node = 0; node < nodes_.count(); ++node) {
      if (origin_[node] != kNone) continue;
      for (const Index seen : look(node)) sees_new_[nodes_.turned_round(seen)] = 1;
    }
  }

  const std::vector<Index>& look(Index node) {
    if (node < nodes_.turn_count()) return fan_.look(mesh_, node / 2, Hand{node % 2});
    return fan_.look_beyond(mesh_, mesh_.crossings[node - nodes_.turn_count()]);
  }

  // The first so many were linked. If that were all, then all are linked now as well.
  static Index linked_of(Index linked, std::size_t all, const std::vector<Index>& moved,
                         std::size_t now) {
    if (linked == all) return static_cast<Index>(now);
    return static_cast<Index>(
        std::count_if(moved.begin(), moved.begin() + linked, [](Index to) { return to != kNone; }));
  }

  void add_turn(Index turn) {
    mesh_.turns.nodes.push_back({here(), std::numeric_limits<float>::infinity()});
    if (turn / 2 < mesh_.turns.linked) mesh_.turns.nodes.back().reach = find_seen_from(turn);
  }

  // Gives back how far it looked.
  float find_seen_from(Index turn) {
    const Index before = origin_[turn];
    if (before != kNone && sees_new_[turn] == 0) {
      const float reach = old_.turns.nodes[before].reach;
      if (take_over(turn, old_.turns.seen_from(before), reach)) return reach;
    }
    add(look(turn));
    return fan_.reach();
  }

  void add_crossing(Index crossing) {
    mesh_.turns.first_beyond.push_back(here());
    if (crossing >= mesh_.turns.linked_crossings) return;
    const Index node = nodes_.turn_count() + crossing;
    const Index before = origin_[node];
    if (before != kNone && sees_new_[node] == 0) {
      const auto seen = old_.turns.seen_beyond(before - old_nodes_.turn_count());
      if (take_over(node, seen, std::numeric_limits<float>::infinity())) return;
    }
    add(look(node));
  }

  void add(const std::vector<Index>& seen) {
    mesh_.turns.to.insert(mesh_.turns.to.end(), seen.begin(), seen.end());
  }

  // Takes what was seen over, with new numbers. False if part of it is gone, or if something new
  // stands near a sight.
  bool take_over(Index node, std::span<const Index> seen, float reach) {
    const MeshPoint& from = place_of(node);
    std::vector<Index>& to = mesh_.turns.to;
    const std::size_t begin = to.size();
    to.resize(begin + seen.size());
    bool stays = true;
    for (std::size_t i = 0; i < seen.size(); ++i) {
      const Index now = now_[seen[i]];
      to[begin + i] = now;
      stays &= now != kNone;
    }
    if (stays && reaches_new(from, reach)) {
      const auto is_seen = [&](Index now) { return !is_crossed(from, nodes_.at(now)); };
      stays = std::all_of(to.begin() + static_cast<std::ptrdiff_t>(begin), to.end(), is_seen);
    }
    if (!stays) to.resize(begin);
    return stays;
  }

  // Where a way goes on from a node.
  const MeshPoint& place_of(Index node) const {
    if (node < nodes_.turn_count()) return nodes_.at(node);
    return mesh_.crossings[node - nodes_.turn_count()].to;
  }

  bool reaches_new(const MeshPoint& from, float reach) const {
    const double most = static_cast<double>(reach) + kNear;
    for (const PlanBox& box : boxes_) {
      const double x = std::clamp(from.x, box.low.x(), box.high.x()) - from.x;
      const double y = std::clamp(from.y, box.low.y(), box.high.y()) - from.y;
      if (x * x + y * y <= most * most) return true;
    }
    return false;
  }

  bool is_crossed(const MeshPoint& from, const MeshPoint& to) const {
    const Vector2d near{kNear, kNear};
    const Vector2d a{from.x, from.y};
    const Vector2d b{to.x, to.y};
    const PlanBox around{a.cwiseMin(b) - near, a.cwiseMax(b) + near};
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (!boxes_[i].overlaps(around)) continue;
      if (passes_near(from, to, cutting_.hindrances[i].outline)) return true;
    }
    return false;
  }

  NavigationMesh::Data& mesh_;
  const NavigationMesh::Data& old_;
  const Cutting& cutting_;
  Nodes nodes_;
  Nodes old_nodes_;
  CornerFan fan_;
  std::vector<PlanBox> boxes_;     ///< By hindrance.
  std::vector<Index> origin_;      ///< By node: which it was before.
  std::vector<Index> now_;         ///< By node before: which it is now.
  std::vector<char> sees_new_;     ///< By node.
  std::vector<char> is_doubtful_;  ///< By turn.
};

}  // namespace

void mend_turns(NavigationMesh::Data& mesh, const NavigationMesh::Data& old,
                const Cutting& cutting) {
  MendTurns(mesh, old, cutting).mend();
}

}  // namespace gaze
