#pragma once

#include <cstdint>
#include <vector>

#include "navigation/corner_fan.hpp"
#include "navigation/mesh_triangles.hpp"

namespace gaze {

/// The same as `CornerFan` for a look from every corner of a mesh: a look goes
/// from triangle to triangle, and in each only the corner opposite is asked about: on which side of
/// the view it lies, or that it parts the view in two (Bungiu, Hemmer, Hershberger, Huang and
/// Kroeller, "Efficient computation of visibility polygons", 2014). The sides of a view pass
/// through corners of the mesh alone, so that nothing is rounded that lies on the lattice.
class TriangleFan {
 public:
  explicit TriangleFan(const NavigationMesh::Data& mesh) : mesh_(mesh), triangles_(mesh) {}

  /// The turns that are seen from a corner, in ascending order. The span is valid until the next
  /// look.
  const std::vector<std::uint32_t>& look(std::uint32_t corner, Hand side);

  /// How far the last look reached, metres, rounded up: nothing farther away was seen.
  float reach() const { return rounded_reach(reach2_); }

  /// Through how many gaps it has looked so far, in all looks together.
  std::size_t gaps_looked_through() const { return gaps_looked_through_; }

 private:
  /// What is still to be looked through, between two directions.
  struct View {
    MeshPoint right;
    MeshPoint left;
    std::uint32_t way = 0;
  };

  void open(std::uint32_t edge);
  void open_edge(std::uint32_t edge);
  bool look_on();
  bool is_in(const MeshPoint& p) const;
  void take(std::uint32_t corner);
  void take_crossings(std::uint32_t face, const MeshPoint& right, const MeshPoint& left);

  const NavigationMesh::Data& mesh_;
  MeshTriangles triangles_;
  CornerFan by_faces_;  ///< For views that are split again and again.
  MeshPoint root_;
  FanSides sides_;
  std::vector<View> views_;
  std::vector<std::uint32_t> seen_;
  double reach2_ = 0.0;  ///< Squared.
  std::size_t gaps_looked_through_ = 0;
};

}  // namespace gaze
