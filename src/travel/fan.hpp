#pragma once

#include <cmath>
#include <optional>

#include "travel/mesh.hpp"

/// What a point sees over a mesh, one polygon after another.
namespace gaze {

/// Metres: what is seen up to so near to a vertex is seen up to the vertex. Vertices are at least
/// 0.2 mm apart.
constexpr double kSnap = 1e-7;

/// What is seen of an edge, before entering the face whose edge it is.
struct Gap {
  MeshPoint right;
  MeshPoint left;
  std::uint32_t edge = kNone;
};

/// Square metres: rounding may decide within it whether a way touches a corner.
constexpr double kTouching = 1e-12;

/// The hand on which a straight way from a point touches a corner, if it does: both edges of the
/// corner lie on that side.
inline std::optional<Hand> touches(const MeshPoint& from, const MeshCorner& corner) {
  const double before = turn(from, corner.at, corner.before);
  const double after = turn(from, corner.at, corner.after);
  if (before <= kTouching && after <= kTouching) return Hand::right;
  if (before >= -kTouching && after >= -kTouching) return Hand::left;
  return std::nullopt;
}

/// One face seen through a gap: its edges are counted from the right end of the gap to the left.
class FaceView {
 public:
  FaceView(const NavigationMesh::Data& mesh, const MeshPoint& root, const Gap& gap)
      : mesh_(mesh),
        root_(root),
        gap_(gap),
        entry_(gap.edge),
        face_(mesh.faces[mesh.edges[gap.edge].polygon]),
        sees_all_(sees_all(root, gap)) {
    count_ = face_.count - 1;
    if (sees_all_) {
      right_ = {0, edge(0).from, true};
      left_ = {count_, mesh.edges[entry_].from, true};
    } else {
      right_ = right_limit(root, gap.right);
      left_ = left_limit(root, gap.left);
    }
  }

  /// Calls visit(crossing) for each crossing that begins in the face and is seen.
  template <typename Visit>
  void each_crossing(Visit&& visit) const {
    for (const std::uint32_t crossing : mesh_.crossings_of(mesh_.edges[entry_].polygon)) {
      const MeshPoint& at = mesh_.crossings[crossing].from;
      if (sees_all_ ||
          (turn(root_, gap_.right, at) >= -kTouching && turn(root_, gap_.left, at) <= kTouching)) {
        visit(crossing);
      }
    }
  }

  /// Calls visit(gap, right corner or kNone, left corner or kNone) for each edge seen that has a
  /// face beyond it other than a dead end.
  template <typename Visit>
  void each_gap(Visit&& visit) const {
    for (std::uint32_t k = right_.index; k < count_; ++k) {
      if (k > left_.index || (k == left_.index && left_.is_vertex)) return;
      const MeshEdge& seen = edge(k);
      if (seen.twin == kNone) continue;
      if (mesh_.faces[mesh_.edges[seen.twin].polygon].exits < 2) continue;
      const bool is_first = k == right_.index;
      const bool is_last = k == left_.index;
      const MeshEdge& after = edge(k + 1);
      const Gap gap{is_first ? right_.place : seen.from, is_last ? left_.place : after.from,
                    seen.twin};
      visit(gap, is_first && !right_.is_vertex ? kNone : seen.corner,
            is_last ? kNone : after.corner);
    }
  }

 private:
  /// Where the rim of what is seen leaves the face: on edge `index`, or where that edge starts.
  struct Limit {
    std::uint32_t index = 0;
    MeshPoint place;
    bool is_vertex = false;
  };

  // Edge `count_` is the gap's own.
  const MeshEdge& edge(std::uint32_t k) const {
    const std::uint32_t at = entry_ + 1 + k;
    return mesh_.edges[at < face_.first + face_.count ? at : at - face_.count];
  }

  // On the line of the gap, and not beyond its ends.
  static bool sees_all(const MeshPoint& root, const Gap& gap) {
    const double x = gap.left.x - gap.right.x;
    const double y = gap.left.y - gap.right.y;
    const double span2 = x * x + y * y;
    const double off = x * (root.y - gap.right.y) - y * (root.x - gap.right.x);
    if (off * off > kSnap * kSnap * span2) return false;
    const double along = (root.x - gap.right.x) * x + (root.y - gap.right.y) * y;
    const double slack = kSnap * std::sqrt(span2);
    return along >= -slack && along <= span2 + slack;
  }

  Limit between(std::uint32_t k, double at_start, double at_end) const {
    const MeshPoint& a = edge(k).from;
    const MeshPoint& b = edge(k + 1).from;
    const double share = at_start / (at_start - at_end);
    const MeshPoint place{a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share};
    if (distance(place, b) <= kSnap) return {k + 1, b, true};
    if (distance(place, a) <= kSnap) return {k, a, true};
    return {k, place, false};
  }

  Limit right_limit(const MeshPoint& root, const MeshPoint& right) const {
    double before = turn(root, right, edge(0).from);
    for (std::uint32_t k = 1; k <= count_; ++k) {
      const double side = turn(root, right, edge(k).from);
      if (side > 0.0) {
        if (before >= 0.0) return {k - 1, edge(k - 1).from, true};
        return between(k - 1, before, side);
      }
      before = side;
    }
    return {count_, edge(count_).from, true};
  }

  Limit left_limit(const MeshPoint& root, const MeshPoint& left) const {
    double before = turn(root, left, edge(count_).from);
    for (std::uint32_t k = count_; k-- > 0;) {
      const double side = turn(root, left, edge(k).from);
      if (side < 0.0) {
        if (before <= 0.0) return {k + 1, edge(k + 1).from, true};
        return between(k, side, before);
      }
      before = side;
    }
    return {0, edge(0).from, true};
  }

  const NavigationMesh::Data& mesh_;
  MeshPoint root_;
  Gap gap_;
  std::uint32_t entry_;
  const MeshFace& face_;
  bool sees_all_;
  std::uint32_t count_ = 0;  ///< Edges but the gap's own.
  Limit right_;
  Limit left_;
};

}  // namespace gaze
