#pragma once

#include "gaze/sight.hpp"

namespace gaze {

/// Range, field of view and up and down, without the line of sight.
[[nodiscard]] Verdict look_without_rays(Plane plane, const Looker& looker, const LookedAt& other);

/// Whether range and field of view pass, as quickly as can be told.
[[nodiscard]] bool may_see(Plane plane, const Looker& looker, const LookedAt& other);

/// The share of body points that is reached, and whether that is enough. Speaks for the body: the
/// point nearest to its middle.
[[nodiscard]] bool is_enough(const Looker& looker, double visible);
[[nodiscard]] std::size_t middle_point(std::span<const double> shares);

[[nodiscard]] EvidenceRate rate_of(const Looker& looker, const LookedAt& other, double distance,
                                   double visible);
[[nodiscard]] Vector3d body_point(const LookedAt& other, double share);

}  // namespace gaze
