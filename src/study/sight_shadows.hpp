#pragma once

#include <vector>

#include "gaze/world.hpp"
#include "study/regions.hpp"

namespace gaze {

/// The positions that solids hide from an eye, at one height at a time. The shadow of a convex
/// piece is the projection of its corners from the eye to that height: a projective map keeps
/// convex bodies convex. For ground and space levels.
class SightShadows {
 public:
  /// Collects the pieces that stop sight within `reach` metres of the eye. Cost: all pieces of the
  /// world.
  SightShadows(const World& world, const Vector3d& eye, double reach);

  /// Returns whether the eye is inside a solid or on its surface.
  [[nodiscard]] bool is_blind() const { return is_blind_; }
  /// Returns the hidden positions at a height, metres. Exact within `reach`.
  [[nodiscard]] Outlines at(double height) const;

 private:
  using Corners = std::vector<Vector3d>;
  [[nodiscard]] Outline shadow_of(const Corners& corners, double height) const;

  Vector3d eye_;
  Vector2d at_;  ///< The eye in top view.
  double reach_;
  std::vector<Corners> pieces_;
  bool is_blind_ = false;
};

}  // namespace gaze
