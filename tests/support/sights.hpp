#pragma once

#include <vector>

#include "gaze/sight.hpp"

/// One who looks and one who is looked at, for tests of sight without a simulation.
namespace gaze::testing {

inline const std::vector<double> kThreePoints{0.0, 0.5, 1.0};

/// At the origin, facing x, its eye 1 m up; sees 10 m.
inline Looker watcher(double field_deg = 90.0) {
  Sight sight;
  sight.range = 10.0;
  sight.field_of_view = Angle::from_degrees(field_deg);
  sight.eye = Vector3d{0.0, 0.0, 1.0};
  return {{0, 0, 0}, {1, 0}, sight, false};
}

inline LookedAt someone(const Vector3d& feet) {
  return {feet, 2.0, kThreePoints, 0.5};  // its middle at 1 m, level with the eye
}

}  // namespace gaze::testing
