#include "geometry/triangulation.hpp"
#include "navigation/mesh.hpp"

namespace gaze {
namespace {

// Gives a corner to all edges that leave its vertex within its part of the free space. The last of
// these edges is the one on the rim.
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
  struct Found {
    MeshCorner corner;
    std::uint32_t rim = kNone;
  };
  std::vector<Found> found;
  mesh.corners.clear();
  for (MeshEdge& edge : mesh.edges) edge.corner = kNone;
  for (std::uint32_t e = 0; e < mesh.edges.size(); ++e) {
    if (mesh.edges[e].twin != kNone) continue;
    const std::uint32_t after = turn_round(mesh, e, kNone);
    const MeshPoint& a = mesh.edges[e].from;
    const MeshPoint& v = mesh.edges[after].from;
    const MeshPoint& b = mesh.edges[mesh.next(after)].from;
    if (turn(a, v, b) < 0.0) found.push_back({{v, a, b, after}, e});
  }
  // Searches go from corner to corner. So corners that are near to each other in space are put near
  // to each other in memory.
  std::vector<LatticePoint> places;
  places.reserve(found.size());
  for (const Found& one : found) places.push_back(to_lattice({one.corner.at.x, one.corner.at.y}));
  for (const std::uint32_t i : in_order_of_space(places)) {
    turn_round(mesh, found[i].rim, static_cast<std::uint32_t>(mesh.corners.size()));
    mesh.corners.push_back(found[i].corner);
  }
}

}  // namespace gaze
