#pragma once

#include <span>

#include "gaze/navigation.hpp"
#include "navigation/mesh.hpp"

namespace gaze {

/// Bodies that stand on a mesh, and which legs of ways they bar for another body.
class Standing {
 public:
  /// The mesh and the bodies have to outlive this object. The bodies may be of any size; the level
  /// is one that is seen from above.
  Standing(const NavigationMesh& mesh, std::span<const Cylinder> bodies)
      : mesh_(mesh), bodies_(bodies) {}

  /// Which ends of a leg are the beginning or the end of the whole way. Who stands there need not
  /// be passed.
  struct Ends {
    bool starts = false;
    bool ends = false;
  };

  /// True if a leg of a way is barred: a body stands so near to it that it would be met, and there
  /// is no room to get past on either side. Whether there is room is looked at where the leg comes
  /// nearest to the body, at a right angle to the leg, up to one body's width beyond. Bodies that
  /// stand side by side are passed together.
  bool bars(const MeshPoint& from, const MeshPoint& to, Ends ends) const;

 private:
  /// How near two bodies come to each other at the least: the sum of both radii.
  double gap(const Cylinder& body) const { return body.radius + mesh_.body().radius; }
  bool has_room(const MeshPlace& from, const Vector2d& near, const Cylinder& body,
                const Vector2d& out) const;

  const NavigationMesh& mesh_;
  std::span<const Cylinder> bodies_;
};

}  // namespace gaze
