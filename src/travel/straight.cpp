#include "travel/mesh.hpp"

namespace gaze {

bool holds(const NavigationMesh::Data& mesh, std::uint32_t face, const MeshPoint& p) {
  constexpr double kOnEdge = 1e-9;  // square metres
  const MeshFace& its = mesh.faces[face];
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    if (turn(mesh.edges[e].from, mesh.edges[mesh.next(e)].from, p) < -kOnEdge) return false;
  }
  return true;
}

std::uint32_t face_straight_on(const NavigationMesh::Data& mesh, std::uint32_t from_face,
                               const MeshPoint& from, std::uint32_t to_face, const MeshPoint& to) {
  std::uint32_t face = from_face;
  std::uint32_t entry = kNone;
  while (to_face == kNone ? !holds(mesh, face, to) : face != to_face) {
    const MeshFace& its = mesh.faces[face];
    std::uint32_t exit = kNone;
    double before = turn(from, to, mesh.edges[its.first + its.count - 1].from);
    std::uint32_t edge = its.first + its.count - 1;
    for (std::uint32_t k = 0; k < its.count; ++k) {
      const std::uint32_t after = its.first + k;
      const double side = turn(from, to, mesh.edges[after].from);
      if (before <= 0.0 && side > 0.0 && edge != entry) exit = edge;
      before = side;
      edge = after;
    }
    if (exit == kNone || mesh.edges[exit].twin == kNone) return kNone;
    // Behind its end the way need not go.
    const MeshPoint& a = mesh.edges[exit].from;
    const MeshPoint& b = mesh.edges[mesh.next(exit)].from;
    if (turn(a, b, to) > 0.0) return kNone;
    entry = mesh.edges[exit].twin;
    face = mesh.edges[entry].polygon;
  }
  return face;
}

bool is_straight_free(const NavigationMesh::Data& mesh, std::uint32_t from_face,
                      const MeshPoint& from, std::uint32_t to_face, const MeshPoint& to) {
  return face_straight_on(mesh, from_face, from, to_face, to) != kNone;
}

}  // namespace gaze
