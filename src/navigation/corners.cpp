#include <algorithm>

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

// All edges on the rim; of a mended mesh those that end at a corner of a face that is new.
std::vector<std::uint32_t> rims(const NavigationMesh::Data& mesh, std::uint32_t first) {
  std::vector<std::uint32_t> found;
  for (std::uint32_t e = first; e < mesh.edges.size(); ++e) {
    if (first == 0) {
      if (mesh.edges[e].twin == kNone) found.push_back(e);
      continue;
    }
    std::uint32_t at = mesh.before(e);
    while (mesh.edges[at].twin != kNone && mesh.edges[at].twin != e) {
      at = mesh.before(mesh.edges[at].twin);
    }
    if (mesh.edges[at].twin == kNone) found.push_back(at);
  }
  std::sort(found.begin(), found.end());
  found.erase(std::unique(found.begin(), found.end()), found.end());
  return found;
}

}  // namespace

void find_corners(NavigationMesh::Data& mesh, const Anew& anew) {
  struct Found {
    MeshCorner corner;
    std::uint32_t rim = kNone;
  };
  std::vector<Found> found;
  for (const std::uint32_t e : rims(mesh, anew.first_edge)) {
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
