#pragma once

#include "gaze/geometry.hpp"

namespace gaze {

/// A height that is a linear function of the plan.
struct HeightPlane {
  double base = 0.0;
  double along_x = 0.0;
  double along_y = 0.0;

  double at(double x, double y) const { return base + along_x * x + along_y * y; }
  double at(const Vector2d& p) const { return at(p.x(), p.y()); }
  bool is_level() const { return along_x == 0.0 && along_y == 0.0; }
  bool operator==(const HeightPlane&) const = default;
};

}  // namespace gaze
