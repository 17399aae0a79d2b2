#pragma once

#include "gaze/sight.hpp"
#include "gaze/tools/cover.hpp"
#include "study/regions.hpp"

namespace gaze {

/// The positions on a floor at which a body is in range and in the field of view of an observer.
/// Line of sight does not count here. Valid as long as the observer and the floor.
class SightField {
 public:
  SightField(Plane plane, const Looker& looker, const FreeFloor& floor);

  /// Returns a radius about the eye, metres, that contains all of these positions.
  [[nodiscard]] double reach() const { return reach_; }
  [[nodiscard]] Outlines outlines() const;

 private:
  [[nodiscard]] double horizontal(double range) const;
  [[nodiscard]] Outlines in_angles() const;
  [[nodiscard]] double heading() const;
  [[nodiscard]] Outlines sector(double half) const;
  [[nodiscard]] Outlines between_heights(const Outlines& field, Angle vertical) const;
  [[nodiscard]] Outlines in_cone() const;
  [[nodiscard]] Outlines cone(double sign, double half) const;
  void add_corners(Outline& points, const Vector3d& axis, double cosine) const;

  Plane plane_;
  const Looker& looker_;
  const FreeFloor& floor_;
  Vector3d eye_;
  Vector2d at_;  ///< The eye in top view. In side view, the feet of a body centred at the eye.
  double rise_ = 0.0;   ///< Height of the centre of the body above the eye, metres.
  double reach_ = 0.0;  ///< Metres.
};

}  // namespace gaze
