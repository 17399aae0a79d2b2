#include "navigation/mesh_triangles.hpp"

#include <array>
#include <utility>

namespace gaze {
namespace {

/// What lies beyond a side of a triangle: another of the same face, or an edge of that.
struct Out {
  std::uint32_t number = kNone;  ///< Of the way into that triangle, or of the edge; not known yet.
  bool is_edge = false;
};

/// A vertex of what is left of a face, and what lies beyond the side from there to the next.
struct Vertex {
  std::uint32_t edge = 0;  ///< Of the mesh, which begins there.
  Out out;
};

class TriangleCutting {
 public:
  TriangleCutting(const NavigationMesh::Data& mesh, MeshTriangles& to) : mesh_(mesh), to_(to) {
    to_.through.resize(mesh.edges.size());
    to_.ways.reserve(3 * mesh.edges.size());
    out_.reserve(3 * mesh.edges.size());
  }

  void cut() {
    for (std::uint32_t face = 0; face < mesh_.faces.size(); ++face) cut_face(face);
    for (std::size_t first = 0; first < to_.ways.size(); first += 3) {
      for (std::size_t k = 0; k < 3; ++k) {
        to_.ways[first + k].right = way_out(out_[first + (k + 1) % 3]);
        to_.ways[first + k].left = way_out(out_[first + (k + 2) % 3]);
      }
    }
  }

 private:
  std::uint32_t way_out(const Out& out) const {
    if (!out.is_edge) return out.number;
    const std::uint32_t twin = mesh_.edges[out.number].twin;
    return twin == kNone ? kNone : to_.through[twin];
  }

  // Cuts one corner off after the other, the first that can be. There is one behind the first
  // vertex: of three corners or more no two leave something flat.
  void cut_face(std::uint32_t number) {
    const MeshFace& face = mesh_.faces[number];
    ring_.clear();
    for (std::uint32_t e = face.first; e < face.first + face.count; ++e) {
      ring_.push_back({e, {e, true}});
    }
    while (ring_.size() > 3) {
      std::size_t i = 1;
      while (i + 1 < ring_.size() && !can_be_cut(i)) ++i;
      cut_corner(number, i);
    }
    add_triangle(number, {ring_[0], ring_[1], ring_[2]});
  }

  // Faces may have vertices in the midst of a straight side: no triangle is to be flat, and not
  // what is left either.
  bool can_be_cut(std::size_t i) const {
    if (!is_left_turn(i, ring_.size())) return false;
    for (std::size_t k = 0; k < ring_.size(); ++k) {
      if (k != i && is_left_turn(k, i)) return true;
    }
    return false;
  }

  // At a vertex of the ring without the one that is skipped.
  bool is_left_turn(std::size_t i, std::size_t skipped) const {
    const std::size_t count = ring_.size();
    std::size_t before = (i + count - 1) % count;
    std::size_t after = (i + 1) % count;
    if (before == skipped) before = (before + count - 1) % count;
    if (after == skipped) after = (after + 1) % count;
    return turn(at(before), at(i), at(after)) > 0.0;
  }

  const MeshPoint& at(std::size_t i) const { return mesh_.edges[ring_[i].edge].from; }

  // The triangle of a vertex and those beside it; the ring goes past it then.
  void cut_corner(std::uint32_t face, std::size_t i) {
    Vertex& before = ring_[i - 1];
    const Vertex after{ring_[(i + 1) % ring_.size()].edge, {}};
    add_triangle(face, {before, ring_[i], after});
    before.out = {static_cast<std::uint32_t>(to_.ways.size() - 1), false};
    ring_.erase(ring_.begin() + static_cast<std::ptrdiff_t>(i));
  }

  void add_triangle(std::uint32_t face, const std::array<Vertex, 3>& corners) {
    const bool has_crossings = !mesh_.crossings_of(face).empty();
    for (std::size_t k = 0; k < 3; ++k) {
      const auto way = static_cast<std::uint32_t>(to_.ways.size());
      const MeshEdge& apex = mesh_.edges[corners[(k + 2) % 3].edge];
      const Out& out = corners[k].out;
      const bool enters = out.is_edge && has_crossings;
      to_.ways.push_back({apex.from, kNone, kNone, apex.corner, enters ? face : kNone});
      out_.push_back(out);
      if (out.is_edge) {
        to_.through[out.number] = way;
      } else if (out.number != kNone) {
        out_[out.number] = {way, false};
      }
    }
  }

  const NavigationMesh::Data& mesh_;
  MeshTriangles& to_;
  std::vector<Out> out_;      ///< By way: back through it.
  std::vector<Vertex> ring_;  ///< Of the face that is being cut.
};

}  // namespace

MeshTriangles::MeshTriangles(const NavigationMesh::Data& mesh) {
  TriangleCutting(mesh, *this).cut();
}

}  // namespace gaze
