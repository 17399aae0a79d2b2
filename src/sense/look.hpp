#pragma once

#include "gaze/sight.hpp"

namespace gaze {

/// Where the eye of a looker is: forward, left, up from its feet.
[[nodiscard]] inline Vector3d eye_offset(const Looker& looker) {
  return looker.sight.eye.value_or(Vector3d{0.0, 0.0, kEyeShare * looker.height});
}

/// How far it sees, metres: farther if it has noticed the other.
[[nodiscard]] inline double range_of(const Looker& looker) {
  const Sight& sight = looker.sight;
  return looker.has_noticed ? sight.keep_range.value_or(sight.range) : sight.range;
}

/// Range, field of view and up and down, without the line of sight.
[[nodiscard]] Verdict look_without_rays(Plane plane, const Looker& looker, const LookedAt& other);

/// True if range and field of view pass. This is told as quickly as it can be.
[[nodiscard]] bool may_see(Plane plane, const Looker& looker, const LookedAt& other);

/// The share of body points that is reached, and whether it is enough. The point nearest to the
/// middle of the body says what is in the way.
[[nodiscard]] bool is_enough(const Looker& looker, double visible);
/// Returns how many of the body points have to be in line of sight, for a share of them: at
/// least 1.
[[nodiscard]] std::size_t points_needed(std::size_t points, double share);
[[nodiscard]] std::size_t middle_point(std::span<const double> shares);

[[nodiscard]] EvidenceRate rate_of(const Looker& looker, const LookedAt& other, double distance,
                                   double visible);
[[nodiscard]] Vector3d body_point(const LookedAt& other, double share);

}  // namespace gaze
