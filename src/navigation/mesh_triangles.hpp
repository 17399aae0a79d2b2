#pragma once

#include <cstdint>
#include <vector>

#include "navigation/mesh.hpp"

namespace gaze {

/// A way into a triangle of a mesh, through one of its sides.
struct TriangleWay {
  MeshPoint apex;               ///< Its corner opposite.
  std::uint32_t right = kNone;  ///< The way on through its side to the right; kNone: the rim.
  std::uint32_t left = kNone;
  std::uint32_t corner = kNone;  ///< Of the mesh, at the apex.
  std::uint32_t face = kNone;    ///< Into which it leads, if crossings begin there.
};

/// The faces of a mesh cut into triangles, none of which is flat.
struct MeshTriangles {
  std::vector<TriangleWay> ways;       ///< Three for each triangle, one after the other.
  std::vector<std::uint32_t> through;  ///< By edge of the mesh: the way through it into its face.

  explicit MeshTriangles(const NavigationMesh::Data& mesh);
};

}  // namespace gaze
