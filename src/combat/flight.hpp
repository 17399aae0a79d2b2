#pragma once

#include "gaze/geometry.hpp"

namespace gaze {

struct FlightState {
  Vector3d place{0.0, 0.0, 0.0};
  Vector3d velocity{0.0, 0.0, 0.0};
};

/// Where something in free flight is after some seconds, exactly: pulled down by `fall` metres a
/// second squared, and slowed by `drag`, the share of its speed that it loses a second (v' = -drag
/// v - fall z), in steps of any length.
[[nodiscard]] FlightState flown(const FlightState& from, double fall, double drag, double seconds);

/// Turns a velocity towards a direction by at most so much. The speed stays the same.
[[nodiscard]] Vector3d turned_to(const Vector3d& velocity, const Vector3d& way,
                                 const SineCosine& most);

/// The velocity after a bounce off a surface: the part that goes into the surface comes back, and a
/// share of the speed is lost.
[[nodiscard]] Vector3d bounced(const Vector3d& velocity, const Vector3d& normal, double loss);

}  // namespace gaze
