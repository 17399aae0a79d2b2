#include "travel/mesh.hpp"

namespace gaze {
namespace {

// Gives a corner to all edges that leave its vertex within its part of the free space; the last is
// the edge of the rim.
std::uint32_t turn_round(NavigationMesh::Data& mesh, std::uint32_t rim, std::uint32_t corner) {
  std::uint32_t at = mesh.next(rim);
  mesh.edges[at].corner = corner;
  while (mesh.edges[at].twin != kNone) {
    at = mesh.next(mesh.edges[at].twin);
    mesh.edges[at].corner = corner;
  }
  return at;
}

}  // namespace

void find_corners(NavigationMesh::Data& mesh) {
  mesh.corners.clear();
  for (MeshEdge& edge : mesh.edges) edge.corner = kNone;
  for (std::uint32_t e = 0; e < mesh.edges.size(); ++e) {
    if (mesh.edges[e].twin != kNone) continue;
    const std::uint32_t after = turn_round(mesh, e, kNone);
    const MeshPoint& a = mesh.edges[e].from;
    const MeshPoint& v = mesh.edges[after].from;
    const MeshPoint& b = mesh.edges[mesh.next(after)].from;
    if (!(turn(a, v, b) < 0.0)) continue;
    turn_round(mesh, e, static_cast<std::uint32_t>(mesh.corners.size()));
    mesh.corners.push_back({v, a, b, after});
  }
}

}  // namespace gaze
