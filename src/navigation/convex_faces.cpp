#include <algorithm>

#include "geometry/lattice.hpp"
#include "navigation/mesh.hpp"

/// When surfaces are joined, faces may become bent. These are cut into convex ones here, because
/// what is seen through a face is counted from one side of it to the other, and that is right for
/// convex faces alone.
namespace gaze {
namespace {

/// A side of a piece: an edge that was there before, or a cut between two pieces.
struct FaceSide {
  MeshEdge edge;
  std::uint32_t old = kNone;  ///< Its number as an edge.
  std::uint32_t cut = kNone;  ///< Both pieces beside a cut know it by this.
};

using FacePiece = std::vector<FaceSide>;

LatticePoint lattice_of(const FaceSide& side) {
  return to_lattice({side.edge.from.x, side.edge.from.y});
}

std::int64_t turn_at(const FacePiece& piece, std::size_t i) {
  const std::size_t count = piece.size();
  return side_of(lattice_of(piece[(i + count - 1) % count]), lattice_of(piece[i]),
                 lattice_of(piece[(i + 1) % count]));
}

bool is_convex(const FacePiece& piece) {
  for (std::size_t i = 0; i < piece.size(); ++i) {
    if (turn_at(piece, i) < 0) return false;
  }
  return true;
}

/// Cuts corners off until what is left is convex (Meisters, "Polygons have ears", 1975).
class FaceCutter {
 public:
  explicit FaceCutter(std::uint32_t first_cut) : next_cut_(first_cut) {}

  std::vector<FacePiece> pieces_of(FacePiece rest) {
    std::vector<FacePiece> pieces;
    while (rest.size() > 3 && !is_convex(rest)) {
      const std::size_t ear = find_ear(rest);
      if (ear == rest.size()) break;  // it touches itself; what is left stays as it is
      pieces.push_back(cut_off(rest, ear));
    }
    pieces.push_back(std::move(rest));
    return pieces;
  }

  std::uint32_t next_cut() const { return next_cut_; }

 private:
  // The piece that is cut off: the sides before and after the corner, and the cut that closes them.
  FacePiece cut_off(FacePiece& rest, std::size_t ear) {
    const std::size_t count = rest.size();
    const std::size_t before = (ear + count - 1) % count;
    const FaceSide& next = rest[(ear + 1) % count];
    FaceSide closing = next;
    closing.old = kNone;
    closing.cut = next_cut_;
    closing.edge.twin = kNone;
    FacePiece piece{rest[before], rest[ear], closing};
    rest[before].old = kNone;
    rest[before].cut = next_cut_++;
    rest[before].edge.twin = kNone;
    rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(ear));
    return piece;
  }

  // True if a corner may be cut off: it is convex, it stands next to a corner that is not, and the
  // cut piece holds no other corner.
  static std::size_t find_ear(const FacePiece& rest) {
    const std::size_t count = rest.size();
    for (const bool must_help : {true, false}) {
      for (std::size_t i = 0; i < count; ++i) {
        const bool helps =
            turn_at(rest, (i + count - 1) % count) < 0 || turn_at(rest, (i + 1) % count) < 0;
        if (turn_at(rest, i) > 0 && (helps || !must_help) && is_empty(rest, i)) return i;
      }
    }
    return count;
  }

  static bool is_empty(const FacePiece& rest, std::size_t ear) {
    const std::size_t count = rest.size();
    const LatticePoint a = lattice_of(rest[(ear + count - 1) % count]);
    const LatticePoint b = lattice_of(rest[ear]);
    const LatticePoint c = lattice_of(rest[(ear + 1) % count]);
    return std::none_of(rest.begin(), rest.end(), [&](const FaceSide& side) {
      const LatticePoint p = lattice_of(side);
      if (p == a || p == b || p == c) return false;
      return side_of(a, b, p) >= 0 && side_of(b, c, p) >= 0 && side_of(c, a, p) >= 0;
    });
  }

  std::uint32_t next_cut_;
};

FacePiece piece_of(const NavigationMesh::Data& mesh, const MeshFace& face) {
  FacePiece piece;
  for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
    piece.push_back({mesh.edges[e], e, kNone});
  }
  return piece;
}

/// Puts pieces in the place of faces, one after the other.
class Rebuilt {
 public:
  explicit Rebuilt(std::size_t edges) : moved_(edges, kNone) {}

  void add(const MeshFace& like, const FacePiece& piece) {
    MeshFace face = like;
    face.first = static_cast<std::uint32_t>(edges_.size());
    face.count = static_cast<std::uint32_t>(piece.size());
    for (const FaceSide& side : piece) {
      const auto number = static_cast<std::uint32_t>(edges_.size());
      edges_.push_back(side.edge);
      edges_.back().polygon = static_cast<std::uint32_t>(faces_.size());
      cuts_.push_back(side.cut);
      if (side.old != kNone) moved_[side.old] = number;
    }
    faces_.push_back(face);
  }

  void finish(NavigationMesh::Data& mesh, std::uint32_t cut_count) {
    std::vector<std::uint32_t> beside(cut_count, kNone);
    for (std::uint32_t e = 0; e < edges_.size(); ++e) {
      if (cuts_[e] == kNone) {
        if (edges_[e].twin != kNone) edges_[e].twin = moved_[edges_[e].twin];
      } else if (beside[cuts_[e]] == kNone) {
        beside[cuts_[e]] = e;
      } else {
        edges_[e].twin = beside[cuts_[e]];
        edges_[beside[cuts_[e]]].twin = e;
      }
    }
    mesh.edges = std::move(edges_);
    mesh.faces = std::move(faces_);
  }

 private:
  std::vector<MeshFace> faces_;
  std::vector<MeshEdge> edges_;
  std::vector<std::uint32_t> cuts_;   ///< By edge.
  std::vector<std::uint32_t> moved_;  ///< By old edge.
};

}  // namespace

void make_convex(NavigationMesh::Data& mesh) {
  FaceCutter cutter(0);
  Rebuilt rebuilt(mesh.edges.size());
  for (const MeshFace& face : mesh.faces) {
    for (const FacePiece& piece : cutter.pieces_of(piece_of(mesh, face))) rebuilt.add(face, piece);
  }
  if (cutter.next_cut() > 0) rebuilt.finish(mesh, cutter.next_cut());
}

}  // namespace gaze
