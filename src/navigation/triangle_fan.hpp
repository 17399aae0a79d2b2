#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "navigation/corner_fan.hpp"

namespace gaze {

/// The same as `CornerFan` for a look from every corner of a mesh: before the first look the faces
/// are cut into triangles. A look goes from triangle to triangle, and in each only the corner
/// opposite is asked about: on which side of the view it lies, or that it parts the view in two
/// (Bungiu, Hemmer, Hershberger, Huang and Kroeller, "Efficient computation of visibility
/// polygons", 2014). The sides of a view pass through corners of the mesh alone, so that nothing is
/// rounded that lies on the lattice.
class TriangleFan {
 public:
  explicit TriangleFan(const NavigationMesh::Data& mesh);

  /// The turns that are seen from a corner, in ascending order. The span is valid until the next
  /// look.
  const std::vector<std::uint32_t>& look(std::uint32_t corner, Hand side);

  /// How far the last look reached, metres, rounded up: nothing farther away was seen.
  float reach() const { return static_cast<float>(std::sqrt(reach2_)) * 1.00001F; }

  /// Through how many gaps it has looked so far, in all looks together.
  std::size_t gaps_looked_through() const { return gaps_looked_through_; }

 private:
  /// A way into a triangle, through one of its sides.
  struct Way {
    MeshPoint apex;               ///< Its corner opposite.
    std::uint32_t right = kNone;  ///< The way on through its side to the right; kNone: the rim.
    std::uint32_t left = kNone;
    std::uint32_t corner = kNone;  ///< Of the mesh, at the apex.
    std::uint32_t face = kNone;    ///< Into which it leads, if crossings begin there.
  };
  /// What is still to be looked through, between two directions.
  struct View {
    MeshPoint right;
    MeshPoint left;
    std::uint32_t way = 0;
  };

  /// What lies beyond a side of a triangle: another of the same face, or an edge of that.
  struct Out {
    std::uint32_t number = 0;  ///< Of the way into that triangle, or of the edge.
    bool is_edge = false;
  };
  /// A vertex of what is left of a face, and what lies beyond the side from there to the next.
  struct Vertex {
    std::uint32_t edge = 0;  ///< Of the mesh, which begins there.
    Out out;
  };

  const MeshPoint& at(std::size_t i) const { return mesh_.edges[ring_[i].edge].from; }
  void cut_face(std::uint32_t number);
  void cut_corner(std::uint32_t face, std::size_t i);
  void add_triangle(std::uint32_t face, const std::array<Vertex, 3>& corners);
  void open(std::uint32_t edge);
  void open_edge(std::uint32_t edge);
  bool look_on();
  bool is_in(const MeshPoint& p) const;
  void take(std::uint32_t corner);
  void take_crossings(std::uint32_t face, const MeshPoint& right, const MeshPoint& left);

  const NavigationMesh::Data& mesh_;
  std::vector<Way> ways_;               ///< Three for each triangle, one after the other.
  std::vector<std::uint32_t> ways_of_;  ///< By edge: the way through it into its own face.
  std::vector<Out> out_;                ///< By way, backwards through it; while it is made.
  std::vector<Vertex> ring_;            ///< Scratch: what is left of a face.
  CornerFan by_faces_;                  ///< For views that are split again and again.
  MeshPoint root_;
  MeshPoint right_;  ///< The sides of the fan pass through these.
  MeshPoint left_;
  std::vector<View> views_;
  std::vector<std::uint32_t> seen_;
  double reach2_ = 0.0;  ///< Squared.
  std::size_t gaps_looked_through_ = 0;
};

}  // namespace gaze
