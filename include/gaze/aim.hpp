#pragma once

#include <optional>

#include "gaze/geometry.hpp"
#include "gaze/public.hpp"

/// How to shoot at something that moves, asked of places and velocities alone.
GAZE_PUBLIC_BEGIN
namespace gaze {

/// A shot that meets its target.
struct Launch {
  Vector3d velocity{0.0, 0.0, 0.0};  ///< At the muzzle, metres a second.
  double seconds = 0.0;              ///< Until they meet; > 0.
  Vector3d meets{0.0, 0.0, 0.0};     ///< Where.
};

/// Straight, at an even speed, to where it meets a target that keeps its velocity: the least t > 0
/// with |way + motion t| = speed t, in closed form. Nothing if the target gets away, is at the
/// muzzle, or a number is not finite. `speed` in metres a second, above 0.
[[nodiscard]] std::optional<Launch> aim_lead(const Vector3d& muzzle, const Vector3d& target,
                                             const Vector3d& motion, double speed) noexcept;

/// In an arc, pulled down by `gravity` (metres a second squared, above 0), to where it meets a
/// target that keeps its velocity: of the two arcs the low, quick one, or the high one. For a
/// target that stands the square of the time solves g^2 T^2 / 4 + (g rise - speed^2) T + |way|^2 =
/// 0; from there Newton's method goes to the time for one that moves. Nothing if it is out of
/// reach.
[[nodiscard]] std::optional<Launch> aim_lob(const Vector3d& muzzle, const Vector3d& target,
                                            const Vector3d& motion, double speed, double gravity,
                                            bool high) noexcept;

/// How far away, level, a lob can come down `rise` metres above its muzzle: speed / g sqrt(speed^2
/// - 2 g rise). 0 if it does not get so high.
[[nodiscard]] double lob_reach(double speed, double gravity, double rise) noexcept;

}  // namespace gaze
GAZE_PUBLIC_END
