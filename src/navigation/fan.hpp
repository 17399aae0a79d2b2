#pragma once

#include <algorithm>
#include <cmath>
#include <optional>
#include <vector>

#include "navigation/mesh.hpp"

/// What a point sees over a mesh, one polygon after another.
namespace gaze {

/// Metres. If the view ends this near to a vertex, it is taken to end at the vertex. Vertices are
/// at least 0.2 mm apart, so that no two are mixed up.
constexpr double kSnap = 1e-7;

/// The part of an edge through which a point looks into the face behind it.
struct Gap {
  MeshPoint right;
  MeshPoint left;
  std::uint32_t edge = kNone;
};

/// True if a point lies on an edge from `right` to `left`, or within `kSnap` of it. Such a point
/// sees all that lies beyond the edge.
inline bool lies_on(const MeshPoint& right, const MeshPoint& left, const MeshPoint& p) {
  const double off = turn(right, left, p);  // times the length
  if (off * off > kSnap * kSnap * squared_distance(right, left)) return false;
  return distance_to_segment(right, left, p) <= kSnap;
}

/// Calls visit(face) for a face that holds a point, and for all faces next to it that hold the
/// point as well: those about a vertex, or on both sides of an edge. `faces` is scratch memory.
template <typename Visit>
void each_face_about(const NavigationMesh::Data& mesh, std::uint32_t face, const MeshPoint& p,
                     std::vector<std::uint32_t>& faces, Visit&& visit) {
  faces.assign({face});
  for (std::size_t i = 0; i < faces.size(); ++i) {
    const MeshFace& its = mesh.faces[faces[i]];
    visit(faces[i]);
    for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
      if (mesh.edges[e].twin == kNone) continue;
      const std::uint32_t beyond = mesh.edges[mesh.edges[e].twin].polygon;
      if (std::find(faces.begin(), faces.end(), beyond) != faces.end()) continue;
      if (lies_on(mesh.edges[e].from, mesh.edges[mesh.next(e)].from, p)) faces.push_back(beyond);
    }
  }
}

/// Square metres. Within this, rounding may decide whether a way touches a corner.
constexpr double kTouching = 1e-12;

/// On which hand of a straight way from a point a corner stands, if the way may turn round it: both
/// edges that meet at the corner lie on that side.
inline std::optional<Hand> touches(const MeshPoint& from, const MeshCorner& corner) {
  const double before = turn(from, corner.at, corner.before);
  const double after = turn(from, corner.at, corner.after);
  if (before <= kTouching && after <= kTouching) return Hand::right;
  if (before >= -kTouching && after >= -kTouching) return Hand::left;
  return std::nullopt;
}

/// The turn by which a way from a point goes on round a corner, if it may.
inline std::optional<std::uint32_t> turn_seen(const NavigationMesh::Data& mesh,
                                              const MeshPoint& from, std::uint32_t corner) {
  if (corner == kNone) return std::nullopt;
  const MeshCorner& its = mesh.corners[corner];
  if (its.at.x == from.x && its.at.y == from.y) return std::nullopt;
  const auto side = touches(from, its);
  if (!side) return std::nullopt;
  return 2 * corner + static_cast<std::uint32_t>(*side);
}

/// The directions between which a way leaves that turns round a corner.
struct FanSides {
  MeshPoint right;
  MeshPoint left;
};

/// A way that has the corner on its right leaves between that of the rim behind the corner, and
/// straight on along the rim before it. For a way that has the corner on its left it is the other
/// way round.
inline FanSides sides_at(const MeshCorner& corner, Hand hand) {
  const auto beyond = [&](const MeshPoint& from) {
    return MeshPoint{2.0 * corner.at.x - from.x, 2.0 * corner.at.y - from.y};
  };
  if (hand == Hand::right) return {corner.after, beyond(corner.before)};
  return {beyond(corner.after), corner.before};
}

/// How far a look reached, metres, rounded up.
inline float rounded_reach(double squared) {
  return static_cast<float>(std::sqrt(squared)) * 1.00001F;
}

