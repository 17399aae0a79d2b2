#pragma once

#include "navigation/fan.hpp"

/// How to follow a straight way over a mesh, from face to face, where it touches vertices or runs
/// along edges. There rounding alone would decide which face comes next.
namespace gaze {

/// True if a straight way meets an edge, or passes beside it by no more than `kSnap`.
inline bool meets(const MeshPoint& from, const MeshPoint& to, const MeshPoint& a,
                  const MeshPoint& b) {
  const bool parts_them = (turn(from, to, a) > 0.0) != (turn(from, to, b) > 0.0);
  const bool is_parted = (turn(a, b, from) > 0.0) != (turn(a, b, to) > 0.0);
  return (parts_them && is_parted) || lies_on(from, to, a) || lies_on(from, to, b) ||
         lies_on(a, b, from) || lies_on(a, b, to);
}

/// By which edge a straight way leaves a face. It may leave by an edge that it meets and behind
/// which there is a face that has not been entered yet; of several such edges it is the one beyond
/// which the end of the way lies farthest. kNone if there is none. Faces are convex: a way that
/// meets a face at two places is in it, or beside it, in between. So who goes on by this rule, and
/// turns back where it leads nowhere, stays on the way.
template <typename HasEntered>
std::uint32_t exit_towards(const NavigationMesh::Data& mesh, std::uint32_t face,
                           const MeshPoint& from, const MeshPoint& to, HasEntered&& has_entered) {
  const MeshFace& its = mesh.faces[face];
  std::uint32_t best = kNone;
  double best_outward = 0.0;
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    if (mesh.edges[e].twin == kNone) continue;
    const MeshPoint& a = mesh.edges[e].from;
    const MeshPoint& b = mesh.edges[mesh.next(e)].from;
    if (has_entered(mesh.edges[mesh.edges[e].twin].polygon) || !meets(from, to, a, b)) continue;
    const double outward = -turn(a, b, to) / distance(a, b);
    if (best != kNone && outward <= best_outward) continue;
    best_outward = outward;
    best = e;
  }
  return best;
}

}  // namespace gaze
