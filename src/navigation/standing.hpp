#pragma once

#include <span>

#include "gaze/navigation.hpp"
#include "navigation/mesh.hpp"

namespace gaze {

/// Bodies that stand on a mesh, and the legs of ways that they bar to another body.
class Standing {
 public:
  /// Both outlive this. The bodies are of any size, in a level seen from above.
  Standing(const NavigationMesh& mesh, std::span<const Cylinder> bodies)
      : mesh_(mesh), bodies_(bodies) {}

  /// Ends of a leg at which the way begins or ends, where it does not pass who stands there.
  struct Ends {
    bool starts = false;
    bool ends = false;
  };

  /// True if a body stands so near to a leg of a way over the mesh that it is met, and on neither
  /// side of it there is room to get past: at a right angle to the leg where it comes nearest, one
  /// body's width beyond. Bodies that stand side by side are passed together.
  bool bars(const MeshPoint& from, const MeshPoint& to, Ends ends) const;

 private:
  /// The sum of both radii.
  double gap(const Cylinder& body) const { return body.radius + mesh_.body().radius; }
  bool has_room(const Vector2d& near, const Cylinder& body, const Vector2d& out) const;

  const NavigationMesh& mesh_;
  std::span<const Cylinder> bodies_;
};

}  // namespace gaze