/// A face that is seen through a gap in its rim. Its edges are counted from the right end of the
/// gap to the left end.
class FaceView {
 public:
  FaceView(const NavigationMesh::Data& mesh, const MeshPoint& root, const Gap& gap)
      : mesh_(mesh),
        root_(root),
        gap_(gap),
        entry_(gap.edge),
        face_(mesh.faces[mesh.edges[gap.edge].polygon]),
        sees_all_(lies_on(gap.right, gap.left, root)) {
    count_ = face_.count - 1;
    if (sees_all_) {
      right_ = {0, edge(0).from, true};
      left_ = {count_, mesh.edges[entry_].from, true};
    } else {
      right_ = right_limit(root, gap.right);
      left_ = left_limit(root, gap.left);
    }
  }

  /// Calls visit(crossing) for each crossing that begins in the face and whose beginning is seen.
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

  /// Calls see(corner) for each corner that is seen, those on the sides of the view included, and
  /// visit(gap) for each edge seen that has a face beyond it from which a way may lead on.
  template <typename See, typename Visit>
  void look_through(See&& see, Visit&& visit) const {
    const std::uint32_t end = left_.is_vertex ? left_.index : left_.index + 1;
    for (std::uint32_t k = right_.index; k < std::min(end, count_); ++k) {
      const MeshEdge& seen = edge(k);
      const MeshEdge& after = edge(k + 1);
      const bool is_cut_on_right = k == right_.index && !right_.is_vertex;
      const bool is_cut_on_left = k == left_.index;
      if (!is_cut_on_right) see(seen.corner);
      if (!is_cut_on_left) see(after.corner);
      if (seen.twin == kNone) continue;
      const Gap gap{is_cut_on_right ? right_.place : seen.from,
                    is_cut_on_left ? left_.place : after.from, seen.twin};
      if (mesh_.faces[mesh_.edges[gap.edge].polygon].exits >= 2 && has_width(gap)) visit(gap);
    }
  }

 private:
  /// Where a side of the view leaves the face: on the edge `index`, or at the start of that edge.
  struct Limit {
    std::uint32_t index = 0;
    MeshPoint place;
    bool is_vertex = false;
  };

  // The edge numbered `count_` is the gap itself.
  const MeshEdge& edge(std::uint32_t k) const {
    const std::uint32_t at = entry_ + 1 + k;
    return mesh_.edges[at < face_.first + face_.count ? at : at - face_.count];
  }

  Limit between(std::uint32_t k, double at_start, double at_end) const {
    const MeshPoint& a = edge(k).from;
    const MeshPoint& b = edge(k + 1).from;
    const double share = at_start / (at_start - at_end);
    const MeshPoint place{a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share};
    if (squared_distance(place, b) <= kSnap * kSnap) return {k + 1, b, true};
    if (squared_distance(place, a) <= kSnap * kSnap) return {k, a, true};
    return {k, place, false};
  }

  // Through an edge that is seen edge-on nothing is seen. And who stands on an edge has come
  // through it already.
  bool has_width(const Gap& gap) const {
    if (sees_all_) return !lies_on(gap.right, gap.left, root_);
    return turn(root_, gap.right, gap.left) > 0.0;
  }

  // Vertices on a side of the view belong to the view: a way along a wall may turn there.
  Limit right_limit(const MeshPoint& root, const MeshPoint& right) const {
    std::uint32_t first = 0;
    double before = turn(root, right, edge(0).from);
    for (std::uint32_t k = 1; k <= count_; ++k) {
      const double side = turn(root, right, edge(k).from);
      if (before < -kTouching) first = k;
      if (side > kTouching) {
        if (first < k) return {first, edge(first).from, true};
        return between(k - 1, before, side);
      }
      before = side;
    }
    return {count_, edge(count_).from, true};
  }

  Limit left_limit(const MeshPoint& root, const MeshPoint& left) const {
    std::uint32_t last = count_;
    double before = turn(root, left, edge(count_).from);
    for (std::uint32_t k = count_; k-- > 0;) {
      const double side = turn(root, left, edge(k).from);
      if (before > kTouching) last = k;
      if (side < -kTouching) {
        if (last > k) return {last, edge(last).from, true};
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
