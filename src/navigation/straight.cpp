#include <array>
#include <vector>

#include "navigation/follow.hpp"

namespace gaze {
namespace {

constexpr double kOnEdge = 1e-9;  // square metres
/// Follows a straight way from face to face over whatever edge it meets, and turns back where that
/// leads nowhere.
class Follower {
 public:
  Follower(const NavigationMesh::Data& mesh, const MeshPoint& from, std::uint32_t to_face,
           const MeshPoint& to)
      : mesh_(mesh), from_(from), to_face_(to_face), to_(to) {}

  /// The face in which the way ends; kNone if the way leaves the mesh.
  std::uint32_t follow(std::uint32_t from_face) {
    std::size_t at = enter(from_face, 0);
    while (true) {
      const std::uint32_t face = entered(at).face;
      if (to_face_ == kNone ? holds(mesh_, face, to_) : face == to_face_) return face;
      const std::uint32_t next = next_after(face);
      if (next != kNone) {
        at = enter(next, at);
      } else if (at == 0) {
        return kNone;
      } else {
        at = entered(at).before;
      }
    }
  }

 private:
  struct Entered {
    std::uint32_t face = kNone;
    std::size_t before = 0;  ///< From where it was entered.
  };

  const Entered& entered(std::size_t i) const {
    return i < few_.size() ? few_[i] : more_[i - few_.size()];
  }
  std::size_t enter(std::uint32_t face, std::size_t before) {
    if (count_ < few_.size()) {
      few_[count_] = {face, before};
    } else {
      more_.push_back({face, before});
    }
    return count_++;
  }
  bool has_entered(std::uint32_t face) const {
    for (std::size_t i = count_; i-- > 0;) {
      if (entered(i).face == face) return true;
    }
    return false;
  }

  std::uint32_t next_after(std::uint32_t face) const {
    const std::uint32_t exit = exit_towards(
        mesh_, face, from_, to_, [&](std::uint32_t beyond) { return has_entered(beyond); });
    return exit == kNone ? kNone : mesh_.edges[mesh_.edges[exit].twin].polygon;
  }

  const NavigationMesh::Data& mesh_;
  MeshPoint from_;
  std::uint32_t to_face_;
  MeshPoint to_;
  std::array<Entered, 64> few_;  ///< Enough for most ways.
  std::vector<Entered> more_;    ///< For ways along walls of very many parts.
  std::size_t count_ = 0;
};

/// Where the plain walk from face to face stops: in which face, and at which edge the way leaves
/// it, if it does.
struct Stop {
  std::uint32_t face = kNone;
  std::uint32_t exit = kNone;
  bool has_arrived = false;
};

Stop walk_on(const NavigationMesh::Data& mesh, std::uint32_t from_face, const MeshPoint& from,
             std::uint32_t to_face, const MeshPoint& to) {
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
    if (exit == kNone || mesh.edges[exit].twin == kNone) return {face, exit, false};
    // An edge behind the end of the way need not be crossed.
    const MeshPoint& a = mesh.edges[exit].from;
    const MeshPoint& b = mesh.edges[mesh.next(exit)].from;
    if (turn(a, b, to) > 0.0) return {face, exit, false};
    entry = mesh.edges[exit].twin;
    face = mesh.edges[entry].polygon;
  }
  return {face, kNone, true};
}

// Rounding alone may have stopped the walk: beside a vertex, or at the rim of the face next to its
// end.
bool is_close_call(const NavigationMesh::Data& mesh, const Stop& stop, const MeshPoint& from,
                   const MeshPoint& to) {
  if (stop.exit == kNone) return true;
  const MeshFace& its = mesh.faces[stop.face];
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    const MeshPoint& a = mesh.edges[e].from;
    if (lies_on(from, to, a) || lies_on(a, mesh.edges[mesh.next(e)].from, to)) return true;
  }
  return false;
}

}  // namespace

bool holds(const NavigationMesh::Data& mesh, std::uint32_t face, const MeshPoint& p) {
  const MeshFace& its = mesh.faces[face];
  for (std::uint32_t e = its.first; e < its.first + its.count; ++e) {
    if (turn(mesh.edges[e].from, mesh.edges[mesh.next(e)].from, p) < -kOnEdge) return false;
  }
  return true;
}

std::uint32_t face_straight_on(const NavigationMesh::Data& mesh, std::uint32_t from_face,
                               const MeshPoint& from, std::uint32_t to_face, const MeshPoint& to) {
  const Stop stop = walk_on(mesh, from_face, from, to_face, to);
  if (stop.has_arrived) return stop.face;
  if (!is_close_call(mesh, stop, from, to)) return kNone;
  return Follower(mesh, from, to_face, to).follow(from_face);
}

bool is_straight_free(const NavigationMesh::Data& mesh, std::uint32_t from_face,
                      const MeshPoint& from, std::uint32_t to_face, const MeshPoint& to) {
  return face_straight_on(mesh, from_face, from, to_face, to) != kNone;
}

}  // namespace gaze
